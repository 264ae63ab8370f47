import * as z from 'zod'
import { line } from '@/core/quantity'
import { readJobRecord } from '@/server/jobs/repository'
import type { Actor } from '@/server/people/types'

/** The inputs a link carries; the form takes any object and says what is wrong with it. A link cut short carries none. */
const inSchema = z
  .string()
  .max(100_000)
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
})

/** What the bench opens with: the inputs of the link, or of a calculation that a job of this firm keeps. */
export async function givenIn(actor: Actor, query: Record<string, string | string[] | undefined>) {
  const { in: inputs, job, calculation } = querySchema.parse(query)
  if (!job) return { given: inputs, from: null }
  const record = await readJobRecord(actor, job)
  if (!record) return { given: inputs, from: null }
  const kept = record.job.calculations.find(c => c.id === calculation)
  return {
    given: inputs ?? kept?.input ?? null,
    from: { jobId: job, calculationId: kept?.id ?? null, note: kept?.note ?? '' },
  }
}
