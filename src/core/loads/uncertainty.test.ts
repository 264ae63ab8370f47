import fc from 'fast-check'
import { load } from '../job/fixtures/jobs'
import { streamOf } from '../outage/stream'
import { lasts } from './lasting'
import { seasonOf } from './season'
import { rangeOf, startRange, unsure } from './uncertainty'

const known = (value: number, low: number, high: number) => ({ value, low, high, from: 'job' as const })

test.each([
  ['metered', 100, 95, 105],
  ['nameplate', 100, 50, 110],
  ['assumed', 100, 40, 200],
] as const)('a figure that is %s, of %d W, is from %d to %d', (from, value, low, high) => {
  const range = rangeOf({ value, from }, 'watts')
  expect([range.low, range.value, range.high]).toEqual([low, value, expect.closeTo(high, 9)])
})

test('its own range comes before that of its kind; a share of time is never above all of it', () => {
  expect(rangeOf(known(100, 90, 130), 'watts')).toEqual({ low: 90, value: 100, high: 130 })
  expect(rangeOf({ value: 0.9, from: 'assumed' }, 'share').high).toBe(1)
})

test('the spread of an average by hand is what throwing dice for its three figures gives', () => {
  const fridge = load(150, {
    runningW: known(150, 100, 220),
    dutyFraction: known(0.35, 0.2, 0.6),
    idleW: known(4, 0, 10),
  })
  const { sdW, by } = unsure(fridge, {})
  const { uniform } = streamOf(7, 0, 0)
  const triangular = (low: number, value: number, high: number) => {
    const u = uniform()
    const bend = (value - low) / (high - low)
    return u < bend
      ? low + Math.sqrt(u * (high - low) * (value - low))
      : high - Math.sqrt((1 - u) * (high - low) * (high - value))
  }
  const means = Array.from({ length: 40_000 }, () => {
    const duty = triangular(0.2, 0.35, 0.6)
    return duty * triangular(100, 150, 220) + (1 - duty) * triangular(0, 4, 10)
  })
  const mean = means.reduce((a, b) => a + b, 0) / means.length
  const sd = Math.sqrt(means.reduce((a, b) => a + (b - mean) ** 2, 0) / means.length)
  expect(sdW / sd).toBeGreaterThan(0.98)
  expect(sdW / sd).toBeLessThan(1.02)
  expect(by).toBe('dutyFraction')
})

test('property: the surer a figure, the smaller the spread; what is known exactly has none', () => {
  const figure = fc.integer({ min: 10, max: 2000 })
  const share = fc.double({ min: 0.05, max: 0.9, noNaN: true })
  fc.assert(
    fc.property(figure, share, fc.double({ min: 0.01, max: 0.5, noNaN: true }), (W, duty, off) => {
      const of = (by: number) =>
        unsure(
          load(W, {
            runningW: known(W, W * (1 - by), W * (1 + by)),
            dutyFraction: known(duty, duty, duty),
            idleW: known(0, 0, 0),
          }),
          {},
        ).sdW
      expect(of(0)).toBeLessThan(1e-3)
      expect(of(off / 2)).toBeLessThanOrEqual(of(off) + 1e-9)
      // of a triangle of ±by: by × W ÷ √6, times the share it runs
      expect(of(off)).toBeCloseTo((off * W * duty) / Math.sqrt(6), 2)
    }),
  )
})

test('the range of a start: two to seven times running where nobody said; a soft starter leaves its share; what is plain has none', () => {
  expect(startRange(load(100), 120)).toBeNull()
  expect(startRange(load(100, { nature: 'motor' }), 120)).toEqual({ low: 200, value: 500, high: 700 })
  const start = { method: 'locked-rotor' as const, lockedRotorA: { value: 20, from: 'nameplate' as const } }
  const full = startRange(load(500, { nature: 'motor', start }), 240)
  const soft = startRange(load(500, { nature: 'motor', start: { ...start, softStartFraction: 0.4 } }), 240)
  expect(full?.value).toBe(20 * 240)
  expect(soft?.value).toBeCloseTo(0.4 * 20 * 240, 9)
  expect((soft?.high ?? 0) / (full?.high ?? 1)).toBeCloseTo(0.4, 9)
})

test.each([
  ['2026-12-01', 'winter'],
  ['2026-02-28', 'winter'],
  ['2026-03-01', 'spring'],
  ['2026-08-31', 'summer'],
  ['2026-11-30', 'autumn'],
])('%s is in %s', (date, season) => {
  expect(seasonOf(date)).toBe(season)
})

describe('what lasts three hours or more', () => {
  const scheduled = (...spans: [number, number][]) =>
    load(100, {
      pattern: { kind: 'scheduled', spans: spans.map(([fromH, toH]) => ({ fromH, toH })) } as never,
    })
  test.each([
    ['always on', load(100), 1, true],
    ['a third of the time, in cycles', load(100), 0.33, false],
    ['from 18 to 22 h, all of it', scheduled([18, 22]), 4 / 24, true],
    ['from 18 to 22 h, half of it', scheduled([18, 22]), 2 / 24, false],
    ['from 23 to 1 h', scheduled([23, 1]), 2 / 24, false],
    ['over midnight, from 22 to 6 h', scheduled([22, 6]), 8 / 24, true],
    ['two short spans', scheduled([6, 8], [18, 20]), 4 / 24, false],
  ])('%s: %s', (_, of, dutyFraction, expected) => {
    expect(lasts(of, { dutyFraction })).toBe(expected)
  })
})
