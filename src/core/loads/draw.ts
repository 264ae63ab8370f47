import { figure } from '../units/format'
import { sourced, step, type Working, type WorkingValue } from '../working'
import type { Known, Load, Pattern } from './load'
import { levelW } from './log'
import { type Conditions, type Season, seasonOf } from './season'
import { weatherScale } from './weather-scale'

/** What a load draws under the outage's conditions. */

const third = (season: Season) => (season === 'winter' || season === 'summer' ? season : 'between')

export type Scaling =
  | { kind: 'as read' }
  | { kind: 'weather'; working: Working; saturated: boolean }
  | { kind: 'season'; factor: number; from: Season; to: Season }
  | {
      kind: 'not scaled'
      why:
        | 'no outdoor temperature of the outage'
        | 'no outdoor temperature of the reading'
        | 'measured beyond its balance point'
    }

/** The share of time it runs under the conditions: `weather-scale` of the share read, or the season's factor. */
export function dutyIn(load: Load, { outdoorC, season }: Conditions, duty: Known = load.dutyFraction) {
  const { value, atC } = duty
  const readIn = duty.season ?? (duty.on ? seasonOf(duty.on) : undefined)
  const asRead = (scaling: Scaling) => ({ value, scaling })
  const bySeason = (from: Season | undefined) => {
    const was = from && load.seasons?.[third(from)]
    if (!load.seasons || !season || !was || third(season) === third(from)) return null
    const factor = load.seasons[third(season)] / was
    return {
      value: Math.min(1, value * factor),
      scaling: { kind: 'season', factor, from, to: season } as Scaling,
    }
  }
  if (load.weather) {
    const { mode, balanceC } = load.weather
    if (outdoorC === undefined)
      // its figures are those of its own season: without a temperature, the season said tells as much as is known
      return (
        bySeason(mode === 'heating' ? 'winter' : 'summer') ??
        asRead({ kind: 'not scaled', why: 'no outdoor temperature of the outage' })
      )
    if (atC === undefined) return asRead({ kind: 'not scaled', why: 'no outdoor temperature of the reading' })
    if (mode === 'heating' ? atC >= balanceC : atC <= balanceC)
      return asRead({ kind: 'not scaled', why: 'measured beyond its balance point' })
    const { result, working } = weatherScale.compute(
      { mode, dutyFraction: value, measuredC: atC, balanceC, designC: outdoorC },
      { dutyFraction: provenance(duty), designC: { from: 'job' } },
    )
    return {
      value: result.dutyFraction,
      scaling: { kind: 'weather', working, saturated: result.saturated } as Scaling,
    }
  }
  return bySeason(readIn) ?? asRead({ kind: 'as read' })
}

const provenance = ({ from, on, document }: Known) => ({
  from,
  ...(on && { on }),
  ...(document && { document }),
})

/** Hours of the day that a span covers, 0 to 1 for each of the 24; a span may go over midnight. */
function covered(spans: readonly { fromH: number; toH: number }[]): number[] {
  return Array.from({ length: 24 }, (_, h) => {
    const part = spans.reduce((sum, { fromH, toH }) => {
      const pieces =
        fromH <= toH
          ? [[fromH, toH]]
          : [
              [fromH, 24],
              [0, toH],
            ]
      return (
        sum + pieces.reduce((s, [a = 0, b = 0]) => s + Math.max(0, Math.min(h + 1, b) - Math.max(h, a)), 0)
      )
    }, 0)
    return Math.min(1, part)
  })
}

const dayShare = { 'every day': 1, weekdays: 5 / 7, weekends: 2 / 7 } as const

/** The share of time that a pattern itself amounts to; null where it does not say. */
export function patternDuty(pattern: Pattern | undefined): number | null {
  if (pattern?.kind === 'continuous') return 1
  if (pattern?.kind === 'event') return Math.min(1, (pattern.timesPerDay * pattern.minutes) / 1440)
  if (pattern?.kind === 'scheduled')
    return (covered(pattern.spans).reduce((a, b) => a + b, 0) / 24) * dayShare[pattern.days]
  return null
}

/** How the running lies over the hours of a day: 24 factors with a mean of 1. Metered hours win over the pattern's. */
export function hourFactors(load: Load): number[] {
  const { pattern } = load
  const weights =
    load.hourly ??
    (pattern?.kind === 'scheduled'
      ? covered(pattern.spans)
      : pattern?.kind === 'event' && pattern.fromH !== undefined && pattern.toH !== undefined
        ? covered([{ fromH: pattern.fromH, toH: pattern.toH }])
        : null)
  const sum = weights?.reduce((a, b) => a + b, 0) ?? 0
  return weights && sum > 0 ? weights.map(w => (w * 24) / sum) : new Array(24).fill(1)
}

/** The mean of the hour factors over the outage: above 1 where it falls into the hours of use. */
function windowFactor(load: Load, { beginsH, hours }: Conditions): number {
  if (beginsH === undefined || hours === undefined || hours <= 0) return 1
  const factors = hourFactors(load)
  const days = Math.floor(hours / 24)
  let sum = days * 24
  for (let at = beginsH, left = hours - days * 24; left > 1e-9; ) {
    const part = Math.min(left, Math.floor(at) + 1 - at)
    sum += part * (factors[Math.floor(at) % 24] ?? 1)
    at += part
    left -= part
  }
  return sum / hours
}

export interface Drawn {
  /** average over the outage, W */
  meanW: number
  /** energy of a whole day in that season and weather, Wh */
  dailyWh: number
  dutyFraction: number
  scaling: Scaling
  /** × for the hours that the outage covers */
  windowFactor: number
}

/** Average watts and watt-hours a day under the conditions: duty × running + the rest of the time idle. */
export const drawn = remembered((load: Load, conditions: Conditions): Drawn => {
  const { value, scaling } = dutyIn(load, conditions)
  const runs = levelW(load.runningW.value, load.stages)
  const idle = load.idleW.value
  const factor = windowFactor(load, conditions)
  const inWindow = Math.min(1, value * factor)
  return {
    meanW: inWindow * runs + (1 - inWindow) * idle,
    dailyWh: 24 * (value * runs + (1 - value) * idle),
    dutyFraction: value,
    scaling,
    windowFactor: factor,
  }
})

/**
 * A load never changes once it is made, and a tap on a breaker leaves all loads as they are: what was made of one under the
 * same conditions is used again.
 */
function remembered<T>(make: (load: Load, conditions: Conditions) => T) {
  const made = new WeakMap<Load, { conditions: Conditions; value: T }>()
  return (load: Load, conditions: Conditions = {}): T => {
    const before = made.get(load)
    if (before && same(before.conditions, conditions)) return before.value
    const value = make(load, conditions)
    made.set(load, { conditions, value })
    return value
  }
}

const same = (a: Conditions, b: Conditions) =>
  a.season === b.season && a.outdoorC === b.outdoorC && a.beginsH === b.beginsH && a.hours === b.hours

/** Average watts: duty × running + the rest of the time idle. */
export const meanW = (load: Load, conditions: Conditions = {}): number => drawn(load, conditions).meanW

/** How a load's average came about, for *Show the working*. */
export const drawnWorking = remembered((load: Load, conditions: Conditions): Working => {
  const { meanW: mean, dutyFraction, scaling, windowFactor: factor } = drawn(load, conditions)
  const runs = levelW(load.runningW.value, load.stages)
  const from = (label: string, known: Known, unit: WorkingValue['unit']): WorkingValue => ({
    label,
    value: known.value,
    unit,
    ...sourced(provenance(known)),
  })
  const inWindow = Math.min(1, dutyFraction * factor)
  return {
    title: load.name,
    formula: [
      'average = share of time it runs × running watts + the rest × idle watts',
      ...(load.stages?.length
        ? ['running watts of several levels = the sum of each level × its share of the running time']
        : []),
      ...(factor === 1
        ? []
        : ['share during the outage = share of the day × how its hours of use lie in the outage']),
    ],
    inputs: [
      from('Running', load.runningW, 'W'),
      ...(load.stages ?? []).map((s, n) => ({
        label: `Lower level ${n + 1}, ${figure(s.shareFraction * 100)} % of the running time`,
        value: s.W,
        unit: 'W' as const,
      })),
      from('Idle', load.idleW, 'W'),
      scaling.kind === 'weather'
        ? {
            label: 'Share of the time, for this weather',
            value: dutyFraction,
            unit: 'fraction',
            working: scaling.working,
          }
        : from('Share of the time, as read', load.dutyFraction, 'fraction'),
    ],
    steps: [
      ...(scaling.kind === 'season'
        ? [
            step(
              `Share of the time, ${scaling.from} reading for ${scaling.to}`,
              dutyFraction,
              'fraction',
              `${figure(load.dutyFraction.value)} × ${figure(scaling.factor)}`,
            ),
          ]
        : []),
      ...(factor === 1
        ? []
        : [
            step(
              'Share during the outage',
              inWindow,
              'fraction',
              `${figure(dutyFraction)} × ${figure(factor)}`,
            ),
          ]),
      ...(load.stages?.length ? [step('Running, all levels', runs, 'W')] : []),
      step(
        'Average',
        mean,
        'W',
        `${figure(inWindow)} × ${figure(runs)} + ${figure(1 - inWindow)} × ${figure(load.idleW.value)}`,
      ),
    ],
    references: [],
    notes: scaling.kind === 'not scaled' ? [`Not scaled for the weather: there is ${scaling.why}.`] : [],
    notCovered: ['Habits that differ from the days of the readings.'],
  }
})
