import type { ProxyMarked } from 'comlink'
import { type MeterReader, meterReader } from '@/core/formats/meter-csv'
import type { MeterFormat } from '@/core/formats/meter-format'
import { type Corrections, type Segmentation, segment } from '@/core/loads/segment'
import { type Bucket, buckets, type Series } from '@/core/loads/series'
import { fail, fault, type Outcome, ok } from '@/core/outcome'

export interface ReadAbout {
  rows: number
  startClockS: number
  dated: boolean
  lastS: number
  warnings: string[]
}
type Progress = ((share: number, what: string) => void) & ProxyMarked

/** Progress is told a few times a second: more would keep the page busy with it. */
const toldEvery = 80
const readings = (rows: number) => `${rows.toLocaleString('en-US')} readings`

/** A meter's readings: read from a file or as they come, told apart, looked at. */
export function meterReadings() {
  let series: Series | null = null
  let live: MeterReader | null = null

  let toldAt = 0
  function tell(progress: Progress, share: number, what: () => string) {
    const now = performance.now()
    if (now - toldAt < toldEvery) return
    toldAt = now
    void progress(share, what())
  }

  function finish(reader: MeterReader): Outcome<ReadAbout> {
    const read = reader.end()
    if (!read.ok) return read
    series = read.value.series
    return ok({
      rows: series.tS.length,
      startClockS: series.startClockS,
      dated: series.dated,
      lastS: series.tS.at(-1) ?? 0,
      warnings: read.value.warnings,
    })
  }

  return {
    async read(file: Blob, format: MeterFormat, progress: Progress): Promise<Outcome<ReadAbout>> {
      const reader = meterReader(format)
      const decoder = new TextDecoder()
      const parts = file.stream().getReader()
      let done = 0
      for (;;) {
        const { done: ended, value } = await parts.read()
        if (ended) return finish(reader)
        const taken = reader.write(decoder.decode(value, { stream: true }))
        if (!taken.ok) return taken
        done += value.length
        tell(progress, done / file.size, () => readings(taken.value.rows))
      }
    },
    begin(format: MeterFormat): void {
      live = meterReader(format)
    },
    /** How many rows there are now. */
    more(text: string): Outcome<{ rows: number }> {
      return live ? live.write(text) : fail(fault('$', 'no log was begun'))
    },
    end(): Outcome<ReadAbout> {
      const read = live ? finish(live) : fail(fault('$', 'no log was begun'))
      live = null
      return read
    },
    segment(corrections: Corrections, progress: Progress): { segmentation: Segmentation; ms: number } | null {
      if (!series) return null
      const began = performance.now()
      const segmentation = segment(series, corrections, share =>
        tell(progress, share, () => 'telling runs apart'),
      )
      return { segmentation, ms: performance.now() - began }
    },
    look: (fromS: number, toS: number, count: number): Bucket[] =>
      series ? buckets(series, fromS, toS, count) : [],
  }
}
export type MeterReadings = ReturnType<typeof meterReadings>
