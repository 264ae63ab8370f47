import { useCallback, useEffect, useState } from 'react'
import type { PositionPlan, PositionProblem } from '@/core/assess/positions'
import type { Positions } from '@/workers/desks/positions'
import { Pool, wasDropped } from '../workers/pool'

interface State {
  busy: boolean
  plan: PositionPlan | null
  ms: number
  trouble: string | null
}
const idle: State = { busy: false, plan: null, ms: 0, trouble: null }
const start = () => new Worker(new URL('../../workers/positions.ts', import.meta.url), { type: 'module' })

/** The solver of positions in its worker: one problem at a time. */
export function usePositions() {
  const [pool] = useState(() => new Pool<Positions>(start, 1))
  const [state, setState] = useState(idle)
  useEffect(() => () => pool.stop(), [pool])
  const stop = useCallback(() => {
    pool.stop()
    setState(was => ({ ...was, busy: false }))
  }, [pool])
  const solve = useCallback(
    async (problem: PositionProblem, then: (plan: PositionPlan) => void) => {
      setState(was => ({ ...was, busy: true, trouble: null }))
      try {
        const { plan, ms } = await pool.run(({ api }) => api.solve(problem, `${location.origin}/api/solver`))
        setState({ ...idle, plan, ms })
        then(plan)
      } catch (error) {
        if (!wasDropped(error)) setState({ ...idle, trouble: `The solver failed. ${messageOf(error)}` })
      }
    },
    [pool],
  )
  return { ...state, solve, stop }
}

const messageOf = (error: unknown) => (error instanceof Error ? error.message : String(error))
