import { randomUUID } from 'node:crypto'
import { applyPatches, type Patch } from 'immer'
import type { Knex } from 'knex'
import { evaluate } from '@/core/assess/evaluate'
import type { JobRecord, Others, Revision } from '@/core/assess/record'
import { severities } from '@/core/checks/finding'
import { dueOf } from '@/core/handover/due'
import { unbuilt } from '@/core/job/as-planned'
import { happened } from '@/core/job/happened'
import { applyOperation, describeOperation, type Operation } from '@/core/job/operations'
import { notTheirs } from '@/core/job/operations/rights'
import { readJob } from '@/core/job/read'
import { type Job, steps } from '@/core/job/schema'
import { templateOf } from '@/core/job/template'
import { type Fault, fail, fault, type Outcome } from '@/core/outcome'
import { db, ownerDb } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { inTurn } from '../db/turn'
import { note } from '../people/record'
import type { Actor } from '../people/types'
import { differences } from './differences'
import { jobChannel } from './live'

export type Change = { id: string } & (
  | { kind: 'do'; operation: Operation }
  | { kind: 'undo' }
  | { kind: 'redo' }
)

export type ChangeOutcome =
  | { state: 'written'; record: JobRecord }
  | { state: 'stale'; record: JobRecord; since: Revision[]; others: Others; applied: string[] }
  | { state: 'refused'; faults: Fault[]; changeId: string }
  | { state: 'gone' }

export interface JobRow {
  id: string
  firm_id: string
  document: unknown
  revision: number
  head: number | null
  redo_tip: number | null
  archived_at: Date | null
  template: boolean
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
    due_on: dueOf(job)[0]?.on ?? null,
  }
}

/** Writes a new job as revision 1 and answers its id. */
export async function createJob(
  actor: Actor,
  job: Job,
  how: string,
  at: Date,
  id: string = randomUUID(),
  template = false,
): Promise<string> {
  await transaction(
    actor,
    async trx => {
      await trx('job').insert({
        id,
        template,
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
      await keepWhole(trx, actor, id, 1, job)
    },
    always,
  )
  return id
}

const rowOf = (actor: Actor, id: string) =>
  db(actor)<JobRow>('job').where({ id, firm_id: actor.firmId }).first()

export async function readJobRecord(actor: Actor, id: string): Promise<JobRecord | null> {
  const row = await rowOf(actor, id)
  return row ? recordOf(db(actor), row, trusted(row.document)) : null
}

async function recordOf(at: Knex, row: JobRow, job: Job): Promise<JobRecord> {
  const [undos, redos] = [await undoable(at, row), await redoable(at, row)]
  return {
    id: row.id,
    job,
    revision: row.revision,
    undos: undos.map(s => s.sentence),
    redos: redos.map(s => s.sentence),
    archived: row.archived_at !== null,
  }
}

interface Walked {
  revision: number
  sentence: string
}

/** As many steps of undo and redo as a screen is told, and takes before it asks again. */
const mostTold = 100

/** The change before one, by its number: as a join, every change of the job would be read at each step. */
const oneStep = 'select revision, parent, sentence from job_change where job_id = ? and revision = way.parent'

/** The changes that undo takes back, the newest first; where the steps of one were packed away, it ends. */
async function undoable(at: Knex, row: JobRow): Promise<Walked[]> {
  if (row.head === null) return []
  const found: { rows: Walked[] } = await at.raw(
    `with recursive way as (
       select revision, parent, sentence, 1 as n from job_change
        where job_id = ? and revision = ? and backward is not null
       union all
       select c.revision, c.parent, c.sentence, way.n + 1 from way cross join lateral (${oneStep} and backward is not null limit 1) c
        where way.n < ?
     ) select revision, sentence from way order by n`,
    [row.id, row.head, row.id, mostTold],
  )
  return found.rows
}

/** The changes that redo brings back, the next first: those on the way from the head to the tip. */
async function redoable(at: Knex, row: JobRow): Promise<Walked[]> {
  if (row.redo_tip === null) return []
  const found: { rows: Walked[] } = await at.raw(
    `with recursive way as (
       select revision, parent, sentence, 1 as n from job_change where job_id = ? and revision = ?
       union all
       select c.revision, c.parent, c.sentence, way.n + 1 from way cross join lateral (${oneStep} limit 1) c
        where way.parent is distinct from ?
     ) select revision, sentence from way order by n desc limit ?`,
    [row.id, row.redo_tip, row.id, row.head, mostTold],
  )
  return found.rows
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
    backward?: string | null
    sentence: string
  }
}

/**
 * Applies changes on top of `baseRevision`, all or none. A change already written (same id) is not written twice.
 * `stale` when someone else wrote in between: nothing is written, and what they did comes back. `refused` names the change.
 */
export async function changeJob(
  actor: Actor,
  id: string,
  baseRevision: number,
  changes: readonly Change[],
  now: Date,
): Promise<ChangeOutcome> {
  for (const change of changes) {
    const why = change.kind === 'do' ? notTheirs(actor.role, change.operation) : null
    if (why) return { state: 'refused', faults: [fault('$', why)], changeId: change.id }
  }
  return onLocked<ChangeOutcome>(actor, id, { state: 'gone' }, async (trx, row, job) => {
    const written: { change_id: string; revision: number }[] = await trx('job_change')
      .where({ job_id: id, firm_id: actor.firmId })
      .whereIn(
        'change_id',
        changes.map(c => c.id),
      )
      .select('change_id', 'revision')
    const applied = written.map(w => w.change_id)
    const base = Math.max(baseRevision, ...written.map(w => w.revision))
    if (base !== row.revision)
      return {
        state: 'stale',
        record: await recordOf(trx, row, job),
        ...(await revisionsSince(trx, actor, id, base)),
        applied,
      }
    const left = changes.filter(
      (c, n) => !applied.includes(c.id) && changes.findIndex(o => o.id === c.id) === n,
    )
    return writeOnTop(trx, actor, row, job, left, now)
  })
}

/** Writes on top of whatever stands what is to be done about it, and whatever `beside` keeps with it: all or none. */
export async function changeWhateverStands(
  actor: Actor,
  id: string,
  operations: (job: Job) => Operation[],
  now: Date,
  beside: (trx: Knex) => Promise<Fault[]>,
): Promise<{ state: 'written' | 'gone' | 'nothing' } | { state: 'refused'; faults: Fault[] }> {
  return onLocked<Awaited<ReturnType<typeof changeWhateverStands>>>(
    actor,
    id,
    { state: 'gone' },
    async (trx, row, job) => {
      const changes = operations(job).map(operation => ({
        id: randomUUID(),
        kind: 'do' as const,
        operation,
      }))
      if (!changes.length) return { state: 'nothing' }
      const faults = await beside(trx)
      return faults.length ? { state: 'refused', faults } : writeOnTop(trx, actor, row, job, changes, now)
    },
  )
}

/** Works on a job while nobody else can write it. Only what is `written` holds: of every other outcome nothing stays. */
export const onLocked = <T extends { state: string }>(
  actor: Actor,
  id: string,
  gone: T,
  work: (trx: Knex, row: JobRow, job: Job) => Promise<T>,
): Promise<T> =>
  inTurn(`job ${id}`, () =>
    transaction(
      actor,
      async trx => {
        const row = await trx<JobRow>('job').where({ id, firm_id: actor.firmId }).forUpdate().first()
        return row ? work(trx, row, trusted(row.document)) : gone
      },
      outcome => outcome.state === 'written',
    ),
  )

/** A job is kept whole every so many revisions. */
const wholeEvery = 50

const keepWhole = (trx: Knex, { firmId }: Actor, id: string, revision: number, job: Job) =>
  trx('job_snapshot')
    .insert({ firm_id: firmId, job_id: id, revision, document: JSON.stringify(job) })
    .onConflict()
    .ignore()

/** Writes a locked job as a whole, as one change that can be taken back. */
export async function writeWhole(
  trx: Knex,
  actor: Actor,
  row: JobRow,
  before: Job,
  job: Job,
  sentence: string,
  changeId: string,
  now: Date,
): Promise<{ state: 'written'; record: JobRecord }> {
  const { forward, backward } = differences(before, job)
  const revision = row.revision + 1
  const at = { ...row, revision, head: revision, redo_tip: null }
  await trx('job_change').insert({
    job_id: row.id,
    firm_id: actor.firmId,
    revision,
    change_id: changeId,
    kind: 'do',
    person_id: actor.personId,
    at: now,
    parent: row.head,
    forward: JSON.stringify(forward),
    backward: JSON.stringify(backward),
    sentence,
  })
  await keepWhole(trx, actor, row.id, revision, job)
  await trx('job')
    .where({ id: row.id, firm_id: actor.firmId })
    .update({ revision, head: revision, redo_tip: null, updated_at: now, ...columnsOf(job) })
  await trx.raw('select pg_notify(?, ?)', [jobChannel, `${row.id} ${revision}`])
  return { state: 'written', record: await recordOf(trx, at, job) }
}

/** Writes changes on a locked job, up to the first that is refused. */
async function writeOnTop(
  trx: Knex,
  actor: Actor,
  row: JobRow,
  standing: Job,
  changes: readonly Change[],
  now: Date,
): Promise<
  { state: 'written'; record: JobRecord } | { state: 'refused'; faults: Fault[]; changeId: string }
> {
  const at = { ...row }
  let job = standing
  for (const change of changes) {
    const step =
      change.kind === 'do'
        ? doStep(job, at, change.operation)
        : await backOrForth(trx, job, at, change.kind, actor.role)
    if ('faults' in step) return { state: 'refused', faults: step.faults, changeId: change.id }
    job = step.job
    at.revision++
    at.head = step.kind === 'do' ? at.revision : step.head
    at.redo_tip = step.redoTip
    for (const finding of change.kind === 'do' ? acceptancesIn(change.operation) : [])
      await note(actor, 'finding accepted', { what: finding, of: job.title }, trx)
    await trx('job_change').insert({
      job_id: row.id,
      firm_id: actor.firmId,
      revision: at.revision,
      change_id: change.id,
      kind: step.kind,
      person_id: actor.personId,
      at: now,
      ...step.logged,
    })
  }
  // between two that are kept whole no more than so many are played again
  if (Math.floor(at.revision / wholeEvery) > Math.floor(row.revision / wholeEvery))
    await keepWhole(trx, actor, row.id, at.revision, job)
  if (at.revision > row.revision)
    await trx('job')
      .where({ id: row.id, firm_id: actor.firmId })
      .update({
        revision: at.revision,
        head: at.head,
        redo_tip: at.redo_tip,
        updated_at: now,
        ...columnsOf(job),
      })
  if (at.revision > row.revision)
    await trx.raw('select pg_notify(?, ?)', [jobChannel, `${row.id} ${at.revision}`])
  return { state: 'written', record: await recordOf(trx, at, job) }
}

/** The findings that an operation accepts, by their keys. */
const acceptancesIn = (operation: Operation): string[] =>
  operation.op === 'acceptFinding' ? [operation.acceptance.key] : []

function doStep(job: Job, at: JobRow, operation: Operation): Step | { faults: Fault[] } {
  const outcome = applyOperation(job, operation)
  if (!outcome.ok) return { faults: outcome.faults }
  const { forward, backward } = differences(job, outcome.value)
  return {
    kind: 'do',
    job: outcome.value,
    head: null,
    redoTip: null,
    logged: {
      parent: at.head,
      operation: JSON.stringify(operation),
      forward: JSON.stringify(forward),
      // what happened in the field is no step to undo: it is taken back there, by an entry of its own
      // what happened is taken back by another entry, not undone
      backward: happened(operation) ? null : JSON.stringify(backward),
      sentence: describeOperation(job, operation),
    },
  }
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
  role: string,
): Promise<Step | { faults: Fault[] }> {
  const wanted = kind === 'undo' ? at.head : ((await redoable(trx, at))[0]?.revision ?? null)
  if (wanted === null) return { faults: [{ path: '$', message: `has nothing to ${kind}` }] }
  const row: {
    parent: number | null
    operation: Operation | null
    forward: Patch[] | null
    backward: Patch[] | null
    sentence: string
  } = await trx('job_change')
    .where({ job_id: at.id, revision: wanted })
    .first('parent', 'operation', 'forward', 'backward', 'sentence')
  // what one may not do one does not take back either
  const why = row.operation ? notTheirs(role, row.operation) : null
  if (why) return { faults: [fault('$', why)] }
  const patches = kind === 'undo' ? row.backward : row.forward
  if (!patches)
    return {
      faults: [{ path: '$', message: `is too long ago to ${kind}, or was written down in the field` }],
    }
  const patched = patchedJob(job, patches)
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

/** What was done to a job after a revision: the last of it in sentences, and of all of it how many and by whom. */
async function revisionsSince(
  at: Knex,
  actor: Actor,
  id: string,
  revision: number,
): Promise<{ since: Revision[]; others: Others }> {
  const after = () =>
    at('job_change as c')
      .join('person as p', 'p.id', 'c.person_id')
      .where({ 'c.job_id': id, 'c.firm_id': actor.firmId })
      .andWhere('c.revision', '>', revision)
  const rows: { revision: number; sentence: string; label: string; role: string; at: Date }[] = await after()
    .orderBy('c.revision', 'desc')
    .limit(50)
    .select('c.revision', 'c.sentence', 'p.label', 'p.role', 'c.at')
  const [all] = await after().select(
    at.raw(`count(*)::int as count, coalesce(bool_and(p.role = 'customer'), true) as customers`),
  )
  return {
    since: rows.reverse().map(r => ({
      revision: r.revision,
      sentence: r.sentence,
      person: r.label,
      role: r.role,
      at: r.at.toISOString(),
    })),
    others: { changes: all.count, customersOnly: all.customers },
  }
}

/** What was done to a job after a revision, oldest first, at most the last 50. */
export const revisionsAfter = async (actor: Actor, id: string, revision: number): Promise<Revision[]> =>
  (await revisionsSince(db(actor), actor, id, revision)).since

/**
 * Heals jobs that an earlier version wrote by half: rows of a batch that was refused, above the revision that the job has.
 * They were never confirmed to anybody. Answers how many rows of which jobs went.
 */
export async function healJobs(): Promise<{ jobId: string; rows: number }[]> {
  const found: { rows: { job_id: string }[] } = await ownerDb().raw(
    `delete from job_change c using job j where j.id = c.job_id and c.revision > j.revision returning c.job_id`,
  )
  const counts = new Map<string, number>()
  for (const { job_id } of found.rows) counts.set(job_id, (counts.get(job_id) ?? 0) + 1)
  return [...counts].map(([jobId, rows]) => ({ jobId, rows }))
}

/** A second job, or template, that starts where this one stands; null when it is gone. */
export async function duplicateJob(actor: Actor, id: string, at: Date): Promise<string | null> {
  const row = await rowOf(actor, id)
  if (!row) return null
  // what the field wrote down happened in the house that was copied
  const { work: _, tests: __, ...job } = unbuilt(trusted(row.document))
  const title = `${job.title.slice(0, 73)} (copy)`
  return createJob(actor, { ...job, title }, `copied from ${job.title}`, at, randomUUID(), row.template)
}

/** Keeps a job's ways as a template of the firm; null when it is gone. */
export async function keepAsTemplate(actor: Actor, id: string, at: Date): Promise<string | null> {
  const row = await rowOf(actor, id)
  if (!row) return null
  const job = trusted(row.document)
  return createJob(actor, templateOf(job), `kept the ways of ${job.title}`, at, randomUUID(), true)
}

/** A template of the firm; null when it is gone, or is a job. */
export async function readTemplate(actor: Actor, id: string): Promise<Job | null> {
  const row = await rowOf(actor, id)
  return row?.template ? trusted(row.document) : null
}

/** Archives a job or brings it back; false when it is gone. */
export async function archiveJob(actor: Actor, id: string, archived: boolean, at: Date): Promise<boolean> {
  const count = await db(actor)('job')
    .where({ id, firm_id: actor.firmId })
    .update({ archived_at: archived ? at : null })
  return count > 0
}
