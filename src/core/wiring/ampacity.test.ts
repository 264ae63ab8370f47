import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { sizesOf } from '../units/tables/conductors'
import { ampacity } from './ampacity'

const ten = { material: 'cu', size: '10', insulationC: 90 }

test('twelve 10 AWG copper in a 40 °C attic, by hand', () => {
  // 40 A × 0.91 × 0.5 = 18.2 A; terminations 75 °C: 35 A; the largest standard rating within 18.2 is 15
  expect(result(ampacity, { ...ten, ambientC: 40, currentCarrying: 12 })).toEqual({
    tableA: 40,
    ambientFactor: 0.91,
    adjustmentFactor: 0.5,
    carries: null,
    leastBreakerA: null,
    neededA: null,
    deratedA: 40 * 0.91 * 0.5,
    terminationA: 35,
    usableA: 40 * 0.91 * 0.5,
    maxBreakerA: 15,
  })
})

test('the small-conductor limit holds down what the terminations would allow, rounding up too', () => {
  // 10 AWG copper: 35 A at 75 °C, but 30 A by 240.4(D)
  expect(result(ampacity, ten)).toMatchObject({ usableA: 35, maxBreakerA: 30 })
  expect(result(ampacity, { ...ten, roundUp: true })).toMatchObject({ maxBreakerA: 30 })
  // 6 AWG aluminum at 75 °C: 50 A in the table, × 0.94 at 35 °C = 47: down to 45, or up to 50
  const six = { material: 'al', size: '6', insulationC: 75, ambientC: 35 }
  expect(result(ampacity, six)).toMatchObject({ usableA: 47, maxBreakerA: 45 })
  expect(result(ampacity, { ...six, roundUp: true })).toMatchObject({ maxBreakerA: 50 })
})

test('no standard breaker below 15 A', () => {
  // 14 AWG copper 25 A × 0.5 = 12.5 A
  const crowded = { material: 'cu', size: '14', insulationC: 90, currentCarrying: 20 }
  expect(result(ampacity, crowded)).toMatchObject({ usableA: 12.5, maxBreakerA: null })
  expect(result(ampacity, { ...crowded, roundUp: true }).maxBreakerA).toBe(15)
  expect(result(ampacity, { ...crowded, nipple: true })).toMatchObject({
    adjustmentFactor: 1,
    maxBreakerA: 15,
  })
})

test.each([
  [10, 1.15],
  [-40, 1.15],
  [10.5, 1.12],
  [30, 1],
  [30.1, 0.96],
  [85, 0.29],
])('ambient %d °C: a fraction belongs to the next band up', (ambientC, factor) => {
  expect(result(ampacity, { ...ten, ambientC }).ambientFactor).toBe(factor)
})

test('terminations: 75 °C at most unless said, 60 °C with 60 °C insulation', () => {
  expect(result(ampacity, { ...ten, insulationC: 60 }).terminationA).toBe(30)
  expect(result(ampacity, { ...ten, terminationC: 60 }).usableA).toBe(30)
})

test('refuses on the key at fault', () => {
  expect(faultPaths(ampacity, { ...ten, material: 'al', size: '14' })).toEqual(['size'])
  expect(faultPaths(ampacity, { ...ten, size: '500' })).toEqual(['size'])
  expect(faultPaths(ampacity, { ...ten, insulationC: 75, terminationC: 90 })).toEqual(['terminationC'])
  expect(faultPaths(ampacity, { ...ten, insulationC: 60, ambientC: 55.1 })).toEqual(['ambientC'])
  expect(faultPaths(ampacity, { ...ten, insulationC: 80 })).toEqual(['insulationC'])
  expect(faultPaths(ampacity, { ...ten, currentCarrying: 2.5 })).toEqual(['currentCarrying'])
})

test('more conductors, or a hotter place, never raise the ampacity; a thicker wire never lowers it', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('cu' as const, 'al' as const),
      fc.nat(11),
      fc.constantFrom(75, 90),
      fc.integer({ min: 1, max: 60 }),
      fc.double({ min: -30, max: 69, noNaN: true }),
      (material, at, insulationC, currentCarrying, ambientC) => {
        const sizes = sizesOf(material)
        const size = sizes[at % (sizes.length - 1)] ?? '12'
        const given = { material, size, insulationC, currentCarrying, ambientC }
        const { usableA } = result(ampacity, given)
        const usable = (change: object) => result(ampacity, { ...given, ...change }).usableA
        expect(usable({ currentCarrying: currentCarrying + 1 })).toBeLessThanOrEqual(usableA)
        expect(usable({ ambientC: ambientC + 1 })).toBeLessThanOrEqual(usableA)
        expect(usable({ size: sizes[sizes.indexOf(size) + 1] })).toBeGreaterThanOrEqual(usableA)
      },
    ),
  )
})

test('what lasts counts at 125 % for wire and breaker, and the breaker it asks must be one that may protect the wire', () => {
  const on = (size: string, loadA: number, continuousA: number) => {
    const { neededA, leastBreakerA, carries } = result(ampacity, {
      ...ten,
      size,
      insulationC: 75,
      loadA,
      continuousA,
    })
    return [neededA, leastBreakerA, carries]
  }
  // 8 + 1.25 × 20 = 33 A asks a 35 A breaker; 10 AWG may have 30 A at most (240.4(D))
  expect(on('10', 28, 20)).toEqual([33, 35, false])
  expect(on('8', 28, 20)).toEqual([33, 35, true])
  expect(on('10', 28, 0)).toEqual([28, 30, true])
})
