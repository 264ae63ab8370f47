'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Job } from '@/core/job/schema'
import type { SearchResult } from '@/core/search/search'
import type { Wishes } from '@/core/search/space'
import { call } from '../api'

interface Told {
  state: 'running' | 'done' | 'cancelled' | 'failed'
  done: number
  what: string
  result: SearchResult | null
  sentence: string | null
  trouble: string | null
  job: Job
}
interface State {
  busy: boolean
  done: number
  what: string
  result: SearchResult | null
  sentence: string
  trouble: string | null
  job: Job | null
}
const idle: State = { busy: false, done: 0, what: '', result: null, sentence: '', trouble: null, job: null }
const askEveryMs = 700

/** A search that runs on the server: started, watched, cancelled; one that was left running is found again. */
export function useServerSearch(jobId: string) {
  const [state, setState] = useState<State>(idle)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const path = `/api/jobs/${jobId}/search`

  const take = useCallback((search: Told | null, fresh: boolean) => {
    if (!search) return
    const running = search.state === 'running'
    // a search of an earlier visit is taken up where it runs, and not pushed forward where it is over
    if (!running && !fresh) return
    setState({
      busy: running,
      done: search.done,
      what: search.what,
      result: search.result,
      sentence: search.sentence ?? '',
      trouble: search.state === 'failed' ? (search.trouble ?? 'The search failed on the server.') : null,
      job: search.job,
    })
    return running
  }, [])

  const watch = useCallback(
    async (fresh: boolean) => {
      clearTimeout(timer.current)
      const answer = await call<{ search: Told | null }>(path, 'GET')
      if (!answer.ok) {
        if (fresh) setState({ ...idle, trouble: answer.message })
        return
      }
      if (take(answer.data.search, fresh)) timer.current = setTimeout(() => void watch(true), askEveryMs)
    },
    [path, take],
  )
  useEffect(() => {
    void watch(false)
    return () => clearTimeout(timer.current)
  }, [watch])

  const run = useCallback(
    async (wishes: Wishes) => {
      setState({ ...idle, busy: true, what: 'Asking the server' })
      const answer = await call<{ search: Told | null }>(path, 'POST', { act: 'start', wishes })
      if (!answer.ok) return setState({ ...idle, trouble: answer.message })
      timer.current = setTimeout(() => void watch(true), askEveryMs)
    },
    [path, watch],
  )
  const cancel = useCallback(async () => {
    clearTimeout(timer.current)
    setState(was => (was.busy ? { ...idle, what: 'Stopped' } : was))
    await call(path, 'POST', { act: 'cancel' })
  }, [path])
  const forget = useCallback(() => {
    clearTimeout(timer.current)
    setState(idle)
  }, [])
  return { ...state, run, cancel, forget }
}
