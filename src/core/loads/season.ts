import * as z from 'zod'

export const seasonSchema = z.enum(['winter', 'spring', 'summer', 'autumn'])
export type Season = z.infer<typeof seasonSchema>

/** The season of a date, YYYY-MM-DD, by the month: December to February is winter. */
export function seasonOf(date: string): Season {
  const month = Number(date.slice(5, 7)) % 12
  return seasonSchema.options[Math.floor(month / 3)] ?? 'winter'
}

/** What holds during the outage: missing where nobody has said. */
export interface Conditions {
  season?: Season | undefined
  outdoorC?: number | undefined
  /** hour of the day at which it begins */
  beginsH?: number | undefined
  hours?: number | undefined
}
