import fc from 'fast-check'
import { levelW } from './log'
import { segment } from './segment'
import { buckets, type Series } from './series'

/** A series of one-second readings, or of another step, from (watts, seconds) pieces. */
function series(pieces: readonly (readonly [W: number, s: number])[], stepS = 1, startClockS = 0): Series {
  const W = pieces.flatMap(([w, s]) => new Array(Math.round(s / stepS)).fill(w))
  return {
    startClockS,
    dated: true,
    tS: Float64Array.from(W, (_, i) => i * stepS),
    W: Float32Array.from(W),
    backward: false,
    shifts: [],
  }
}
const cycles = (n: number, on: number, off: number, W = 140, idle = 3) =>
  Array.from({ length: n }, (): [number, number][] => [
    [idle, off],
    [W * 3, 1],
    [W, on - 1],
  ]).flat()

test('a refrigerator: idle, running, share of the time, cycle, starts', () => {
  const s = segment(series(cycles(20, 900, 1800)))
  expect(s.continuous).toBe(false)
  expect(s.idleW).toBeCloseTo(3, 5)
  expect(s.levels).toHaveLength(1)
  expect(s.levels[0]?.W).toBeCloseTo(140 + (2 * 140) / 900, 3)
  expect(s.dutyFraction).toBeCloseTo(1 / 3, 6)
  expect(s.runs).toHaveLength(20)
  expect(s.cycleMinutes).toBe(45)
  expect(s.startsPerDay).toBeCloseTo(32, 6)
  expect(s.highestStartW).toBe(420)
})

test('two levels are told apart, a fan before the burner is no level of its own', () => {
  const s = segment(
    series(
      Array.from(
        { length: 8 },
        () =>
          [
            [10, 1200],
            [70, 20],
            [320, 900],
            [650, 400],
          ] as const,
      ).flat(),
    ),
  )
  expect(s.levels.map(l => Math.round(l.W / 10) * 10)).toEqual([320, 650])
  expect(s.levels[1]?.shareFraction).toBeCloseTo(400 / 1300, 2)
  expect(segment(series(cycles(8, 900, 900)), { levels: 2 }).levels).toHaveLength(2)
})

test('what never stops is continuous; what never runs is nothing', () => {
  const router = segment(series(Array.from({ length: 500 }, (_, i) => [17 + (i % 3), 60] as const)))
  expect([router.continuous, router.dutyFraction, Math.round(router.meanW)]).toEqual([true, 1, 18])
  const off = segment(series([[0, 7200]]))
  expect([off.meanW, off.dutyFraction, off.runs]).toEqual([0, 0, []])
})

test('the person’s mark, shortest run and left-out stretch are kept to', () => {
  const trace = series([
    [3, 600],
    [60, 300],
    [3, 600],
    [140, 300],
    [3, 600],
    [900, 60],
    [3, 600],
  ])
  expect(segment(trace, { onAboveW: 100 }).runs).toHaveLength(2)
  expect(segment(trace, { onAboveW: 20 }).runs).toHaveLength(3)
  expect(segment(trace, { onAboveW: 20, shortestS: 120 }).runs).toHaveLength(2)
  const without = segment(trace, { onAboveW: 20, leaveOut: [{ fromS: 2350, toS: 2500 }] })
  expect(without.runs).toHaveLength(2)
  expect(without.highestW).toBe(140)
})

test('a gap is not counted, ends a run, and what comes after it has no start', () => {
  const trace = series(cycles(4, 600, 600))
  const cut = 2 * 1200 + 900
  const holed: Series = { ...trace, tS: trace.tS.map((t, i) => (i >= cut ? t + 5000 : t)) }
  const s = segment(holed)
  expect(s.gaps).toEqual([{ fromS: cut - 1, toS: cut + 5000 }])
  expect(s.observedH).toBeCloseTo(trace.tS.length / 3600, 6)
  expect(s.runs).toHaveLength(5)
  expect(s.startsPerDay * (s.observedH / 24)).toBeCloseTo(4, 6)
})

test('hours of the day follow the clock on the wall', () => {
  // on from 6 to 7 in the evening, two days by the minute, from midnight
  const day = [
    [2, 18 * 3600],
    [500, 3600],
    [2, 5 * 3600],
  ] as const
  const s = segment(series([...day, ...day], 60, Date.UTC(2026, 0, 5) / 1000))
  expect(s.dutyByHour.map(d => Math.round(d ?? -1))).toEqual(
    Array.from({ length: 24 }, (_, h) => (h === 18 ? 1 : 0)),
  )
  expect(s.hourly?.[18]).toBeCloseTo(24 * (500 / (500 + 23 * 2)), 6)
  expect(s.spans).toHaveLength(2)
})

test('no energy is lost: idle, levels and shares add up to the mean of the readings', () => {
  const piece = fc.tuple(fc.integer({ min: 0, max: 2000 }), fc.integer({ min: 1, max: 400 }))
  fc.assert(
    fc.property(
      fc.array(piece, { minLength: 1, maxLength: 30 }),
      fc.option(fc.integer({ min: 1, max: 1500 }), { nil: undefined }),
      (pieces, mark) => {
        const trace = series(pieces)
        const s = segment(trace, mark === undefined ? {} : { onAboveW: mark })
        const top = s.levels.at(-1)?.W ?? 0
        const running = levelW(top, s.levels.slice(0, -1))
        const mean = trace.W.reduce((a, b) => a + b, 0) / trace.W.length
        expect(s.meanW).toBeCloseTo(mean, 4)
        expect(s.dutyFraction * running + (1 - s.dutyFraction) * s.idleW).toBeCloseTo(mean, 3)
        expect(s.spans.reduce((sum, x) => sum + x.energyWh, 0)).toBeCloseTo(s.energyWh, 4)
        const drawn = buckets(trace, 0, trace.tS.length, 50)
        expect(Math.max(...drawn.map(b => b.high))).toBe(s.highestW)
      },
    ),
    { numRuns: 60 },
  )
})
