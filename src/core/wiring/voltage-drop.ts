import * as z from 'zod'
import { calculator } from '../calculator'
import { along, spread } from '../curve'
import { labelled } from '../field'
import { type Fault, fault } from '../outcome'
import { celsius, notNegative, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import {
  conductorName,
  conductorRow,
  type Material,
  metal,
  noSuchSize,
  sizeSchema,
  sizesOf,
} from '../units/tables/conductors'
import { step } from '../working'

const input = z.strictObject({
  material: metal,
  size: sizeSchema,
  oneWayFt: labelled(positive, 'Length, one way', 'ft'),
  currentA: labelled(notNegative, 'Current', 'A'),
  sourceV: labelled(positive, 'Volts at the source', 'V'),
  path: labelled(z.enum(['two-wire', 'balanced']), 'The current returns', 'text', {
    names: {
      'two-wire': 'in the other wire',
      balanced: 'in the other leg: a balanced 120/240 V run',
    },
  }),
  conductorC: labelled(celsius.default(75), 'Conductor runs at', 'C'),
})

const output = z.strictObject({
  ohms: labelled(z.number(), 'Resistance', 'ohm'),
  dropV: labelled(z.number(), 'Drop', 'V'),
  dropFraction: labelled(z.number(), 'Drop, share of the source', 'fraction'),
  loadV: labelled(z.number(), 'Volts at the load', 'V'),
  lossW: labelled(z.number(), 'Lost in the wire', 'W'),
})

type Input = z.infer<typeof input>

/** Change of resistance with temperature, per °C from 75 °C: NEC chapter 9, table 8, note 2. */
const perC: Record<Material, number> = { cu: 0.00323, al: 0.0033 }

/** Ohms of a thousand feet of one conductor at a temperature; NaN for a size the metal lacks. */
export function ohmPerKft(material: Material, size: string, conductorC: number): number {
  const table = conductorRow(size, material)?.ohmPerKft[material] ?? Number.NaN
  return table * (1 + perC[material] * (conductorC - 75))
}

function solve(i: Input) {
  const lengths = i.path === 'two-wire' ? 2 : 1
  const ohms = lengths * (i.oneWayFt / 1000) * ohmPerKft(i.material, i.size, i.conductorC)
  const dropV = ohms * i.currentA
  return {
    ohms,
    dropV,
    dropFraction: dropV / i.sourceV,
    loadV: i.sourceV - dropV,
    lossW: dropV * i.currentA,
  }
}

function faultsIn(i: Input): Fault[] {
  const perKft = ohmPerKft(i.material, i.size, i.conductorC)
  if (Number.isNaN(perKft)) return [fault('size', noSuchSize(i.material))]
  if (perKft <= 0)
    return [fault('conductorC', 'is so cold that the resistance formula gives nothing: it holds near 75 °C')]
  return solve(i).loadV < 0
    ? [fault('currentA', 'drops more than the source has: the run cannot carry it. Check length and size')]
    : []
}

/** The thinnest size with a drop of at most this share; null when none of the table is. */
const thinnest = (i: Input, mostFraction: number) =>
  sizesOf(i.material).find(size => solve({ ...i, size }).dropFraction <= mostFraction) ?? null

/**
 * Voltage drop along a run by direct-current resistance.
 * `oneWayFt` in ft, `currentA` in A, `sourceV` in V, `conductorC` in °C; ohms, volts and watts out.
 * Faults: a `size` the metal lacks; `currentA` that drops more than the source has.
 * Source: Ohm's law; resistance NEC chapter 9, table 8, with its note 2 for temperature.
 */
export const voltageDrop = calculator({
  name: 'voltage-drop',
  topic: 'wiring',
  question: 'How many volts does the run lose?',
  asked: [
    'is the wire thick enough',
    'voltage drop',
    'what size wire',
    'long run',
    'far end',
    'detached garage',
    'volts at the load',
  ],
  input,
  output,
  example: { material: 'cu', size: '10', oneWayFt: 60, currentA: 24, sourceV: 120, path: 'two-wire' },
  faultsIn,
  solve,
  explain: (i, r) => {
    const f = figure
    const wire = conductorName(i.size, i.material)
    const better = r.dropFraction > 0.03 ? thinnest(i, 0.03) : null
    const perKft = ohmPerKft(i.material, i.size, i.conductorC)
    const lengths = i.path === 'two-wire' ? 2 : 1
    return {
      answer: `Loses ${quantity(r.dropV, 'V')} (${quantity(r.dropFraction, 'fraction')}); ${quantity(r.loadV, 'V')} reach the load.${
        better
          ? ` For 3 % take ${better} AWG.`
          : r.dropFraction > 0.03
            ? ' No size of the table keeps it to 3 %.'
            : ''
      }`,
      working: {
        title: 'Voltage drop',
        formula: [
          'resistance per 1,000 ft = table × (1 + α × (conductor temperature − 75 °C))',
          i.path === 'two-wire'
            ? 'resistance = 2 × one-way length ÷ 1,000 × resistance per 1,000 ft (out and back)'
            : 'resistance = one-way length ÷ 1,000 × resistance per 1,000 ft (the neutral carries nothing)',
          'drop = resistance × current; lost power = drop × current',
        ],
        steps: [
          step(
            'Resistance per 1,000 ft',
            perKft,
            'ohm',
            `${f(conductorRow(i.size, i.material)?.ohmPerKft[i.material] ?? 0)} × (1 + ${perC[i.material]} × (${f(i.conductorC)} − 75))`,
          ),
          step('Resistance', r.ohms, 'ohm', `${lengths} × ${f(i.oneWayFt)} ÷ 1,000 × ${f(perKft)}`),
          step('Drop', r.dropV, 'V', `${f(r.ohms)} × ${f(i.currentA)}`),
          step('Share of the source', r.dropFraction, 'fraction', `${f(r.dropV)} ÷ ${f(i.sourceV)}`),
          step('At the load', r.loadV, 'V', `${f(i.sourceV)} − ${f(r.dropV)}`),
          step('Lost in the wire', r.lossW, 'W', `${f(r.dropV)} × ${f(i.currentA)}`),
        ],
        rows: [
          {
            table: 'NEC chapter 9, table 8',
            row: wire,
            column: '75 °C, stranded',
            value: `${f(conductorRow(i.size, i.material)?.ohmPerKft[i.material] ?? 0)} Ω per 1,000 ft`,
          },
        ],
        references: [
          'NEC chapter 9, table 8, note 2',
          'NEC 210.19 and 215.2, informational notes (3 % and 5 %)',
        ],
        ruleOfThumb: '3 % on the branch circuit, 5 % from source to farthest outlet; motors suffer first',
        notCovered: [
          'Reactance, which matters above 1/0 in steel conduit; splices and plugs; the source’s own sag.',
          'Ampacity: a wire thick enough for the drop can still be too thin for the current, and the reverse.',
        ],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'Drop against length',
      kind: 'line',
      x: { label: 'Length, one way', unit: 'ft' },
      y: { label: 'Drop', unit: 'fraction' },
      series: neighbours(i).map(size => ({
        name: `${size} AWG`,
        points: along(spread(0, i.oneWayFt * 2), oneWayFt => solve({ ...i, size, oneWayFt }).dropFraction),
      })),
      limits: [
        { label: '3 %', y: 0.03 },
        { label: '5 %', y: 0.05 },
      ],
      here: { x: i.oneWayFt, y: r.dropFraction },
    },
  ],
})

/** The size asked about first, then one thinner and one thicker. */
function neighbours(i: Input): string[] {
  const sizes: string[] = sizesOf(i.material)
  const at = sizes.indexOf(i.size)
  return [i.size, ...sizes.slice(Math.max(0, at - 1), at), ...sizes.slice(at + 1, at + 2)]
}
