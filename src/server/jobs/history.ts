import { randomUUID } from 'node:crypto'
import { applyPatches, type Patch } from 'immer'
import type { Knex } from 'knex'
import type { JobRecord } from '@/core/assess/record'
import { readJob } from '@/core/job/read'
import type { Job } from '@/core/job/schema'
import { db } from '../db/connection'
import type { Actor } from '../people/types'
import { onLocked, writeWhole } from './repository'

/** A change of a job, as its history lists it. */
export interface HistoryEntry {
  revision: number
  at: string
  who: string
  sentence: string
  /** whether the job can be looked at as it stood then */
  kept: boolean
}

export const historyPageSize = 50

/** A page of a job’s history, the newest first; `before` is the last revision of the page before. */
export async function historyOf(
  actor: Actor,
  jobId: string,
  before: number | null,
): Promise<{ entries: HistoryEntry[]; more: boolean }> {
  const rows: { revision: number; at: Date; label: string; sentence: string }[] = await db(actor)(
    'job_change as c',
  )
    .join('person as p', 'p.id', 'c.person_id')
    .where({ 'c.job_id': jobId, 'c.firm_id': actor.firmId })
    .modify(q => before !== null && q.where('c.revision', '<', before))
    .orderBy('c.revision', 'desc')
    .limit(historyPageSize + 1)
    .select('c.revision', 'c.at', 'p.label', 'c.sentence')
  const first = await firstKept(db(actor), jobId)
  return {
    entries: rows.slice(0, historyPageSize).map(r => ({
      revision: r.revision,
      at: r.at.toISOString(),
      who: r.label,
      sentence: r.sentence,
      kept: first !== null && r.revision >= first,
    })),
    more: rows.length > historyPageSize,
  }
}

/** The oldest revision from which every later one can be made anew; null where there is none. */
async function firstKept(at: Knex, jobId: string): Promise<number | null> {
  const found: { rows: { first: number | null }[] } = await at.raw(
    `select min(s.revision) as first from job_snapshot s where s.job_id = ? and s.revision >= coalesce(
       (select max(c.revision) from job_change c where c.job_id = ? and c.kind = 'do' and c.forward is null), 0)`,
    [jobId, jobId],
  )
  return found.rows[0]?.first ?? null
}

interface Kept {
  revision: number
  kind: 'create' | 'do' | 'undo' | 'redo'
  of_revision: number | null
  forward: Patch[] | null
  backward: Patch[] | null
}

/**
 * A job as it stood at a revision: the nearest that was kept whole before it, and what was written since, played again. Null
 * where there is no such revision, or its steps were packed away.
 */
export async function jobAt(actor: Actor, jobId: string, revision: number): Promise<Job | null> {
  const own = db(actor)
  const snapshot = await own('job_snapshot')
    .where({ job_id: jobId, firm_id: actor.firmId })
    .where('revision', '<=', revision)
    .orderBy('revision', 'desc')
    .first('revision', 'document')
  if (!snapshot) return null
  const rows: Kept[] = await own('job_change')
    .where({ job_id: jobId, firm_id: actor.firmId })
    .whereBetween('revision', [snapshot.revision + 1, revision])
    .orderBy('revision')
    .select('revision', 'kind', 'of_revision', 'forward', 'backward')
  if (snapshot.revision + rows.length !== revision) return null
  const meant = await meantBy(own, jobId, rows)
  try {
    const made = rows.reduce((now: Job, row) => {
      const of = row.kind === 'do' ? row : meant.get(row.of_revision ?? 0)
      const patches = row.kind === 'undo' ? of?.backward : of?.forward
      if (!patches) throw new Error('packed away')
      return applyPatches(now, patches)
    }, snapshot.document)
    const read = readJob(made)
    return read.ok ? read.value : null
  } catch {
    return null
  }
}

async function meantBy(own: Knex, jobId: string, rows: readonly Kept[]): Promise<Map<number, Kept>> {
  const wanted = rows.flatMap(r => (r.of_revision === null ? [] : [r.of_revision]))
  if (!wanted.length) return new Map()
  const found: Kept[] = await own('job_change')
    .where({ job_id: jobId })
    .whereIn('revision', wanted)
    .select('revision', 'kind', 'of_revision', 'forward', 'backward')
  return new Map(found.map(r => [r.revision, r]))
}

/** What happened in the house stays, whatever is restored of the plan. */
const stays = ['work', 'tests', 'visits', 'handOver'] as const

/**
 * Makes a job what it was at a revision, as one change more that can be taken back; what was written down in the field stays.
 * `stale` where somebody wrote since `baseRevision`.
 */
export async function restoreJob(
  actor: Actor,
  jobId: string,
  revision: number,
  baseRevision: number,
  now: Date,
): Promise<{ state: 'written'; record: JobRecord } | { state: 'stale' | 'gone' | 'packed' }> {
  const then = await jobAt(actor, jobId, revision)
  if (!then) return { state: 'packed' }
  return onLocked<{ state: 'written'; record: JobRecord } | { state: 'stale' | 'gone' | 'packed' }>(
    actor,
    jobId,
    { state: 'gone' },
    async (trx, row, job) => {
      if (row.revision !== baseRevision) return { state: 'stale' }
      const kept = Object.fromEntries(stays.flatMap(key => (job[key] === undefined ? [] : [[key, job[key]]])))
      const lost = Object.fromEntries(
        stays.flatMap(key => (job[key] === undefined ? [[key, undefined]] : [])),
      )
      const restored = readJob(JSON.parse(JSON.stringify({ ...then, ...lost, ...kept })))
      if (!restored.ok) return { state: 'packed' }
      const sentence = `went back to revision ${revision}`
      return writeWhole(trx, actor, row, job, restored.value, sentence, randomUUID(), now)
    },
  )
}
