import { dayIn } from './day'

test.each([
  ['2026-11-29T01:30:00Z', 'America/New_York', '2026-11-28'],
  ['2026-11-29T05:30:00Z', 'America/New_York', '2026-11-29'],
  ['2026-07-01T03:59:00Z', 'America/New_York', '2026-06-30'],
  ['2026-07-01T04:00:00Z', 'America/New_York', '2026-07-01'],
  ['2026-11-28T23:30:00Z', 'Pacific/Honolulu', '2026-11-28'],
])('%s is another day in %s', (at, zone, day) => {
  expect(dayIn(zone, new Date(at))).toBe(day)
})
