import * as z from 'zod'
import { line, within } from '../quantity'
import { logFigures } from './log-figures'
import { seasonSchema } from './season'

const watts = within(0, 20_000, 'W')

/** What a meter said of a load, as it was read or as it was found in a series. */
export const logSchema = z
  .strictObject({
    id: line(40, 1),
    name: line(120, 1),
    kind: z.enum(['plug-in meter', 'clamp meter', 'series', 'simulated meter']),
    by: line(60).optional(),
    on: z.iso.date('must be a date: YYYY-MM-DD'),
    /** consecutive spans: hours and what the counter went up by */
    spans: z
      .array(z.strictObject({ hours: within(1 / 120, 9000, 'h'), energyWh: within(0, 5_000_000, 'Wh') }))
      .min(1, 'must hold a reading')
      .max(400, 'must hold at most 400 readings'),
    /** at its highest level */
    runningW: watts,
    idleW: within(0, 5000, 'W'),
    stages: z
      .array(z.strictObject({ W: watts, shareFraction: within(0, 1, 'of the time') }))
      .max(4)
      .optional(),
    powerFactor: within(0.1, 1, '(1 = resistive)').optional(),
    /** of a clamp meter with inrush hold, or of a series fine enough to see it, A */
    inrushA: within(0.1, 1000, 'A').optional(),
    highestW: within(0, 100_000, 'W').optional(),
    /** outdoors meanwhile, °C */
    outdoorC: within(-60, 60, '°C').optional(),
    season: seasonSchema.optional(),
    startsPerDay: within(0, 100_000, 'a day').optional(),
    cycleMinutes: within(0, 1440, 'min').optional(),
    hourly: z
      .array(within(0, 24, '×'))
      .length(24)
      .optional(),
  })
  .check(context => {
    const { runningW, idleW } = context.value
    if (runningW <= idleW)
      context.issues.push({
        code: 'custom',
        path: ['runningW'],
        message: `must be above the idle watts (${idleW} W): what it draws while it runs`,
        input: runningW,
      })
  })
export type Log = z.infer<typeof logSchema>

/** Average watts while it runs: the highest level for what its lower levels leave. */
export function levelW(highestW: number, stages: Log['stages']): number {
  const lower = stages ?? []
  const rest = 1 - lower.reduce((sum, s) => sum + s.shareFraction, 0)
  return lower.reduce((sum, s) => sum + s.W * s.shareFraction, Math.max(0, rest) * highestW)
}

/** Input of `load-log` for it: the running watts are the mean of its levels. */
export const logInput = (log: Log) => ({
  readings: log.spans,
  runningW: Math.max(levelW(log.runningW, log.stages), log.idleW + 1e-6),
  idleW: log.idleW,
})

/** The share of the time by `load-log`, with the range that the spread of its spans leaves it. */
export function dutyRange(log: Log): { value: number; low: number; high: number } {
  const { dutyFraction, spreadFraction, meanW } = logFigures(logInput(log))
  const hours = log.spans.reduce((sum, s) => sum + s.hours, 0)
  // a day’s log says little of other days; a fortnight’s a lot: the meter’s own error stays
  const unsure = Math.min(
    0.5,
    0.03 +
      (log.spans.length > 1 && meanW > 0 ? spreadFraction / 2 : 0.25) / Math.sqrt(Math.max(1, hours / 24)),
  )
  return {
    value: dutyFraction,
    low: Math.max(0, dutyFraction * (1 - unsure)),
    high: Math.min(1, dutyFraction * (1 + unsure)),
  }
}
