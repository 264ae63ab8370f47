'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { PositionPlan, PositionProblem } from '@/core/hookup/positions'
import type { PositionAnswer } from '@/workers/positions'

type State = { busy: boolean; plan: PositionPlan | null; ms: number; trouble: string | null }

/** The solver of positions in its worker: one problem at a time, the latest counts. */
export function usePositions() {
  const worker = useRef<Worker | null>(null)
  const [state, setState] = useState<State>({ busy: false, plan: null, ms: 0, trouble: null })
  useEffect(() => () => worker.current?.terminate(), [])
  const stop = useCallback(() => {
    worker.current?.terminate()
    worker.current = null
    setState(was => ({ ...was, busy: false }))
  }, [])
  const solve = useCallback((problem: PositionProblem, then: (plan: PositionPlan) => void) => {
    worker.current ??= new Worker(new URL('../../workers/positions.ts', import.meta.url), { type: 'module' })
    worker.current.onmessage = ({ data }: MessageEvent<PositionAnswer>) => {
      if (!data.ok) return setState({ busy: false, plan: null, ms: 0, trouble: data.message })
      setState({ busy: false, plan: data.plan, ms: data.ms, trouble: null })
      then(data.plan)
    }
    worker.current.onerror = () =>
      setState({
        busy: false,
        plan: null,
        ms: 0,
        trouble: 'The solver could not be loaded. Load the page again.',
      })
    setState(was => ({ ...was, busy: true, trouble: null }))
    worker.current.postMessage({ problem, wasm: `${location.origin}/api/solver` })
  }, [])
  return { ...state, solve, stop }
}
