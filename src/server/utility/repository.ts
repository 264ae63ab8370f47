import { randomUUID } from 'node:crypto'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import * as z from 'zod'
import type { IntervalSeries, Intervals } from '@/core/loads/intervals'
import { type Summed, summed } from '@/core/loads/utility-year'
import { db } from '../db/connection'
import type { Actor } from '../people/types'

type Firm = Pick<Actor, 'firmId'>

/** A meter of a kept file, with what `interval-demand` says of it. */
export interface MeterAbout {
  id: string
  flow: IntervalSeries['flow']
  count: number
  totalWh: number
  /** null where its intervals are of no use for demand */
  summed: Summed | null
}
export interface SeriesAbout {
  id: string
  name: string
  meters: MeterAbout[]
  warnings: string[]
}

/** Columns of numbers as the bytes they are, in base64: a list of a million numbers as text would fill the memory. */
const storedSchema = z.array(
  z.object({
    id: z.string(),
    flow: z.enum(['forward', 'reverse', 'net']),
    startS: z.base64(),
    offsetMin: z.base64(),
    minutes: z.base64(),
    Wh: z.base64(),
  }),
)
const packed = (column: Float64Array | Float32Array | Int16Array) =>
  Buffer.from(column.buffer, column.byteOffset, column.byteLength).toString('base64')
/** The bytes of a column, at a place that any kind of number may begin at. */
const unpacked = (text: string): ArrayBuffer => new Uint8Array(Buffer.from(text, 'base64')).buffer

/** Keeps the intervals of a file, packed, and what they sum up to; answers that. */
export async function saveIntervals(
  { firmId }: Firm,
  jobId: string,
  name: string,
  { meters, warnings }: Intervals,
  at: Date,
  id: string = randomUUID(),
): Promise<SeriesAbout> {
  const about: Omit<SeriesAbout, 'id' | 'name'> = {
    warnings,
    meters: meters.map(meter => ({
      id: meter.id,
      flow: meter.flow,
      count: meter.startS.length,
      totalWh: meter.Wh.reduce((sum, Wh) => sum + Wh, 0),
      summed: summed(meter),
    })),
  }
  const rows = meters.map(m => ({
    id: m.id,
    flow: m.flow,
    startS: packed(m.startS),
    offsetMin: packed(m.offsetMin),
    minutes: packed(m.minutes),
    Wh: packed(m.Wh),
  }))
  await db()('interval_series').insert({
    firm_id: firmId,
    id,
    job_id: jobId,
    name,
    about: JSON.stringify(about),
    content: await promisify(gzip)(JSON.stringify(rows)),
    at,
  })
  return { id, name, ...about }
}

/** What is kept of a job's interval data, newest first, without the intervals. */
export async function listIntervals({ firmId }: Firm, jobId: string): Promise<SeriesAbout[]> {
  const rows = await db()('interval_series')
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
  const row = await db()('interval_series')
    .where({ firm_id: firmId, job_id: jobId, id: seriesId })
    .first('content')
  if (!row) return null
  const stored = storedSchema.parse(JSON.parse((await promisify(gunzip)(row.content)).toString('utf8')))
  const meter = stored.find(m => m.id === meterId && m.flow === flow)
  return meter
    ? {
        id: meter.id,
        flow: meter.flow,
        startS: new Float64Array(unpacked(meter.startS)),
        offsetMin: new Int16Array(unpacked(meter.offsetMin)),
        minutes: new Float32Array(unpacked(meter.minutes)),
        Wh: new Float64Array(unpacked(meter.Wh)),
      }
    : null
}
