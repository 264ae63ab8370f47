import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { sizesOf } from '../units/tables/conductors'
import { voltageDrop } from './voltage-drop'

const run = { material: 'cu', size: '10', oneWayFt: 100, currentA: 20, sourceV: 120, path: 'two-wire' }

test('100 ft of 10 AWG copper at 20 A, by hand', () => {
  // 2 × 100 ÷ 1000 × 1.24 = 0.248 Ω; × 20 = 4.96 V; ÷ 120 = 4.133 %; 4.96 × 20 = 99.2 W
  const r = result(voltageDrop, run)
  expect(r.ohms).toBeCloseTo(0.248, 12)
  expect(r.dropV).toBeCloseTo(4.96, 12)
  expect(r.dropFraction).toBeCloseTo(4.96 / 120, 12)
  expect(r.loadV).toBeCloseTo(115.04, 12)
  expect(r.lossW).toBeCloseTo(99.2, 12)
})

test('a balanced run counts one conductor; a cooler conductor resists less', () => {
  expect(result(voltageDrop, { ...run, path: 'balanced' }).dropV).toBeCloseTo(2.48, 12)
  // aluminum 10 AWG 2.04 × (1 + 0.0033 × (25 − 75)) = 2.04 × 0.835 = 1.7034 Ω per 1,000 ft
  expect(result(voltageDrop, { ...run, material: 'al', conductorC: 25 }).ohms).toBeCloseTo(0.2 * 1.7034, 12)
})

test('refuses on the key at fault', () => {
  expect(faultPaths(voltageDrop, { ...run, material: 'al', size: '14' })).toEqual(['size'])
  // 0.248 Ω × 500 A = 124 V, more than the source has
  expect(faultPaths(voltageDrop, { ...run, currentA: 500 })).toEqual(['currentA'])
  expect(faultPaths(voltageDrop, { ...run, oneWayFt: 0 })).toEqual(['oneWayFt'])
  expect(faultPaths(voltageDrop, { ...run, conductorC: -260 })).toEqual(['conductorC'])
})

test('a longer run, more current or a thinner wire never lower the drop; what is lost is what the load misses', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('cu' as const, 'al' as const),
      fc.nat(11),
      fc.double({ min: 1, max: 300, noNaN: true }),
      fc.double({ min: 0, max: 30, noNaN: true }),
      (material, at, oneWayFt, currentA) => {
        const sizes = sizesOf(material)
        const size = sizes[1 + (at % (sizes.length - 1))] ?? '6'
        const given = { material, size, oneWayFt, currentA, sourceV: 1e4, path: 'two-wire' }
        const r = result(voltageDrop, given)
        const drop = (change: object) => result(voltageDrop, { ...given, ...change }).dropV
        expect(drop({ oneWayFt: oneWayFt * 1.1 })).toBeGreaterThanOrEqual(r.dropV)
        expect(drop({ currentA: currentA * 1.1 })).toBeGreaterThanOrEqual(r.dropV)
        expect(drop({ size: sizes[sizes.indexOf(size) - 1] })).toBeGreaterThanOrEqual(r.dropV)
        expect(r.lossW + r.loadV * currentA).toBeCloseTo(1e4 * currentA, 5)
      },
    ),
  )
})
