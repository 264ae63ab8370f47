import { useEffect, useState } from 'react'
import { useWorkspaceStore } from '../workspace/store'

/** Takes over what others write as it comes, by the server’s events; whether they are heard just now. */
export function useLive(jobId: string): boolean {
  const store = useWorkspaceStore()
  const [connected, setConnected] = useState(false)
  useEffect(() => {
    if (typeof EventSource === 'undefined') return
    const events = new EventSource(`/api/jobs/${jobId}/live`)
    events.onopen = () => {
      setConnected(true)
      // what came while nobody listened
      void store.getState().refresh()
    }
    events.onerror = () => setConnected(false)
    events.onmessage = ({ data }) => {
      if (Number(data) > store.getState().revision) void store.getState().refresh()
    }
    return () => events.close()
  }, [jobId, store])
  return connected
}
