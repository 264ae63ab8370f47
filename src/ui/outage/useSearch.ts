'use client'
import { startTransition, useCallback, useEffect, useRef, useState } from 'react'
import type { Equipment } from '@/core/equipment'
import type { Job } from '@/core/job/schema'
import type { SearchResult } from '@/core/search/search'
import type { Wishes } from '@/core/search/space'
import type { Stock } from '@/core/search/stock'
import type { Answer, Task } from '@/core/search/tasks'
import type { SearchAsk, SearchSay } from '@/workers/search'

export interface Searching {
  busy: boolean
  done: number
  what: string
  result: SearchResult | null
  sentence: string
  trouble: string | null
  ms: number
}
const idle: Searching = { busy: false, done: 0, what: '', result: null, sentence: '', trouble: null, ms: 0 }

const crewSize = () => Math.max(1, Math.min(8, navigator.hardwareConcurrency ?? 2))
const start = () => new Worker(new URL('../../workers/search.ts', import.meta.url), { type: 'module' })

/** The search in workers: a lead that plans, and a hand for each core; stopping ends them all at once. */
export function useSearch() {
  const [state, setState] = useState<Searching>(idle)
  const crew = useRef<Worker[]>([])
  const release = useCallback(() => {
    for (const worker of crew.current) worker.terminate()
    crew.current = []
  }, [])
  const stop = useCallback(() => {
    release()
    setState(was => (was.busy ? { ...was, busy: false, what: 'Stopped' } : was))
  }, [release])
  useEffect(() => release, [release])

  const run = useCallback(
    (job: Job, catalogue: Equipment[], stock: Stock, wishes: Wishes, draws = 200) => {
      stop()
      const began = performance.now()
      setState({ ...idle, busy: true, what: 'Starting' })
      const lead = start()
      const hands = Array.from({ length: crewSize() }, start)
      crew.current = [lead, ...hands]
      const ask = (worker: Worker, message: SearchAsk) => worker.postMessage(message)
      const open: { batch: number; index: number; task: Task }[] = []
      const got = new Map<number, { answers: Answer[]; left: number }>()
      const free = [...hands]
      const deal = () => {
        while (free.length && open.length) {
          const hand = free.pop()
          const next = open.shift()
          if (hand && next) ask(hand, { kind: 'task', ...next })
        }
      }
      const failed = (message: string) => {
        stop()
        setState({ ...idle, trouble: message })
      }
      lead.onmessage = ({ data }: MessageEvent<SearchSay>) => {
        if (data.kind === 'tasks') {
          got.set(data.batch, { answers: new Array(data.tasks.length), left: data.tasks.length })
          if (!data.tasks.length) return ask(lead, { kind: 'answers', batch: data.batch, answers: [] })
          data.tasks.forEach((task, index) => {
            open.push({ batch: data.batch, index, task })
          })
          deal()
        } else if (data.kind === 'progress') setState(was => ({ ...was, done: data.done, what: data.what }))
        else if (data.kind === 'result') {
          const ms = performance.now() - began
          // a chart and a long table: drawn in pieces, so that the page stays at hand
          startTransition(() =>
            setState({ ...idle, done: 1, result: data.result, sentence: data.sentence, ms }),
          )
          release()
        } else if (data.kind === 'failed') failed(data.message)
      }
      // one that is stopped while it loads complains of that
      for (const worker of crew.current)
        worker.onerror = () =>
          crew.current.includes(worker) && failed('The search could not be loaded. Load the page again.')
      for (const hand of hands) {
        hand.onmessage = ({ data }: MessageEvent<SearchSay>) => {
          if (data.kind === 'failed') return failed(data.message)
          if (data.kind !== 'answer') return
          free.push(hand)
          const batch = got.get(data.batch)
          if (batch) {
            batch.answers[data.index] = data.answer
            if (--batch.left === 0) {
              got.delete(data.batch)
              ask(lead, { kind: 'answers', batch: data.batch, answers: batch.answers })
            }
          }
          deal()
        }
        ask(hand, { kind: 'space', job, catalogue, wishes, stock })
      }
      ask(lead, { kind: 'space', job, catalogue, wishes, stock })
      ask(lead, { kind: 'lead', seed: 1, draws })
    },
    [release, stop],
  )
  return { ...state, run, stop }
}
