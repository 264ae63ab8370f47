import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fault } from '../outcome'
import { notNegative, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const input = z.strictObject({
  ratedWh: labelled(positive, 'Rated capacity', 'Wh'),
  deliveredWh: labelled(notNegative, 'Delivered, full to empty', 'Wh'),
  rechargeWh: labelled(positive.optional(), 'Taken to recharge', 'Wh'),
})

const output = z.strictObject({
  deliveredFraction: labelled(z.number(), 'Delivered of the rated', 'fraction'),
  roundTripFraction: labelled(z.number().nullable(), 'Round trip', 'fraction'),
  chargeLossWh: labelled(z.number().nullable(), 'Lost between wall and load', 'Wh'),
})

type Input = z.infer<typeof input>

const solve = ({ ratedWh, deliveredWh, rechargeWh }: Input) => ({
  deliveredFraction: deliveredWh / ratedWh,
  roundTripFraction: rechargeWh === undefined ? null : deliveredWh / rechargeWh,
  chargeLossWh: rechargeWh === undefined ? null : rechargeWh - deliveredWh,
})

/**
 * What a capacity test shows: the share of the label that reaches a load, and the loss over a whole round trip.
 * All in Wh; fractions out. Fault: more delivered than the recharge took (`deliveredWh`).
 * Source: energy balance; `capacity-test` of the calculators' contract.
 */
export const capacityTest = calculator({
  name: 'capacity-test',
  topic: 'source',
  question: 'Did it give what its label says?',
  asked: ['capacity test', 'round trip efficiency', 'worn battery', 'discharge test', 'yearly test'],
  input,
  output,
  example: { ratedWh: 3600, deliveredWh: 3190, rechargeWh: 3850 },
  faultsIn: i =>
    i.rechargeWh !== undefined && i.deliveredWh > i.rechargeWh
      ? [
          fault(
            'deliveredWh',
            'must not be above rechargeWh: a battery never gives more than it took. Were both meters reset?',
          ),
        ]
      : [],
  solve,
  explain: (i, r) => {
    const f = figure
    return {
      answer: `Delivered ${quantity(r.deliveredFraction, 'fraction')} of its label${
        r.roundTripFraction === null
          ? ''
          : `; ${quantity(r.roundTripFraction, 'fraction')} of what the recharge took came back`
      }.`,
      working: {
        title: 'Capacity test',
        formula: [
          'delivered share = delivered ÷ rated',
          'round trip = delivered ÷ taken to recharge; the rest is lost on the way in and out',
        ],
        steps: [
          step(
            'Delivered of the rated',
            r.deliveredFraction,
            'fraction',
            `${f(i.deliveredWh)} ÷ ${f(i.ratedWh)}`,
          ),
          ...(i.rechargeWh === undefined
            ? []
            : [
                step(
                  'Round trip',
                  i.deliveredWh / i.rechargeWh,
                  'fraction',
                  `${f(i.deliveredWh)} ÷ ${f(i.rechargeWh)}`,
                ),
                step('Lost', i.rechargeWh - i.deliveredWh, 'Wh', `${f(i.rechargeWh)} − ${f(i.deliveredWh)}`),
              ]),
        ],
        references: [],
        ruleOfThumb:
          'Expect roughly nine tenths of the label at the outlet, less at light load and in the cold',
        notCovered: [
          'Temperature of the test and size of the load: a light load loses more to the inverter’s own draw.',
        ],
      },
    }
  },
  curves: i => [
    {
      title: 'Where the energy went',
      kind: 'bars',
      x: { label: 'Measured', unit: 'text' },
      y: { label: 'Energy', unit: 'Wh' },
      series: [
        {
          name: 'Energy',
          points: [
            ...(i.rechargeWh === undefined ? [] : [{ x: 'Taken to recharge', y: i.rechargeWh }]),
            { x: 'Rated', y: i.ratedWh },
            { x: 'Delivered', y: i.deliveredWh },
          ],
        },
      ],
    },
  ],
})
