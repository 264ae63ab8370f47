import { applyPatches, enablePatches, type Patch } from 'immer'
import { readJob } from '../../src/core/job/read'
import type { Job } from '../../src/core/job/schema'
import { ownerDb } from '../../src/server/db/connection'
import type { Counts } from './client'

enablePatches()

interface Row {
  revision: number
  change_id: string
  kind: 'create' | 'do' | 'undo' | 'redo'
  of_revision: number | null
  forward: Patch[] | null
  backward: Patch[] | null
}

/** What became of acknowledged changes, and whether the kept changes make the kept job. */
export async function audit(jobIds: readonly string[], told: Counts, start: Job) {
  const result = {
    acknowledged: told.acknowledged.size,
    lost: 0,
    doubled: 0,
    gaps: 0,
    locked: 0,
    replayed: 0,
    differ: 0,
  }
  for (const id of jobIds) {
    const rows: Row[] = await ownerDb()('job_change').where({ job_id: id }).orderBy('revision')
    const job = await ownerDb()('job').where({ id }).first('revision', 'document')
    const seen = new Map<string, number>()
    for (const row of rows) seen.set(row.change_id, (seen.get(row.change_id) ?? 0) + 1)
    for (const [change, of] of told.acknowledged) if (of === id && !seen.has(change)) result.lost++
    result.doubled += [...seen.values()].filter(n => n > 1).length
    result.gaps += rows.filter((row, n) => row.revision !== n + 1).length
    if (rows.at(-1)?.revision !== job.revision) result.locked++
    const by = new Map(rows.map(row => [row.revision, row]))
    const made = rows.reduce<Job>((now, row) => {
      const of = row.kind === 'do' ? row : by.get(row.of_revision ?? 0)
      const patches = row.kind === 'undo' ? of?.backward : of?.forward
      return row.kind === 'create' || !patches ? now : applyPatches(now, patches)
    }, start)
    const kept = readJob(job.document)
    result.replayed++
    if (!kept.ok || JSON.stringify(sorted(kept.value)) !== JSON.stringify(sorted(made))) result.differ++
  }
  return result
}

/** Keys in order: a document out of the database has them in another. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, sorted(inner)]),
  )
}
