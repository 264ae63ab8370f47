import { enter } from '../job/entry'
import type { NewJob } from '../job/new'
import { applyOperation } from '../job/operations'
import type { Job } from '../job/schema'
import { newJobWith } from '../job/template'
import { type Fault, fault, type Outcome, ok } from '../outcome'
import { readDirectory } from './directory'

/** Longer is another file. */
export const longestDirectory = 20_000

/**
 * A new job with the breakers of its directory, as typed or as a table, and the ways of a template.
 * @returns a fault on `directory` for each line that cannot be read, and nothing of the job then
 */
export function startJob(
  facts: NewJob,
  directory: string,
  newId: () => string,
  template: Job | null = null,
): Outcome<Job> {
  const empty = newJobWith(facts, template)
  if (!directory.trim()) return ok(empty)
  const { operations, refused, waiting } = enter(empty, readDirectory(directory), newId)
  const faults: Fault[] = [
    ...refused.map(({ text, why }) => fault('directory', text ? `“${text}”: ${why}` : why)),
    ...waiting.map(w =>
      fault('directory', `names ${w.with.name} as the other of a pair, where no breaker stands`),
    ),
  ]
  return faults.length
    ? { ok: false, faults }
    : applyOperation(empty, { op: 'enterBreakers', label: 'the directory', operations })
}
