import * as z from 'zod'
import { line, within } from '../quantity'
import { type Known, type Load, loadNatures, patternSchema, weatherSchema } from './load'
import type { Season } from './season'

const watts = within(0, 20_000, 'W')
const share = within(0, 1, 'of the time')
export const loadGroups = [
  'kitchen',
  'heat',
  'cooling',
  'water',
  'light',
  'internet and office',
  'medical',
  'laundry',
  'outlets and comfort',
  'workshop',
  'outdoors and garage',
  'small business',
] as const

/** A load as it usually is: our own typical values with the range they may lie in, or a firm’s. */
export const typicalSchema = z
  .strictObject({
    id: line(40, 1),
    name: line(60, 1),
    group: z.enum(loadGroups),
    volts: z.union([z.literal(120), z.literal(240)], 'must be 120 or 240'),
    runningW: z.strictObject({ low: watts, likely: watts, high: watts }),
    powerFactor: within(0.1, 1, '(1 = resistive)'),
    idleW: within(0, 5000, 'W'),
    /** share of the time by season; of a load that follows the weather, at `atC` */
    duty: z.strictObject({ winter: share, between: share, summer: share }),
    /** down and up, as a share of the likely one */
    dutyUnsure: within(0, 2, '(a fraction)'),
    nature: z.enum(loadNatures),
    /** start as a multiple of running, for motors */
    start: z
      .strictObject({ low: within(1, 10, '×'), likely: within(1, 10, '×'), high: within(1, 10, '×') })
      .optional(),
    pattern: patternSchema,
    stages: z
      .array(z.strictObject({ W: watts, shareFraction: share }))
      .max(4)
      .optional(),
    sequence: z
      .array(z.strictObject({ name: line(40, 1), W: watts, seconds: within(0.1, 3600, 's') }))
      .max(8)
      .optional(),
    weather: weatherSchema.extend({ atC: within(-60, 60, '°C') }).optional(),
    byHand: z.boolean(),
    deferrable: z.boolean(),
    needsBond: z.boolean(),
    /** other words that people use for it */
    words: line(120),
  })
  .check(context => {
    const { runningW: w, start } = context.value
    const say = (path: PropertyKey[], message: string) =>
      context.issues.push({ code: 'custom', path, message, input: context.value })
    if (w.low > w.likely) say(['runningW', 'low'], 'must not be above the likely figure')
    if (w.high < w.likely) say(['runningW', 'high'], 'must not be below the likely figure')
    if (start && start.low > start.likely) say(['start', 'low'], 'must not be above the likely figure')
    if (start && start.high < start.likely) say(['start', 'high'], 'must not be below the likely figure')
  })
export type Typical = z.infer<typeof typicalSchema>

/** The share of the time that a typical load runs in a season; between the two where none is said. */
export const typicalDuty = ({ duty }: Typical, season: Season | undefined) =>
  season === 'winter' || season === 'summer' ? duty[season] : duty.between

/** Watt-hours of a day in a season, as they usually are. */
export const typicalDayWh = (typical: Typical, season: Season | undefined) => {
  const duty = typicalDuty(typical, season)
  return 24 * (duty * typical.runningW.likely + (1 - duty) * typical.idleW)
}

/** A load of a job from a typical one: every figure a typical value, with its range. `firms`: the firm changed it. */
export function loadFromTypical(
  typical: Typical,
  id: string,
  season: Season | undefined,
  firms = false,
): Load {
  const { runningW, duty, dutyUnsure, start, weather } = typical
  const document = firms ? 'the firm’s load library' : 'load library'
  const said = (value: number, low?: number, high?: number): Known => ({
    value,
    from: 'typical value',
    document,
    ...(low !== undefined && { low }),
    ...(high !== undefined && { high }),
  })
  const likely = weather ? duty.winter || duty.summer : typicalDuty(typical, season)
  const differs = duty.winter !== duty.summer || duty.between !== duty.winter
  return {
    id,
    name: typical.name,
    runningW: said(runningW.likely, runningW.low, runningW.high),
    powerFactor: said(typical.powerFactor),
    dutyFraction: {
      ...said(likely, likely * Math.max(0, 1 - dutyUnsure), Math.min(1, likely * (1 + dutyUnsure))),
      ...(weather ? { atC: weather.atC } : season && { season }),
    },
    idleW: said(typical.idleW),
    nature: typical.nature,
    ...(start && {
      start: { method: 'multiple' as const, multiple: said(start.likely, start.low, start.high) },
    }),
    byHand: typical.byHand,
    needsBond: typical.needsBond,
    pattern: typical.pattern,
    ...(typical.stages?.length && { stages: typical.stages }),
    ...(typical.sequence?.length && { sequence: typical.sequence }),
    ...(weather && { weather: { mode: weather.mode, balanceC: weather.balanceC } }),
    ...(differs && { seasons: { ...duty } }),
    ...(typical.deferrable && { deferrable: true as const }),
  }
}

/** Typical loads that answer to what is typed: every word is found in the name, the group or the other words. */
export function findTypical(library: readonly Typical[], asked: string): Typical[] {
  const words = asked.toLowerCase().split(/\s+/).filter(Boolean)
  return library.filter(t => {
    const text = `${t.name} ${t.group} ${t.words} ${t.volts} V`.toLowerCase()
    return words.every(w => text.includes(w))
  })
}

/** The library of a firm: ours, with what the firm changed or added in place of it. */
export function merged(
  ours: readonly Typical[],
  firms: readonly Typical[],
): { typical: Typical; firms: boolean }[] {
  const changed = new Map(firms.map(t => [t.id, t]))
  const known = new Set(ours.map(t => t.id))
  return [
    ...ours.map(t => ({ typical: changed.get(t.id) ?? t, firms: changed.has(t.id) })),
    ...firms.filter(t => !known.has(t.id)).map(typical => ({ typical, firms: true })),
  ].sort((a, b) => a.typical.name.localeCompare(b.typical.name))
}
