import * as z from 'zod'
import { line } from '@/core/quantity'

const longest = 100_000

/** The inputs a link carries; the form takes any object and says what is wrong with it. A link cut short carries none. */
const inSchema = z
  .string()
  .max(longest)
  .transform((text, context) => {
    try {
      return JSON.parse(text)
    } catch {
      context.addIssue({ code: 'custom', message: 'is not JSON' })
      return z.NEVER
    }
  })
  .pipe(z.record(z.string(), z.unknown()))

const querySchema = z.object({
  in: inSchema.nullable().catch(null).default(null),
  job: z.uuid().nullable().catch(null).default(null),
  calculation: line(40, 1).nullable().catch(null).default(null),
  note: line(120).catch('').default(''),
})

export function givenIn(query: Record<string, string | string[] | undefined>) {
  const { in: given, job, calculation, note } = querySchema.parse(query)
  return { given, from: job ? { jobId: job, calculationId: calculation, note } : null }
}
