import { readHour, readHours, readSpans } from './hours-text'

test.each([
  ['17', 17],
  [' 17:30 ', 17.5],
  ['5 pm', 17],
  ['12am', 0],
  ['12 pm', 12],
  ['0:15', 0.25],
  ['', null],
])('“%s” is hour %p of the day', (text, value) => {
  expect(readHour(text)).toEqual({ value })
})

test.each(['24', '13 pm', '7:60', 'noon', '-1', '7.5', '123'])('“%s” is no hour of the day', text => {
  expect(readHour(text)).toEqual({ problem: 'must be an hour of the day, such as 17 or 17:30' })
})

test('hours and spans are lists as people write them', () => {
  expect(readHours('7, 12;18')).toEqual({ value: [7, 12, 18] })
  expect(readSpans('6-9, 17 to 22.5; 0–1')).toEqual({
    value: [
      { fromH: 6, toH: 9 },
      { fromH: 17, toH: 22.5 },
      { fromH: 0, toH: 1 },
    ],
  })
  for (const text of ['', '24', 'seven', '1 2 3 4 5 6 7 8 9 10 11 12 13'])
    expect(readHours(text)).toHaveProperty('problem')
  for (const text of ['', '6', '6-25', '6-9-12', Array(7).fill('1-2').join()])
    expect(readSpans(text)).toHaveProperty('problem')
})
