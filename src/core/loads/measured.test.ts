import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { intervalDemand } from './interval-demand'
import { loadLog } from './load-log'
import { panelDemand } from './panel-demand'
import { weatherScale } from './weather-scale'

describe('load-log', () => {
  const log = {
    readings: [
      { hours: 24, energyWh: 1200 },
      { hours: 12, energyWh: 900 },
    ],
    runningW: 160,
    idleW: 10,
  }

  test('two spans by hand', () => {
    // 2,100 Wh ÷ 36 h = 58.33 W; (58.33 − 10) ÷ 150 = 32.2 %; spans 50 and 75 W: 25 ÷ 58.33
    const r = result(loadLog, log)
    expect(r.meanW).toBeCloseTo(2100 / 36, 12)
    expect(r.dutyFraction).toBeCloseTo((2100 / 36 - 10) / 150, 12)
    expect(r.dailyWh).toBeCloseTo(1400, 9)
    expect(r.spreadFraction).toBeCloseTo(25 / (2100 / 36), 12)
  })

  test('duty stays from 0 to 1; one span, and nothing used, have no spread', () => {
    const one = (energyWh: number) =>
      result(loadLog, { readings: [{ hours: 10, energyWh }], runningW: 100, idleW: 5 })
    expect(one(9000)).toMatchObject({ dutyFraction: 1, spreadFraction: 0 })
    expect(one(0)).toMatchObject({ dutyFraction: 0, meanW: 0, spreadFraction: 0 })
    const nothing = [
      { hours: 1, energyWh: 0 },
      { hours: 2, energyWh: 0 },
    ]
    expect(result(loadLog, { readings: nothing, runningW: 9 }).spreadFraction).toBe(0)
  })

  test('refuses on the key at fault', () => {
    expect(faultPaths(loadLog, { ...log, runningW: 10 })).toEqual(['runningW'])
    expect(faultPaths(loadLog, { ...log, readings: [] })).toEqual(['readings'])
    expect(faultPaths(loadLog, { ...log, readings: [{ hours: 0, energyWh: 1 }] })).toEqual([
      'readings[0].hours',
    ])
  })
})

describe('weather-scale', () => {
  const burner = { mode: 'heating', dutyFraction: 0.25, measuredC: 5, balanceC: 17, designC: -19 }

  test('a burner logged on a mild day, by hand; a heat wave the same way', () => {
    // (17 − (−19)) ÷ (17 − 5) = 3; 0.25 × 3 = 0.75
    expect(result(weatherScale, burner)).toEqual({ dutyFraction: 0.75, saturated: false })
    // (20 − 38) ÷ (20 − 29) = 2
    expect(
      result(weatherScale, { mode: 'cooling', dutyFraction: 0.4, measuredC: 29, balanceC: 20, designC: 38 }),
    ).toEqual({ dutyFraction: 0.8, saturated: false })
  })

  test('it cannot run more than all the time, nor less than none', () => {
    expect(result(weatherScale, { ...burner, dutyFraction: 0.5 })).toEqual({
      dutyFraction: 1,
      saturated: true,
    })
    expect(result(weatherScale, { ...burner, designC: 20 })).toEqual({ dutyFraction: 0, saturated: false })
  })

  test('a day that needed no heat, or no cooling, tells nothing', () => {
    expect(faultPaths(weatherScale, { ...burner, measuredC: 17 })).toEqual(['measuredC'])
    expect(faultPaths(weatherScale, { ...burner, mode: 'cooling' })).toEqual(['measuredC'])
    expect(faultPaths(weatherScale, { ...burner, dutyFraction: 1.1 })).toEqual(['dutyFraction'])
    expect(faultPaths(weatherScale, { ...burner, designC: -300 })).toEqual(['designC'])
  })
})

describe('interval-demand', () => {
  const at = (start: string, Wh: number, minutes = 60) => ({ start, minutes, Wh })

  test('two days out of order with a gap, by hand', () => {
    // 2,000 + 500 + 1,500 = 4,000 Wh in 2.25 h; ÷ 2.25 × 24; largest 500 Wh in a quarter hour = 2,000 W, as is 2,000 Wh in one hour
    const r = result(intervalDemand, {
      intervals: [
        at('2026-01-02T01:00:00-05:00', 1500),
        at('2026-01-01T22:00:00-05:00', 2000),
        at('2026-01-01T23:45:00-05:00', 500, 15),
      ],
    })
    expect(r).toEqual({
      dailyMeanWh: expect.closeTo((4000 / 2.25) * 24, 9),
      peakDayWh: 2500,
      peakDay: '2026-01-01',
      peakW: 2000,
      baseW: 1500,
      // 23:00 to 23:45 is one hour of the interval before, rounded up; 00:00 to 01:00 four quarters
      gaps: 5,
      days: 2,
    })
  })

  test('the date is as written; Z is an offset; the earliest day wins a tie; the hour of the clock change is no overlap', () => {
    const r = result(intervalDemand, {
      intervals: [
        at('2026-11-01T01:00:00-04:00', 7),
        at('2026-11-01T01:00:00-05:00', 7),
        at('2026-11-02T12:00:00Z', 14),
      ],
    })
    expect(r).toMatchObject({ peakDay: '2026-11-01', peakDayWh: 14, days: 2 })
  })

  test('base load is the 5th percentile by nearest rank', () => {
    const hours = (n: number) =>
      Array.from({ length: n }, (_, h) =>
        at(`2026-02-0${1 + Math.floor(h / 24)}T${String(h % 24).padStart(2, '0')}:00:00Z`, 100 + h),
      )
    expect(result(intervalDemand, { intervals: hours(20) }).baseW).toBe(100)
    expect(result(intervalDemand, { intervals: hours(21) }).baseW).toBe(101)
  })

  test('refuses overlap, an odd length, and a time without offset', () => {
    const two = (second: string) => ({ intervals: [at('2026-01-01T00:00:00Z', 1), at(second, 1)] })
    expect(faultPaths(intervalDemand, two('2026-01-01T00:45:00Z'))).toEqual(['intervals'])
    expect(faultPaths(intervalDemand, two('2026-01-01T00:00:00Z'))).toEqual(['intervals'])
    expect(faultPaths(intervalDemand, two('2026-01-01T02:00:00'))).toEqual(['intervals[1].start'])
    expect(faultPaths(intervalDemand, { intervals: [at('2026-01-01T00:00:00Z', 1, 20)] })).toEqual([
      'intervals[0].minutes',
    ])
    expect(faultPaths(intervalDemand, { intervals: [] })).toEqual(['intervals'])
  })

  test('the order they arrive in changes nothing', () => {
    const hours = Array.from({ length: 30 }, (_, n) =>
      at(new Date(Date.UTC(2026, 0, 1, n * 2)).toISOString(), n * n),
    )
    fc.assert(
      fc.property(fc.shuffledSubarray(hours, { minLength: 30 }), intervals => {
        expect(result(intervalDemand, { intervals })).toEqual(result(intervalDemand, { intervals: hours }))
      }),
    )
  })
})

test('panel-demand by hand: 125 % of a year’s peak, with an allowance for hourly data', () => {
  // 1.25 × 9,600 × 1.2 ÷ 240 = 60 A; + 4,800 ÷ 240 = 80 A
  expect(result(panelDemand, { peakW: 9600, mainA: 100, addedW: 4800, peakFactor: 1.2 })).toEqual({
    existingA: 60,
    totalA: 80,
    spareA: 20,
    ok: true,
  })
  expect(result(panelDemand, { peakW: 19_200, mainA: 100 })).toMatchObject({ spareA: 0, ok: true })
  expect(result(panelDemand, { peakW: 19_201, mainA: 100 }).ok).toBe(false)
  expect(faultPaths(panelDemand, { peakW: 1, mainA: 100, peakFactor: 0.9, volts: 0 })).toEqual([
    'volts',
    'peakFactor',
  ])
})
