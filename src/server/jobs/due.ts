import { type Due, dueOf } from '@/core/handover/due'
import { readJob } from '@/core/job/read'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

export const duePageSize = 50

export interface DueHouse {
  id: string
  title: string
  place: string
  due: Due[]
}

/** Houses of the firm of which something is due, the next first; one page of them. */
export async function listDue(
  { firmId }: Actor,
  page: number,
): Promise<{ houses: DueHouse[]; total: number }> {
  const matching = () =>
    db({ firmId })('job').where('firm_id', firmId).whereNull('archived_at').whereNotNull('due_on')
  const [rows, counted]: [{ id: string; document: unknown }[], { count?: string | number }[]] =
    await Promise.all([
      matching()
        .orderBy(['due_on', 'id'])
        .limit(duePageSize)
        .offset((page - 1) * duePageSize)
        .select('id', 'document'),
      matching().count({ count: '*' }),
    ])
  return {
    houses: rows.flatMap(({ id, document }) => {
      const job = readJob(document)
      return job.ok ? [{ id, title: job.value.title, place: job.value.place, due: dueOf(job.value) }] : []
    }),
    total: Number(counted[0]?.count ?? 0),
  }
}
