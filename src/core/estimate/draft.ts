import * as z from 'zod'
import { applyOperation } from '../job/operations'
import { hookupOperations } from '../job/operations/hookup'
import type { Job } from '../job/schema'
import { languageKeys } from '../languages'
import { fail, fault, type Outcome, ok } from '../outcome'
import { line } from '../quantity'
import { mostOptions } from './document'
import { introSchema, optionNameSchema } from './draft-words'

/** Where an option comes from: the design as it stands, one that a search or the first answer found, or a copy of the job. */
export const originSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('design') }),
  z.strictObject({ kind: z.literal('found'), take: hookupOperations.adoptDesign.schema }),
  z.strictObject({ kind: z.literal('job'), jobId: z.uuid() }),
])

export const draftOptionSchema = z.strictObject({
  id: line(40, 1),
  name: optionNameSchema,
  from: originSchema,
})
export type DraftOption = z.infer<typeof draftOptionSchema>

/** An estimate before it is sent. Nothing of it is a figure: they are worked out anew whenever it is looked at. */
export const draftSchema = z.strictObject({
  /** of the customer; missing: English */
  language: z.enum(languageKeys).optional(),
  /** of the firm's taxes; empty: none */
  taxPlace: line(60),
  /** said to this customer, before the options */
  intro: introSchema,
  options: z
    .array(draftOptionSchema)
    .max(mostOptions, `must hold at most ${mostOptions} options`)
    .check(({ value, issues }) => {
      value.forEach((o, n) => {
        if (value.findIndex(p => p.id === o.id) < n)
          issues.push({ code: 'custom', path: [n, 'id'], message: 'stands there twice', input: value })
      })
    }),
})
export type Draft = z.infer<typeof draftSchema>

/** Nothing yet. */
export const emptyDraft: Draft = { taxPlace: '', intro: '', options: [] }

/** The job that an option is priced by. Faults: a design that the job no longer bears, a copy that is gone. */
export function variantOf(
  job: Job,
  { name, from }: DraftOption,
  copies: ReadonlyMap<string, Job>,
): Outcome<Job> {
  switch (from.kind) {
    case 'design':
      return ok(job)
    case 'found': {
      const done = applyOperation(job, from.take)
      return done.ok
        ? done
        : fail(
            fault(
              'options',
              `“${name}” no longer fits this house: ${done.faults[0]?.message ?? ''}. Look for it anew`,
            ),
          )
    }
    case 'job': {
      const copy = copies.get(from.jobId)
      return copy ? ok(copy) : fail(fault('options', `“${name}” was a copy that is gone: take another`))
    }
  }
}
