import { useEffect, useState } from 'react'
import type { FirstDesigns } from '@/core/first/designs-text'
import { labourRate } from '@/core/search/wishes'
import type { Designing } from '@/workers/desks/first-designs'
import type { Firm } from '../equipment/useEquipment'
import { useTerms } from '../estimate/useTerms'
import { Pool, wasDropped } from '../workers/pool'
import { useWorkspace } from '../workspace/store'

const start = () => new Worker(new URL('../../workers/first-designs.ts', import.meta.url), { type: 'module' })
/** After the last key, before it is looked for. */
const restMs = 250

interface State {
  found: FirstDesigns | null
  busy: boolean
  trouble: string | null
}

/** Provisional designs, looked for in a worker whenever what is asked has stood still for a moment. */
export function useFirstDesigns(firm: Firm | null): State {
  const { data: terms } = useTerms()
  const rateUsd = terms?.terms.labourUsdPerHour ?? labourRate
  const job = useWorkspace(s => s.job)
  const [pool] = useState(() => new Pool<Designing>(start, 1))
  const [state, setState] = useState<State>({ found: null, busy: false, trouble: null })
  useEffect(() => () => pool.stop(), [pool])
  useEffect(() => {
    if (!firm) return
    let stopped = false
    const timer = setTimeout(async () => {
      setState(was => ({ ...was, busy: true }))
      try {
        const found = await pool
          .run(({ api }) => api.find(job, firm.equipment, firm.labour, rateUsd))
          .catch(async (error: unknown) => {
            if (wasDropped(error) || navigator.onLine) throw error
            // a worker's script is not kept on the device: without a connection it is worked out here
            const { firstDesigns } = await import('@/core/first/designs')
            return firstDesigns(job, firm.equipment, { labour: firm.labour, rateUsd })
          })
        if (!stopped) setState({ found, busy: false, trouble: null })
      } catch (error) {
        if (!stopped && !wasDropped(error))
          setState({
            found: null,
            busy: false,
            trouble: 'No designs could be looked for. Load the page again.',
          })
      }
    }, restMs)
    return () => {
      stopped = true
      clearTimeout(timer)
      // what was asked a moment ago is no longer wanted
      pool.clear()
    }
  }, [job, firm, pool, rateUsd])
  return state
}
