import * as z from 'zod'
import type { Calculator } from '../calculator'
import { notNegative, positive } from '../quantity'
import { figure } from '../units/format'
import { sourced } from '../working'

export const arrangements = ['one-leg', 'tied', 'split-phase', 'independent'] as const
export const legSchema = z.enum(['L1', 'L2'])
export type Leg = z.infer<typeof legSchema>

const input = z.strictObject({
  arrangement: z.enum(arrangements),
  liveLeg: legSchema.default('L1'),
  circuits: z
    .array(z.strictObject({ id: z.string(), leg: z.enum(['L1', 'L2', 'both']), VA: notNegative }))
    .min(1, 'must not be empty'),
  volts: positive.default(120),
})

const output = z.strictObject({
  L1A: z.number(),
  L2A: z.number(),
  neutralA: z.number(),
  served: z.array(z.string()),
  unserved: z.array(z.string()),
  imbalanceFraction: z.number(),
})

type Input = z.infer<typeof input>

/** Whether a circuit on this leg gets its proper voltage. `both` is a 240 V load: split phase only. */
export function legServed(arrangement: Input['arrangement'], liveLeg: Leg, leg: Leg | 'both'): boolean {
  if (leg === 'both') return arrangement === 'split-phase'
  return arrangement !== 'one-leg' || leg === liveLeg
}

/**
 * Amps on each leg and in the neutral for circuits of given volt-amps under an arrangement of voltage.
 * `VA` of each circuit, `volts` leg to neutral; amps out, `imbalanceFraction` 0–1.
 * Tied and independent legs have no fixed opposition, so their neutral carries the sum (worst case).
 * Source: Kirchhoff's current law on the neutral; `legs` of the calculators' contract.
 */
export const legs: Calculator<Input, z.infer<typeof output>> = {
  name: 'legs',
  question: 'What does each leg carry, and the neutral?',
  input,
  output,
  compute: (i, sources = {}) => {
    const isServed = (c: Input['circuits'][number]) => legServed(i.arrangement, i.liveLeg, c.leg)
    const served = i.circuits.filter(isServed)
    const legVA = (leg: Leg) =>
      served.reduce((sum, c) => sum + (c.leg === leg ? c.VA : c.leg === 'both' ? c.VA / 2 : 0), 0)
    const L1A = legVA('L1') / i.volts
    const L2A = legVA('L2') / i.volts
    const most = Math.max(L1A, L2A)
    const neutralA =
      i.arrangement === 'split-phase'
        ? Math.abs(L1A - L2A)
        : i.arrangement === 'one-leg'
          ? i.liveLeg === 'L1'
            ? L1A
            : L2A
          : L1A + L2A
    const imbalanceFraction = most === 0 ? 0 : Math.abs(L1A - L2A) / most
    const f = figure
    return {
      result: {
        L1A,
        L2A,
        neutralA,
        served: served.map(c => c.id),
        unserved: i.circuits.filter(c => !isServed(c)).map(c => c.id),
        imbalanceFraction,
      },
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
          { label: 'Arrangement', value: i.arrangement, unit: 'text', ...sourced(sources.arrangement) },
          { label: 'Volts, leg to neutral', value: i.volts, unit: 'V', ...sourced(sources.volts) },
          ...i.circuits.map(c => ({
            label: `${c.id} (${c.leg}${isServed(c) ? '' : ', not served'})`,
            value: c.VA,
            unit: 'VA' as const,
            ...sourced(sources.circuits),
          })),
        ],
        steps: [
          { label: 'L1', value: L1A, unit: 'A', arithmetic: `${f(legVA('L1'))} ÷ ${f(i.volts)}` },
          { label: 'L2', value: L2A, unit: 'A', arithmetic: `${f(legVA('L2'))} ÷ ${f(i.volts)}` },
          { label: 'Neutral', value: neutralA, unit: 'A' },
          { label: 'Imbalance', value: imbalanceFraction, unit: 'fraction' },
        ],
        references: ['Shared (multiwire) neutrals: NEC 210.4'],
        notCovered: [
          'Unity power factor between the legs is assumed: currents are added and subtracted without their phase angles.',
        ],
      },
    }
  },
}

/** Names the arrangement in the trade's words. */
export const arrangementName = {
  'one-leg': 'one leg',
  tied: 'both legs tied',
  'split-phase': 'split phase',
  independent: 'independent legs',
} as const satisfies Record<Input['arrangement'], string>
