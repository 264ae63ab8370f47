import { greenButtonReader } from '@/core/formats/green-button'
import { meterReader } from '@/core/formats/meter-csv'
import { guessMeterFormat } from '@/core/formats/meter-guess'
import { library } from '@/core/loads/library'
import { logOf } from '@/core/loads/log-of'
import { segment } from '@/core/loads/segment'
import { loadFromTypical } from '@/core/loads/typical'
import { householdOf, households, yearOf } from './household'
import { meterHeader, play } from './meter'
import { feedOf } from './utility'

test('the simulated utility speaks the open format: its feed reads back as the year it was made of, in either manner', () => {
  const house = households['mill-street']
  for (const manner of [
    { prefixed: false, powerOfTen: 0 },
    { prefixed: true, powerOfTen: -3 },
  ] as const) {
    const reader = greenButtonReader()
    for (const piece of feedOf(house, manner)) expect(reader.write(piece).ok).toBe(true)
    const read = reader.end()
    const [made] = yearOf(house)
    if (!read.ok || !made) throw new Error('the year cannot be read')
    expect(read.value.warnings).toEqual([])
    expect(read.value.meters[0]?.Wh).toEqual(made.Wh)
    expect(read.value.meters[0]?.offsetMin).toEqual(made.offsetMin)
  }
})

test('a house with solar has a second meter of what it fed back; the same job has the same house', () => {
  const sunny = { ...households['alder-hollow'], solarW: 5000 }
  const [forward, reverse] = yearOf(sunny)
  expect(reverse?.flow).toBe('reverse')
  // nothing is drawn and fed back in the same hour
  expect([...(forward?.Wh ?? [])].filter((Wh, i) => Wh > 0 && (reverse?.Wh[i] ?? 0) > 0)).toEqual([])
  expect(householdOf('some job', 7)).toEqual(householdOf('some job', 7))
})

const played = (id: string, seed: number, hours = 48) => {
  const typical = library.find(t => t.id === id)
  if (!typical) throw new Error(`no ${id}`)
  const load = loadFromTypical(typical, 'load', 'winter')
  const rows = play({
    load,
    volts: typical.volts,
    startClockS: Date.UTC(2026, 1, 10, 9) / 1000,
    hours,
    stepS: 10,
    seed,
  })
  const text = [meterHeader, ...rows].join('\n')
  const guess = guessMeterFormat(text.slice(0, 5000), typical.volts)
  if (!guess.ok) throw new Error('the table is not recognised')
  const reader = meterReader(guess.value.format)
  reader.write(text)
  const read = reader.end()
  if (!read.ok) throw new Error('the table cannot be read')
  expect(guess.value.unsure).toEqual([])
  expect(read.value.warnings).toEqual([])
  return { load, text, found: segment(read.value.series) }
}

test.each([
  ['refrigerator-full-size', 1],
  ['gas-furnace-two-stage', 2],
  ['microwave-oven', 1],
  ['cpap-with-humidifier', 1],
])(
  'what the simulated meter plays of a %s is found in its log: levels, share of the time, a log that fits',
  (id, levels) => {
    for (const seed of [1, 2, 3]) {
      const { load, found } = played(id, seed)
      expect(found.levels).toHaveLength(levels)
      const top = found.levels.at(-1)?.W ?? 0
      expect(top / load.runningW.value).toBeGreaterThan(0.7)
      expect(top / load.runningW.value).toBeLessThan(1.2)
      expect(found.dutyFraction / load.dutyFraction.value).toBeGreaterThan(0.5)
      expect(found.dutyFraction / load.dutyFraction.value).toBeLessThan(1.6)
      const log = logOf(found, {
        id: 'l',
        name: 'log',
        kind: 'simulated meter',
        on: '2026-02-10',
        volts: 120,
      })
      expect(log.ok && log.value.runningW).toBeCloseTo(top, 9)
    }
  },
)

test('a log of nothing and a log of seconds are refused in words', () => {
  const about = { id: 'l', name: 'log', kind: 'simulated meter' as const, on: '2026-02-10', volts: 120 }
  const { found } = played('chest-freezer', 1, 1)
  const short = logOf({ ...found, observedH: 6 / 3600 }, about)
  expect(short.ok || short.faults[0]?.message).toBe('the log lasts 6 s: let it run for some minutes at least')
  const nothing = logOf({ ...found, meanW: 0 }, about)
  expect(nothing.ok || nothing.faults[0]?.message).toMatch(/nothing was drawn/)
})

test('the same seed plays the same rows; another meter’s seed does not', () => {
  expect(played('chest-freezer', 5, 2).text).toBe(played('chest-freezer', 5, 2).text)
  expect(played('chest-freezer', 5, 2).text).not.toBe(played('chest-freezer', 6, 2).text)
})
