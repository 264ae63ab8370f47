import { useEffect } from 'react'
import * as z from 'zod'
import { useWorkspaceStore } from './store'

const peopleSchema = z.object({ names: z.array(z.string()), again: z.boolean() })

/** Takes over what others write as it comes, and who else is here, by the server’s events, while somebody looks. */
export function useLive(): void {
  const store = useWorkspaceStore()
  const { id: jobId } = store.getState()
  useEffect(() => {
    if (typeof EventSource === 'undefined') return
    let events: EventSource | null = null
    const listen = () => {
      events?.close()
      store.setState({ heard: false, others: [] })
      // a phone in a pocket hears nothing, and spares its battery
      if (document.visibilityState !== 'visible') return
      events = new EventSource(`/api/jobs/${jobId}/live`)
      events.onopen = () => {
        store.setState({ heard: true })
        // what came while nobody listened
        void store.getState().refresh()
      }
      events.onerror = () => store.setState({ heard: false, others: [] })
      events.addEventListener('people', ({ data }) => {
        const { names, again } = peopleSchema.parse(JSON.parse(data))
        store.setState({ others: again ? [...names, 'you, elsewhere,'] : names })
      })
      events.onmessage = ({ data }) => {
        if (Number(data) > store.getState().revision) void store.getState().refresh()
      }
    }
    listen()
    document.addEventListener('visibilitychange', listen)
    return () => {
      events?.close()
      document.removeEventListener('visibilitychange', listen)
    }
  }, [store, jobId])
}
