import fc from 'fast-check'
import { isZone, zoneClock } from './zone-clock'

const local = (text: string) => Date.parse(`${text}Z`) / 1000
const instants = (zone: string, text: string) =>
  zoneClock(zone)
    .instantsOf(local(text))
    .map(({ startS, offsetMin }) => [new Date(startS * 1000).toISOString().slice(0, 16), offsetMin])

test.each([
  ['America/New_York', '2026-07-01T12:00:00', [['2026-07-01T16:00', -240]]],
  ['America/Phoenix', '2026-07-01T12:00:00', [['2026-07-01T19:00', -420]]],
  ['Asia/Kathmandu', '2026-01-01T12:00:00', [['2026-01-01T06:15', 345]]],
  // once before the change, once after
  [
    'America/New_York',
    '2026-11-01T01:30:00',
    [
      ['2026-11-01T05:30', -240],
      ['2026-11-01T06:30', -300],
    ],
  ],
  [
    'Europe/Berlin',
    '2026-10-25T02:30:00',
    [
      ['2026-10-25T00:30', 120],
      ['2026-10-25T01:30', 60],
    ],
  ],
  // half an hour comes twice
  [
    'Australia/Lord_Howe',
    '2026-04-05T01:45:00',
    [
      ['2026-04-04T14:45', 660],
      ['2026-04-04T15:15', 630],
    ],
  ],
  ['America/New_York', '2026-11-01T00:59:00', [['2026-11-01T04:59', -240]]],
  ['America/New_York', '2026-11-01T02:00:00', [['2026-11-01T07:00', -300]]],
  // no clock shows it
  ['America/New_York', '2026-03-08T02:30:00', [['2026-03-08T07:30', -240]]],
])('in %s a clock that shows %s', (zone, text, wanted) => {
  expect(instants(zone, text)).toEqual(wanted)
})

test('an instant shown on a clock is among those that the clock stands for, in every zone', () => {
  const zones = Intl.supportedValuesOf('timeZone')
  fc.assert(
    fc.property(
      fc.constantFrom(...zones),
      fc.integer({ min: local('1990-01-01T00:00:00') / 900, max: local('2030-01-01T00:00:00') / 900 }),
      (zone, quarter) => {
        const { offsetMin, instantsOf } = zoneClock(zone)
        const startS = quarter * 900
        const offset = offsetMin(startS)
        expect(instantsOf(startS + offset * 60)).toContainEqual({ startS, offsetMin: offset })
      },
    ),
    { numRuns: 300 },
  )
})

test('a zone is known by the table of zones alone', () => {
  expect(['America/Chicago', 'UTC'].map(isZone)).toEqual([true, true])
  expect(['Eastern', '', 'America/Nowhere', '../x'].map(isZone)).toEqual([false, false, false, false])
})
