import * as z from 'zod'
import { line } from '../quantity'

const whole = z.int('must be a whole number').min(0, 'must be 0 or more').max(1_000_000_000)
export const centsSchema = z.strictObject({ low: whole, high: whole })

/** What one thing costs the firm, before any mark-up. */
export const costSchema = z.strictObject({
  key: line(160, 1),
  kind: z.enum(['equipment', 'material', 'labour']),
  name: line(200, 1),
  /** how much of it, in words */
  amount: line(60),
  cents: centsSchema,
  /** where the figure comes from */
  from: z.enum([
    'price book',
    'catalogue',
    'firm’s rate',
    'range of the method',
    'range of the kind',
    'entered',
  ]),
})
export type Cost = z.infer<typeof costSchema>

/** Costs, and on what they rest: the wiring plan, or the ranges that the method has while there is none. */
export interface Costs {
  basis: 'wiring plan' | 'method’s ranges'
  costs: Cost[]
  /** parts that nobody has a price of, by name: they are in as a range */
  unpriced: string[]
}
