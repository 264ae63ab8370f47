import fc from 'fast-check'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { simulate } from './chance'
import { planOf } from './plan'
import { atTwiceS, opensWithinS, shareOf } from './trip-curve'

test('a breaker holds its rating, opens within an hour at 135 %, and at 200 % within two minutes, or four above 30 A', () => {
  for (const ratedA of [15, 20, 30]) {
    const twice = atTwiceS(ratedA)
    expect(opensWithinS(1, twice)).toBe(Infinity)
    expect(opensWithinS(1.35, twice)).toBeCloseTo(3600, 6)
    expect(opensWithinS(2, twice)).toBe(120)
  }
  expect(opensWithinS(2, atTwiceS(50))).toBe(240)
  expect(opensWithinS(1.35, atTwiceS(50))).toBeCloseTo(3600, 6)
})

test('more current opens it sooner, and a real one takes a part of the time', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1.01, max: 8, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (m, u) => {
        expect(opensWithinS(m + 0.1, 120)).toBeLessThan(opensWithinS(m, 120))
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
