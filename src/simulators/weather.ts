import { monthOfDay, type YearSeries, yearHours } from '@/core/ask/weather-year'
import { cloudFactor, sunDay, sunSlots } from '@/core/outage/sun'
import { seeded } from './seeded'

/** A place whose weather is made up. */
export interface MadeUpPlace {
  name: string
  latitudeDeg: number
  longitudeDeg: number
  zoneH: number
  /** of the year, °C, and how far winter and summer lie from it */
  meanC: number
  swingC: number
  cloudFraction: number
}

export const saltmarshWeather: MadeUpPlace = {
  name: 'Saltmarsh, made up',
  latitudeDeg: 31,
  longitudeDeg: -81,
  zoneH: -5,
  meanC: 20,
  swingC: 9,
  cloudFraction: 0.45,
}

/** A year of the place by the hour: seasons and days as curves, weeks and clouds by chance, the same for the same seed. */
export function weatherOf(place: MadeUpPlace, seed = 7): YearSeries {
  const roll = seeded(seed)
  const outdoorC = new Float64Array(yearHours)
  const flatWm2 = new Float64Array(yearHours)
  const days = Array.from({ length: 12 }, (_, month) => sunDay(month, place.latitudeDeg))
  let week = 0
  let clouds = place.cloudFraction
  for (let h = 0; h < yearHours; h++) {
    const day = Math.floor(h / 24)
    const clock = h % 24
    if (clock === 0) week = 0.8 * week + 3 * (roll() - 0.5)
    clouds = Math.max(0, Math.min(1, 0.85 * clouds + 0.15 * place.cloudFraction + 0.5 * (roll() - 0.5)))
    const season = Math.cos((2 * Math.PI * (day - 200)) / 365)
    outdoorC[h] =
      Math.round(
        (place.meanC + place.swingC * season + week + 4 * Math.cos((2 * Math.PI * (clock - 15)) / 24)) * 10,
      ) / 10
    const sun = days[monthOfDay(day)]
    let clear = 0
    for (let s = 0; s < sunSlots / 24; s++) clear += (sun?.clearWm2[(clock * sunSlots) / 24 + s] ?? 0) / 6
    flatWm2[h] = Math.round(clear * cloudFactor(clouds))
  }
  return { outdoorC, flatWm2 }
}

const two = (n: number) => String(n).padStart(2, '0')
function* hours(): Generator<{ at: number; month: number; day: number; clock: number }> {
  let month = -1
  let day = 0
  for (let at = 0; at < yearHours; at++) {
    const m = monthOfDay(Math.floor(at / 24))
    if (at % 24 === 0) day = m === month ? day + 1 : 1
    month = m
    yield { at, month: month + 1, day, clock: at % 24 }
  }
}

/** The year as a CSV in the manner of typical years: a row about the place, a header, a row for each hour. */
export function typicalYearCsv(place: MadeUpPlace, { outdoorC, flatWm2 }: YearSeries): string {
  const lines = [
    `"000001","${place.name}",XX,${place.zoneH.toFixed(1)},${place.latitudeDeg},${place.longitudeDeg},3`,
    'Date (MM/DD/YYYY),Time (HH:MM),GHI (W/m^2),Dry-bulb (C)',
  ]
  for (const { at, month, day, clock } of hours())
    lines.push(
      `${two(month)}/${two(day)}/2001,${two(clock + 1)}:00,${flatWm2[at]},${outdoorC[at]?.toFixed(1)}`,
    )
  return `${lines.join('\n')}\n`
}

/** The year as EPW: eight lines of head, then 35 columns of which two are filled. */
export function epwFile(place: MadeUpPlace, { outdoorC, flatWm2 }: YearSeries): string {
  const lines = [
    `LOCATION,${place.name.split(',')[0]},XX,XXX,Made up,000001,${place.latitudeDeg},${place.longitudeDeg},${place.zoneH.toFixed(1)},3.0`,
    'DESIGN CONDITIONS,0',
    'TYPICAL/EXTREME PERIODS,0',
    'GROUND TEMPERATURES,0',
    'HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0',
    'COMMENTS 1,Made up',
    'COMMENTS 2,',
    'DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31',
  ]
  for (const { at, month, day, clock } of hours())
    lines.push(
      `2001,${month},${day},${clock + 1},0,_,${outdoorC[at]?.toFixed(1)},99.9,999,999999,9999,9999,9999,${flatWm2[at]},9999,9999${',9999'.repeat(19)}`,
    )
  return `${lines.join('\r\n')}\r\n`
}
