import { TZDate } from '@date-fns/tz'
import { lightFormat } from 'date-fns'

/**
 * The day of an instant by the calendar of a place: what “today” means for a firm is not what it means in Greenwich.
 * @param zone an IANA name, such as America/New_York
 * @returns YYYY-MM-DD
 */
export const dayIn = (zone: string, at: Date): string =>
  lightFormat(new TZDate(at.getTime(), zone), 'yyyy-MM-dd')
