'use client'
import { startTransition, useCallback, useEffect, useRef, useState } from 'react'
import type { MeterFormat } from '@/core/formats/meter-csv'
import type { Corrections, Segmentation } from '@/core/loads/segment'
import type { Bucket } from '@/core/loads/series'
import type { Fault } from '@/core/outcome'
import type { ReadAbout, SeriesAnswer, SeriesAsk } from '@/workers/meter-series'

export interface Seen {
  fromS: number
  toS: number
  buckets: Bucket[]
}
interface State {
  busy: { share: number; what: string } | null
  about: ReadAbout | null
  segmentation: Segmentation | null
  ms: number | null
  seen: Seen | null
  faults: Fault[]
}
const nothing: State = { busy: null, about: null, segmentation: null, ms: null, seen: null, faults: [] }
/** Pieces of the trace that are drawn: as many as a screen has room for. */
const drawn = 480
const mostSilentMs = 30_000
const tooLong: Fault = {
  path: '$',
  message:
    'takes longer to read than a log does: it was put aside. Save fewer days, or a reading each second',
}

/** A meter’s readings in a worker: read, told apart, looked at; stopped by leaving it. */
export function useMeterSeries() {
  const worker = useRef<Worker | null>(null)
  const [state, setState] = useState<State>(nothing)

  const silence = useRef<ReturnType<typeof setTimeout>>(undefined)
  const end = useCallback((after: State) => {
    clearTimeout(silence.current)
    worker.current?.terminate()
    worker.current = null
    setState(after)
  }, [])
  const stop = useCallback(() => end(nothing), [end])
  useEffect(
    () => () => {
      clearTimeout(silence.current)
      worker.current?.terminate()
    },
    [],
  )

  /** A reader that is silent for so long reads a file made to keep it. */
  const ask = useCallback(
    (message: SeriesAsk) => {
      clearTimeout(silence.current)
      if (message.ask === 'read' || message.ask === 'end' || message.ask === 'segment')
        silence.current = setTimeout(() => end({ ...nothing, faults: [tooLong] }), mostSilentMs)
      worker.current?.postMessage(message)
    },
    [end],
  )
  const start = useCallback(() => {
    worker.current?.terminate()
    const made = new Worker(new URL('../../workers/meter-series.ts', import.meta.url), { type: 'module' })
    worker.current = made
    made.addEventListener('message', ({ data }: MessageEvent<SeriesAnswer>) => {
      clearTimeout(silence.current)
      if (data.answer === 'progress') setState(s => ({ ...s, busy: { share: data.share, what: data.what } }))
      else if (data.answer === 'refused') setState({ ...nothing, faults: data.faults })
      else if (data.answer === 'read') {
        setState(s => ({ ...s, about: data.about }))
        ask({ ask: 'segment', corrections: {} })
        ask({ ask: 'look', fromS: 0, toS: data.about.lastS, count: drawn })
      } else if (data.answer === 'segmented')
        // the pictures are drawn piece by piece: the page goes on answering
        startTransition(() =>
          setState(s => ({ ...s, busy: null, segmentation: data.segmentation, ms: data.ms })),
        )
      else startTransition(() => setState(s => ({ ...s, seen: data })))
    })
    setState({ ...nothing, busy: { share: 0, what: 'opening' } })
  }, [ask])

  return {
    ...state,
    stop,
    read: (file: Blob, format: MeterFormat) => {
      start()
      ask({ ask: 'read', file, format })
    },
    begin: (format: MeterFormat) => {
      start()
      ask({ ask: 'begin', format })
    },
    more: (text: string) => ask({ ask: 'more', text }),
    end: () => ask({ ask: 'end' }),
    correct: (corrections: Corrections) => ask({ ask: 'segment', corrections }),
    look: (fromS: number, toS: number) => ask({ ask: 'look', fromS, toS, count: drawn }),
  }
}
export type MeterSeries = ReturnType<typeof useMeterSeries>
