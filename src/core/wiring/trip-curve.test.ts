import fc from 'fast-check'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { simulate } from '../outage/chance'
import { planOf } from '../outage/plan'
import { mustOpen, opensWithinS, shareOf } from './trip-curve'

test.each([
  [15, 3600, 120],
  [30, 3600, 120],
  [50, 3600, 240],
  [60, 7200, 360],
  [150, 7200, 480],
  [200, 7200, 600],
])(
  'a breaker of %s A holds its rating, opens within %s s at 135 %% and %s s at 200 %%',
  (ratedA, at135S, at200S) => {
    const times = mustOpen(ratedA)
    expect(opensWithinS(1, times)).toBe(Infinity)
    expect(opensWithinS(1.35, times)).toBeCloseTo(at135S, 6)
    expect(opensWithinS(2, times)).toBe(at200S)
  },
)

test('more current opens it sooner, and a real one takes a part of the time', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1.01, max: 8, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (m, u) => {
        expect(opensWithinS(m + 0.1, mustOpen(15))).toBeLessThan(opensWithinS(m, mustOpen(15)))
        expect(shareOf(u)).toBeGreaterThanOrEqual(0.2)
        expect(shareOf(u)).toBeLessThanOrEqual(1)
      },
    ),
  )
})

/** One heater by itself for the hours, behind a 15 A breaker on the way. */
const behind = (W: number, opens: boolean, hours = 3): Job =>
  job([circuit(1, { tier: 1, loads: [load(W)] })], {
    hookup: {
      method: 'interlocked-inlet',
      bondingPlug: false,
      path: opens
        ? [{ id: 'b', kind: 'breaker', ratingA: 15 }]
        : [{ id: 'w', kind: 'wire', ratingA: 15, size: '14' }],
    },
    source: { station: station({ energyWh: 40_000, continuousW: 5000, surgeW: 9000 }) },
    outage: { hours, startFraction: 1, reserveFraction: 0, deratingFraction: 1 },
  })
const trips = (j: Job) => {
  const plan = planOf(j)
  if (!plan.ok) throw new Error('no plan')
  const { chance } = simulate(plan.value, { seed: 5, exactly: 60 })
  return chance.trips.fraction
}

test('what a breaker holds without end does not trip it; what is half above opens it within the hour; between, chance decides', () => {
  expect(trips(behind(1700, true))).toBe(0)
  expect(trips(behind(1950, true, 0.5))).toBeLessThan(0.2)
  expect(trips(behind(2700, true))).toBe(1)
  // a wire opens nothing: the way is taken to be above its limit at once
  expect(trips(behind(1950, false, 0.5))).toBeGreaterThan(0.85)
})
