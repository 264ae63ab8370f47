import * as z from 'zod'
import { calculator } from '../calculator'
import { along, spread } from '../curve'
import { labelled } from '../field'
import { fault } from '../outcome'
import { fraction, notNegative, positive, positiveFraction } from '../quantity'
import { figure, quantity } from '../units/format'
import { step } from '../working'

const input = z.strictObject({
  capacityWh: labelled(positive, 'Capacity', 'Wh'),
  startFraction: labelled(fraction.default(1), 'Charge at the start', 'fraction'),
  reserveFraction: labelled(fraction.default(0), 'Reserve kept', 'fraction'),
  deratingFraction: labelled(positiveFraction.default(1), 'Derating (cold, age)', 'fraction'),
  idleW: labelled(notNegative, 'Inverter’s own draw', 'W'),
  efficiencyFraction: labelled(positiveFraction, 'Efficiency', 'fraction'),
  loadW: labelled(notNegative, 'Average load', 'W'),
})

const output = z.strictObject({
  usableWh: labelled(z.number(), 'Usable energy', 'Wh'),
  batteryW: labelled(z.number(), 'Drawn from the battery', 'W'),
  hours: labelled(z.number(), 'Run time', 'h'),
  deliveredWh: labelled(z.number(), 'Delivered to the loads', 'Wh'),
  effectiveFraction: labelled(z.number(), 'Share of the usable energy that reaches the loads', 'fraction'),
})

type Input = z.infer<typeof input>

function solve(i: Input) {
  const usableWh = i.capacityWh * i.deratingFraction * (i.startFraction - i.reserveFraction)
  const batteryW = i.idleW + i.loadW / i.efficiencyFraction
  const hours = usableWh / batteryW
  const deliveredWh = hours * i.loadW
  return { usableWh, batteryW, hours, deliveredWh, effectiveFraction: deliveredWh / usableWh }
}

/**
 * How long a store of energy carries a steady load behind an inverter.
 * `capacityWh` in Wh, `idleW` (the inverter's own draw) and `loadW` in W, fractions 0–1; hours out.
 * Faults: `reserveFraction` not below `startFraction`; `loadW` when neither load nor idle draws anything.
 * Source: energy balance over the run; `runtime` of the calculators' contract.
 */
export const runtime = calculator({
  name: 'runtime',
  topic: 'source',
  question: 'How long will it last?',
  asked: ['run time', 'hours on battery', 'autonomy', 'watt-hours', 'reserve', 'idle draw'],
  input,
  output,
  example: { capacityWh: 3600, reserveFraction: 0.1, idleW: 18, efficiencyFraction: 0.88, loadW: 140 },
  faultsIn: i => [
    ...(i.reserveFraction >= i.startFraction
      ? [fault('reserveFraction', 'must be below startFraction, or nothing is left to use')]
      : []),
    ...(i.idleW + i.loadW / i.efficiencyFraction === 0
      ? [fault('loadW', 'must be above 0 when idleW is 0: without any draw the run never ends')]
      : []),
  ],
  solve,
  explain: (i, r) => {
    const f = figure
    return {
      answer: `Lasts ${quantity(r.hours, 'h')} at ${quantity(i.loadW, 'W')} average; ${quantity(r.effectiveFraction, 'fraction')} of the usable energy reaches the loads.`,
      working: {
        title: 'Run time',
        formula: [
          'usable energy = capacity × derating × (charge at the start − reserve kept)',
          'drawn from the battery = the inverter’s own draw + load ÷ efficiency',
          'hours = usable energy ÷ drawn from the battery',
        ],
        steps: [
          step(
            'Usable energy',
            r.usableWh,
            'Wh',
            `${f(i.capacityWh)} × ${f(i.deratingFraction)} × (${f(i.startFraction)} − ${f(i.reserveFraction)})`,
          ),
          step(
            'Drawn from the battery',
            r.batteryW,
            'W',
            `${f(i.idleW)} + ${f(i.loadW)} ÷ ${f(i.efficiencyFraction)}`,
          ),
          step('Run time', r.hours, 'h', `${f(r.usableWh)} ÷ ${f(r.batteryW)}`),
          step('Delivered to the loads', r.deliveredWh, 'Wh', `${f(r.hours)} × ${f(i.loadW)}`),
          step(
            'Share of the usable energy that reaches the loads',
            r.effectiveFraction,
            'fraction',
            `${f(r.deliveredWh)} ÷ ${f(r.usableWh)}`,
          ),
        ],
        references: [],
        ruleOfThumb:
          i.loadW > 0
            ? `Energy ÷ average load, less a tenth for losses: ${f((r.usableWh * 0.9) / i.loadW)} h`
            : undefined,
        notCovered: [
          'Loads that come and go are taken at their average; starts, weather and recharging are not in this figure.',
          'Efficiency is one number here; a real inverter does worse at light load.',
        ],
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
          name: 'Run time',
          points: along(spread(i.loadW / 4, i.loadW * 2 || 100), loadW => solve({ ...i, loadW }).hours),
        },
      ],
      here: { x: i.loadW, y: r.hours },
    },
    {
      title: 'Run time against reserve',
      kind: 'line',
      x: { label: 'Reserve kept', unit: 'fraction' },
      y: { label: 'Run time', unit: 'h' },
      series: [
        {
          name: 'Run time',
          points: along(
            spread(0, i.startFraction),
            reserveFraction => solve({ ...i, reserveFraction }).hours,
          ),
        },
      ],
      here: { x: i.reserveFraction, y: r.hours },
    },
  ],
})
