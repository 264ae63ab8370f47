import * as z from 'zod'
import type { Calculator } from '../calculator'
import { fault } from '../outcome'
import { fraction, notNegative, positive, positiveFraction } from '../quantity'
import { figure } from '../units/format'
import { sourced } from '../working'

const input = z.strictObject({
  capacityWh: positive,
  startFraction: fraction.default(1),
  reserveFraction: fraction.default(0),
  deratingFraction: positiveFraction.default(1),
  idleW: notNegative,
  efficiencyFraction: positiveFraction,
  loadW: notNegative,
})

const output = z.strictObject({
  usableWh: z.number(),
  batteryW: z.number(),
  hours: z.number(),
  deliveredWh: z.number(),
  effectiveFraction: z.number(),
})

/**
 * How long a store of energy carries a steady load behind an inverter.
 * `capacityWh` in Wh, `idleW` (the inverter's own draw) and `loadW` in W, fractions 0–1; hours out.
 * Faults: `reserveFraction` not below `startFraction`; `loadW` when neither load nor idle draws anything.
 * Source: energy balance over the run; `runtime` of the calculators' contract.
 */
export const runtime: Calculator<z.infer<typeof input>, z.infer<typeof output>> = {
  name: 'runtime',
  question: 'How long will it last?',
  input,
  output,
  faultsIn: i => [
    ...(i.reserveFraction >= i.startFraction
      ? [fault('reserveFraction', 'must be below startFraction, or nothing is left to use')]
      : []),
    ...(i.idleW + i.loadW / i.efficiencyFraction === 0
      ? [fault('loadW', 'must be above 0 when idleW is 0: without any draw the run never ends')]
      : []),
  ],
  compute: (i, sources = {}) => {
    const usableWh = i.capacityWh * i.deratingFraction * (i.startFraction - i.reserveFraction)
    const batteryW = i.idleW + i.loadW / i.efficiencyFraction
    const hours = usableWh / batteryW
    const deliveredWh = hours * i.loadW
    const effectiveFraction = deliveredWh / usableWh
    const f = figure
    return {
      result: { usableWh, batteryW, hours, deliveredWh, effectiveFraction },
      working: {
        title: 'Run time',
        formula: [
          'usable energy = capacity × derating × (charge at the start − reserve kept)',
          'drawn from the battery = the inverter’s own draw + load ÷ efficiency',
          'hours = usable energy ÷ drawn from the battery',
        ],
        inputs: [
          { label: 'Capacity', value: i.capacityWh, unit: 'Wh', ...sourced(sources.capacityWh) },
          {
            label: 'Charge at the start',
            value: i.startFraction,
            unit: 'fraction',
            ...sourced(sources.startFraction),
          },
          {
            label: 'Reserve kept',
            value: i.reserveFraction,
            unit: 'fraction',
            ...sourced(sources.reserveFraction),
          },
          {
            label: 'Derating (cold, age)',
            value: i.deratingFraction,
            unit: 'fraction',
            ...sourced(sources.deratingFraction),
          },
          { label: 'Inverter’s own draw', value: i.idleW, unit: 'W', ...sourced(sources.idleW) },
          {
            label: 'Efficiency',
            value: i.efficiencyFraction,
            unit: 'fraction',
            ...sourced(sources.efficiencyFraction),
          },
          { label: 'Average load', value: i.loadW, unit: 'W', ...sourced(sources.loadW) },
        ],
        steps: [
          {
            label: 'Usable energy',
            arithmetic: `${f(i.capacityWh)} × ${f(i.deratingFraction)} × (${f(i.startFraction)} − ${f(i.reserveFraction)})`,
            value: usableWh,
            unit: 'Wh',
          },
          {
            label: 'Drawn from the battery',
            arithmetic: `${f(i.idleW)} + ${f(i.loadW)} ÷ ${f(i.efficiencyFraction)}`,
            value: batteryW,
            unit: 'W',
          },
          { label: 'Run time', arithmetic: `${f(usableWh)} ÷ ${f(batteryW)}`, value: hours, unit: 'h' },
          {
            label: 'Delivered to the loads',
            arithmetic: `${f(hours)} × ${f(i.loadW)}`,
            value: deliveredWh,
            unit: 'Wh',
          },
          {
            label: 'Share of the usable energy that reaches the loads',
            arithmetic: `${f(deliveredWh)} ÷ ${f(usableWh)}`,
            value: effectiveFraction,
            unit: 'fraction',
          },
        ],
        references: [],
        ruleOfThumb:
          i.loadW > 0
            ? `Energy ÷ average load, less a tenth for losses: ${f((usableWh * 0.9) / i.loadW)} h`
            : undefined,
        notCovered: [
          'Loads that come and go are taken at their average; starts, weather and recharging are not in this figure.',
          'Efficiency is one number here; a real inverter does worse at light load.',
        ],
      },
    }
  },
}
