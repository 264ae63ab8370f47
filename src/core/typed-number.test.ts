import fc from 'fast-check'
import { typedNumber } from './typed-number'

const read = (text: string, unit?: string) => {
  const got = typedNumber(text, unit)
  return 'value' in got ? got.value : got.problem
}

test.each([
  ['1,250', 1250],
  ['1 250', 1250],
  ['1\u202f250', 1250],
  ['1’250'.replace('’', "'"), 1250],
  ['1,250,000', 1_250_000],
  ['1.250.000', 1_250_000],
  ['1.250,5', 1250.5],
  ['1,250.5', 1250.5],
  ['1 250,5', 1250.5],
  ['1.250', 1.25],
  ['1,5', 1.5],
  ['12,75', 12.75],
  ['0,250', 0.25],
  ['1234,567', 1234.567],
  ['.5', 0.5],
  [',5', 0.5],
  ['5.', 5],
  ['1/2', 0.5],
  ['½', 0.5],
  ['2½', 2.5],
  ['1 1/2', 1.5],
  ['−3', -3],
  ['-3', -3],
  ['- 3', -3],
  ['+3', 3],
  ['1e3', 1000],
  ['1.5E-3', 0.0015],
  [' 36 ', 36],
  ['007', 7],
])('%s is %d', (text, value) => {
  expect(read(text)).toBe(value)
})

test.each([
  ['12 kW', 'W', 12_000],
  ['12kw', 'W', 12_000],
  ['1,25 kWh', 'Wh', 1250],
  ['90 min', 'h', 1.5],
  ['2 days', 'h', 48],
  ['6"', 'in', 6],
  ['6 in', 'ft', 0.5],
  ['45 %', '%', 45],
  ['$1,250', '$', 1250],
  ['−12 °C', '°C', -12],
  ['15 A', 'A', 15],
])('%s in %s is %d', (text, unit, value) => {
  expect(read(text, unit)).toBe(value)
})

test.each([
  ['', 'must not be empty'],
  ['  ', 'must not be empty'],
  ['a while', 'must be a number, such as 36 or 2.5'],
  ['1,2,3', 'must be a number, such as 36 or 2.5'],
  ['12,34,567', 'must be a number, such as 36 or 2.5'],
  ['1 25', 'must be a number, such as 36 or 2.5'],
  ['1/0', 'must be a number, such as 36 or 2.5'],
  ['--3', 'must be a number, such as 36 or 2.5'],
  ['0x10', 'must be a number, such as 36 or 2.5'],
  ['Infinity', 'must be a number, such as 36 or 2.5'],
  ['1e400', 'is too large'],
  ['12 kW', 'must be a number, such as 36 or 2.5'],
  ['1'.repeat(100_000), 'must be a number, such as 36 or 2.5'],
])('%.20s is refused', (text, problem) => {
  expect(read(text)).toBe(problem)
})

test('a unit that the field cannot be reckoned from is named', () => {
  expect(read('12 kW', 'A')).toBe('is in A: “kW” cannot be reckoned into it')
})

test('what we write ourselves is read as it was, and whatever is typed is a finite number or a sentence', () => {
  fc.assert(
    fc.property(fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 }), value => {
      const rounded = Number(value.toFixed(2))
      expect(read(rounded.toLocaleString('en-US', { maximumFractionDigits: 2 }))).toBe(rounded)
    }),
  )
  fc.assert(
    fc.property(fc.string({ maxLength: 20 }), fc.constantFrom(undefined, 'W', 'h'), (text, unit) => {
      const got = typedNumber(text, unit)
      if ('value' in got) expect(Number.isFinite(got.value)).toBe(true)
      else expect(got.problem.length).toBeGreaterThan(3)
    }),
  )
})
