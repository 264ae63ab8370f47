import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { arrangementName, arrangements, type Leg, legSchema } from '../panel/leg'
import { notNegative, positive } from '../quantity'
import { figure, quantity, together } from '../units/format'
import { sourced, step } from '../working'

const input = z.strictObject({
  arrangement: labelled(z.enum(arrangements), 'Arrangement', 'text', { names: arrangementName }),
  liveLeg: labelled(legSchema.default('L1'), 'Live leg (of one leg)'),
  circuits: labelled(
    z
      .array(
        z.strictObject({
          id: labelled(z.string(), 'Circuit'),
          leg: labelled(z.enum(['L1', 'L2', 'both']), 'Leg', 'text', { names: { both: 'both (240 V)' } }),
          VA: labelled(notNegative, 'Load', 'VA'),
        }),
      )
      .min(1, 'must not be empty'),
    'Circuits',
    'text',
    { row: 'Circuit' },
  ),
  volts: labelled(positive.default(120), 'Volts, leg to neutral', 'V'),
})

const output = z.strictObject({
  L1A: labelled(z.number(), 'L1', 'A'),
  L2A: labelled(z.number(), 'L2', 'A'),
  neutralA: labelled(z.number(), 'Neutral', 'A'),
  served: labelled(z.array(z.string()), 'Served'),
  unserved: labelled(z.array(z.string()), 'Not served'),
  imbalanceFraction: labelled(z.number(), 'Imbalance', 'fraction'),
})

type Input = z.infer<typeof input>

/** Whether a circuit on this leg gets its proper voltage. `both` is a 240 V load: split phase only. */
export function legServed(arrangement: Input['arrangement'], liveLeg: Leg, leg: Leg | 'both'): boolean {
  if (leg === 'both') return arrangement === 'split-phase'
  return arrangement !== 'one-leg' || leg === liveLeg
}

const legVA = (served: Input['circuits'], leg: Leg) =>
  served.reduce((sum, c) => sum + (c.leg === leg ? c.VA : c.leg === 'both' ? c.VA / 2 : 0), 0)

function solve(i: Input) {
  const isServed = (c: Input['circuits'][number]) => legServed(i.arrangement, i.liveLeg, c.leg)
  const served = i.circuits.filter(isServed)
  const L1A = legVA(served, 'L1') / i.volts
  const L2A = legVA(served, 'L2') / i.volts
  const most = Math.max(L1A, L2A)
  return {
    L1A,
    L2A,
    neutralA: neutralOf(i, L1A, L2A),
    served: served.map(c => c.id),
    unserved: i.circuits.filter(c => !isServed(c)).map(c => c.id),
    imbalanceFraction: most === 0 ? 0 : Math.abs(L1A - L2A) / most,
  }
}

function neutralOf(i: Input, L1A: number, L2A: number): number {
  if (i.arrangement === 'split-phase') return Math.abs(L1A - L2A)
  if (i.arrangement === 'one-leg') return i.liveLeg === 'L1' ? L1A : L2A
  return L1A + L2A
}

/**
 * Amps on each leg and in the neutral for circuits of given volt-amps under an arrangement of voltage.
 * `VA` of each circuit, `volts` leg to neutral; amps out, `imbalanceFraction` 0–1.
 * Tied and independent legs have no fixed opposition, so their neutral carries the sum (worst case).
 * Source: Kirchhoff's current law on the neutral; `legs` of the calculators' contract.
 */
export const legs = calculator({
  name: 'legs',
  topic: 'source',
  question: 'What do legs and neutral carry?',
  asked: [
    'leg balance',
    'split phase',
    'tied legs',
    'imbalance',
    '240 V',
    'half of the panel dead',
    'neutral current',
  ],
  input,
  output,
  example: {
    arrangement: 'split-phase',
    circuits: [
      { id: 'Refrigerator', leg: 'L1', VA: 700 },
      { id: 'Boiler', leg: 'L2', VA: 400 },
      { id: 'Well pump', leg: 'both', VA: 1500 },
    ],
  },
  solve,
  explain: (i, r, sources) => {
    const isServed = (c: Input['circuits'][number]) => legServed(i.arrangement, i.liveLeg, c.leg)
    const served = i.circuits.filter(isServed)
    const f = figure
    return {
      answer: `${quantity(r.L1A, 'A')} on L1, ${quantity(r.L2A, 'A')} on L2, ${quantity(r.neutralA, 'A')} in the neutral.${
        r.unserved.length ? ` Not served: ${together(r.unserved)}.` : ''
      }`,
      working: {
        title: 'Legs',
        formula: [
          'amps on a leg = volt-amps of its served circuits ÷ volts; a 240 V circuit loads both legs with half each',
          i.arrangement === 'split-phase'
            ? 'neutral = difference of the legs (opposite phase)'
            : i.arrangement === 'one-leg'
              ? 'neutral = the live leg'
              : 'neutral = sum of the legs (nothing cancels)',
        ],
        inputs: [
          {
            label: 'Arrangement',
            value: arrangementName[i.arrangement],
            unit: 'text',
            ...sourced(sources?.arrangement),
          },
          { label: 'Volts, leg to neutral', value: i.volts, unit: 'V', ...sourced(sources?.volts) },
          ...i.circuits.map(c => ({
            label: `${c.id} (${c.leg}${isServed(c) ? '' : ', not served'})`,
            value: c.VA,
            unit: 'VA' as const,
            ...sourced(sources?.circuits),
          })),
        ],
        steps: [
          step('L1', r.L1A, 'A', `${f(legVA(served, 'L1'))} ÷ ${f(i.volts)}`),
          step('L2', r.L2A, 'A', `${f(legVA(served, 'L2'))} ÷ ${f(i.volts)}`),
          step('Neutral', r.neutralA, 'A'),
          step('Imbalance', r.imbalanceFraction, 'fraction'),
        ],
        references: ['Shared (multiwire) neutrals: NEC 210.4'],
        notCovered: [
          'Unity power factor between the legs is assumed: currents are added and subtracted without their phase angles.',
        ],
      },
    }
  },
  curves: (_, r) => [
    {
      title: 'Amps on each conductor',
      kind: 'bars',
      x: { label: 'Conductor', unit: 'text' },
      y: { label: 'Current', unit: 'A' },
      series: [
        {
          name: 'Current',
          points: [
            { x: 'L1', y: r.L1A },
            { x: 'Neutral', y: r.neutralA },
            { x: 'L2', y: r.L2A },
          ],
        },
      ],
    },
  ],
})
