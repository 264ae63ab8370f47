import * as z from 'zod'
import { labelled } from '../field'
import { seasonSchema } from '../loads/season'
import { within } from '../quantity'

/** What could be otherwise, on top of the job as it is. Nothing of it is kept with the job. */
export const whatIfSchema = z.strictObject({
  colderC: labelled(within(-30, 30, '°C').default(0), 'Colder by', 'C'),
  cloudierFraction: labelled(within(-1, 1, '(a fraction)').default(0), 'Cloudier by', 'fraction'),
  moreExpansions: labelled(z.int().min(-20).max(20).default(0), 'Batteries more', 'count'),
  reserveFraction: labelled(within(0, 0.9, '(a fraction)').optional(), 'Reserve kept', 'fraction'),
  beginsH: labelled(within(0, 23.99, '(an hour of the day)').optional(), 'Begins at', 'h'),
  season: seasonSchema.optional(),
  kettle: z.boolean().default(false),
})
export type WhatIf = z.infer<typeof whatIfSchema>
export const asItIs: WhatIf = whatIfSchema.parse({})

export const isAsItIs = (whatIf: WhatIf): boolean => JSON.stringify(whatIf) === JSON.stringify(asItIs)
