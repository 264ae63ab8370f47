'use client'
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Job } from '@/core/job/schema'
import type { Answer } from '@/core/outage/answer'
import { type Chance, type Draws, enough } from '@/core/outage/chance'
import type { Plan } from '@/core/outage/plan'
import type { Trace } from '@/core/outage/trace'
import type { WhatIf } from '@/core/outage/what-if'
import type { Fault } from '@/core/outcome'
import type { OutageAsk, OutageSay } from '@/workers/outage'

/** What a screen knows of one simulated design; the mean comes at once, the chance as the draws come in. */
export interface Simulated {
  plan: Plan | null
  mean: Trace | null
  chance: Chance | null
  answer: Answer | null
  /** a single draw that was asked for */
  one: Trace | null
  faults: Fault[]
  busy: boolean
  trouble: string | null
}

const nothing: Simulated = {
  plan: null,
  mean: null,
  chance: null,
  answer: null,
  one: null,
  faults: [],
  busy: true,
  trouble: null,
}

/** Draws are handed out in pieces small enough that a new design never waits long. */
const pieceDraws = 20
const batch = 100
const mostDraws = 1000
const seed = 1

const crewSize = () =>
  Math.max(1, Math.min(4, typeof navigator === 'undefined' ? 2 : (navigator.hardwareConcurrency ?? 2)))

const start = () => new Worker(new URL('../../workers/outage.ts', import.meta.url), { type: 'module' })

/**
 * Simulates a job under a what-if in workers: one for the mean and the sums, the rest for draws. A new design drops what the
 * old one still had to do; `stop` ends it where it is.
 */
export function useOutage(job: Job, whatIf: WhatIf) {
  const [state, setState] = useState<Simulated>(nothing)
  const crew = useRef<{ lead: Worker; hands: Worker[] } | null>(null)
  const run = useRef({
    id: 0,
    next: 0,
    got: new Map<number, Draws>(),
    summed: 0,
    stopped: false,
    known: false,
    /** the mean is there: what is asked first is not slowed by what is asked after it */
    ready: false,
    begin: () => {},
  })

  useEffect(() => {
    const lead = start()
    const hands = Array.from({ length: crewSize() }, start)
    crew.current = { lead, hands }
    const lost = () =>
      setState(was => ({
        ...was,
        busy: false,
        trouble: 'The simulation could not be loaded. Load the page again.',
      }))
    const idle = new Set(hands)
    const ask = (worker: Worker, message: OutageAsk, transfer: Transferable[] = []) =>
      worker.postMessage(message, transfer)
    const deal = () => {
      const r = run.current
      for (const hand of [...idle]) {
        if (r.stopped || !r.ready || r.next >= mostDraws) return
        idle.delete(hand)
        ask(hand, { kind: 'draws', id: r.id, seed, from: r.next, count: pieceDraws })
        r.next += pieceDraws
      }
    }
    lead.onerror = lost
    lead.onmessage = ({ data }: MessageEvent<OutageSay>) => {
      const r = run.current
      if (data.id !== r.id) return
      if (data.kind === 'mean' && !data.quick) setState(was => ({ ...was, mean: data.trace }))
      else if (data.kind === 'mean') {
        setState(was => ({ ...was, plan: data.plan, mean: data.trace, one: null, faults: [], trouble: null }))
        r.begin()
        r.ready = true
        deal()
      } else if (data.kind === 'cannot') {
        r.stopped = true
        setState({ ...nothing, faults: data.faults, busy: false })
      } else if (data.kind === 'trace') setState(was => ({ ...was, one: data.trace }))
      else if (data.kind === 'sum') {
        // what was handed out beyond the end does not count
        if (r.known) return
        r.known = enough(data.chance.lasts, data.chance.draws, mostDraws)
        const done = r.known || r.stopped
        if (done) r.stopped = true
        // the bands may come a moment later than what is being dragged
        startTransition(() =>
          setState(was =>
            r.id === data.id ? { ...was, chance: data.chance, answer: data.answer, busy: !done } : was,
          ),
        )
      }
    }
    for (const hand of hands) {
      hand.onerror = lost
      hand.onmessage = ({ data }: MessageEvent<OutageSay>) => {
        const r = run.current
        idle.add(hand)
        if (data.kind === 'draws' && data.id === r.id) {
          r.got.set(data.draws.from, data.draws)
          // in the order of their numbers, and in whole batches: the same on any number of workers
          for (;;) {
            const parts = Array.from({ length: batch / pieceDraws }, (_, i) =>
              r.got.get(r.summed + i * pieceDraws),
            ).filter(part => part !== undefined)
            if (parts.length < batch / pieceDraws || r.stopped) break
            for (const part of parts) r.got.delete(part.from)
            r.summed += batch
            ask(lead, { kind: 'sum', id: r.id, seed, parts })
          }
        }
        deal()
      }
    }
    return () => {
      lead.terminate()
      for (const hand of hands) hand.terminate()
      crew.current = null
    }
  }, [])

  useEffect(() => {
    const { current } = crew
    if (!current) return
    const r = run.current
    r.id++
    r.next = 0
    r.summed = 0
    r.stopped = false
    r.known = false
    r.ready = false
    r.got.clear()
    const { id } = r
    const ask = (worker: Worker, mean: boolean) =>
      worker.postMessage({ kind: 'design', id, job, whatIf, mean } satisfies OutageAsk)
    ask(current.lead, true)
    r.begin = () => {
      for (const hand of current.hands) ask(hand, false)
    }
    setState(was => ({ ...was, busy: true }))
  }, [job, whatIf])

  const stop = useCallback(() => {
    run.current.stopped = true
    setState(was => ({ ...was, busy: false }))
  }, [])
  const look = useCallback((draw: number | null) => {
    if (draw === null) return setState(was => ({ ...was, one: null }))
    crew.current?.lead.postMessage({ kind: 'trace', id: run.current.id, seed, draw } satisfies OutageAsk)
  }, [])
  return useMemo(() => ({ ...state, stop, look }), [state, stop, look])
}
