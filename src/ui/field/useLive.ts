import { useEffect, useState } from 'react'
import { useWorkspaceStore } from '../workspace/store'

/** Takes over what others write as it comes, by the server’s events, while somebody looks; whether they are heard just now. */
export function useLive(jobId: string): boolean {
  const store = useWorkspaceStore()
  const [connected, setConnected] = useState(false)
  useEffect(() => {
    if (typeof EventSource === 'undefined') return
    let events: EventSource | null = null
    const listen = () => {
      events?.close()
      setConnected(false)
      // a phone in a pocket hears nothing, and spares its battery
      if (document.visibilityState !== 'visible') return
      events = new EventSource(`/api/jobs/${jobId}/live`)
      events.onopen = () => {
        setConnected(true)
        // what came while nobody listened
        void store.getState().refresh()
      }
      events.onerror = () => setConnected(false)
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
  }, [jobId, store])
  return connected
}
