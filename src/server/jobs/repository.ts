import { randomUUID } from 'node:crypto'
import { applyPatches, enablePatches, type Patch, produceWithPatches } from 'immer'
import type { Knex } from 'knex'
import { severities } from '@/core/checks/finding'
import { evaluate } from '@/core/job/evaluate'
import { applyOperation, describeOperation, type Operation } from '@/core/job/operations'
import { readJob } from '@/core/job/read'
import type { JobRecord, Revision } from '@/core/job/record'
import { type Job, steps } from '@/core/job/schema'
import { type Fault, fail, fault, type Outcome } from '@/core/outcome'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

enablePatches()

export type Change = { id: string } & (
  | { kind: 'do'; operation: Operation }
  | { kind: 'undo' }
  | { kind: 'redo' }
)

export type ChangeOutcome =
  | { state: 'written'; record: JobRecord }
  | { state: 'stale'; record: JobRecord; since: Revision[]; applied: string[] }
  | { state: 'refused'; faults: Fault[] }
  | { state: 'gone' }

interface JobRow {
  id: string
  firm_id: string
  document: unknown
  revision: number
  head: number | null
  redo_tip: number | null
  archived_at: Date | null
}

function trusted(document: unknown): Job {
  const read = readJob(document)
  if (!read.ok)
    throw new Error(
      `a stored job no longer reads: ${read.faults.map(f => `${f.path} ${f.message}`).join('; ')}`,
    )
  return read.value
}

/** The columns that lists search and sort by, computed from the document in the same write. */
function columnsOf(job: Job) {
  const { headline } = evaluate(job)
  return {
    document: JSON.stringify(job),
    title: job.title,
    place: job.place,
    step: job.step,
    step_order: steps.indexOf(job.step),
    worst: headline.worst ? severities.indexOf(headline.worst.severity) : severities.length,
    worst_sentence: headline.worst?.sentence ?? null,
    hours_needed: headline.hoursNeeded,
    hours_had: headline.hoursHad,
    search_text: `${job.title} ${job.place}`.toLowerCase(),
  }
}

/** Writes a new job as revision 1 and answers its id. */
export async function createJob(
  actor: Actor,
  job: Job,
  how: string,
  at: Date,
  id: string = randomUUID(),
): Promise<string> {
  await db().transaction(async trx => {
    await trx('job').insert({
      id,
      firm_id: actor.firmId,
      revision: 1,
      created_at: at,
      updated_at: at,
      ...columnsOf(job),
    })
    await trx('job_change').insert({
      job_id: id,
      firm_id: actor.firmId,
      revision: 1,
      change_id: randomUUID(),
      kind: 'create',
      sentence: how,
      person_id: actor.personId,
      at,
    })
  })
  return id
}

export async function readJobRecord(actor: Actor, id: string): Promise<JobRecord | null> {
  const row = await db()<JobRow>('job').where({ id, firm_id: actor.firmId }).first()
  return row ? recordOf(db(), actor, row, trusted(row.document)) : null
}

async function recordOf(at: Knex, actor: Actor, row: JobRow, job: Job): Promise<JobRecord> {
  const next = await redoable(at, row)
  const wanted = [row.head, next].filter(r => r !== null)
  const changes: { revision: number; sentence: string }[] = wanted.length
    ? await at('job_change')
        .where({ job_id: row.id, firm_id: actor.firmId })
        .whereIn('revision', wanted)
        .select('revision', 'sentence')
    : []
  const sentence = (revision: number | null) => changes.find(c => c.revision === revision)?.sentence ?? null
  return {
    id: row.id,
    job,
    revision: row.revision,
    undo: sentence(row.head),
    redo: sentence(next),
    archived: row.archived_at !== null,
  }
}

/** The change that redo brings back: the one on the way from the head to the tip. */
async function redoable(at: Knex, row: JobRow): Promise<number | null> {
  if (row.redo_tip === null) return null
  const found: { rows: { revision: number }[] } = await at.raw(
    `with recursive way as (
       select revision, parent from job_change where job_id = ? and revision = ?
       union all
       select c.revision, c.parent from job_change c join way on c.revision = way.parent
        where c.job_id = ? and way.parent is distinct from ?
     ) select revision from way where parent is not distinct from ?`,
    [row.id, row.redo_tip, row.id, row.head, row.head],
  )
  return found.rows[0]?.revision ?? null
}

interface Step {
  kind: Change['kind']
  job: Job
  head: number | null
  redoTip: number | null
  logged: {
    parent?: number | null
    of_revision?: number
    operation?: string
    forward?: string
    backward?: string
    sentence: string
  }
}

/**
 * Applies changes on top of `baseRevision`, all or none. A change already written (same id) is not written twice.
 * `stale` when someone else wrote in between: nothing is written, and what they did comes back.
 */
export async function changeJob(
  actor: Actor,
  id: string,
  baseRevision: number,
  changes: readonly Change[],
  now: Date,
): Promise<ChangeOutcome> {
  return db().transaction(async trx => {
    const row = await trx<JobRow>('job').where({ id, firm_id: actor.firmId }).forUpdate().first()
    if (!row) return { state: 'gone' }
    const written: { change_id: string; revision: number }[] = await trx('job_change')
      .where({ job_id: id, firm_id: actor.firmId })
      .whereIn(
        'change_id',
        changes.map(c => c.id),
      )
      .select('change_id', 'revision')
    const applied = written.map(w => w.change_id)
    const base = Math.max(baseRevision, ...written.map(w => w.revision))
    let job = trusted(row.document)
    if (base !== row.revision)
      return {
        state: 'stale',
        record: await recordOf(trx, actor, row, job),
        since: await revisionsSince(trx, actor, id, base),
        applied,
      }
    const at = { ...row }
    for (const change of changes) {
      if (applied.includes(change.id)) continue
      const step =
        change.kind === 'do'
          ? doStep(job, at, change.operation)
          : await backOrForth(trx, job, at, change.kind)
      if ('faults' in step) return { state: 'refused', faults: step.faults }
      job = step.job
      at.revision++
      at.head = step.kind === 'do' ? at.revision : step.head
      at.redo_tip = step.redoTip
      await trx('job_change').insert({
        job_id: id,
        firm_id: actor.firmId,
        revision: at.revision,
        change_id: change.id,
        kind: step.kind,
        person_id: actor.personId,
        at: now,
        ...step.logged,
      })
    }
    if (at.revision > row.revision)
      await trx('job')
        .where({ id, firm_id: actor.firmId })
        .update({
          revision: at.revision,
          head: at.head,
          redo_tip: at.redo_tip,
          updated_at: now,
          ...columnsOf(job),
        })
    return { state: 'written', record: await recordOf(trx, actor, at, job) }
  })
}

function doStep(job: Job, at: JobRow, operation: Operation): Step | { faults: Fault[] } {
  const outcome = applyOperation(job, operation)
  if (!outcome.ok) return { faults: outcome.faults }
  const [, forward, backward] = produceWithPatches(job, draft => replaceChanged(draft, outcome.value))
  return {
    kind: 'do',
    job: outcome.value,
    head: null,
    redoTip: null,
    logged: {
      parent: at.head,
      operation: JSON.stringify(operation),
      forward: JSON.stringify(forward),
      backward: JSON.stringify(backward),
      sentence: describeOperation(job, operation),
    },
  }
}

/** Patches by top-level part: small enough to keep for good, simple enough to trust. */
function replaceChanged(draft: Job, next: Job) {
  const keys = new Set([...Object.keys(draft), ...Object.keys(next)])
  for (const key of keys) {
    const value: unknown = Reflect.get(next, key)
    if (value === undefined) Reflect.deleteProperty(draft, key)
    else if (key === 'panels') replaceChangedPanels(draft, next)
    else Reflect.set(draft, key, value)
  }
}

function replaceChangedPanels(draft: Job, next: Job) {
  const same =
    draft.panels.length === next.panels.length && draft.panels.every((p, i) => p.id === next.panels[i]?.id)
  if (!same) {
    draft.panels = next.panels
    return
  }
  next.panels.forEach((panel, i) => {
    const at = draft.panels[i]
    if (!at || at.circuits.length !== panel.circuits.length) {
      draft.panels[i] = panel
      return
    }
    const { circuits, ...facts } = panel
    for (const key of Object.keys(at))
      if (key !== 'circuits' && !(key in facts)) Reflect.deleteProperty(at, key)
    Object.assign(at, facts)
    circuits.forEach((circuit, n) => {
      at.circuits[n] = circuit
    })
  })
}

/** The job after kept patches; a fault where they were made on an older format whose places are gone. */
function patchedJob(job: Job, patches: Patch[]): Outcome<Job> {
  try {
    return readJob(applyPatches(job, patches))
  } catch {
    return fail(fault('$', 'was changed in an older format since: this step can no longer be taken back'))
  }
}

async function backOrForth(
  trx: Knex,
  job: Job,
  at: JobRow,
  kind: 'undo' | 'redo',
): Promise<Step | { faults: Fault[] }> {
  const wanted = kind === 'undo' ? at.head : await redoable(trx, at)
  if (wanted === null) return { faults: [{ path: '$', message: `has nothing to ${kind}` }] }
  const row: { parent: number | null; forward: Patch[]; backward: Patch[]; sentence: string } = await trx(
    'job_change',
  )
    .where({ job_id: at.id, revision: wanted })
    .first('parent', 'forward', 'backward', 'sentence')
  const patched = patchedJob(job, kind === 'undo' ? row.backward : row.forward)
  if (!patched.ok) return { faults: patched.faults }
  return {
    kind,
    job: patched.value,
    head: kind === 'undo' ? row.parent : wanted,
    redoTip: kind === 'undo' ? (at.redo_tip ?? wanted) : at.redo_tip === wanted ? null : at.redo_tip,
    logged: {
      of_revision: wanted,
      sentence: `${kind === 'undo' ? 'took back' : 'brought back'}: ${row.sentence}`,
    },
  }
}

async function revisionsSince(at: Knex, actor: Actor, id: string, revision: number): Promise<Revision[]> {
  const rows: { revision: number; sentence: string; label: string; role: string; at: Date }[] = await at(
    'job_change as c',
  )
    .join('person as p', 'p.id', 'c.person_id')
    .where({ 'c.job_id': id, 'c.firm_id': actor.firmId })
    .andWhere('c.revision', '>', revision)
    .orderBy('c.revision', 'desc')
    .limit(50)
    .select('c.revision', 'c.sentence', 'p.label', 'p.role', 'c.at')
  return rows.reverse().map(r => ({
    revision: r.revision,
    sentence: r.sentence,
    person: r.label,
    role: r.role,
    at: r.at.toISOString(),
  }))
}

/** What was done to a job after a revision, oldest first, at most the last 50. */
export const revisionsAfter = (actor: Actor, id: string, revision: number): Promise<Revision[]> =>
  revisionsSince(db(), actor, id, revision)

/** A second job that starts where this one stands; null when it is gone. */
export async function duplicateJob(actor: Actor, id: string, at: Date): Promise<string | null> {
  const record = await readJobRecord(actor, id)
  if (!record) return null
  const title = `${record.job.title.slice(0, 73)} (copy)`
  return createJob(actor, { ...record.job, title }, `copied from ${record.job.title}`, at)
}

/** Archives a job or brings it back; false when it is gone. */
export async function archiveJob(actor: Actor, id: string, archived: boolean, at: Date): Promise<boolean> {
  const count = await db()('job')
    .where({ id, firm_id: actor.firmId })
    .update({ archived_at: archived ? at : null })
  return count > 0
}
