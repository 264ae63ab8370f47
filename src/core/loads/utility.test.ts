import { intervalDemand } from './interval-demand'
import { type IntervalSeries, intervalAt } from './intervals'
import { explained, type Utility } from './utility'
import { demandInput, summed, utilityViews } from './utility-year'

/** From midnight of 1 January 2026, Eastern time. */
const series = (Wh: number[], minutes = 60): IntervalSeries => ({
  id: 'm',
  flow: 'forward',
  startS: Float64Array.from(Wh, (_, i) => Date.UTC(2026, 0, 1, 5) / 1000 + i * minutes * 60),
  offsetMin: new Int16Array(Wh.length).fill(-300),
  minutes: new Float32Array(Wh.length).fill(minutes),
  Wh: Float64Array.from(Wh),
})
const hours = (days: number) =>
  Array.from({ length: days * 24 }, (_, i) => 300 + (i % 24 === 18 ? 2000 + i : 0))

test('what is kept of a year is what interval-demand says of its intervals', () => {
  const year = series(hours(40))
  const intervals = [...year.startS].map((_, i) => intervalAt(year, i))
  const { result } = intervalDemand.compute(intervalDemand.input.parse({ intervals }))
  expect(summed(year)?.demand).toEqual(result)
  expect(summed(year)).toMatchObject({ minutes: 60, firstDay: '2026-01-01', lastDay: '2026-02-09', left: 0 })
  expect(Object.keys(summed(year)?.seasons ?? {})).toEqual(['winter'])
})

test('five minutes are put together to quarter-hours, odd lengths are of no use, what was fed back counts as nothing', () => {
  expect(summed(series(new Array(288).fill(10), 5))).toMatchObject({
    minutes: 15,
    demand: { peakW: 120, dailyMeanWh: 2880 },
  })
  expect(summed(series(new Array(30).fill(10), 7))).toBeNull()
  expect(demandInput(series([100, -500, 200]))?.intervals.map(i => i.Wh)).toEqual([100, 0, 200])
  const doubled = series([100, 100, 100])
  doubled.startS[1] = doubled.startS[0] ?? 0
  expect(demandInput(doubled)).toMatchObject({ left: 1 })
})

test('the pictures hold the same energy: every day with its hours, a falling duration, the peak in its week', () => {
  const year = series(hours(60))
  const views = utilityViews(year)
  expect(views?.days).toHaveLength(60)
  const drawn = views?.days.flatMap(d => d.W).reduce<number>((sum, w) => sum + (w ?? 0), 0)
  expect(drawn).toBeCloseTo(
    year.Wh.reduce((a, b) => a + b, 0),
    6,
  )
  const W = views?.duration.map(d => d.W) ?? []
  expect(W).toEqual([...W].sort((a, b) => b - a))
  expect(Math.max(...(views?.peakWeek.map(w => w.W) ?? []))).toBe(summed(year)?.demand.peakW)
  expect(views?.months.map(m => m.month)).toEqual(['2026-01', '2026-02', '2026-03'])
})

test('what the picked circuits explain is doubted in both directions', () => {
  const demand = {
    dailyMeanWh: 20_000,
    peakDayWh: 1,
    peakDay: '2026-01-01',
    peakW: 1,
    baseW: 1,
    gaps: 0,
    days: 365,
  }
  const utility = { demand, seasons: { winter: 30_000 } } as unknown as Utility
  expect(explained(utility, 18_300, 'winter').sentence).toBe(
    'The circuits you picked account for 61 % of an average winter day.',
  )
  expect(explained(utility, 18_300, undefined)).toMatchObject({ dayWh: 20_000, season: null, doubt: false })
  expect(explained(utility, 31_000, 'winter').sentence).toMatch(/103 % .* more than the whole house uses/)
  expect(explained(utility, 500, 'winter')).toMatchObject({ doubt: true })
})
