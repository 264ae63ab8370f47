import * as z from 'zod'

/** How a source may feed the two legs of a panel. */
export const arrangements = ['one-leg', 'tied', 'split-phase', 'independent'] as const
/** One of the two legs of a 120/240 V panel. */
export const legSchema = z.enum(['L1', 'L2'])
export type Leg = z.infer<typeof legSchema>

/** Names the arrangement in the trade's words. */
export const arrangementName = {
  'one-leg': 'one leg',
  tied: 'both legs tied',
  'split-phase': 'split phase',
  independent: 'independent legs',
} as const satisfies Record<(typeof arrangements)[number], string>
