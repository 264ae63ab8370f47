import * as z from 'zod'
import { line } from '../quantity'

/** A finding that a named person accepts: it stays listed, and prints. A stop cannot be accepted. */
export const acceptanceSchema = z.strictObject({
  /** the finding's key */
  key: line(400, 1),
  by: line(60, 1),
  on: z.iso.date('must be a date: YYYY-MM-DD'),
  reason: line(300, 3),
})
export type Acceptance = z.infer<typeof acceptanceSchema>
