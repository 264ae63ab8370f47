import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { notNegative, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { fromJob, type Provenance, step } from '../working'

const input = z.strictObject({
  peakW: labelled(notNegative, 'Highest demand of a year', 'W'),
  mainA: labelled(positive, 'Main breaker', 'A'),
  addedW: labelled(notNegative.default(0), 'Load to add', 'W'),
  volts: labelled(positive.default(240), 'Volts', 'V'),
  peakFactor: labelled(
    z.number().min(1, 'must be at least 1').default(1),
    'Allowance for hourly data',
    'count',
    {
      description: 'an hour’s mean hides the quarter-hour’s peak',
    },
  ),
})

const output = z.strictObject({
  existingA: labelled(z.number(), 'Existing, with a quarter on top', 'A'),
  totalA: labelled(z.number(), 'With what is added', 'A'),
  spareA: labelled(z.number(), 'To spare', 'A'),
  ok: labelled(z.boolean(), 'Within the main'),
})

type Input = z.infer<typeof input>

function solve(i: Input) {
  const existingA = (1.25 * i.peakW * i.peakFactor) / i.volts
  const totalA = existingA + i.addedW / i.volts
  const spareA = i.mainA - totalA
  return { existingA, totalA, spareA, ok: spareA >= 0 }
}

/**
 * Whether a panel can take more load, from a year's highest measured demand.
 * `peakW` and `addedW` in W, `mainA` in A, `volts` in V, `peakFactor` ≥ 1; amps out.
 * Source: NEC 220.87 (125 % of the highest demand, plus the new load).
 */
export const panelDemand = calculator({
  name: 'panel-demand',
  topic: 'loads',
  question: 'Can this panel take more load?',
  asked: ['220.87', 'service capacity', 'vehicle charger', 'main breaker', 'spare capacity', 'existing load'],
  input,
  output,
  example: { peakW: 11200, mainA: 100, addedW: 3800, peakFactor: 1.2 },
  solve,
  explain: (i, r) => {
    const f = figure
    return {
      answer: r.ok
        ? `${quantity(r.totalA, 'A')} of ${quantity(i.mainA, 'A')}: ${quantity(r.spareA, 'A')} to spare.`
        : `${quantity(r.totalA, 'A')} on a main of ${quantity(i.mainA, 'A')}: ${quantity(-r.spareA, 'A')} too much.`,
      working: {
        title: 'Panel demand',
        formula: [
          'existing = 1.25 × highest demand × allowance ÷ volts',
          'total = existing + load to add ÷ volts; it must not exceed the main',
        ],
        steps: [
          step('Existing', r.existingA, 'A', `1.25 × ${f(i.peakW)} × ${f(i.peakFactor)} ÷ ${f(i.volts)}`),
          step('Total', r.totalA, 'A', `${f(r.existingA)} + ${f(i.addedW)} ÷ ${f(i.volts)}`),
          step('To spare', r.spareA, 'A', `${f(i.mainA)} − ${f(r.totalA)}`),
        ],
        references: ['NEC 220.87'],
        notes: [
          '220.87 asks for a year of demand in 15-minute steps (or 30 days measured, adjusted for season); hourly data need an allowance.',
        ],
        notCovered: [
          'Balance of the legs, the feeder and bus ratings, and rooftop solar or storage that hid the peak.',
        ],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'What the main carries',
      kind: 'stacked',
      x: { label: 'Main', unit: 'text' },
      y: { label: 'Current', unit: 'A' },
      series: [
        { name: 'Existing × 1.25', points: [{ x: 'Main', y: r.existingA }] },
        { name: 'Added', points: [{ x: 'Main', y: i.addedW / i.volts }] },
      ],
      limits: [{ label: 'Main breaker', y: i.mainA }],
    },
  ],
})

/** What `panel-demand` says of a panel's highest demand, W, on its main, A, with `addedW` on top: NEC 220.87. */
export const demandOn = (
  { value, peakFactor = 1, from, document }: Provenance & { value: number; peakFactor?: number | undefined },
  mainA: number,
  addedW = 0,
) =>
  panelDemand.compute(
    { peakW: value, mainA, addedW, volts: 240, peakFactor },
    { peakW: { from, ...(document && { document }) }, mainA: fromJob },
  )
