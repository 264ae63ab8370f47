import { figure, quantity, together } from './format'

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
