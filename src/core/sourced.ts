import * as z from 'zod'
import { line } from './quantity'
import { originSchema } from './working'

/** A figure of the job with its provenance: value, kind of evidence, day, document. */
export const sourcedNumber = (value: z.ZodType<number>) =>
  z.strictObject({
    value,
    from: originSchema,
    on: z.iso.date('must be a date: YYYY-MM-DD').optional(),
    document: line(120).optional(),
  })

export type SourcedNumber = z.infer<ReturnType<typeof sourcedNumber>>
