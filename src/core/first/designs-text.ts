import type { SimpleOperation } from '../job/operations'
import { together } from '../units/format'

/** A design that may do, from the catalogue, before any panel is known. */
export interface FirstDesign {
  name: string
  /** why it is among the few that are shown */
  why:
    | 'lasts, at the least price'
    | 'costs less, lasts less often'
    | 'lasts most often'
    | 'lightest that lasts'
    | 'least work'
  price: { low: number; high: number }
  /** more than the customer named as the most */
  overBudget?: true
  weightLb: number
  /** share of the draws that last */
  chance: number
  /** takes it up as the source and the way of connecting of the job */
  take: Extract<SimpleOperation, { op: 'adoptDesign' }>
}

export interface FirstDesigns {
  designs: FirstDesign[]
  /** things that had to be left out before any design lasted */
  without: string[]
  /** why there is none, or fewer than one would think */
  sentence: string
}

/** Simulated outages that each is judged by: fewer than in a search that decides, or in an estimate. */
export const firstDraws = 40

/** Lasting in so many draws counts as lasting. */
export const lasts = 0.9

/** What is to be said of them together. */
export const designsText = ({ designs, without, sentence }: FirstDesigns): string => {
  if (!designs.length) return sentence
  const good = designs.some(d => d.chance >= lasts)
  return [
    ...(without.length
      ? [
          `Without ${together(without)}: the catalogue does not carry ${without.length > 1 ? 'them' : 'it'} for so long.`,
        ]
      : []),
    ...(good ? [] : ['None lasts in nine outages of ten: the nearest are shown.']),
  ].join(' ')
}
