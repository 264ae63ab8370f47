import * as z from 'zod'
import { labelled } from '../field'
import { within } from '../quantity'

const hour = within(0, 24, '(an hour of the day)')
const share = (title: string) => labelled(within(0, 1, '(a fraction)').optional(), title, 'fraction')

export const sheddingPolicies = ['none', 'by tier', 'by schedule', 'by hand'] as const

/** What is let go so that the must-run circuits last. Levels are shares of the store. */
export const sheddingSchema = z.strictObject({
  policy: labelled(z.enum(sheddingPolicies), 'Circuits are let go', 'text', {
    names: {
      none: 'never',
      'by tier': 'as the store falls',
      'by schedule': 'outside set hours',
      'by hand': 'when somebody looks',
    },
  }),
  /** by tier: below it tier 3 goes, and comes back a tenth of the store above it */
  tier3BelowFraction: share('“May go” off below'),
  tier2BelowFraction: share('“Should run” off below'),
  /** by schedule: when tiers 2 and 3 are on */
  spans: z
    .array(z.strictObject({ fromH: hour, toH: hour }))
    .min(1, 'must hold a span of hours')
    .max(6, 'must hold at most 6 spans')
    .optional(),
  /** by hand: the hours of the day at which somebody looks and switches */
  atH: z.array(hour).min(1, 'must name an hour').max(12, 'must name at most 12 hours').optional(),
})
export type Shedding = z.infer<typeof sheddingSchema>

/** What holds where the job leaves a level or an hour out. */
export const usualShedding = {
  tier3BelowFraction: 0.5,
  tier2BelowFraction: 0.25,
  spans: [
    { fromH: 6, toH: 9 },
    { fromH: 17, toH: 22 },
  ],
  atH: [7, 12, 18, 22],
}
