import { faultPaths, result } from '../fixtures/calculating'
import { boxFill } from './box-fill'

const box = {
  boxIn3: 42,
  conductors: [{ size: '12', count: 8 }],
  grounds: { size: '12', count: 6 },
  devices: [{ size: '14', count: 1 }],
  clamps: true,
}

test('a device box by hand, and what the edition changes', () => {
  // 8 × 2.25 = 18; grounds 2.25 × (1 + 2 ÷ 4) = 3.375; device 2 × 2.00 = 4; clamps 2.25: 27.625 in³
  expect(result(boxFill, box)).toEqual({ requiredIn3: 27.625, boxIn3: 42, fits: true })
  // 2017: all grounds together 2.25
  expect(result(boxFill, { ...box, edition: 2017 }).requiredIn3).toBe(26.5)
  expect(result(boxFill, { ...box, grounds: { size: '12', count: 4 } }).requiredIn3).toBe(26.5)
  expect(result(boxFill, { ...box, boxIn3: 27.625 }).fits).toBe(true)
  expect(result(boxFill, { ...box, boxIn3: 27.62 }).fits).toBe(false)
})

test('clamps count the largest of conductors and grounds, not of devices; an empty box needs nothing', () => {
  const given = {
    boxIn3: 18,
    conductors: [{ size: '14', count: 1 }],
    devices: [{ size: '10', count: 1 }],
    clamps: true,
  }
  // 2 + 2 × 2.5 + 2
  expect(result(boxFill, given).requiredIn3).toBe(9)
  expect(result(boxFill, { ...given, grounds: { size: '8', count: 1 } }).requiredIn3).toBe(2 + 5 + 3 + 3)
  expect(result(boxFill, { boxIn3: 18, conductors: [] }).requiredIn3).toBe(0)
})

test('sizes without a volume are refused where they stand', () => {
  expect(
    faultPaths(boxFill, {
      boxIn3: 30,
      conductors: [{ size: '4', count: 1 }],
      grounds: { size: '3', count: 1 },
      devices: [{ size: '16', count: 1 }],
    }),
  ).toEqual(['conductors[0].size', 'grounds.size', 'devices[0].size'])
})
