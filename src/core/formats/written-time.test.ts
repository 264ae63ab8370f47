import fc from 'fast-check'
import { clockSOf, dateOrderOf, daySOf, instantSOf, placedReader } from './written-time'

const midnight = Date.UTC(2026, 2, 8) / 1000

test.each([
  ['2026-03-08', 'mdy'],
  ['2026/3/8', 'dmy'],
  ['03/08/2026', 'mdy'],
  ['3/8/26', 'mdy'],
  ['08.03.2026', 'dmy'],
  ['8-3-26', 'dmy'],
] as const)('%s, %s, is 8 March 2026', (text, order) => {
  expect(daySOf(text, order)).toBe(midnight)
})

test.each(['31/02/2026', '00/01/2026', '2026-13-01', '32/01/2026', 'tomorrow', ''])('%s is no day', text => {
  expect(daySOf(text, 'dmy')).toBeNaN()
})

test.each([
  ['0:00', 0],
  ['13:05', 47_100],
  ['1:05 pm', 47_100],
  ['1:05:30PM', 47_130],
  ['12:00 am', 0],
  ['12:30 p.m.', 45_000],
  ['100:00:01', 360_001],
  ['0:00:00.5', 0.5],
  ['0:00:00,5', 0.5],
])('%s is %d s after midnight', (text, seconds) => {
  expect(clockSOf(text)).toBe(seconds)
})
test('what is no clock is none', () => {
  expect(clockSOf('half past')).toBeNaN()
  expect(clockSOf('12')).toBeNaN()
})

test('date and clock in one cell, in either order; seconds and milliseconds since 1970', () => {
  expect(instantSOf('2026-03-08 01:00', 'mdy')).toBe(midnight + 3600)
  expect(instantSOf('1:00 am 3/8/2026', 'mdy')).toBe(midnight + 3600)
  expect(instantSOf(String(midnight), 'mdy')).toBe(midnight)
  expect(instantSOf(String(midnight * 1000), 'mdy')).toBe(midnight)
  expect(instantSOf('2026-03-08', 'mdy')).toBeNaN()
})

test.each<[string[], ReturnType<typeof dateOrderOf>]>([
  [['2026-01-02'], { order: 'ymd', sure: true }],
  [['01/02/2026', '01/13/2026'], { order: 'mdy', sure: true }],
  [['01/02/2026', '13/01/2026'], { order: 'dmy', sure: true }],
  [['1.2.2026', '2.2.2026'], { order: 'dmy', sure: true }],
  [['01/02/2026'], { order: 'mdy', sure: false }],
  [['no date'], { order: 'mdy', sure: true }],
])('%j: %j', (cells, told) => {
  expect(dateOrderOf(cells)).toEqual(told)
})

test('read by its places it says what the slow way says, wherever in a text it stands, and gives way where it is written otherwise', () => {
  const placed = placedReader('ymd')
  const at = fc.date({ min: new Date('1990-01-01'), max: new Date('2060-01-01'), noInvalidDate: true })
  fc.assert(
    fc.property(at, fc.string({ maxLength: 12 }), fc.boolean(), (date, before, withSeconds) => {
      const iso = date.toISOString()
      const cell = `${iso.slice(0, 10)}${withSeconds ? 'T' : ' '}${iso.slice(11, withSeconds ? 19 : 16)}`
      const text = `${before}${cell}`
      expect(placed(text, before.length, text.length)).toBe(instantSOf(cell, 'ymd'))
    }),
  )
  for (const other of ['2026-03-08 01:00:00.5', '3/8/2026 01:00', '2026-03-08 1:00 pm', '', '2026-03-08'])
    expect(placed(other, 0, other.length)).toBeNaN()
})
