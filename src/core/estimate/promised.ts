import * as z from 'zod'
import { line } from '../quantity'

/** What an option keeps alive, and how surely, in plain words. */
export const promiseSchema = z.strictObject({
  /** what must live and is fed, by its name */
  keeps: z.array(line(80, 1)).max(60),
  /** what was wanted and is not fed at all */
  leaves: z.array(line(80, 1)).max(60),
  hours: z.number(),
  /** share of the outages simulated in which all of it lasts; null where nothing could be simulated */
  chance: z.number().nullable(),
  /** h until the first of it is dark, in the middle outage, at most the hours asked */
  middleH: z.number().nullable(),
  sentence: line(600),
  cautions: z.array(line(300, 1)).max(10),
})
export type Promised = z.infer<typeof promiseSchema>
