import * as z from 'zod'
import { calculator } from '../calculator'
import { along, spread } from '../curve'
import { labelled } from '../field'
import { fault } from '../outcome'
import { celsius, fraction } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const input = z.strictObject({
  mode: labelled(z.enum(['heating', 'cooling']), 'For'),
  dutyFraction: labelled(fraction, 'Share of the time it ran', 'fraction'),
  measuredC: labelled(celsius, 'Outdoors, when measured', 'C'),
  balanceC: labelled(celsius, 'Outdoors where it needs none', 'C', {
    description: 'the house holds itself there: often 60 to 65 °F (15 to 18 °C) for heating',
  }),
  designC: labelled(celsius, 'Outdoors, to be ready for', 'C'),
})

const output = z.strictObject({
  dutyFraction: labelled(z.number(), 'Share of the time it will run', 'fraction'),
  saturated: labelled(z.boolean(), 'Runs without a pause and falls behind'),
})

type Input = z.infer<typeof input>

const factorOf = (i: Input) => (i.balanceC - i.designC) / (i.balanceC - i.measuredC)

function solve(i: Input) {
  const asked = i.dutyFraction * Math.max(0, factorOf(i))
  return { dutyFraction: Math.min(1, asked), saturated: asked > 1 }
}

/**
 * The share of time a heater or cooler runs in other weather than it was measured in.
 * Temperatures in °C, fractions 0–1. Fault on `measuredC`: heating measured at or above the balance point,
 * cooling at or below it. Source: heat loss in proportion to the temperature difference (degree-day rule).
 */
export const weatherScale = calculator({
  name: 'weather-scale',
  topic: 'loads',
  question: 'How much more in harder weather?',
  asked: [
    'hard frost',
    'heat wave',
    'burner',
    'furnace',
    'boiler duty',
    'air conditioner',
    'cold week',
    'design temperature',
    'degree days',
  ],
  input,
  output,
  example: { mode: 'heating', dutyFraction: 0.22, measuredC: 4, balanceC: 16, designC: -18 },
  faultsIn: i =>
    (i.mode === 'heating' ? i.measuredC < i.balanceC : i.measuredC > i.balanceC)
      ? []
      : [
          fault(
            'measuredC',
            i.mode === 'heating'
              ? 'must be below balanceC: above it nothing is heated, so the log tells nothing'
              : 'must be above balanceC: below it nothing is cooled, so the log tells nothing',
          ),
        ],
  solve,
  explain: (i, r) => {
    const f = figure
    const factor = factorOf(i)
    return {
      answer: r.saturated
        ? `Would have to run ${quantity(i.dutyFraction * factor, 'fraction')} of the time at ${quantity(i.designC, 'C')}: it runs without a pause and the house falls behind.`
        : `Runs ${quantity(r.dutyFraction, 'fraction')} of the time at ${quantity(i.designC, 'C')}, ${f(Math.max(0, factor))} times what was measured.`,
      working: {
        title: 'Duty in other weather',
        formula: [
          'factor = (balance − to be ready for) ÷ (balance − when measured)',
          'share of the time = measured share × factor, from 0 to 1',
        ],
        steps: [
          step(
            'Factor',
            factor,
            'count',
            `(${f(i.balanceC)} − ${f(i.designC)}) ÷ (${f(i.balanceC)} − ${f(i.measuredC)}), in °C`,
          ),
          step(
            'Share of the time',
            r.dutyFraction,
            'fraction',
            `${f(i.dutyFraction)} × ${f(Math.max(0, factor))}`,
          ),
        ],
        references: [],
        notCovered: [
          'Wind, sun, thermostat set-back and heat pumps (they also lose output in the cold).',
          'Close to the balance point small errors of the temperature become large ones of the factor.',
        ],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'Share of the time against outdoor temperature',
      kind: 'line',
      x: { label: 'Outdoors', unit: 'C' },
      y: { label: 'Share of the time', unit: 'fraction' },
      series: [
        {
          name: 'Runs',
          points: along(
            spread(
              Math.min(i.designC, i.measuredC, i.balanceC) - 4,
              Math.max(i.balanceC, i.designC, i.measuredC) + 4,
            ),
            designC => solve({ ...i, designC }).dutyFraction,
          ),
        },
      ],
      here: { x: i.designC, y: r.dutyFraction },
    },
  ],
})
