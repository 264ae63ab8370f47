import { type MeterFormat, type MeterReader, meterReader } from '@/core/formats/meter-csv'
import { type Corrections, type Segmentation, segment } from '@/core/loads/segment'
import { type Bucket, buckets, type Series } from '@/core/loads/series'
import type { Fault } from '@/core/outcome'

/** What is asked of the worker that holds a meter’s readings. */
export type SeriesAsk =
  | { ask: 'read'; file: Blob; format: MeterFormat }
  /** readings that come as they are made */
  | { ask: 'begin'; format: MeterFormat }
  | { ask: 'more'; text: string }
  | { ask: 'end' }
  | { ask: 'segment'; corrections: Corrections }
  | { ask: 'look'; fromS: number; toS: number; count: number }

export interface ReadAbout {
  rows: number
  startClockS: number
  dated: boolean
  lastS: number
  warnings: string[]
}
export type SeriesAnswer =
  | { answer: 'progress'; share: number; what: string }
  | { answer: 'read'; about: ReadAbout }
  | { answer: 'segmented'; segmentation: Segmentation; ms: number }
  | { answer: 'seen'; fromS: number; toS: number; buckets: Bucket[] }
  | { answer: 'refused'; faults: Fault[] }

let series: Series | null = null
let live: MeterReader | null = null

const say = (answer: SeriesAnswer) => postMessage(answer)
/** Progress is told a few times a second: more would keep the page busy with it. */
const toldEvery = 80
let toldAt = 0
const progress = (share: number, what: () => string) => {
  const now = performance.now()
  if (now - toldAt < toldEvery) return
  toldAt = now
  say({ answer: 'progress', share, what: what() })
}

function finish(reader: MeterReader) {
  const read = reader.end()
  if (!read.ok) return say({ answer: 'refused', faults: read.faults })
  series = read.value.series
  say({
    answer: 'read',
    about: {
      rows: series.tS.length,
      startClockS: series.startClockS,
      dated: series.dated,
      lastS: series.tS.at(-1) ?? 0,
      warnings: read.value.warnings,
    },
  })
}

async function read(file: Blob, format: MeterFormat) {
  const reader = meterReader(format)
  const decoder = new TextDecoder()
  const parts = file.stream().getReader()
  let done = 0
  for (;;) {
    const { done: ended, value } = await parts.read()
    if (ended) break
    const taken = reader.write(decoder.decode(value, { stream: true }))
    if (!taken.ok) return say({ answer: 'refused', faults: taken.faults })
    done += value.length
    progress(done / file.size, () => `${taken.value.rows.toLocaleString('en-US')} readings`)
  }
  finish(reader)
}

async function hear(ask: SeriesAsk) {
  switch (ask.ask) {
    case 'read':
      return read(ask.file, ask.format)
    case 'begin':
      live = meterReader(ask.format)
      return
    case 'more': {
      const taken = live?.write(ask.text)
      if (taken && !taken.ok) say({ answer: 'refused', faults: taken.faults })
      if (taken?.ok) progress(0, () => `${taken.value.rows.toLocaleString('en-US')} readings`)
      return
    }
    case 'end':
      if (live) finish(live)
      live = null
      return
    case 'segment': {
      if (!series) return
      const began = performance.now()
      const segmentation = segment(series, ask.corrections, share =>
        progress(share, () => 'telling runs apart'),
      )
      return say({ answer: 'segmented', segmentation, ms: performance.now() - began })
    }
    case 'look':
      if (series)
        say({
          answer: 'seen',
          fromS: ask.fromS,
          toS: ask.toS,
          buckets: buckets(series, ask.fromS, ask.toS, ask.count),
        })
  }
}

addEventListener('message', (event: MessageEvent<SeriesAsk>) => {
  void hear(event.data)
})
