import * as z from 'zod'
import { type Entry, entrySchema } from '@/core/job/work-log'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

const mostJobs = 200
const logSchema = z.array(entrySchema)

/** The logs of the firm’s jobs in which the field wrote something down, of the newest so many. */
export async function workLogs({ firmId }: Pick<Actor, 'firmId'>): Promise<Entry[][]> {
  const rows: { log: unknown }[] = await db({ firmId })('job')
    .where({ firm_id: firmId, template: false })
    .whereRaw(`jsonb_exists(document, 'work')`)
    .orderBy('updated_at', 'desc')
    .limit(mostJobs)
    .select(db({ firmId }).raw(`document->'work'->'log' as log`))
  return rows.flatMap(({ log }) => {
    const read = logSchema.safeParse(log)
    return read.success ? [read.data] : []
  })
}
