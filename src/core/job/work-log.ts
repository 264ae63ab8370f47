import * as z from 'zod'
import { line, within } from '../quantity'

/** A task of the order of work, by its id there. */
const taskId = line(120, 1)
const instant = z.iso.datetime('must be an instant: YYYY-MM-DDThh:mm:ssZ')
const day = z.iso.date('must be a date: YYYY-MM-DD')

const common = {
  id: line(40, 1),
  task: taskId,
  by: line(60, 1),
  /** by the clock of the device: it tells, and orders nothing */
  at: instant,
}
const entry = <const K extends string, S extends z.ZodRawShape>(kind: K, facts: S) =>
  z.strictObject({ kind: z.literal(kind), ...common, ...facts })
const minutes = within(0, 1440, 'minutes')
const hold = line(160, 1)

/** One thing that happened in the field. Entries are only ever added: what was wrong is taken back by another. */
export const entrySchema = z.discriminatedUnion('kind', [
  entry('began', {}),
  /** put down unfinished, or handed on */
  entry('put down', { minutes: minutes.optional() }),
  entry('done', {
    /** the day where the work is */
    on: day,
    minutes: minutes.optional(),
    /** the kind of work, and what was estimated for it then */
    estimated: z.strictObject({ work: line(40, 1), minutes }).optional(),
    /** what it makes built, once all of these tasks are done */
    builds: z
      .array(z.strictObject({ change: line(200, 1), needs: z.array(taskId).min(1).max(80) }))
      .max(60)
      .optional(),
    /** what was done in another way than planned, with its reason */
    otherwise: line(200, 1).optional(),
  }),
  entry('taken back', { why: line(200, 1).optional() }),
  entry('evidence', {
    hold,
    readings: z
      .array(
        z.strictObject({
          key: line(40, 1),
          value: z.union([z.literal('OL'), within(-100_000, 100_000_000, '')], 'must be a number, or OL'),
        }),
      )
      .max(20, 'must hold at most 20 readings')
      .optional(),
    /** taken over from the simulated meter: for showing and learning, it proves nothing in a house */
    simulated: z.literal(true).optional(),
    photoId: z.uuid('must be an id').optional(),
    text: line(200, 1).optional(),
    /** the torque tool, or the instrument */
    tool: line(60, 1).optional(),
    /** the second person */
    with: line(60, 1).optional(),
  }),
  /** gone on without its evidence: by a person, for a reason; neither what is dead nor what keeps source and utility apart is left out */
  entry('skipped', {
    hold: hold.refine(id => !/#(prove|interlock)\b/.test(id), 'cannot be left out'),
    why: line(200, 1),
  }),
  entry('note', {
    text: z.string().trim().min(1, 'must say something').max(2000),
    photoId: z.uuid('must be an id').optional(),
  }),
])
export type Entry = z.infer<typeof entrySchema>
export const mostEntries = 4000
type Of<K extends Entry['kind']> = Extract<Entry, { kind: K }>
/** Entries of these kinds. */
export const of = <K extends Entry['kind']>(log: readonly Entry[], ...kinds: K[]) =>
  log.filter((e): e is Of<K> => (kinds as string[]).includes(e.kind))

/** What the field wrote down, and the order as somebody put it. */
export const workSchema = z.strictObject({
  order: z.array(taskId).max(600, 'must hold at most 600 tasks').optional(),
  /** labels and notices as they were printed last */
  printed: z
    .array(z.strictObject({ id: line(200, 1), said: line(600, 1) }))
    .max(2000, 'must hold at most 2,000 labels')
    .optional(),
  log: z.array(entrySchema).max(mostEntries, `must hold at most ${mostEntries} entries`),
})

/** Tasks that are done: what was taken back is not, until it is done anew. */
export function doneIn(log: readonly Entry[]): Set<string> {
  const done = new Set<string>()
  for (const e of log) {
    if (e.kind === 'done') done.add(e.task)
    if (e.kind === 'taken back') done.delete(e.task)
  }
  return done
}
