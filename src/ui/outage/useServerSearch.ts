import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useState } from 'react'
import type { Job } from '@/core/job/schema'
import type { SearchResult } from '@/core/search/front'
import type { Wishes } from '@/core/search/wishes'
import { call } from '../api'
import { told } from '../query'

interface Told {
  search: {
    state: 'running' | 'done' | 'cancelled' | 'failed'
    done: number
    what: string
    result: SearchResult | null
    sentence: string | null
    trouble: string | null
    job: Job
  } | null
}
const askEveryMs = 700

/** A search that runs on the server: started, watched, cancelled; one that was left running is found again. */
export function useServerSearch(jobId: string) {
  const path = `/api/jobs/${jobId}/search`
  const client = useQueryClient()
  /** Ours, once it was started here or found running: one that was over before is not pushed forward. */
  const [ours, setOurs] = useState(false)
  const [refused, setRefused] = useState<string | null>(null)
  const [starting, setStarting] = useState(false)
  const { data, error } = useQuery({
    queryKey: [path],
    queryFn: () => told<Told>(path),
    refetchInterval: ({ state }) => (state.data?.search?.state === 'running' ? askEveryMs : false),
  })
  const running = data?.search?.state === 'running'
  if (running && !ours) setOurs(true)
  const search = ours && !starting ? data?.search : null

  const run = useCallback(
    async (wishes: Wishes) => {
      setOurs(true)
      setStarting(true)
      setRefused(null)
      const answer = await call<Told>(path, 'POST', { act: 'start', wishes })
      if (!answer.ok) setRefused(answer.message)
      await client.invalidateQueries({ queryKey: [path] })
      setStarting(false)
    },
    [path, client],
  )
  const forget = useCallback(() => {
    setOurs(false)
    setRefused(null)
  }, [])
  const cancel = useCallback(async () => {
    await call(path, 'POST', { act: 'cancel' })
    forget()
    await client.invalidateQueries({ queryKey: [path] })
  }, [path, client, forget])
  return {
    busy: starting || search?.state === 'running',
    done: search?.done ?? 0,
    what: starting ? 'Asking the server' : (search?.what ?? ''),
    result: search?.result ?? null,
    sentence: search?.sentence ?? '',
    trouble:
      refused ??
      (search?.state === 'failed' ? (search.trouble ?? 'The search failed on the server.') : null) ??
      (ours ? (error?.message ?? null) : null),
    job: search?.job ?? null,
    run,
    cancel,
    forget,
  }
}
