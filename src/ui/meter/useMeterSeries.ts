import { proxy, type Remote } from 'comlink'
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { MeterFormat } from '@/core/formats/meter-format'
import type { Corrections, Segmentation } from '@/core/loads/segment'
import type { Bucket } from '@/core/loads/series'
import type { Fault, Outcome } from '@/core/outcome'
import type { MeterReadings, ReadAbout } from '@/workers/desks/meter-readings'
import { Pool, wasDropped } from '../workers/pool'

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

const lost: Fault = { path: '$', message: 'The reader could not be loaded. Load the page again.' }
const start = () => new Worker(new URL('../../workers/meter-series.ts', import.meta.url), { type: 'module' })

/** A meter’s readings in a worker: read, told apart, looked at; stopped by leaving it. */
export function useMeterSeries() {
  const [pool] = useState(() => new Pool<MeterReadings>(start, 1))
  const [state, setState] = useState<State>(nothing)
  const silence = useRef<ReturnType<typeof setTimeout>>(undefined)
  const end = useCallback(
    (after: State) => {
      clearTimeout(silence.current)
      pool.stop()
      setState(after)
    },
    [pool],
  )
  const stop = useCallback(() => end(nothing), [end])
  useEffect(
    () => () => {
      clearTimeout(silence.current)
      pool.stop()
    },
    [pool],
  )

  return useMemo(() => {
    /** A reader that is silent for so long reads a file made to keep it. */
    const listen = () => {
      clearTimeout(silence.current)
      silence.current = setTimeout(() => end({ ...nothing, faults: [tooLong] }), mostSilentMs)
    }
    const progress = proxy((share: number, what: string) => {
      listen()
      setState(s => ({ ...s, busy: { share, what } }))
    })
    const ask = async <P extends Promise<unknown>>(
      work: (api: Remote<MeterReadings>) => P,
    ): Promise<Awaited<P> | null> => {
      listen()
      try {
        return await pool.run(({ api }) => work(api))
      } catch (error) {
        if (!wasDropped(error)) end({ ...nothing, faults: [lost] })
        return null
      } finally {
        clearTimeout(silence.current)
      }
    }
    const refused = (outcome: Outcome<unknown> | null) => {
      if (outcome && !outcome.ok) setState({ ...nothing, faults: outcome.faults })
    }
    const look = async (fromS: number, toS: number) => {
      const buckets = await ask(api => api.look(fromS, toS, drawn))
      if (buckets) startTransition(() => setState(s => ({ ...s, seen: { fromS, toS, buckets } })))
    }
    const correct = async (corrections: Corrections) => {
      const told = await ask(api => api.segment(corrections, progress))
      // the pictures are drawn piece by piece: the page goes on answering
      if (told) startTransition(() => setState(s => ({ ...s, busy: null, ...told })))
    }
    const finish = async (outcome: Outcome<ReadAbout> | null) => {
      refused(outcome)
      if (!outcome?.ok) return
      const about = outcome.value
      setState(s => ({ ...s, about }))
      await Promise.all([correct({}), look(0, about.lastS)])
    }
    const open = () => {
      pool.stop()
      setState({ ...nothing, busy: { share: 0, what: 'opening' } })
    }
    return {
      read: async (file: Blob, format: MeterFormat) => {
        open()
        await finish(await ask(api => api.read(file, format, progress)))
      },
      begin: (format: MeterFormat) => {
        open()
        void ask(api => api.begin(format))
      },
      more: async (text: string) => {
        const taken = await ask(api => api.more(text))
        refused(taken)
        if (taken?.ok)
          setState(s =>
            s.busy
              ? { ...s, busy: { share: 0, what: `${taken.value.rows.toLocaleString('en-US')} readings` } }
              : s,
          )
      },
      end: async () => finish(await ask(api => api.end())),
      correct,
      look,
      stop,
      ...state,
    }
  }, [state, pool, end, stop])
}
export type MeterSeries = ReturnType<typeof useMeterSeries>
