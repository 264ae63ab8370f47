import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { capacityTest } from '../readings/capacity-test'
import { bank } from './bank'
import { refill } from './refill'
import { solarString } from './solar-string'
import { twoBatteries } from './two-batteries'

describe('two-batteries', () => {
  const pair = { unitWh: [3000, 3000], idleW: 20, efficiencyFraction: 0.8, legW: [160, 64], shared: false }

  test('apart and shared, by hand', () => {
    // L1: 3000 ÷ (20 + 160 ÷ 0.8) = 3000 ÷ 220; L2 draws 20 + 64 ÷ 0.8 = 100 W
    const r = result(twoBatteries, pair)
    expect(r.hours).toBeCloseTo(3000 / 220, 12)
    expect(r.limitedBy).toBe('L1')
    expect(r.strandedWh).toBeCloseTo(3000 - (3000 / 220) * 100, 9)
    // (3000 + 3000) ÷ (2 × 20 + 224 ÷ 0.8) = 6000 ÷ 320
    expect(result(twoBatteries, { ...pair, shared: true })).toEqual({
      hours: 18.75,
      limitedBy: 'both',
      strandedWh: 0,
    })
  })

  test('alike legs end together', () => {
    expect(result(twoBatteries, { ...pair, legW: [100, 100] })).toMatchObject({
      limitedBy: 'both',
      strandedWh: 0,
    })
    expect(result(twoBatteries, { ...pair, unitWh: [3000, 100] }).limitedBy).toBe('L2')
  })

  test('a unit that draws nothing never ends: a fault on its leg', () => {
    expect(faultPaths(twoBatteries, { ...pair, idleW: 0, legW: [0, 9] })).toEqual(['legW[0]'])
    expect(faultPaths(twoBatteries, { ...pair, idleW: 0, legW: [0, 0], shared: true })).toEqual(['legW'])
    expect(faultPaths(twoBatteries, { ...pair, unitWh: [1] })).toEqual(['unitWh'])
  })

  test('sharing never lasts shorter; all energy is either drawn or stranded', () => {
    const watts = fc.double({ min: 1, max: 3000, noNaN: true })
    const wh = fc.double({ min: 100, max: 20_000, noNaN: true })
    fc.assert(
      fc.property(wh, wh, watts, watts, (a, b, l1, l2) => {
        const given = { ...pair, unitWh: [a, b], legW: [l1, l2] }
        const apart = result(twoBatteries, given)
        const shared = result(twoBatteries, { ...given, shared: true })
        expect(shared.hours).toBeGreaterThanOrEqual(apart.hours * (1 - 1e-12))
        const drawnWh = apart.hours * (40 + (l1 + l2) / 0.8)
        expect(Math.abs(drawnWh + apart.strandedWh - a - b)).toBeLessThanOrEqual(1e-9 * (a + b))
      }),
    )
  })
})

describe('bank', () => {
  const lead = {
    unitV: 12,
    unitAh: 100,
    series: 2,
    parallel: 2,
    chemistry: 'flooded',
    depthFraction: 0.5,
    idleW: 24,
    efficiencyFraction: 0.8,
    loadW: 364.8,
  }

  test('a fast discharge by hand', () => {
    // (24 + 364.8 ÷ 0.8) ÷ 24 = 20 A; 0.5 × 200 ÷ 20 = 5 h × (200 ÷ (20 × 20))^0.25 = 5 × 0.5^0.25
    const r = result(bank, lead)
    expect(r).toMatchObject({ nominalV: 24, capacityAh: 200, capacityWh: 4800 })
    expect(r.dischargeA).toBeCloseTo(20, 12)
    expect(r.hours).toBeCloseTo(5 * 0.5 ** 0.25, 12)
    expect(r.usableWh).toBeCloseTo(r.hours * 20 * 24, 9)
  })

  test('a light load gets the rated capacity and no more', () => {
    const r = result(bank, { ...lead, idleW: 0, loadW: 96 })
    // 96 ÷ 0.8 ÷ 24 = 5 A: slower than rated; 0.5 × 200 ÷ 5
    expect(r.hours).toBeCloseTo(20, 12)
    expect(result(bank, { ...lead, peukert: 1 }).hours).toBeCloseTo(5, 12)
    expect(faultPaths(bank, { ...lead, peukert: 0.99, series: 1.5, loadW: 0 })).toEqual([
      'series',
      'peukert',
      'loadW',
    ])
  })

  test('more load never lasts longer, and never yields more than depth × capacity', () => {
    const load = fc.double({ min: 1, max: 5000, noNaN: true })
    fc.assert(
      fc.property(load, fc.constantFrom('lfp', 'agm', 'flooded'), (loadW, chemistry) => {
        const r = result(bank, { ...lead, chemistry, loadW })
        expect(result(bank, { ...lead, chemistry, loadW: loadW * 1.2 }).hours).toBeLessThanOrEqual(r.hours)
        expect(r.usableWh).toBeLessThanOrEqual(0.5 * r.capacityWh * (1 + 1e-12))
      }),
    )
  })
})

test('capacity-test by hand; what comes out is never more than went in', () => {
  expect(result(capacityTest, { ratedWh: 2000, deliveredWh: 1800, rechargeWh: 2250 })).toEqual({
    deliveredFraction: 0.9,
    roundTripFraction: 0.8,
    chargeLossWh: 450,
  })
  expect(result(capacityTest, { ratedWh: 2000, deliveredWh: 2100 })).toEqual({
    deliveredFraction: 1.05,
    roundTripFraction: null,
    chargeLossWh: null,
  })
  expect(faultPaths(capacityTest, { ratedWh: 2000, deliveredWh: 1800, rechargeWh: 1799 })).toEqual([
    'deliveredWh',
  ])
})

describe('refill', () => {
  const generator = {
    capacityWh: 6000,
    fromFraction: 0.25,
    toFraction: 0.75,
    generatorW: 2000,
    chargerMaxW: 1500,
    chargerEfficiencyFraction: 0.8,
    houseW: 800,
  }

  test('the house first, by hand', () => {
    // min(1500, 2000 − 800) = 1200; × 0.8 = 960; 3000 ÷ 960 = 3.125 h; (800 + 1200) × 3.125 ÷ 5000 = 1.25 gal
    expect(result(refill, generator)).toEqual({
      chargeW: 1200,
      batteryW: 960,
      hours: 3.125,
      gallons: null,
      tanks: null,
    })
    const fuel = result(refill, { ...generator, WhPerGallon: 5000, tankGallons: 2.5 })
    expect(fuel).toMatchObject({ gallons: 1.25, tanks: 0.5 })
    expect(result(refill, { ...generator, tankGallons: 2 })).toMatchObject({ gallons: null, tanks: null })
    expect(result(refill, { ...generator, toFraction: 0.25 }).hours).toBe(0)
  })

  test('nothing left to charge with is a fault, on the key that causes it', () => {
    expect(faultPaths(refill, { ...generator, houseW: 2000 })).toEqual(['houseW'])
    expect(faultPaths(refill, { ...generator, chargerMaxW: 0 })).toEqual(['chargerMaxW'])
    expect(faultPaths(refill, { ...generator, toFraction: 0.2 })).toEqual(['toFraction'])
    expect(faultPaths(refill, { ...generator, WhPerGallon: 0 })).toEqual(['WhPerGallon'])
  })
})

describe('solar-string', () => {
  const array = {
    module: { stcW: 400, vocV: 40, vmpV: 32, iscA: 13, vocPctPerC: -0.25 },
    series: 3,
    parallel: 1,
    recordLowC: -15,
    input: { minV: 60, maxV: 150, maxA: 12, maxW: 1000 },
  }

  test('three in series by hand', () => {
    // 3 × 40 × (1 + 0.0025 × 40) = 132 V; Vmp −0.3375 %/°C: 3 × 32 × (1 − 0.003375 × 40) = 83.04 V
    const r = result(solarString, array)
    expect(r.coldVocV).toBeCloseTo(132, 9)
    expect(r.hotVmpV).toBeCloseTo(83.04, 9)
    // min(1200, 1000, 12 × 3 × 32 = 1152)
    expect(r).toMatchObject({ iscA: 13, arrayW: 1200, inputW: 1000, faults: ['over-current'] })
    expect(r.clippedFraction).toBeCloseTo(1 / 6, 12)
  })

  test('findings in their order: too high in the cold, too low when hot', () => {
    expect(result(solarString, { ...array, series: 4, input: { ...array.input, minV: 120 } }).faults).toEqual(
      ['over-voltage', 'under-voltage', 'over-current'],
    )
    expect(
      result(solarString, { ...array, module: { ...array.module, vmpPctPerC: -0.25 } }).hotVmpV,
    ).toBeCloseTo(86.4, 9)
  })

  test('a coefficient that is not negative is refused where it stands', () => {
    expect(faultPaths(solarString, { ...array, module: { ...array.module, vocPctPerC: 0.25 } })).toEqual([
      'module.vocPctPerC',
    ])
    expect(faultPaths(solarString, { ...array, parallel: 0 })).toEqual(['parallel'])
  })

  test('a colder record or one more module never lowers the open volts', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -60, max: 20, noNaN: true }),
        fc.integer({ min: 1, max: 12 }),
        (recordLowC, series) => {
          const volts = (change: object) =>
            result(solarString, { ...array, recordLowC, series, ...change }).coldVocV
          expect(volts({ recordLowC: recordLowC - 1 })).toBeGreaterThan(volts({}))
          expect(volts({ series: series + 1 })).toBeGreaterThan(volts({}))
        },
      ),
    )
  })
})
