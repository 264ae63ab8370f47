import * as z from 'zod'
import { type Conditions, seasonSchema } from '../loads/season'
import { within } from '../quantity'
import type { Brief } from './brief'
import { sheddingSchema } from './shedding'
import { weatherYearSchema } from './weather-year'

/** The outage that is asked for. */
export const outageSchema = z.strictObject({
  hours: within(0.5, 720, 'h'),
  startFraction: within(0.05, 1, '(a fraction)'),
  reserveFraction: within(0, 0.9, '(a fraction)'),
  deratingFraction: within(0.3, 1, '(a fraction)'),
  /** hour of the day at which it begins; missing: any, and the loads are those of an average hour */
  beginsH: within(0, 23.99, '(an hour of the day)').optional(),
  season: seasonSchema.optional(),
  /** outdoors meanwhile, °C */
  outdoorC: within(-50, 50, '°C').optional(),
  /** of the place, degrees north; what is assumed without it stands in the simulation's working */
  latitudeDeg: within(-66, 66, 'degrees').optional(),
  /** share of the sky that is cloudy in such weeks */
  cloudFraction: within(0, 1, '(a fraction)').optional(),
  shedding: sheddingSchema.optional(),
  /** share of times that people let a large load wait for another */
  heedFraction: within(0, 1, '(a fraction)').optional(),
  /** until somebody has reset a source that tripped, min */
  restartMinutes: within(0, 2880, 'min').optional(),
  /** a year of weather of the place, by the hour */
  weather: weatherYearSchema.optional(),
})

export type Outage = z.infer<typeof outageSchema>

/** What the loads are reckoned under: the outage's own word, else the brief's. */
export function conditionsOf({
  outage,
  brief,
}: {
  outage: Outage
  brief: Pick<Brief, 'season'>
}): Conditions {
  const asked = seasonSchema.safeParse(brief.season)
  return {
    season: outage.season ?? (asked.success ? asked.data : undefined),
    outdoorC: outage.outdoorC,
    beginsH: outage.beginsH,
    hours: outage.hours,
  }
}
