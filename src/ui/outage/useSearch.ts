import { proxy } from 'comlink'
import { startTransition, useCallback, useEffect, useState } from 'react'
import type { Equipment } from '@/core/equipment'
import type { Job } from '@/core/job/schema'
import type { SearchResult } from '@/core/search/front'
import type { Stock } from '@/core/search/stock'
import type { Task } from '@/core/search/tasks'
import type { Wishes } from '@/core/search/wishes'
import type { Searching as Desk } from '@/workers/desks/searching'
import { crewSize, type Member, Pool, wasDropped } from '../workers/pool'

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

const start = () => new Worker(new URL('../../workers/search.ts', import.meta.url), { type: 'module' })

/** The search in workers: a lead that plans, and a hand for each core; stopping ends them all at once. */
export function useSearch() {
  const [state, setState] = useState<Searching>(idle)
  const [pools] = useState(() => ({
    lead: new Pool<Desk>(start, 1),
    hands: new Pool<Desk>(start, crewSize(8)),
  }))
  const release = useCallback(() => {
    pools.lead.stop()
    pools.hands.stop()
  }, [pools])
  const stop = useCallback(() => {
    release()
    setState(was => (was.busy ? { ...was, busy: false, what: 'Stopped' } : was))
  }, [release])
  useEffect(() => release, [release])

  const run = useCallback(
    async (job: Job, catalogue: Equipment[], stock: Stock, wishes: Wishes, draws = 200) => {
      stop()
      const began = performance.now()
      setState({ ...idle, busy: true, what: 'Starting' })
      /** Whoever does not know this space yet, one that took another's place too, is told it first. */
      const knowing = async (member: Member<Desk>) => {
        if (member.knows !== began) await member.api.know(job, catalogue, wishes, stock)
        member.knows = began
        return member.api
      }
      const crew = (tasks: Task[]) =>
        Promise.all(tasks.map(task => pools.hands.run(async hand => (await knowing(hand)).perform(task))))
      const progress = (done: number, what: string) => setState(was => ({ ...was, done, what }))
      try {
        const { result, sentence } = await pools.lead.run(async lead =>
          (await knowing(lead)).lead(1, draws, proxy(crew), proxy(progress)),
        )
        const ms = performance.now() - began
        // a chart and a long table: drawn in pieces, so that the page stays at hand
        startTransition(() => setState({ ...idle, done: 1, result, sentence, ms }))
        release()
      } catch (error) {
        if (wasDropped(error)) return
        stop()
        setState({ ...idle, trouble: `The search failed. ${error instanceof Error ? error.message : error}` })
      }
    },
    [pools, release, stop],
  )
  return { ...state, run, stop }
}
