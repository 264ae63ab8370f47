import * as z from 'zod'
import { line, within } from '../quantity'

/** Hours of a year of weather: 365 days, no leap day. */
export const yearHours = 8760

/** What one hour is kept as: half degrees from −60 °C, and steps of 5 W/m². */
const lowestC = -60
const perDegree = 2
const wattsPerStep = 5

/**
 * A year of weather, by the hour, small enough to travel with the job: 17,520 bytes as base64. First a byte for each hour's
 * temperature, (°C + 60) × 2; then a byte for each hour's sun on the flat, W/m² ÷ 5. Hours run from 1 January 0:00,
 * standard time of the place.
 */
export const weatherYearSchema = z.strictObject({
  name: line(120, 1),
  latitudeDeg: within(-66, 66, 'degrees'),
  longitudeDeg: within(-180, 180, 'degrees'),
  /** standard time ahead of UTC, h */
  zoneH: within(-12, 14, 'h'),
  hours: z
    .base64('must be base64')
    .length(Math.ceil((2 * yearHours) / 3) * 4, 'must hold 17,520 bytes as base64'),
})
export type WeatherYear = z.infer<typeof weatherYearSchema>

export interface YearSeries {
  /** outdoors, °C, 8,760 */
  outdoorC: Float64Array
  /** on the flat, W/m², 8,760 */
  flatWm2: Float64Array
}

const clamped = (value: number) => Math.max(0, Math.min(255, Math.round(value)))

/** The bytes of a year of weather, as base64. */
export function packYear({ outdoorC, flatWm2 }: YearSeries): string {
  const bytes = new Uint8Array(2 * yearHours)
  for (let h = 0; h < yearHours; h++) {
    bytes[h] = clamped(((outdoorC[h] ?? 0) - lowestC) * perDegree)
    bytes[yearHours + h] = clamped((flatWm2[h] ?? 0) / wattsPerStep)
  }
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  return btoa(text)
}

/** The series back from its bytes, to half a degree and 5 W/m². */
export function unpackYear({ hours }: Pick<WeatherYear, 'hours'>): YearSeries {
  const text = atob(hours)
  const outdoorC = new Float64Array(yearHours)
  const flatWm2 = new Float64Array(yearHours)
  for (let h = 0; h < yearHours; h++) {
    outdoorC[h] = text.charCodeAt(h) / perDegree + lowestC
    flatWm2[h] = text.charCodeAt(yearHours + h) * wattsPerStep
  }
  return { outdoorC, flatWm2 }
}

const monthDays = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
/** The month, 0 to 11, of a day of the year, 0 to 364. */
export function monthOfDay(day: number): number {
  let left = ((Math.floor(day) % 365) + 365) % 365
  for (let month = 0; month < 12; month++) {
    const days = monthDays[month] ?? 31
    if (left < days) return month
    left -= days
  }
  return 11
}
