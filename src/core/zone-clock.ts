import { tzOffset } from '@date-fns/tz'
import * as z from 'zod'

const asked = new Map<string, boolean>()
/** Whether this is the name of a zone in the table of zones that comes with the platform, such as America/New_York. */
export function isZone(name: string): boolean {
  let known = asked.get(name)
  if (known === undefined) {
    try {
      known = Boolean(new Intl.DateTimeFormat('en-US', { timeZone: name }))
    } catch {
      known = false
    }
    if (asked.size < 1000) asked.set(name, known)
  }
  return known
}

/** An IANA name. */
export const zoneSchema = z
  .string()
  .max(60, 'must be at most 60 characters')
  .refine(isZone, 'must be the name of a time zone, such as America/New_York')

const day = 86_400

export interface ZoneClock {
  /** @returns minutes ahead of UTC at an instant, s since 1970 */
  offsetMin: (epochS: number) => number
  /**
   * The instants at which the clocks of the place show a time, s since 1970: one as a rule, two in the hour that comes twice
   * (the earlier first). A time that no clock shows is read by the offset before the change.
   * @param localS what the clock shows, as if it were UTC
   */
  instantsOf: (localS: number) => { startS: number; offsetMin: number }[]
}

/** The clocks of a place. Within a day without a change it asks the table of zones once: millions of readings are read by it. */
export function zoneClock(zone: string): ZoneClock {
  const atDay = new Map<number, number>()
  const atMidnight = (n: number) => {
    let offset = atDay.get(n)
    if (offset === undefined) {
      offset = tzOffset(zone, new Date(n * day * 1000))
      if (atDay.size < 50_000) atDay.set(n, offset)
    }
    return offset
  }
  const offsetMin = (epochS: number) => {
    const n = Math.floor(epochS / day)
    const offset = atMidnight(n)
    return offset === atMidnight(n + 1) ? offset : tzOffset(zone, new Date(epochS * 1000))
  }
  return {
    offsetMin,
    instantsOf: localS => {
      const before = offsetMin(localS - day)
      const after = offsetMin(localS + day)
      const shown = (before === after ? [before] : [before, after])
        .map(offset => ({ startS: localS - offset * 60, offsetMin: offset }))
        .filter(at => before === after || offsetMin(at.startS) === at.offsetMin)
        .sort((a, b) => a.startS - b.startS)
      if (shown.length) return shown
      const startS = localS - before * 60
      return [{ startS, offsetMin: offsetMin(startS) }]
    },
  }
}
