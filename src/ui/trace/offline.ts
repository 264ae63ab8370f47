import { del, entries, get, set } from 'idb-keyval'
import type { StoreApi } from 'zustand'
import type { About } from '@/core/ask/evidence'
import { upload } from '../api'
import { thinOut } from '../common/device'
import { today } from '../common/today'
import { isTheirs, whoHere } from '../common/who'
import type { Kept, WorkspaceState } from '../workspace/store'

/**
 * What the field screens keep on this machine, so that a cellar without a connection, or a reload in it, loses nothing; for each
 * who works with it their own.
 */

const jobKey = (id: string) => `job ${id} ${whoHere()}`
/** As an earlier version kept it, whoever it was. */
const anybodysKey = (id: string) => `job ${id}`
const photoKey = (id: string, photoId: string) => `photo ${id} ${photoId}`

/** A photograph that waits for the connection. */
interface Waiting {
  by?: string
  blob: Blob
  /** what an earlier version kept has its circuit */
  circuitId?: string
  about?: About
  name: string
}

/** Takes up the job as it was kept, and from then on keeps it with every change; answers how to stop. */
export function keepJob(store: StoreApi<WorkspaceState>): () => void {
  const { id } = store.getState()
  let stopped = false
  let unsubscribe = () => {}
  const keep = ({ job, revision, pending }: WorkspaceState) => {
    const kept: Kept & { by: string; at: number } = { by: whoHere(), at: Date.now(), job, revision, pending }
    set(jobKey(id), kept).catch(() =>
      // it is on the screen, and goes to the server: only a reload before that would lose it
      store
        .getState()
        .say(
          'This device has no room left: free some before you leave this screen. What waits is not kept over a reload.',
        ),
    )
  }
  void Promise.all([get<Kept>(jobKey(id)), get<Kept>(anybodysKey(id))]).then(([own, anybodys]) => {
    if (stopped) return
    const kept = own ?? anybodys
    if (kept) store.getState().restore(kept)
    if (anybodys) void del(anybodysKey(id))
    void thinOut().catch(() => {})
    keep(store.getState())
    unsubscribe = store.subscribe((now, before) => {
      if (now.job !== before.job || now.pending !== before.pending || now.revision !== before.revision)
        keep(now)
    })
  })
  return () => {
    stopped = true
    unsubscribe()
  }
}

/** Keeps a photograph until it is sent. */
export const keepPhoto = (jobId: string, photoId: string, waiting: Waiting): Promise<void> =>
  set(photoKey(jobId, photoId), { by: whoHere(), ...waiting } satisfies Waiting)

const ofJob = async (jobId: string): Promise<[string, Waiting][]> =>
  (await entries<string, Waiting>()).filter(
    ([key, waiting]) => String(key).startsWith(photoKey(jobId, '')) && isTheirs(waiting),
  )

export const waitingPhotos = async (jobId: string): Promise<number> => (await ofJob(jobId)).length

/**
 * Sends the photographs that wait, each under its own id, so that one sent twice is kept once; what is refused is told
 * and let go, what cannot be sent stays.
 */
export async function sendPhotos(store: StoreApi<WorkspaceState>): Promise<string[]> {
  const { id, person } = store.getState()
  const refused: string[] = []
  await store.getState().start()
  for (const [key, waiting] of await ofJob(id)) {
    const photoId = key.slice(photoKey(id, '').length)
    const { blob, circuitId, name } = waiting
    const about: About =
      waiting.about ?? (circuitId === undefined ? { kind: 'other' } : { kind: 'circuit', circuitId })
    const answer = await upload<{ width: number; height: number }>(
      `/api/jobs/${id}/photos?photo=${photoId}`,
      blob,
      () => {},
    )
    if (!answer.ok && (answer.status === 0 || answer.status >= 500)) break
    await del(key)
    if (!answer.ok) refused.push(`${name}: ${answer.message}`)
    else {
      const on = today()
      const { width, height } = answer.data
      const photo = { id: photoId, name, by: person, on, width, height, turns: 0 as const, about, marks: [] }
      const [fault] = store.getState().act({ op: 'addPhoto', photo })
      if (fault) refused.push(`${name}: ${fault.message}`)
    }
  }
  return refused
}
