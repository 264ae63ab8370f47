import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { type Fault, fault } from '../outcome'
import { notNegative, positive, positiveFraction } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const input = z.strictObject({
  unitWh: labelled(z.tuple([positive, positive]), 'Usable energy of each unit', 'Wh', { row: 'Unit' }),
  idleW: labelled(notNegative, 'Own draw of each', 'W'),
  efficiencyFraction: labelled(positiveFraction, 'Efficiency', 'fraction'),
  legW: labelled(z.tuple([notNegative, notNegative]), 'Load on each leg', 'W', { row: 'Leg' }),
  shared: labelled(z.boolean(), 'Both batteries feed both legs', 'text', {
    description: 'many combiners leave each leg on its own battery',
  }),
})

const limits = ['L1', 'L2', 'both'] as const
const output = z.strictObject({
  hours: labelled(z.number(), 'Run time', 'h'),
  limitedBy: labelled(z.enum(limits), 'Ended by'),
  strandedWh: labelled(z.number(), 'Left in the other battery', 'Wh'),
})

type Input = z.infer<typeof input>
type Output = z.infer<typeof output>

const batteryW = (i: Input, leg: 0 | 1) => i.idleW + i.legW[leg] / i.efficiencyFraction
const sharedW = (i: Input) => 2 * i.idleW + (i.legW[0] + i.legW[1]) / i.efficiencyFraction

/** Hours closer than this end together. */
const together = 1e-9

function solve(i: Input): Output {
  const [aWh, bWh] = i.unitWh
  if (i.shared) return { hours: (aWh + bWh) / sharedW(i), limitedBy: 'both', strandedWh: 0 }
  const aH = aWh / batteryW(i, 0)
  const bH = bWh / batteryW(i, 1)
  if (Math.abs(aH - bH) <= together) return { hours: Math.min(aH, bH), limitedBy: 'both', strandedWh: 0 }
  return aH < bH
    ? { hours: aH, limitedBy: 'L1', strandedWh: bWh - aH * batteryW(i, 1) }
    : { hours: bH, limitedBy: 'L2', strandedWh: aWh - bH * batteryW(i, 0) }
}

function faultsIn(i: Input): Fault[] {
  const endless = 'must be above 0 when idleW is 0: without any draw the run never ends'
  if (i.shared) return sharedW(i) === 0 ? [fault('legW', endless)] : []
  return ([0, 1] as const).flatMap(leg => (batteryW(i, leg) === 0 ? [fault(`legW[${leg}]`, endless)] : []))
}

/**
 * Run time of two combined units whose legs differ, and what is left in the battery that lasts longer.
 * `unitWh` usable Wh of each, `idleW` of each and `legW` in W; hours and Wh out.
 * Fault: a leg that draws nothing at all (`legW`), as its hours have no end.
 * Source: energy balance of each unit; `two-batteries` of the calculators' contract.
 */
export const twoBatteries = calculator({
  name: 'two-batteries',
  topic: 'source',
  question: 'How long do two units last?',
  asked: ['legs differ', 'two units', 'combiner', 'stranded energy', 'leg imbalance', 'paired stations'],
  input,
  output,
  example: { unitWh: [3400, 3400], idleW: 20, efficiencyFraction: 0.88, legW: [260, 90], shared: false },
  faultsIn,
  solve,
  explain: (i, r) => {
    const f = figure
    const ifShared = solve({ ...i, shared: true }).hours
    return {
      answer:
        r.limitedBy === 'both'
          ? `Lasts ${quantity(r.hours, 'h')}; both batteries end together.`
          : `Lasts ${quantity(r.hours, 'h')}: ${r.limitedBy} is empty first and ${quantity(r.strandedWh, 'Wh')} stay in the other battery.`,
      working: {
        title: 'Two batteries',
        formula: i.shared
          ? ['hours = both energies ÷ (own draw of both + both loads ÷ efficiency)']
          : [
              'hours of a unit = its usable energy ÷ (its own draw + its leg’s load ÷ efficiency)',
              'the run ends with the first; the rest is left in the other',
            ],
        steps: i.shared
          ? [step('Run time', r.hours, 'h', `(${f(i.unitWh[0])} + ${f(i.unitWh[1])}) ÷ ${f(sharedW(i))}`)]
          : [
              ...([0, 1] as const).map(leg =>
                step(
                  `L${leg + 1} alone`,
                  i.unitWh[leg] / batteryW(i, leg),
                  'h',
                  `${f(i.unitWh[leg])} ÷ (${f(i.idleW)} + ${f(i.legW[leg])} ÷ ${f(i.efficiencyFraction)})`,
                ),
              ),
              step('Run time', r.hours, 'h'),
              step('Left in the other battery', r.strandedWh, 'Wh'),
              step('If the batteries were shared', ifShared, 'h'),
            ],
        references: [],
        ruleOfThumb: 'With apart batteries, move circuits until the legs draw alike',
        notCovered: [
          'What the pair does when one unit is empty: many shut both legs down together.',
          'Loads that come and go are taken at their average.',
        ],
      },
    }
  },
  curves: (i, r) => {
    const level = (leg: 0 | 1, name: string) => ({
      name,
      points: [
        { x: 0, y: i.unitWh[leg] },
        {
          x: r.hours,
          y: i.shared ? 0 : Math.max(0, i.unitWh[leg] - r.hours * batteryW(i, leg)),
        },
      ],
    })
    return [
      {
        title: 'Energy left in each battery',
        kind: 'line',
        x: { label: 'Hours into the outage', unit: 'h' },
        y: { label: 'Energy left', unit: 'Wh' },
        series: [level(0, 'L1’s battery'), level(1, 'L2’s battery')],
      },
    ]
  },
})
