import { useEffect, useState } from 'react'
import { handOver } from '../common/device'
import { whoHere } from '../common/who'

/** Has this screen kept on the device, with everything that it can need; true once it opens again without a connection. */
export function useKeptScreen(): boolean {
  const [kept, setKept] = useState(false)
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return
    const { serviceWorker } = navigator
    const path = location.pathname
    const onMessage = (event: MessageEvent<{ kept?: string | null }>) => {
      if (event.data?.kept === path) setKept(true)
    }
    serviceWorker.addEventListener('message', onMessage)
    // a browser that refuses it still traces while there is a connection
    void serviceWorker
      .register('/sw.js')
      // what was kept for whoever was here before goes first
      .then(() => handOver(whoHere()))
      .then(() => serviceWorker.ready)
      .then(({ active }) => active?.postMessage({ keep: path }))
      .catch(() => {})
    return () => serviceWorker.removeEventListener('message', onMessage)
  }, [])
  return kept
}
