import { intervalDemand } from './interval-demand'
import { dayText, type IntervalSeries, intervalAt } from './intervals'
import { type Season, seasonOf } from './season'
import type { Utility } from './utility'

/** A year of a meter’s intervals: what it sums up to, and what is drawn of it. */

const lengths = [15, 30, 60] as const

/** Intervals of other lengths (5 minutes, say) put together to quarter-hours; null where they cannot be. */
function inStandardLengths(
  series: IntervalSeries,
): { series: IntervalSeries; minutes: Utility['minutes'] } | null {
  const length = commonLength(series)
  const standard = lengths.find(l => l === length)
  if (standard) return { series, minutes: standard }
  if (length <= 0 || 15 % length !== 0) return null
  const buckets = new Map<number, { offset: number; Wh: number }>()
  for (let i = 0; i < series.startS.length; i++) {
    const at = Math.floor((series.startS[i] ?? 0) / 900) * 900
    const before = buckets.get(at)
    if (before) before.Wh += series.Wh[i] ?? 0
    else buckets.set(at, { offset: series.offsetMin[i] ?? 0, Wh: series.Wh[i] ?? 0 })
  }
  const rows = [...buckets]
  return {
    minutes: 15,
    series: {
      ...series,
      startS: Float64Array.from(rows, ([at]) => at),
      offsetMin: Int16Array.from(rows, ([, b]) => b.offset),
      minutes: new Float32Array(rows.length).fill(15),
      Wh: Float64Array.from(rows, ([, b]) => b.Wh),
    },
  }
}

/** The length that most intervals have, min. */
export function commonLength({ minutes }: IntervalSeries): number {
  const counts = new Map<number, number>()
  for (const m of minutes) counts.set(m, (counts.get(m) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
}

/** Input of `interval-demand` for a meter: intervals of standard length, what was fed back counted as nothing drawn. */
export function demandInput(given: IntervalSeries) {
  const standard = inStandardLengths(given)
  if (!standard) return null
  const { series, minutes } = standard
  const intervals: { start: string; minutes: Utility['minutes']; Wh: number }[] = []
  let left = 0
  let lastEnd = -Infinity
  for (let i = 0; i < series.startS.length; i++) {
    const startS = series.startS[i] ?? 0
    const one = intervalAt(series, i)
    const length = lengths.find(l => l === one.minutes)
    if (!length || startS < lastEnd) {
      left++
      continue
    }
    lastEnd = startS + length * 60
    intervals.push({ start: one.start, minutes: length, Wh: Math.max(0, one.Wh) })
  }
  return intervals.length ? { intervals, minutes, left } : null
}

export interface Summed {
  minutes: Utility['minutes']
  firstDay: string
  lastDay: string
  demand: Utility['demand']
  seasons: Utility['seasons']
  /** intervals of an odd length or on top of others, left out */
  left: number
}

/** A meter of a kept file, with what `interval-demand` says of it. */
export interface MeterAbout {
  id: string
  flow: IntervalSeries['flow']
  /** how many intervals it has */
  count: number
  totalWh: number
  /** null where its intervals are of no use for demand */
  summed: Summed | null
}

/** What `interval-demand` and the seasons say of a meter; null where its intervals are of no use for that. */
export function summed(series: IntervalSeries): Summed | null {
  const input = demandInput(series)
  const [first] = input?.intervals ?? []
  const last = input?.intervals.at(-1)
  if (!input || !first || !last) return null
  const { result } = intervalDemand.compute({ intervals: input.intervals })
  const bySeason = new Map<Season, { Wh: number; h: number }>()
  for (const { start, minutes, Wh } of input.intervals) {
    const season = seasonOf(start)
    const sum = bySeason.get(season) ?? { Wh: 0, h: 0 }
    sum.Wh += Wh
    sum.h += minutes / 60
    bySeason.set(season, sum)
  }
  // a few days do not speak for a season
  const enoughH = 14 * 24
  return {
    minutes: input.minutes,
    firstDay: first.start.slice(0, 10),
    lastDay: last.start.slice(0, 10),
    demand: result,
    seasons: Object.fromEntries(
      [...bySeason].filter(([, s]) => s.h >= enoughH).map(([season, s]) => [season, (s.Wh / s.h) * 24]),
    ),
    left: input.left,
  }
}

export interface UtilityViews {
  /** the working of `interval-demand` */
  answer: string
  /** share of the time at which at least this is drawn */
  duration: { share: number; W: number }[]
  /** for each day its date and 24 means, W; null where nothing was read */
  days: { day: string; W: (number | null)[] }[]
  peakWeek: { at: string; W: number }[]
  /** by month, the mean day */
  months: { month: string; dailyWh: number }[]
}

/** What is drawn of a year: load duration, day by hour, the week around the peak, the months. */
export function utilityViews(series: IntervalSeries): UtilityViews | null {
  const input = demandInput(series)
  if (!input) return null
  const { intervals } = input
  const worked = intervalDemand.compute({ intervals })
  const power = (i: { Wh: number; minutes: number }) => (i.Wh * 60) / i.minutes
  const sorted = intervals.map(power).sort((a, b) => b - a)
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0
  const hours = new Map<string, { Wh: number; h: number }[]>()
  const months = new Map<string, { Wh: number; h: number }>()
  for (const i of intervals) {
    const day = i.start.slice(0, 10)
    const hour = Number(i.start.slice(11, 13))
    const row = hours.get(day) ?? Array.from({ length: 24 }, () => ({ Wh: 0, h: 0 }))
    const cell = row[hour]
    if (cell) {
      cell.Wh += i.Wh
      cell.h += i.minutes / 60
    }
    hours.set(day, row)
    const month = months.get(day.slice(0, 7)) ?? { Wh: 0, h: 0 }
    month.Wh += i.Wh
    month.h += i.minutes / 60
    months.set(day.slice(0, 7), month)
  }
  const peakAt = intervals.findIndex(i => power(i) === worked.result.peakW)
  const peakMs = Date.parse(intervals[peakAt]?.start ?? '')
  const halfWeek = 3.5 * 86_400_000
  return {
    answer: worked.answer,
    duration: Array.from({ length: 101 }, (_, n) => ({ share: n / 100, W: at(n / 100) })),
    days: everyDay([...hours.keys()]).map(day => ({
      day,
      W: hours.get(day)?.map(c => (c.h ? c.Wh / c.h : null)) ?? new Array(24).fill(null),
    })),
    peakWeek: intervals
      .filter(i => Math.abs(Date.parse(i.start) - peakMs) <= halfWeek)
      .map(i => ({ at: i.start.slice(0, 16), W: power(i) })),
    months: [...months].map(([month, { Wh, h }]) => ({ month, dailyWh: (Wh / h) * 24 })),
  }
}

/** Days without a gap from the first to the last, so that a missing week is seen; ten years at most. */
function everyDay(given: string[]): string[] {
  const sorted = given.sort()
  const first = Date.parse(sorted[0] ?? '') / 86_400_000
  const last = Date.parse(sorted.at(-1) ?? '') / 86_400_000
  return Array.from({ length: Math.min(3660, last - first + 1) }, (_, n) => dayText(first + n))
}
