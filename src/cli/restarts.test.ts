import { restartAfter } from './restarts'

test('what dies is started again at once, then later and later; again and again within a minute, not at all', () => {
  const quick = Array.from({ length: 8 }, (_, n) => n * 1000)
  expect(quick.map((_, n) => restartAfter(quick.slice(0, n + 1)))).toEqual([
    0,
    500,
    1000,
    2000,
    4000,
    8000,
    null,
    null,
  ])
  const slow = Array.from({ length: 100 }, (_, n) => n * 61_000)
  expect(restartAfter(slow)).toBe(0)
})
