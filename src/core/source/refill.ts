import * as z from 'zod'
import { calculator } from '../calculator'
import { along, spread } from '../curve'
import { labelled } from '../field'
import { type Fault, fault } from '../outcome'
import { fraction, notNegative, positive, positiveFraction } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const input = z.strictObject({
  capacityWh: labelled(positive, 'Capacity', 'Wh'),
  fromFraction: labelled(fraction, 'From', 'fraction'),
  toFraction: labelled(fraction, 'To', 'fraction'),
  generatorW: labelled(notNegative, 'Generator gives', 'W'),
  chargerMaxW: labelled(notNegative, 'Charger takes at most', 'W'),
  chargerEfficiencyFraction: labelled(positiveFraction, 'Charger efficiency', 'fraction'),
  houseW: labelled(notNegative, 'House draws meanwhile', 'W'),
  WhPerGallon: labelled(positive.optional(), 'Generator makes', 'Wh/gal'),
  tankGallons: labelled(positive.optional(), 'Tank holds', 'gal'),
})

const output = z.strictObject({
  chargeW: labelled(z.number(), 'Into the charger', 'W'),
  batteryW: labelled(z.number(), 'Into the battery', 'W'),
  hours: labelled(z.number(), 'Generator runs', 'h'),
  gallons: labelled(z.number().nullable(), 'Fuel', 'gal'),
  tanks: labelled(z.number().nullable(), 'Tanks', 'count'),
})

type Input = z.infer<typeof input>

function solve(i: Input) {
  const chargeW = Math.min(i.chargerMaxW, i.generatorW - i.houseW)
  const batteryW = chargeW * i.chargerEfficiencyFraction
  const hours = (i.capacityWh * (i.toFraction - i.fromFraction)) / batteryW
  const gallons = i.WhPerGallon === undefined ? null : ((i.houseW + chargeW) * hours) / i.WhPerGallon
  const tanks = gallons === null || i.tankGallons === undefined ? null : gallons / i.tankGallons
  return { chargeW, batteryW, hours, gallons, tanks }
}

function faultsIn(i: Input): Fault[] {
  return [
    ...(i.toFraction < i.fromFraction ? [fault('toFraction', 'must not be below fromFraction')] : []),
    ...(i.chargerMaxW === 0
      ? [fault('chargerMaxW', 'must be above 0: nothing would go into the battery')]
      : i.generatorW <= i.houseW
        ? [
            fault(
              'houseW',
              'must be below generatorW: the house is carried first and leaves nothing to charge with',
            ),
          ]
        : []),
  ]
}

/**
 * How long a generator runs to refill a store while it also carries the house, and the fuel it burns.
 * Wh, W, fractions, `WhPerGallon` Wh of output per gallon; h and gallons out (null without fuel figures).
 * Faults: nothing left to charge with (`houseW`); `toFraction` below `fromFraction`.
 * Source: energy balance, the house first; charge taper is the outage kernel's.
 */
export const refill = calculator({
  name: 'refill',
  topic: 'source',
  question: 'How long must the generator run?',
  asked: [
    'refill the battery',
    'recharge',
    'generator hours',
    'gallons',
    'fuel',
    'charge time',
    'range extender',
  ],
  input,
  output,
  example: {
    capacityWh: 7200,
    fromFraction: 0.2,
    toFraction: 0.9,
    generatorW: 2800,
    chargerMaxW: 1800,
    chargerEfficiencyFraction: 0.9,
    houseW: 300,
    WhPerGallon: 5200,
    tankGallons: 1.1,
  },
  faultsIn,
  solve,
  explain: (i, r) => {
    const f = figure
    const fuel =
      r.gallons === null
        ? ''
        : ` It burns ${quantity(r.gallons, 'gal')}${r.tanks === null ? '' : `, ${f(r.tanks)} tanks`}.`
    return {
      answer: `Runs ${quantity(r.hours, 'h')} at ${quantity(r.chargeW, 'W')} into the charger.${fuel}`,
      working: {
        title: 'Refill',
        formula: [
          'into the charger = the smaller of what it takes and what the house leaves of the generator',
          'hours = capacity × (to − from) ÷ (into the charger × its efficiency)',
          'fuel = (house + charger) × hours ÷ energy of a gallon',
        ],
        steps: [
          step(
            'Into the charger',
            r.chargeW,
            'W',
            `min(${f(i.chargerMaxW)}, ${f(i.generatorW)} − ${f(i.houseW)})`,
          ),
          step('Into the battery', r.batteryW, 'W', `${f(r.chargeW)} × ${f(i.chargerEfficiencyFraction)}`),
          step(
            'Hours',
            r.hours,
            'h',
            `${f(i.capacityWh)} × (${f(i.toFraction)} − ${f(i.fromFraction)}) ÷ ${f(r.batteryW)}`,
          ),
          ...(r.gallons === null
            ? []
            : [
                step(
                  'Fuel',
                  r.gallons,
                  'gal',
                  `(${f(i.houseW)} + ${f(r.chargeW)}) × ${f(r.hours)} ÷ ${f(i.WhPerGallon ?? 0)}`,
                ),
              ]),
        ],
        references: [],
        ruleOfThumb:
          'A small inverter generator gives 4 to 6 kWh a gallon at a good load, half that at a poor one',
        notes: [
          'Run it outdoors, away from openings: carbon monoxide kills. Charge from the generator itself, not from the panel that the store is feeding.',
        ],
        notCovered: ['The taper of the last part of the charge, and fuel burnt at light load.'],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'Generator hours against the house’s draw',
      kind: 'line',
      x: { label: 'House draws meanwhile', unit: 'W' },
      y: { label: 'Generator runs', unit: 'h' },
      series: [
        {
          name: 'Hours',
          points: along(spread(0, i.generatorW * 0.95), houseW => solve({ ...i, houseW }).hours),
        },
      ],
      here: { x: i.houseW, y: r.hours },
    },
  ],
})
