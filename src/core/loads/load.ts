import * as z from 'zod'
import { line, within } from '../quantity'
import { sourcedNumber } from '../sourced'
import type { Origin } from '../working'
import { logSchema } from './log'
import { motorTypes } from './motor-types'
import { plateSchema } from './nameplate'
import { seasonSchema } from './season'
import { start } from './start'

export const loadNatures = ['plain', 'motor', 'compressor'] as const

export const connections = ['plug', 'hard-wired', 'unknown'] as const

const watts = within(0, 20_000, 'W')
const share = within(0, 1, 'of the time')
const hour = within(0, 24, '(an hour of the day)')

/** A figure of a load as one source has it: with the range it may lie in, where that is known. */
const known = (value: z.ZodType<number>) =>
  sourcedNumber(value).extend({ low: value.optional(), high: value.optional() })
const knownShare = known(share).extend({
  /** what it was outdoors when this was read, °C */
  atC: within(-60, 60, '°C').optional(),
  season: seasonSchema.optional(),
})

/** the person wants this one, whatever else is known */
const chosen = z.literal(true).optional()
const mostOthers = 'must hold at most 8'
/** The figure in force, and what other sources say of the same. */
const figure = (value: z.ZodType<number>) =>
  known(value).extend({ chosen, others: z.array(known(value)).max(8, mostOthers).optional() })
const shareFigure = knownShare.extend({ chosen, others: z.array(knownShare).max(8, mostOthers).optional() })

export const startSchema = z.discriminatedUnion('method', [
  z.strictObject({ method: z.literal('inrush'), inrushA: known(within(0.1, 1000, 'A')) }),
  z.strictObject({
    method: z.literal('locked-rotor'),
    lockedRotorA: known(within(0.1, 1000, 'A')),
    softStartFraction: within(0.1, 1, '(1 = no soft starter)').optional(),
  }),
  z.strictObject({ method: z.literal('multiple'), multiple: known(within(1, 10, '× running')) }),
])
export type Start = z.infer<typeof startSchema>

/** When a load runs. How much of the time it does is its `dutyFraction`; this says at which hours. */
export const patternSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('continuous') }),
  z.strictObject({ kind: z.literal('cycling'), cycleMinutes: within(0.1, 1440, 'min').optional() }),
  z.strictObject({
    kind: z.literal('scheduled'),
    spans: z
      .array(z.strictObject({ fromH: hour, toH: hour }))
      .min(1, 'must hold a span of hours')
      .max(6, 'must hold at most 6 spans'),
    days: z.enum(['every day', 'weekdays', 'weekends']),
  }),
  z.strictObject({
    kind: z.literal('event'),
    timesPerDay: within(0.01, 500, 'times a day'),
    minutes: within(0.05, 1440, 'min'),
    fromH: hour.optional(),
    toH: hour.optional(),
  }),
])
export type Pattern = z.infer<typeof patternSchema>

export const weatherSchema = z.strictObject({
  mode: z.enum(['heating', 'cooling']),
  /** outdoors, where it needs none, °C */
  balanceC: within(-10, 40, '°C'),
})

const times = within(0, 5, '×')

/** One load on a circuit. Watts are real power; the duty is the share of time it runs. */
export const loadSchema = z
  .strictObject({
    id: line(40, 1),
    name: line(60, 1),
    /** at its highest level */
    runningW: figure(watts),
    powerFactor: figure(within(0.1, 1, '(1 = resistive)')),
    dutyFraction: shareFigure,
    idleW: figure(within(0, 5000, 'W')),
    nature: z.enum(loadNatures),
    /** which motor it is: it decides whether a soft starter may help */
    motorType: z.enum(motorTypes).optional(),
    /** by a plug that a cord can take, or wired in */
    connection: z.enum(connections).optional(),
    start: startSchema.optional(),
    otherStarts: z.array(startSchema).max(8, 'must hold at most 8').optional(),
    /** switched by a person, who can leave it off or wait: of these, one runs at a time */
    byHand: z.boolean(),
    /** proves its flame through ground: refuses a floating source */
    needsBond: z.boolean(),
    pattern: patternSchema.optional(),
    /** lower levels, each with its share of the running time; the rest runs at `runningW` */
    stages: z
      .array(z.strictObject({ W: watts, shareFraction: share }))
      .max(4, 'must hold at most 4 lower levels')
      .optional(),
    /** what it does before it runs, step by step: a fan, an igniter, then the blower */
    sequence: z
      .array(z.strictObject({ name: line(40, 1), W: watts, seconds: within(0.1, 3600, 's') }))
      .max(8, 'must hold at most 8 steps')
      .optional(),
    weather: weatherSchema.optional(),
    /** how its energy differs over the year where no weather explains it, × */
    seasons: z.strictObject({ winter: times, between: times, summer: times }).optional(),
    /** how its energy lies over the hours of a day, × the day's mean: 24 figures */
    hourly: z
      .array(within(0, 24, '×'))
      .length(24, 'must hold 24 figures')
      .optional(),
    /** 1 must run, 2 should, 3 may go; missing: that of its circuit */
    tier: z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be 1, 2 or 3').optional(),
    /** can wait some hours: a washing machine, a charger */
    deferrable: z.literal(true).optional(),
    /** ids of loads that must not run meanwhile */
    notWith: z.array(line(40, 1)).max(12, 'must name at most 12').optional(),
    /** the nameplate as it was read, and when */
    plate: plateSchema.extend({ on: z.iso.date('must be a date: YYYY-MM-DD') }).optional(),
    logs: z.array(logSchema).max(12, 'must hold at most 12 logs').optional(),
  })
  .check(context => {
    const load = context.value
    const say = (path: PropertyKey[], message: string) =>
      context.issues.push({ code: 'custom', path, message, input: load })
    for (const key of figureKeys) {
      const { value, low = value, high = value } = load[key]
      if (low > value) say([key, 'low'], 'must not be above the likely figure')
      if (high < value) say([key, 'high'], 'must not be below the likely figure')
    }
    const shares = (load.stages ?? []).reduce((sum, s) => sum + s.shareFraction, 0)
    if (shares > 1 + 1e-9) say(['stages'], 'must not take more than the whole running time together')
    const above = (load.stages ?? []).findIndex(s => s.W > load.runningW.value)
    if (above >= 0)
      say(['stages', above, 'W'], 'must not be above the running watts, which are the highest level')
  })

export const figureKeys = ['runningW', 'powerFactor', 'dutyFraction', 'idleW'] as const
export type FigureKey = (typeof figureKeys)[number]

export type Load = z.infer<typeof loadSchema>
/** A figure as one source has it. */
export type Known = z.infer<typeof knownShare>
/** The figure in force, and beside it what other sources say. */
export type Figure = Load['dutyFraction']

/** A motor with no start figure is taken at this multiple of its running volt-amps, and asked for. */
export const assumedStartMultiple = 5

export const runningVA = (load: Load): number => load.runningW.value / load.powerFactor.value

/** The figure of a start, whatever it was known by. */
export const startFigure = (given: Start): Known =>
  given.method === 'inrush'
    ? given.inrushA
    : given.method === 'multiple'
      ? given.multiple
      : given.lockedRotorA

/** The weakest evidence among the figures that make a load's average. */
export function meanProvenance(load: Load): { from: Origin; on?: string; document?: string } {
  const order = [
    'commissioned',
    'metered',
    'utility data',
    'nameplate',
    'catalogue',
    'job',
    'typical value',
    'assumed',
  ]
  const figures: Known[] = [load.runningW, load.dutyFraction]
  const { from, on, document } = figures.reduce((worst, f) =>
    order.indexOf(f.from) > order.indexOf(worst.from) ? f : worst,
  )
  return { from, ...(on && { on }), ...(document && { document }) }
}

/** The start of a motor load, computed by `start`; null where the load simply runs. */
export function startOf(load: Load, volts: number) {
  if (load.nature === 'plain' && !load.start) return null
  const given = load.start
  if (!given)
    return start.compute(
      { method: 'multiple', runningVA: runningVA(load), multiple: assumedStartMultiple, volts },
      { multiple: { from: 'assumed' } },
    )
  const { from, on, document } = startFigure(given)
  const source = { from, ...(on && { on }), ...(document && { document }) }
  if (given.method === 'inrush')
    return start.compute({ method: 'inrush', inrushA: given.inrushA.value, volts }, { inrushA: source })
  if (given.method === 'multiple')
    return start.compute(
      { method: 'multiple', runningVA: runningVA(load), multiple: given.multiple.value, volts },
      { multiple: source },
    )
  return start.compute(
    {
      method: 'locked-rotor',
      lockedRotorA: given.lockedRotorA.value,
      softStartFraction: given.softStartFraction ?? 1,
      volts,
    },
    { lockedRotorA: source },
  )
}
