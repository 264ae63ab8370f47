import fc from 'fast-check'
import { load } from '../job/fixtures/jobs'
import { drawn, hourFactors, patternDuty } from './draw'
import { library } from './library'
import { loadSchema } from './load'
import { levelW } from './log'
import { seasonOf } from './season'
import { findTypical, loadFromTypical, merged, typicalDayWh, typicalSchema } from './typical'
import { weatherScale } from './weather-scale'

test('a heater is scaled to the outage’s weather by weather-scale, and not where something is missing', () => {
  const boiler = load(100, {
    dutyFraction: { value: 0.3, from: 'metered', atC: 4 },
    weather: { mode: 'heating', balanceC: 16 },
  })
  const { dutyFraction } = weatherScale.compute({
    mode: 'heating',
    dutyFraction: 0.3,
    measuredC: 4,
    balanceC: 16,
    designC: -12,
  }).result
  expect(drawn(boiler, { outdoorC: -12 })).toMatchObject({ dutyFraction, meanW: 100 * dutyFraction })
  expect(drawn(boiler, { outdoorC: -40 }).scaling).toMatchObject({ kind: 'weather', saturated: true })
  expect(drawn(boiler).scaling).toEqual({ kind: 'not scaled', why: 'no outdoor temperature of the outage' })
  const bare = { ...boiler, dutyFraction: { value: 0.3, from: 'metered' as const } }
  expect(drawn(bare, { outdoorC: -12 }).scaling).toMatchObject({
    why: 'no outdoor temperature of the reading',
  })
  const mild = { ...boiler, dutyFraction: { value: 0.3, from: 'metered' as const, atC: 18 } }
  expect(drawn(mild, { outdoorC: -12 }).scaling).toMatchObject({ why: 'measured beyond its balance point' })
})

test('a reading of one season is carried to another by the load’s own seasons', () => {
  const fridge = load(100, {
    dutyFraction: { value: 0.3, from: 'metered', on: '2026-01-10' },
    seasons: { winter: 0.3, between: 0.36, summer: 0.45 },
  })
  expect(drawn(fridge, { season: 'summer' }).dutyFraction).toBeCloseTo(0.45, 9)
  expect(drawn(fridge, { season: 'winter' }).scaling).toEqual({ kind: 'as read' })
  expect(['2026-02-28', '2026-03-01', '2026-08-31', '2026-11-30', '2026-12-01'].map(seasonOf)).toEqual([
    'winter',
    'spring',
    'summer',
    'autumn',
    'winter',
  ])
})

test('a short outage in the hours of use takes more than the day’s mean, one beside them nothing', () => {
  const lamp = load(100, {
    dutyFraction: { value: 5 / 24, from: 'metered' },
    pattern: { kind: 'scheduled', spans: [{ fromH: 18, toH: 23 }], days: 'every day' },
  })
  expect(drawn(lamp, { beginsH: 18, hours: 5 }).meanW).toBeCloseTo(100, 9)
  expect(drawn(lamp, { beginsH: 6, hours: 10 }).meanW).toBe(0)
  expect(drawn(lamp, { beginsH: 12, hours: 48 }).meanW).toBeCloseTo((100 * 5) / 24, 9)
  expect(drawn(lamp, { hours: 5 }).meanW).toBeCloseTo((100 * 5) / 24, 9)
})

test('patterns amount to their share of the time, over midnight too; factors have a mean of one', () => {
  expect(patternDuty({ kind: 'event', timesPerDay: 4, minutes: 18 })).toBeCloseTo(0.05, 12)
  expect(patternDuty({ kind: 'scheduled', spans: [{ fromH: 22, toH: 6.5 }], days: 'every day' })).toBeCloseTo(
    8.5 / 24,
    12,
  )
  const hour = fc.double({ min: 0, max: 24, noNaN: true })
  fc.assert(
    fc.property(fc.array(fc.record({ fromH: hour, toH: hour }), { minLength: 1, maxLength: 4 }), spans => {
      const factors = hourFactors(load(10, { pattern: { kind: 'scheduled', spans, days: 'every day' } }))
      expect(factors.reduce((a, b) => a + b, 0)).toBeCloseTo(24, 9)
      expect(Math.min(...factors)).toBeGreaterThanOrEqual(0)
    }),
  )
})

test('the library holds some eighty loads and more, each whole and fit for a job in any season', () => {
  expect(library.length).toBeGreaterThanOrEqual(80)
  expect(new Set(library.map(t => t.id)).size).toBe(library.length)
  for (const t of library) {
    expect([t.id, typicalSchema.safeParse(t).error]).toEqual([t.id, undefined])
    for (const season of ['winter', 'summer'] as const) {
      const made = loadFromTypical(t, 'x', season)
      expect([t.id, loadSchema.safeParse(made).error]).toEqual([t.id, undefined])
      // the day that the library promises is the day that the job counts
      if (!t.weather && !t.stages)
        expect(drawn(made, { season }).dailyWh).toBeCloseTo(typicalDayWh(t, season), 6)
    }
    expect(levelW(t.runningW.likely, t.stages)).toBeLessThanOrEqual(t.runningW.likely)
  }
})

test('loads are found by any of their words, and a firm’s own stands in place of ours', () => {
  expect(findTypical(library, 'fridge small').map(t => t.id)).toContain('refrigerator-small')
  expect(findTypical(library, 'zither')).toEqual([])
  const [first] = library
  if (!first) throw new Error('no library')
  const mine = { ...first, runningW: { low: 1, likely: 2, high: 3 } }
  const own = { ...first, id: 'own', name: 'A loom' }
  const all = merged(library, [mine, own])
  expect(all).toHaveLength(library.length + 1)
  expect(all.filter(e => e.firms).map(e => e.typical)).toEqual([own, mine])
})
