import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { fault } from '../outcome'
import { notNegative } from '../quantity'
import { figure, plural, quantity } from '../units/format'
import { step } from '../working'

const input = z.strictObject({
  intervals: labelled(
    z
      .array(
        z.strictObject({
          start: labelled(
            z.iso.datetime({
              offset: true,
              error: 'must be a date and time with its offset, such as 2026-01-15T17:00:00-05:00',
            }),
            'Start',
          ),
          minutes: labelled(z.literal([15, 30, 60]), 'Minutes'),
          Wh: labelled(notNegative, 'Energy', 'Wh'),
        }),
      )
      .min(1, 'must not be empty'),
    'Intervals',
    'text',
    { row: 'Interval' },
  ),
})

const output = z.strictObject({
  dailyMeanWh: labelled(z.number(), 'A mean day', 'Wh'),
  peakDayWh: labelled(z.number(), 'Largest day', 'Wh'),
  peakDay: labelled(z.string(), 'That day'),
  peakW: labelled(z.number(), 'Highest demand', 'W'),
  baseW: labelled(z.number(), 'Base load', 'W'),
  gaps: labelled(z.number(), 'Missing intervals', 'count'),
  days: labelled(z.number(), 'Calendar days', 'count'),
})

type Input = z.infer<typeof input>
type Interval = Input['intervals'][number]

const minute = 60_000
const powerW = (i: Interval) => (i.Wh * 60) / i.minutes
/** The date as written: local time of the meter. */
const dayOf = (i: Interval) => i.start.slice(0, 10)

/** In order of time, each with its instant. */
const inOrder = (intervals: readonly Interval[]) =>
  intervals.map(i => ({ ...i, at: Date.parse(i.start) })).sort((a, b) => a.at - b.at)

function daysOf(intervals: readonly Interval[]): Map<string, number> {
  const days = new Map<string, number>()
  for (const i of intervals) days.set(dayOf(i), (days.get(dayOf(i)) ?? 0) + i.Wh)
  return days
}

function gapsOf(intervals: readonly Interval[]): number {
  const ordered = inOrder(intervals)
  return ordered.slice(1).reduce((gaps, next, n) => {
    const before = ordered[n]
    if (!before) return gaps
    const missing = next.at - (before.at + before.minutes * minute)
    return gaps + Math.max(0, Math.ceil(missing / (before.minutes * minute)))
  }, 0)
}

/** Average power of the intervals, lowest first. */
const powersOf = (i: Input) => i.intervals.map(powerW).sort((a, b) => a - b)

function solve(i: Input) {
  const powers = powersOf(i)
  const days = daysOf(i.intervals)
  const totalWh = i.intervals.reduce((sum, one) => sum + one.Wh, 0)
  const totalH = i.intervals.reduce((sum, one) => sum + one.minutes, 0) / 60
  const [peakDay, peakDayWh] = [...days].reduce((best, day) =>
    day[1] > best[1] || (day[1] === best[1] && day[0] < best[0]) ? day : best,
  )
  return {
    dailyMeanWh: (totalWh / totalH) * 24,
    peakDayWh,
    peakDay,
    peakW: powers.at(-1) ?? 0,
    baseW: powers[Math.ceil(powers.length / 20) - 1] ?? 0,
    gaps: gapsOf(i.intervals),
    days: days.size,
  }
}

/**
 * What a utility's interval data say of a house: mean and largest day (Wh), highest and base demand (W), gaps.
 * `start` with offset, `minutes` 15, 30 or 60, `Wh` of the interval. Fault on `intervals`: two overlap.
 * An interval belongs to the date of its `start` as written; base load is the 5th percentile, nearest rank.
 * Source: energy ÷ time; `interval-demand` of the calculators' contract.
 */
export const intervalDemand = calculator({
  name: 'interval-demand',
  topic: 'loads',
  question: 'What does the utility data say?',
  asked: ['interval data', 'smart meter', 'peak demand', 'base load', 'kWh per day', 'whole house'],
  input,
  output,
  example: {
    intervals: [
      210, 190, 180, 180, 200, 340, 980, 1240, 620, 410, 380, 450, 520, 430, 390, 460, 880, 1950, 2380, 1720,
      1310, 940, 520, 290,
    ].map((Wh, n) => ({
      start: `2026-01-15T${String(n).padStart(2, '0')}:00:00-05:00`,
      minutes: 60,
      Wh,
    })),
  },
  faultsIn: i => {
    const ordered = inOrder(i.intervals)
    const clash = ordered.find((one, n) => {
      const before = ordered[n - 1]
      return before && one.at < before.at + before.minutes * minute
    })
    return clash ? [fault('intervals', `overlap at ${clash.start}: leave out what is there twice`)] : []
  },
  solve,
  explain: (i, r) => {
    const f = figure
    const hours = i.intervals.reduce((sum, one) => sum + one.minutes, 0) / 60
    const totalWh = i.intervals.reduce((sum, one) => sum + one.Wh, 0)
    return {
      answer: `${quantity(r.dailyMeanWh, 'Wh')} on a mean day, up to ${quantity(r.peakW, 'W')}; ${quantity(r.baseW, 'W')} always on${
        r.gaps ? `; ${plural(r.gaps, 'interval')} missing` : ''
      }.`,
      working: {
        title: 'Demand by interval data',
        formula: [
          'mean day = all energy ÷ all hours × 24',
          'highest demand = the largest interval’s energy ÷ its length',
          'base load = the power that 5 % of the intervals stay at or below (nearest rank)',
        ],
        steps: [
          step('A mean day', r.dailyMeanWh, 'Wh', `${f(totalWh)} ÷ ${f(hours)} × 24`),
          step(`Largest day, ${r.peakDay}`, r.peakDayWh, 'Wh'),
          step('Highest demand', r.peakW, 'W'),
          step(
            `Base load, rank ${Math.ceil(i.intervals.length / 20)} of ${i.intervals.length}`,
            r.baseW,
            'W',
          ),
          step('Missing intervals', r.gaps, 'count'),
          step('Calendar days touched', r.days, 'count'),
        ],
        references: [],
        notes:
          r.days < 365 && r.days > 0
            ? ['Less than a year: the season’s peak may be missing (NEC 220.87 asks for a year).']
            : [],
        notCovered: [
          'Single circuits; peaks shorter than an interval; energy that rooftop solar covered before the meter.',
        ],
      },
    }
  },
  curves: i => {
    const powers = powersOf(i).reverse()
    const step = Math.max(1, Math.floor(powers.length / 200))
    return [
      {
        title: 'Load duration: how much of the time the house draws at least this',
        kind: 'line',
        x: { label: 'Share of the time', unit: 'fraction' },
        y: { label: 'Demand', unit: 'W' },
        series: [
          {
            name: 'Demand',
            points: powers
              .filter((_, n) => n % step === 0)
              .map((y, n) => ({ x: ((n + 1) * step) / powers.length, y })),
          },
        ],
      },
    ]
  },
})
