import * as z from 'zod'
import { line } from '../quantity'
import { type Season, seasonSchema } from './season'

const Wh = z.number().min(0, 'must not be negative')

/** What a year of the utility's data says of the house; the intervals themselves are kept beside the document. */
export const utilitySchema = z.strictObject({
  /** of the kept intervals */
  seriesId: z.uuid('must be an id'),
  meterId: line(120, 1),
  document: line(120, 1),
  on: z.iso.date('must be a date: YYYY-MM-DD'),
  minutes: z.literal([15, 30, 60], 'must be 15, 30 or 60'),
  firstDay: z.iso.date(),
  lastDay: z.iso.date(),
  /** of `interval-demand` */
  demand: z.strictObject({
    dailyMeanWh: Wh,
    peakDayWh: Wh,
    peakDay: z.iso.date(),
    peakW: Wh,
    baseW: Wh,
    gaps: z.int().min(0),
    days: z.int().min(1),
  }),
  /** a mean day of each season that the data cover, Wh */
  seasons: z.partialRecord(seasonSchema, Wh),
  /** fed back over the whole time, where the meter tells, Wh */
  reverseWh: Wh.optional(),
})
export type Utility = z.infer<typeof utilitySchema>

/** Hourly data hide the quarter-hour's peak: what is allowed for it unless the person says otherwise. An assumption. */
export const assumedPeakFactor: Record<Utility['minutes'], number> = { 15: 1, 30: 1.1, 60: 1.25 }

export interface Explained {
  season: Season | null
  /** of a mean day of that season, or of all days */
  dayWh: number
  pickedWh: number
  fraction: number
  sentence: string
  doubt: boolean
}

/** How much of the house's mean day the picked circuits account for: a check of plausibility in both directions. */
export function explained(utility: Utility, pickedWh: number, season: Season | undefined): Explained {
  const inSeason = season && utility.seasons[season]
  const dayWh = inSeason ?? utility.demand.dailyMeanWh
  const fraction = dayWh > 0 ? pickedWh / dayWh : 0
  const percent = Math.round(fraction * 100)
  const day = inSeason ? `an average ${season} day` : 'an average day'
  const basis = `The circuits you picked account for ${percent} % of ${day}`
  const over = fraction > 1
  const little = fraction < 0.05 && pickedWh > 0
  return {
    season: inSeason ? season : null,
    dayWh,
    pickedWh,
    fraction,
    doubt: over || little,
    sentence: over
      ? `${basis}: more than the whole house uses. A figure is too high, or the meter missed what rooftop solar covered.`
      : little
        ? `${basis}: little. Either the house has other large loads, or something on the picked circuits is missing.`
        : `${basis}.`,
  }
}
