import { TZDate } from '@date-fns/tz'
import { lightFormat } from 'date-fns'

/** The instant at which a day of a place ends: the midnight after it. */
export function endOfDay(zone: string, day: string): Date {
  const [year = 1970, month = 1, date = 1] = day.split('-').map(Number)
  return new Date(new TZDate(year, month - 1, date + 1, zone).getTime())
}

/** A day so many days later, by the calendar. */
export const daysAfter = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)

/**
 * The day of an instant by the calendar of a place: what “today” means for a firm is not what it means in Greenwich.
 * @param zone an IANA name, such as America/New_York
 * @returns YYYY-MM-DD
 */
export const dayIn = (zone: string, at: Date): string =>
  lightFormat(new TZDate(at.getTime(), zone), 'yyyy-MM-dd')
