import * as z from 'zod'
import { calculator } from '../calculator'
import { along, spread } from '../curve'
import { bankChemistries, chemistryFacts, chemistryNames } from '../equipment/chemistries'
import { labelled } from '../field'
import { counted, fraction, notNegative, positive, positiveFraction } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

/** Peukert exponents taken where the maker states none. */

const input = z.strictObject({
  unitV: labelled(positive, 'Volts of one battery', 'V'),
  unitAh: labelled(positive, 'Rated capacity of one', 'Ah'),
  series: labelled(counted, 'In series', 'count'),
  parallel: labelled(counted, 'Strings in parallel', 'count'),
  chemistry: labelled(z.enum(bankChemistries), 'Chemistry', 'text', {
    names: chemistryNames,
  }),
  depthFraction: labelled(fraction, 'Depth of discharge', 'fraction'),
  peukert: labelled(z.number().min(1, 'must be at least 1').optional(), 'Peukert exponent', 'count', {
    description: `${bankChemistries.map(c => `${chemistryFacts[c].peukert} ${chemistryFacts[c].name}`).join('; ')} if left out`,
  }),
  ratedHours: labelled(positive.default(20), 'Capacity is rated over', 'h'),
  idleW: labelled(notNegative, 'Inverter’s own draw', 'W'),
  efficiencyFraction: labelled(positiveFraction, 'Efficiency', 'fraction'),
  loadW: labelled(positive, 'Average load', 'W'),
})

const output = z.strictObject({
  nominalV: labelled(z.number(), 'Bank volts', 'V'),
  capacityAh: labelled(z.number(), 'Bank capacity', 'Ah'),
  capacityWh: labelled(z.number(), 'Bank energy', 'Wh'),
  dischargeA: labelled(z.number(), 'Discharge', 'A'),
  hours: labelled(z.number(), 'Run time', 'h'),
  usableWh: labelled(z.number(), 'Usable energy', 'Wh'),
})

type Input = z.infer<typeof input>

const peukertOf = (i: Input) => i.peukert ?? chemistryFacts[i.chemistry].peukert

function solve(i: Input) {
  const nominalV = i.unitV * i.series
  const capacityAh = i.unitAh * i.parallel
  const dischargeA = (i.idleW + i.loadW / i.efficiencyFraction) / nominalV
  const rate = Math.min(1, (capacityAh / (dischargeA * i.ratedHours)) ** (peukertOf(i) - 1))
  const hours = ((i.depthFraction * capacityAh) / dischargeA) * rate
  return {
    nominalV,
    capacityAh,
    capacityWh: nominalV * capacityAh,
    dischargeA,
    hours,
    usableWh: hours * dischargeA * nominalV,
  }
}

/**
 * Run time of a battery bank behind an inverter, with the capacity that a fast discharge takes away.
 * `unitV` V, `unitAh` Ah over `ratedHours` h, watts in W, fractions 0–1; A, h and Wh out. `peukert` ≥ 1.
 * Source: Peukert's law, never above the rated capacity; `bank` of the calculators' contract.
 */
export const bank = calculator({
  name: 'bank',
  topic: 'source',
  question: 'How long does a bank last?',
  asked: [
    'amp-hours',
    'battery bank',
    'Peukert',
    'series and parallel',
    'lead acid',
    'depth of discharge',
    'AGM',
    'lithium',
  ],
  input,
  output,
  example: {
    unitV: 12,
    unitAh: 105,
    series: 4,
    parallel: 2,
    chemistry: 'agm',
    depthFraction: 0.5,
    idleW: 30,
    efficiencyFraction: 0.9,
    loadW: 600,
  },
  solve,
  explain: (i, r) => {
    const f = figure
    const peukert = peukertOf(i)
    const slow = r.dischargeA * i.ratedHours <= r.capacityAh
    return {
      answer: `Lasts ${quantity(r.hours, 'h')}: ${quantity(r.usableWh, 'Wh')} of ${quantity(r.capacityWh, 'Wh')} can be used at this load.`,
      working: {
        title: 'Battery bank',
        formula: [
          'discharge = (own draw + load ÷ efficiency) ÷ bank volts',
          'hours = depth × capacity ÷ discharge × (capacity ÷ (discharge × rated hours))^(Peukert − 1), the last factor at most 1',
        ],
        steps: [
          step('Bank volts', r.nominalV, 'V', `${f(i.unitV)} × ${i.series}`),
          step('Bank capacity', r.capacityAh, 'Ah', `${f(i.unitAh)} × ${i.parallel}`),
          step(
            'Discharge',
            r.dischargeA,
            'A',
            `(${f(i.idleW)} + ${f(i.loadW)} ÷ ${f(i.efficiencyFraction)}) ÷ ${f(r.nominalV)}`,
          ),
          step('Peukert exponent', peukert, 'count'),
          step(
            slow ? 'Slower than rated: full capacity' : 'Share a fast discharge leaves',
            Math.min(1, (r.capacityAh / (r.dischargeA * i.ratedHours)) ** (peukert - 1)),
            'fraction',
            `(${f(r.capacityAh)} ÷ (${f(r.dischargeA)} × ${f(i.ratedHours)}))^${f(peukert - 1)}`,
          ),
          step('Run time', r.hours, 'h'),
          step('Usable energy', r.usableWh, 'Wh', `${f(r.hours)} × ${f(r.dischargeA)} × ${f(r.nominalV)}`),
        ],
        references: ['Peukert’s law', 'Storage batteries: NEC 480 and 706'],
        ruleOfThumb: 'Lead: use half; lithium iron phosphate: use nine tenths',
        notCovered: ['Cold, age and sulphation, and the losses of the battery cables.'],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'Run time against load',
      kind: 'line',
      x: { label: 'Average load', unit: 'W' },
      y: { label: 'Run time', unit: 'h' },
      series: [
        {
          name: 'With the loss of a fast discharge',
          points: along(spread(i.loadW / 4, i.loadW * 2), loadW => solve({ ...i, loadW }).hours),
        },
        {
          name: 'If capacity were the same at any load',
          points: along(spread(i.loadW / 4, i.loadW * 2), loadW => solve({ ...i, loadW, peukert: 1 }).hours),
        },
      ],
      here: { x: i.loadW, y: r.hours },
    },
  ],
})
