import { figureOf, ofTests, type TestEntry } from '../job/test-log'
import { runtime } from '../source/runtime'
import type { Test } from './tests'

/** One capacity test: what was left of the label’s capacity then. */
export interface CapacityPoint {
  on: string
  /** years since the first test */
  years: number
  /** of the watt-hours that a new one would deliver at that load */
  fraction: number
  deliveredWh: number
  roundTripFraction: number | null
  by: string
  simulated: boolean
}

/** How a unit’s capacity falls over the years: its tests, and what they make one expect, with its band. */
export interface Ageing {
  points: CapacityPoint[]
  /** per year, of the label; null while only an assumption stands behind it */
  lostPerYear: number | null
  forecast: { years: number; low: number; likely: number; high: number }[]
}

/** Where there are too few tests to tell: two hundredths a year, between one and four. Ours, from what makers commonly promise after ten years. */
const assumed = { low: 0.01, likely: 0.02, high: 0.04 } as const
/** A capacity test repeats itself within this, one standard deviation: meter, temperature, where it switches off. Ours. */
const testSd = 0.02
const fourInFive = 1.2816
const yearMs = 365.25 * 86_400_000
const aheadYears = 10
const shortestYears = 0.5

/** What a unit’s capacity tests tell, in the order of their days. */
export function capacityPoints(test: Test, log: readonly TestEntry[]): CapacityPoint[] {
  const asks = test.together.find(t => t.by === 'capacity')
  if (!asks) return []
  const reads = ofTests(log, 'read')
    .filter(e => e.test === test.id)
    .flatMap(e => {
      const [loadW, out, from, to] = ['loadW', 'Wh out', 'from', 'to'].map(k => figureOf(e, k))
      if (!loadW || out === undefined || from === undefined || to === undefined || from <= to) return []
      const expected = runtime.compute({
        capacityWh: asks.ratedWh,
        startFraction: from / 100,
        reserveFraction: to / 100,
        deratingFraction: 1,
        idleW: asks.idleW,
        efficiencyFraction: asks.efficiencyFraction,
        loadW,
      }).result.deliveredWh
      const back = figureOf(e, 'Wh back')
      return [
        {
          on: e.on,
          fraction: out / expected,
          deliveredWh: out,
          roundTripFraction: back ? out / back : null,
          by: e.by,
          simulated: e.simulated ?? false,
        },
      ]
    })
    .sort((a, b) => a.on.localeCompare(b.on))
  const [first] = reads
  return reads.map(r => ({ ...r, years: first ? (Date.parse(r.on) - Date.parse(first.on)) / yearMs : 0 }))
}

/**
 * The curve of a unit’s capacity over the years. One test: what is usual from there on. Two or more, half a year apart at least: a straight line by least squares, its slope
 * held to what is usual by weight of one more test (a ridge), since two tests alone tell little; the band from the scatter of a test and the spread of the slope: four in five.
 * Fractions of the label; years since the first test.
 */
export function ageingOf(points: readonly CapacityPoint[]): Ageing {
  const [first] = points
  const last = points.at(-1)
  if (!first || !last) return { points: [], lostPerYear: null, forecast: [] }
  const told = points.length > 1 && last.years >= shortestYears
  const n = points.length
  const meanX = points.reduce((s, p) => s + p.years, 0) / n
  const meanY = points.reduce((s, p) => s + p.fraction, 0) / n
  const sxx = points.reduce((s, p) => s + (p.years - meanX) ** 2, 0)
  const sxy = points.reduce((s, p) => s + (p.years - meanX) * (p.fraction - meanY), 0)
  const usualSd = (assumed.high - assumed.low) / 2
  // precision of the tests against that of what is usual
  const [own, prior] = [sxx / testSd ** 2, 1 / usualSd ** 2]
  const slope = told ? (sxy / testSd ** 2 - assumed.likely * prior) / (own + prior) : -assumed.likely
  const slopeSd = told ? 1 / Math.sqrt(own + prior) : usualSd
  const at = (years: number) => meanY + slope * (years - meanX)
  const sdAt = (years: number) => Math.sqrt(testSd ** 2 / n + (slopeSd * (years - meanX)) ** 2)
  return {
    points: [...points],
    lostPerYear: told ? -slope : null,
    forecast: Array.from({ length: aheadYears + 1 }, (_, year) => {
      const years = last.years + year
      const likely = Math.max(0, at(years))
      const by = fourInFive * sdAt(years)
      return { years, low: Math.max(0, likely - by), likely, high: likely + by }
    }),
  }
}
