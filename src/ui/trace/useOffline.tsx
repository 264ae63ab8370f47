import { Alert } from '@mui/material'
import { useCallback, useEffect, useState } from 'react'
import { plural } from '@/core/units/format'
import { Quiet } from '../common/pieces'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { keepJob, sendPhotos, waitingPhotos } from './offline'
import { useKeptScreen } from './useKeptScreen'

const againMs = 4000

/** What a field screen does without a connection: the job and its photographs are kept on the device, and sent when it is back. */
export function useOffline() {
  const store = useWorkspaceStore()
  const id = useWorkspace(s => s.id)
  const say = useWorkspace(s => s.say)
  const [online, setOnline] = useState(true)
  const [photos, setPhotos] = useState(0)
  const kept = useKeptScreen()
  const send = useCallback(async () => {
    const refused = await sendPhotos(store)
    setPhotos(await waitingPhotos(id))
    if (refused.length) say(`Not taken: ${refused.join('; ')}`)
  }, [store, id, say])
  useEffect(() => {
    const look = () => {
      setOnline(navigator.onLine)
      if (navigator.onLine) void send()
      // what waits is told in the cellar too
      else void waitingPhotos(id).then(setPhotos)
    }
    look()
    window.addEventListener('online', look)
    window.addEventListener('offline', look)
    const stop = keepJob(store)
    return () => {
      stop()
      window.removeEventListener('online', look)
      window.removeEventListener('offline', look)
    }
  }, [store, id, send])

  // the connection may be back before it can be used
  useEffect(() => {
    if (!photos || !online) return
    const again = setInterval(() => void send(), againMs)
    return () => clearInterval(again)
  }, [photos, online, send])
  return { online, kept, photos, send }
}

/** Whether there is a connection, and what waits for one. */
export function Connection({ online, kept, photos }: { online: boolean; kept: boolean; photos: number }) {
  return (
    <>
      {!online && (
        <Alert severity="warning" role="status">
          No connection: stay on this screen. Everything is kept here and sent when it is back.
        </Alert>
      )}
      {online && kept && <Quiet role="status">Kept on this device: it works without a connection.</Quiet>}
      {photos > 0 && (
        <Alert severity="warning" role="status">
          {plural(photos, 'photograph')} waiting to be sent.
        </Alert>
      )}
    </>
  )
}
