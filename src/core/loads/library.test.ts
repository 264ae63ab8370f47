import { library } from './library'

/**
 * Days of burners and blowers in cold weather as several published meterings of houses have them, Wh: the lowest and the
 * highest that we know of each. The range of the library must contain them.
 */
const metered: [name: string, lowWh: number, highWh: number][] = [
  ['Gas furnace, single stage', 2400, 9500],
  ['Gas furnace, two stage', 2800, 10_500],
  ['Gas furnace, variable blower', 1200, 5000],
  ['Gas boiler controls and fan', 400, 1800],
  ['Oil burner', 900, 3200],
  ['Circulator pump, fixed speed', 500, 1700],
  ['Pellet stove', 1200, 4200],
]

test.each(metered)('a day of %s contains what was metered', (name, lowWh, highWh) => {
  const typical = library.find(t => t.name === name)
  if (!typical) throw new Error('not in the library')
  const { runningW, duty, dutyUnsure, idleW } = typical
  const day = (W: number, share: number) => 24 * (share * W + (1 - share) * idleW)
  expect(day(runningW.low, duty.winter * (1 - dutyUnsure))).toBeLessThanOrEqual(lowWh)
  expect(day(runningW.high, Math.min(1, duty.winter * (1 + dutyUnsure)))).toBeGreaterThanOrEqual(highWh)
})
