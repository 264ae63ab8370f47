import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import * as z from 'zod'
import type { IntervalSeries, Intervals } from '@/core/loads/intervals'
import { type MeterAbout, summed } from '@/core/loads/utility-year'

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

/** Intervals as they are kept, with what they sum up to. */
export interface Stored {
  about: Omit<SeriesAbout, 'id' | 'name'>
  content: Buffer
}

/** Packs intervals and sums them up; takes its time with many: for a thread of its own. */
export async function storedForm({ meters, warnings }: Intervals): Promise<Stored> {
  const rows = meters.map(m => ({
    id: m.id,
    flow: m.flow,
    startS: packed(m.startS),
    offsetMin: packed(m.offsetMin),
    minutes: packed(m.minutes),
    Wh: packed(m.Wh),
  }))
  return {
    about: {
      warnings,
      meters: meters.map(meter => ({
        id: meter.id,
        flow: meter.flow,
        count: meter.startS.length,
        totalWh: meter.Wh.reduce((sum, Wh) => sum + Wh, 0),
        summed: summed(meter),
      })),
    },
    content: await promisify(gzip)(JSON.stringify(rows)),
  }
}

/** One meter out of what is kept; null when it is not there. */
export async function meterOf(
  content: Uint8Array,
  meterId: string,
  flow: IntervalSeries['flow'],
): Promise<IntervalSeries | null> {
  const stored = storedSchema.parse(JSON.parse((await promisify(gunzip)(content)).toString('utf8')))
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
