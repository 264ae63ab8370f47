import * as z from 'zod'
import { longestQuestion } from '../estimate/acceptance'
import { within } from '../quantity'

const text = z
  .string()
  .trim()
  .max(
    longestQuestion,
    `must be at most ${longestQuestion.toLocaleString('en-US')} characters: call about the rest`,
  )

/** What who lives there says: a question, or an outage that was lived through. */
export const houseWordSchema = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('ask'), text: text.min(1, 'is empty: write a few words first') }),
  z.strictObject({
    act: z.literal('outage'),
    on: z.iso.date('must be a date: YYYY-MM-DD'),
    hours: within(0.1, 720, 'h'),
    carried: z.enum(['all of it', 'some of it', 'none of it'], 'must be chosen: all, some or none of it'),
    text,
  }),
])
export type HouseWord = z.infer<typeof houseWordSchema>
