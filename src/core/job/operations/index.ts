import { produce } from 'immer'
import * as z from 'zod'
import { type Fault, fail, type Outcome, parseWith } from '../../outcome'
import { changeSchema } from '../../plan/change'
import { line } from '../../quantity'
import { withHookupChanges } from '../hookup-changes'
import { isStillValid, type Job, jobSchema } from '../schema'
import { askOperations } from './ask'
import { circuitOperations } from './circuits'
import { fieldOperations } from './field'
import { handOverOperations } from './hand-over'
import { hookupOperations } from './hookup'
import { jobOperations } from './job-facts'
import { loadOperations } from './loads'
import { panelOperations } from './panels'
import { planOperations } from './plan'
import { sourceOperations } from './source'
import { testOperations } from './tests'
import { wiringOperations } from './wiring'

/** Every way a job changes, by name: one file for each family, and in it what each says, does and is told as. */
const known = {
  ...jobOperations,
  ...panelOperations,
  ...circuitOperations,
  ...loadOperations,
  ...sourceOperations,
  ...hookupOperations,
  ...askOperations,
  ...planOperations,
  ...wiringOperations,
  ...fieldOperations,
  ...testOperations,
  ...handOverOperations,
}

const simpleSchema = z.discriminatedUnion('op', [
  known.setJobFacts.schema,
  ...Object.values(known)
    .filter(o => o !== known.setJobFacts)
    .map(o => o.schema),
])

export type SimpleOperation = z.infer<typeof simpleSchema>

const several = { label: line(160, 1), operations: z.array(simpleSchema).min(1).max(200) }
/** What planned changes are told of: the finding they are for, who planned them, when. */
const planned = changeSchema.options[0].pick({ settles: true, by: true, on: true }).partial().optional()
const batches = {
  /** the fix of a finding, taken back as one */
  applyFix: z.strictObject({ op: z.literal('applyFix'), ...several, planned }),
  /** a directory entered, taken back as one */
  enterBreakers: z.strictObject({ op: z.literal('enterBreakers'), ...several }),
}

/** Each is pure, logged with its revision, and undoable. */
export const operationSchema = z.discriminatedUnion('op', [
  ...simpleSchema.options,
  batches.applyFix,
  batches.enterBreakers,
])

export type Operation = z.infer<typeof operationSchema>

/**
 * The job after the operation; the job given is left as it was. The list of planned changes follows the hook-up.
 * Faults: the thing named is gone, a space is taken, the result breaks the schema. Paths are those of the job.
 */
export function applyOperation(job: Job, operation: Operation): Outcome<Job> {
  if (operation.op !== 'applyFix' && operation.op !== 'enterBreakers') return applySimple(job, operation)
  let outcome: Outcome<Job> = { ok: true, value: job }
  for (const part of operation.operations) if (outcome.ok) outcome = applySimple(outcome.value, part)
  if (!outcome.ok || operation.op !== 'applyFix') return outcome
  return { ok: true, value: told(job, outcome.value, operation.planned) }
}

/** The changes that are planned anew, told of: for which finding, by whom, when. */
function told(before: Job, now: Job, facts: Extract<Operation, { op: 'applyFix' }>['planned']): Job {
  if (before.planned === now.planned) return now
  return {
    ...now,
    planned: now.planned.map(c =>
      c.origin === 'person' && !before.planned.includes(c)
        ? { ...c, ...facts, ...(facts?.settles !== undefined && { origin: 'finding' as const }) }
        : c,
    ),
  }
}

function applySimple(job: Job, operation: SimpleOperation): Outcome<Job> {
  let faults: Fault[] = []
  const change = known[operation.op].change(operation)
  const changed = produce(job, draft => {
    faults = change(draft) ?? []
  })
  if (faults.length) return fail(...faults)
  const next = withHookupChanges(changed)
  if (isStillValid(job, next)) return { ok: true, value: next }
  const checked = parseWith(jobSchema, next)
  return checked.ok ? { ok: true, value: next } : checked
}

/** What an operation did, as one line of the job's history. `before` is the job it was applied to. */
export function describeOperation(before: Job, operation: Operation): string {
  if (operation.op === 'applyFix') return `applied: ${operation.label}`
  if (operation.op === 'enterBreakers') return `entered ${operation.label}`
  return known[operation.op].describe(before, operation)
}
