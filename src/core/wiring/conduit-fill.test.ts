import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { conductorSizes } from '../units/tables/conductors'
import { conduitKinds } from '../units/tables/conduit'
import { conduitFill } from './conduit-fill'

test('a ten-circuit whip in EMT, by hand', () => {
  // 20 × 0.0133 + 0.0211 = 0.2871 in²; 3/4 EMT: 0.2871 ÷ 0.533 = 53.9 %; 1 EMT: 0.2871 ÷ 0.864 = 33.2 % ≤ 40 %
  const r = result(conduitFill, {
    conduit: 'EMT',
    conductors: [
      { size: '12', count: 20 },
      { size: '10', count: 1 },
    ],
  })
  expect(r.usedIn2).toBeCloseTo(0.2871, 12)
  expect(r.limitFraction).toBe(0.4)
  expect(r.sizes.map(s => s.tradeSize)).toEqual(['1/2', '3/4', '1', '1-1/4', '1-1/2', '2'])
  expect(r.sizes[1]?.fillFraction).toBeCloseTo(0.2871 / 0.533, 12)
  expect(r.smallest).toBe('1')
})

test.each([
  [1, false, 0.53],
  [2, false, 0.31],
  [3, false, 0.4],
  [1, true, 0.6],
  [9, true, 0.6],
])('%d conductors, nipple %s: the limit is by the sum of the counts', (count, nipple, limit) => {
  expect(
    result(conduitFill, { conduit: 'PVC40', conductors: [{ size: '6', count }], nipple }).limitFraction,
  ).toBe(limit)
})

test('nothing of the table may be large enough', () => {
  const crowd = { conduit: 'FMC', conductors: [{ size: '4/0', count: 30 }] }
  expect(result(conduitFill, crowd).smallest).toBeNull()
})

test('refuses an empty list, a size the table lacks, and part of a wire, in its place', () => {
  expect(faultPaths(conduitFill, { conduit: 'EMT', conductors: [] })).toEqual(['conductors'])
  const odd = [
    { size: '12', count: 1 },
    { size: '11', count: 1 },
  ]
  expect(faultPaths(conduitFill, { conduit: 'EMT', conductors: odd })).toEqual(['conductors[1].size'])
  expect(faultPaths(conduitFill, { conduit: 'EMT', conductors: [{ size: '12', count: 0.5 }] })).toEqual([
    'conductors[0].count',
  ])
})

test('more wire never fits a smaller conduit, a nipple never needs a larger one', () => {
  const conductor = fc.record({
    size: fc.constantFrom(...conductorSizes),
    count: fc.integer({ min: 1, max: 12 }),
  })
  fc.assert(
    fc.property(
      fc.constantFrom(...conduitKinds),
      fc.array(conductor, { minLength: 1, maxLength: 4 }),
      (conduit, conductors) => {
        const given = result(conduitFill, { conduit, conductors })
        const more = result(conduitFill, { conduit, conductors: [...conductors, { size: '14', count: 3 }] })
        more.sizes.forEach((s, n) => {
          expect(s.fillFraction).toBeGreaterThan(given.sizes[n]?.fillFraction ?? 0)
        })
        const fits = (r: typeof given) => r.sizes.filter(s => s.fits).length
        expect(fits(result(conduitFill, { conduit, conductors, nipple: true }))).toBeGreaterThanOrEqual(
          fits(given),
        )
      },
    ),
  )
})
