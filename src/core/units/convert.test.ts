import fc from 'fast-check'
import { celsiusOf, fahrenheitOf, feetOf, metresOf } from './convert'

test('known pairs', () => {
  expect(metresOf(100)).toBe(30.48)
  expect(feetOf(30.48)).toBe(100)
  expect([-40, 0, 100].map(fahrenheitOf)).toEqual([-40, 32, 212])
  expect(celsiusOf(86)).toBe(30)
})

test('what a person types comes back as typed: there and back on up to ten digits', () => {
  const typed = fc.integer({ min: -99_999_999, max: 99_999_999 }).map(n => n / 1000)
  fc.assert(
    fc.property(typed, value => {
      const back = (x: number) => Number(x.toPrecision(12))
      expect(back(metresOf(feetOf(value)))).toBe(value)
      expect(back(fahrenheitOf(celsiusOf(value)))).toBeCloseTo(value, 8)
    }),
  )
})
