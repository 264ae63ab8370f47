import * as z from 'zod'
import { line } from '../quantity'
import { centsSchema } from './cost'
import { signatureFault, signed } from './signature'

/** What a customer says when accepting: which option, who, and the drawn name. */
export const acceptingSchema = z
  .strictObject({ option: line(40, 1), name: line(80, 2), ...signed })
  .check(({ value, issues }) => {
    const message = signatureFault(value)
    if (message) issues.push({ code: 'custom', path: ['signature'], message, input: value })
  })

/** An acceptance as it is frozen beside the document that it is of. */
export const acceptanceSchema = z.strictObject({
  format: z.literal(1),
  number: line(40, 1),
  version: z.int().min(1),
  documentSha256: z.string().length(64),
  option: z.strictObject({ id: line(40, 1), name: line(120, 1), total: centsSchema }),
  name: line(80, 1),
  /** instant, UTC */
  at: z.string().max(40),
  ...signed,
})
export type Acceptance = z.infer<typeof acceptanceSchema>

export const longestQuestion = 2000
export const askingSchema = z.strictObject({
  text: z
    .string()
    .trim()
    .min(1, 'is empty: write a few words first')
    .max(
      longestQuestion,
      `must be at most ${longestQuestion.toLocaleString('en-US')} characters: call about the rest`,
    ),
})
