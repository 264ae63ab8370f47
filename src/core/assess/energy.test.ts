import fc from 'fast-check'
import { weirgateCombiner } from '../equipment/fixtures/parts'
import { job, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { runOf } from './energy'

const mean = (L1: number, L2: number) => ({
  W: L1 + L2,
  legW: { L1, L2 },
  working: { title: 'Average load', formula: [], inputs: [], steps: [], references: [] } as never,
})
const pair = (facts: object = {}): Job => {
  const j = job([], { source: { arrangement: 'independent', ...facts } })
  const [first] = j.source?.units ?? []
  if (!j.source || !first) throw new Error('no unit')
  return { ...j, source: { ...j.source, units: [first, { ...first, id: 'u2' }] } }
}

test('one store, by hand: 2,000 Wh × 0.9 over (90 ÷ 0.9 + 10) W', () => {
  const run = runOf(job([]), mean(90, 0))
  expect(run).toMatchObject({
    usableWh: 1800,
    batteryW: 110,
    needWh: 110 * 24,
    strandedWh: 0,
    limitedBy: 'both',
  })
  expect(run?.hours).toBeCloseTo(1800 / 110, 9)
})

test('batteries apart: the fuller leg ends it, and what the other still holds is stranded, not usable', () => {
  const run = runOf(pair(), mean(170, 80))
  if (!run) throw new Error('no run')
  // each 1,800 Wh; L1 draws 170 ÷ 0.9 + 10 = 198.9 W, L2 98.9 W
  expect(run.limitedBy).toBe('L1')
  expect(run.hours).toBeCloseTo(1800 / (170 / 0.9 + 10), 6)
  expect(run.strandedWh).toBeCloseTo(1800 - run.hours * (80 / 0.9 + 10), 6)
  expect(run.usableWh + run.strandedWh).toBeCloseTo(3600, 9)
  expect(run.working.notes?.join(' ')).toMatch(/each leg drains its own battery/)
})

test('nothing stored, nothing to run from', () => {
  const { source: _, ...none } = job([])
  expect(runOf(none as Job, mean(100, 0))).toBeNull()
})

test('two that share through a combiner strand nothing', () => {
  const run = runOf(
    pair({ arrangement: 'combined', combiner: { ...weirgateCombiner, batteries: 'shared' } }),
    mean(170, 80),
  )
  expect(run).toMatchObject({ limitedBy: 'both', strandedWh: 0 })
  const even = runOf(pair(), mean(100, 100))
  expect(even?.strandedWh).toBeCloseTo(0, 6)
})

test('property: more load, a larger reserve or a colder battery never last longer; more store never shorter', () => {
  const hours = (W: number, reserveFraction: number, deratingFraction: number, energyWh: number) =>
    runOf(
      job([], {
        source: { station: station({ energyWh }) },
        outage: { hours: 24, startFraction: 1, reserveFraction, deratingFraction },
      }),
      mean(W, 0),
    )?.hours ?? 0
  const share = fc.double({ min: 0.05, max: 0.6, noNaN: true })
  fc.assert(
    fc.property(
      fc.integer({ min: 5, max: 1500 }),
      share,
      share,
      fc.integer({ min: 300, max: 9000 }),
      (W, r, d, Wh) => {
        const base = hours(W, r, 1 - d, Wh)
        expect(hours(W + 50, r, 1 - d, Wh)).toBeLessThanOrEqual(base + 1e-9)
        expect(hours(W, r + 0.1, 1 - d, Wh)).toBeLessThanOrEqual(base + 1e-9)
        expect(hours(W, r, 0.9 * (1 - d), Wh)).toBeLessThanOrEqual(base + 1e-9)
        expect(hours(W, r, 1 - d, Wh + 500)).toBeGreaterThanOrEqual(base - 1e-9)
      },
    ),
    { numRuns: 80 },
  )
})
