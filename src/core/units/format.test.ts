import { figure, quantity, together } from './format'
import { roundTicks, ticksBetween } from './ticks'

test('three significant digits, grouped, no trailing zeros', () => {
  expect([0, 5.2, 18.194, 0.19, 1900, 3429.5, 0.9999, -12.345, 123456].map(figure)).toEqual([
    '0',
    '5.2',
    '18.2',
    '0.19',
    '1,900',
    '3,430',
    '1',
    '-12.3',
    '123,456',
  ])
})

test('the unit always stands beside the figure', () => {
  expect(quantity(0.05, 'fraction')).toBe('5 %')
  expect(quantity(36, 'h')).toBe('36 h')
  expect(together(['a', 'b', 'c'])).toBe('a, b and c')
})

test('axis ticks are round and never pass the end', () => {
  expect(roundTicks(3610, 5)).toEqual([0, 1000, 2000, 3000])
  expect(roundTicks(36, 8)).toEqual([0, 5, 10, 15, 20, 25, 30, 35])
  expect(roundTicks(0, 5)).toEqual([0])
})

test('axis ticks between two values, below zero too', () => {
  expect(ticksBetween(-22, 64, 6)).toEqual([-20, 0, 20, 40, 60])
  expect(ticksBetween(0.04, 0.31, 3)).toEqual([0.1, 0.2, 0.3])
  expect(ticksBetween(5, 5, 3)).toEqual([5])
})
