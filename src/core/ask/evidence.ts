import * as z from 'zod'
import { plateSchema } from '../loads/nameplate'
import { line, within } from '../quantity'

/** What a photograph, or a mark on one, shows. */
export const aboutSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('panel'), panelId: line(40, 1) }),
  z.strictObject({ kind: z.literal('circuit'), circuitId: line(40, 1) }),
  z.strictObject({ kind: z.literal('load'), circuitId: line(40, 1), loadId: line(40, 1) }),
  z.strictObject({ kind: z.literal('wall') }),
  /** a task of the work: what was done, or found, there */
  z.strictObject({ kind: z.literal('task'), task: line(120, 1) }),
  z.strictObject({ kind: z.literal('other') }),
])
export type About = z.infer<typeof aboutSchema>

const share = within(0, 1, 'of the picture')
/** A place on the picture, in shares of its width and height before it is turned. */
export const markSchema = z.strictObject({
  id: line(40, 1),
  x: share,
  y: share,
  w: share,
  h: share,
  about: aboutSchema,
  /** what is written there, as read */
  text: line(200),
})
export type PhotoMark = z.infer<typeof markSchema>

/** A photograph of the job. Its bytes are kept beside the document, by the same id. */
export const photoSchema = z.strictObject({
  id: z.uuid('must be an id'),
  name: line(80, 1),
  by: line(60, 1),
  on: z.iso.date('must be a date: YYYY-MM-DD'),
  width: z.int().min(1, 'must be 1 or more').max(20_000, 'must be at most 20,000'),
  height: z.int().min(1, 'must be 1 or more').max(20_000, 'must be at most 20,000'),
  /** quarter turns clockwise at which it is shown */
  turns: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)], 'must be 0 to 3'),
  about: aboutSchema,
  /** the request it answers */
  request: line(90).optional(),
  marks: z.array(markSchema).max(100, 'must hold at most 100 marks'),
})
export type Photo = z.infer<typeof photoSchema>
export const mostPhotos = 320

export const requestStates = ['to ask', 'asked', 'received', 'good enough', 'refused'] as const
export type RequestState = (typeof requestStates)[number]

/** What became of a request: only what differs from being derived and not yet asked is kept. */
export const requestRecordSchema = z.strictObject({
  key: line(90, 1),
  state: z.enum(requestStates),
  /** of a request that a person added: what to send, and why */
  own: z.strictObject({ title: line(80, 1), why: line(160) }).optional(),
  note: line(200).optional(),
  answer: z
    .strictObject({
      by: line(60, 1),
      on: z.iso.date('must be a date: YYYY-MM-DD'),
      unknown: z.literal(true).optional(),
      plate: plateSchema.optional(),
      text: line(500).optional(),
      file: z.strictObject({ id: z.uuid(), name: line(120, 1), bytes: z.int().min(0) }).optional(),
    })
    .optional(),
})
export type RequestRecord = z.infer<typeof requestRecordSchema>
