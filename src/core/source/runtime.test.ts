import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { runtime } from './runtime'

describe('runtime', () => {
  const given = { capacityWh: 3800, idleW: 16, efficiencyFraction: 0.8, loadW: 120 }

  test('by hand: 3,800 Wh, a tenth kept, 120 W behind 80 %', () => {
    // usable 3800 × (1 − 0.1) = 3420; battery 16 + 120 ÷ 0.8 = 166; 3420 ÷ 166 = 20.6024…
    const r = result(runtime, { ...given, reserveFraction: 0.1 })
    expect(r.usableWh).toBeCloseTo(3420, 9)
    expect(r.batteryW).toBeCloseTo(166, 9)
    expect(r.hours).toBeCloseTo(3420 / 166, 9)
    expect(r.deliveredWh).toBeCloseTo((3420 / 166) * 120, 9)
    expect(r.effectiveFraction).toBeCloseTo(120 / 166, 9)
  })

  test('refuses by key: what is out of range, unknown, null, missing, or ends in a division by zero', () => {
    expect(faultPaths(runtime, { ...given, capacityWh: 0 })).toEqual(['capacityWh'])
    expect(faultPaths(runtime, { ...given, efficiencyFraction: 0 })).toEqual(['efficiencyFraction'])
    expect(faultPaths(runtime, { ...given, startFraction: null })).toEqual(['startFraction'])
    expect(faultPaths(runtime, { ...given, watts: 1 })).toEqual(['watts'])
    expect(faultPaths(runtime, { capacityWh: 1, idleW: 1, efficiencyFraction: 1 })).toEqual(['loadW'])
    expect(faultPaths(runtime, { ...given, startFraction: 0.3, reserveFraction: 0.3 })).toEqual([
      'reserveFraction',
    ])
    expect(faultPaths(runtime, { ...given, idleW: 0, loadW: 0 })).toEqual(['loadW'])
    expect(faultPaths(runtime, { ...given, capacityWh: Number.POSITIVE_INFINITY })).toEqual(['capacityWh'])
    expect(faultPaths(runtime, 'runtime')).toEqual(['$'])
  })

  test('energy in is what is delivered plus what is lost; more load never lasts longer', () => {
    const positive = fc.double({ min: 1, max: 1e5, noNaN: true })
    fc.assert(
      fc.property(
        positive,
        positive,
        positive,
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        (capacityWh, idleW, loadW, efficiencyFraction) => {
          const r = result(runtime, { capacityWh, idleW, loadW, efficiencyFraction })
          const lossWh = r.hours * (idleW + loadW * (1 / efficiencyFraction - 1))
          expect(Math.abs(r.deliveredWh + lossWh - r.usableWh)).toBeLessThanOrEqual(1e-9 * r.usableWh)
          const more = result(runtime, { capacityWh, idleW, loadW: loadW * 1.5, efficiencyFraction })
          expect(more.hours).toBeLessThanOrEqual(r.hours)
        },
      ),
    )
  })
})
