import * as z from 'zod'
import type { JobListRow } from '@/core/assess/record'
import { severities } from '@/core/checks/finding'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

export const pageSize = 20
/** As many are counted, and paged through; of more the list says so, and is narrowed by a search. */
export const mostListed = 10_000

/** What the jobs list is asked for, as it stands in the address. Anything odd falls back to its usual value. */
export const listQuerySchema = z.object({
  // what no title can hold is not looked for
  q: z
    .string()
    .max(400)
    .transform(q =>
      q
        .replace(/[\p{Cc}\p{Cs}]/gu, ' ')
        .trim()
        .slice(0, 100),
    )
    .catch('')
    .default(''),
  sort: z.enum(['updated', 'title', 'step', 'worst', 'hours']).catch('updated').default('updated'),
  order: z.enum(['asc', 'desc']).optional().catch(undefined),
  page: z.coerce
    .number()
    .int()
    .min(1)
    .max(mostListed / pageSize)
    .catch(1)
    .default(1),
  archived: z.stringbool().catch(false).default(false),
  templates: z.stringbool().catch(false).default(false),
})
export type ListQuery = z.infer<typeof listQuerySchema>

const columns = {
  updated: 'updated_at',
  // in small letters, as it is sought
  title: 'search_text',
  step: 'step_order',
  worst: 'worst',
  hours: 'hours_had',
} as const
export const usualOrder = { updated: 'desc', title: 'asc', step: 'asc', worst: 'asc', hours: 'asc' } as const

interface Row {
  id: string
  title: string
  place: string
  step: string
  worst: number
  worst_sentence: string | null
  hours_needed: number
  hours_had: number | null
  updated_at: Date
}

/** One page of the firm's jobs, and how many there are in all, as far as they are counted. */
export async function listJobs(
  actor: Actor,
  query: ListQuery,
): Promise<{ rows: JobListRow[]; total: number; more: boolean }> {
  const { q, sort, page, archived, templates } = query
  const order = query.order ?? usualOrder[sort]
  const matching = () => {
    const base = db(actor)('job')
      .where('firm_id', actor.firmId)
      .whereRaw('(archived_at is null) = ?', [!archived])
    // the archive holds both
    if (!archived) base.where('template', templates)
    for (const word of q.toLowerCase().split(/\s+/).filter(Boolean))
      base.whereRaw('search_text like ?', [`%${word.replace(/[\\%_]/g, c => `\\${c}`)}%`])
    return base
  }
  const sorted = [
    { column: columns[sort], order },
    { column: 'id', order },
  ]
  const found = matching()
    .orderBy(sorted)
    .limit(pageSize)
    .offset((page - 1) * pageSize)
  const [rows, counted]: [Row[], { count?: string | number }[]] = await Promise.all([
    // in a search an index alone tells which twenty: they alone are opened
    (q ? db(actor)('job').whereIn('id', found.select('id')).orderBy(sorted) : found).select(
      'id',
      'title',
      'place',
      'step',
      'worst',
      'worst_sentence',
      'hours_needed',
      'hours_had',
      'updated_at',
    ),
    db(actor)
      .from(
        matching()
          .select(db(actor).raw('1'))
          .limit(mostListed + 1)
          .as('found'),
      )
      .count({ count: '*' }),
  ])
  const count = Number(counted[0]?.count ?? 0)
  return {
    rows: rows.map(r => {
      const severity = severities[r.worst]
      return {
        id: r.id,
        title: r.title,
        place: r.place,
        step: r.step,
        worst: severity && r.worst_sentence ? { severity, sentence: r.worst_sentence } : null,
        hoursNeeded: r.hours_needed,
        hoursHad: r.hours_had,
        updatedAt: r.updated_at.toISOString(),
      }
    }),
    total: Math.min(count, mostListed),
    more: count > mostListed,
  }
}
