import * as z from 'zod'
import { line, within } from '../quantity'

/** A test of the list, by its id there. */
const testId = line(160, 1)
const common = {
  id: line(40, 1),
  test: testId,
  by: line(60, 1),
  /** by the clock of the device, but after all that it knew of the test; entries count as they are kept, and this tells what one of them did not know of */
  at: z.iso.datetime('must be an instant: YYYY-MM-DDThh:mm:ssZ'),
  /** the day where it was done */
  on: z.iso.date('must be a date: YYYY-MM-DD'),
}
const entry = <const K extends string, S extends z.ZodRawShape>(kind: K, facts: S) =>
  z.strictObject({ kind: z.literal(kind), ...common, ...facts })
const photoId = z.uuid('must be an id').optional()
/** taken over from a simulated instrument: for showing and learning, it proves nothing in a house */
const simulated = z.literal(true).optional()

/** What an instrument showed: a figure, `OL`, or one of the words that a test gives to choose from. */
export const readSchema = z.strictObject({
  key: line(40, 1),
  value: z.union([within(-1e9, 1e9, ''), line(60, 1)], 'must be a number, OL, or a word to choose'),
})
export type Read = z.infer<typeof readSchema>

/** One thing that happened while it was proven. Entries are only ever added: a test that is done again is another entry. */
export const testEntrySchema = z.discriminatedUnion('kind', [
  entry('read', {
    readings: z.array(readSchema).max(24, 'must hold at most 24 readings'),
    /** which instrument, by its number */
    instrument: line(60, 1).optional(),
    simulated,
    photoId,
    text: line(200, 1).optional(),
    /** ids of the loads that ran meanwhile */
    ran: z.array(line(40, 1)).max(40).optional(),
    /** stands for what was expected: where it differs from today’s, the plan has changed since */
    basis: line(20, 1),
    /** how it was judged then */
    judged: z.enum(['passed', 'doubtful', 'failed']),
    verdict: line(300).optional(),
  }),
  /** found and put right: the test is to be done again. `cause` names one of its causes */
  entry('mended', { what: line(200, 1), cause: line(80, 1).optional(), simulated, photoId }),
  /** not done, by a person, for a reason: it prints */
  entry('left out', { why: line(200, 1) }),
  entry('note', { text: line(500, 1), photoId }),
  /** when the authority comes, and who */
  entry('appointment', { day: z.iso.date('must be a date: YYYY-MM-DD'), text: line(200).optional() }),
  /** what the inspector remarked: it becomes a task of the work order */
  entry('remark', { text: line(300, 1), circuitIds: z.array(line(40, 1)).max(20).optional(), photoId }),
  entry('inspected', { result: z.enum(['passed', 'to be corrected']), text: line(200).optional(), photoId }),
])
export type TestEntry = z.infer<typeof testEntrySchema>
export const mostTestEntries = 4000
type Of<K extends TestEntry['kind']> = Extract<TestEntry, { kind: K }>
/** Entries of these kinds. */
export const ofTests = <K extends TestEntry['kind']>(log: readonly TestEntry[], ...kinds: K[]) =>
  log.filter((e): e is Of<K> => (kinds as string[]).includes(e.kind))

/** What was proven, and the simulated house that answers where there is none. */
export const testsSchema = z.strictObject({
  log: z.array(testEntrySchema).max(mostTestEntries, `must hold at most ${mostTestEntries} entries`),
  /** a made-up house behind the simulated instruments: what differs in it from the design follows from the seed */
  simulated: z
    .strictObject({
      seed: z.int('must be a whole number').min(0).max(2_147_483_647),
      /** what is wrong in it, until it is mended */
      faults: z.array(line(80, 1)).max(4, 'must hold at most 4 faults'),
    })
    .optional(),
})

/** By test: the last time it was read. */
export function lastRead(log: readonly TestEntry[]): ReadonlyMap<string, Of<'read'>> {
  const last = new Map<string, Of<'read'>>()
  for (const e of log) if (e.kind === 'read') last.set(e.test, e)
  return last
}

/** When an entry of a test is written down: now, and after everything that is known of it, whatever clocks say. */
export function instantOf(log: readonly TestEntry[], test: string, now: Date): string {
  const known = log.reduce((last, e) => (e.test === test ? Math.max(last, Date.parse(e.at)) : last), 0)
  return new Date(Math.max(now.getTime(), known + 1)).toISOString()
}

/**
 * What speaks against a reading that was kept late: found wrong, or put right, after it was read, by somebody it knew nothing of. A reading that
 * was passed in a cellar in the morning does not outlive the one that failed at noon.
 * @param own entries of one test, as they are kept
 */
export function overtaking(own: readonly TestEntry[], read: Of<'read'>): Of<'read' | 'mended'> | null {
  const at = Date.parse(read.at)
  return (
    ofTests(own.slice(0, own.indexOf(read)), 'read', 'mended').findLast(
      e => Date.parse(e.at) > at && (e.kind === 'mended' || e.judged === 'failed'),
    ) ?? null
  )
}

/** A figure of an entry; undefined where it is not there, or no figure. */
export function figureOf({ readings }: Pick<Of<'read'>, 'readings'>, key: string): number | undefined {
  const value = readings.find(r => r.key === key)?.value
  return typeof value === 'number' ? value : undefined
}

/** What is wrong in the simulated house still: its faults without what was mended there. */
export function faultsLeft({ log, simulated: house }: z.infer<typeof testsSchema>): string[] {
  const mended = new Set(ofTests(log, 'mended').flatMap(e => (e.simulated && e.cause) || []))
  return (house?.faults ?? []).filter(f => !mended.has(f))
}
