import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { IntervalSeries } from '@/core/loads/intervals'
import { db } from '../db/connection'
import { needRoom } from '../files/quota'
import type { Actor } from '../people/types'
import { meterOf, type SeriesAbout, type Stored } from './stored'

type Firm = Pick<Actor, 'firmId'>

/** Keeps the intervals of a file, and what they sum up to; answers that. */
export async function saveIntervals(
  { firmId }: Firm,
  jobId: string,
  name: string,
  { about, content }: Stored,
  at: Date,
  id: string = randomUUID(),
  trx: Knex = db({ firmId }),
): Promise<SeriesAbout> {
  await needRoom(trx, firmId, jobId, content.length)
  await trx('interval_series')
    .insert({ firm_id: firmId, id, job_id: jobId, name, about: JSON.stringify(about), content, at })
    .onConflict(['firm_id', 'id'])
    .ignore()
  return { id, name, ...about }
}

/** What is kept of a job's interval data, newest first, without the intervals. */
export async function listIntervals({ firmId }: Firm, jobId: string): Promise<SeriesAbout[]> {
  const rows = await db({ firmId })('interval_series')
    .where({ firm_id: firmId, job_id: jobId })
    .orderBy('at', 'desc')
    .limit(20)
    .select('id', 'name', 'about')
  return rows.map(({ id, name, about }) => ({ id, name, ...about }))
}

/** The intervals of one meter; null when there are none such in this firm's job. */
export async function readMeter(
  { firmId }: Firm,
  jobId: string,
  seriesId: string,
  meterId: string,
  flow: IntervalSeries['flow'],
): Promise<IntervalSeries | null> {
  const row = await db({ firmId })('interval_series')
    .where({ firm_id: firmId, job_id: jobId, id: seriesId })
    .first('content')
  return row ? meterOf(row.content, meterId, flow) : null
}
