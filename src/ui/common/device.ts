import { del, entries, set } from 'idb-keyval'
import { keptPages } from '@/core/agreed'
import { whoHere } from './who'

/** What this device keeps: for whom, what of it was not sent, and how it is let go when somebody leaves or another comes. */

const lastHere = 'spillway.person'

interface Something {
  by?: string
  /** when it was kept, ms */
  at?: number
  revision?: number
  pending?: readonly { id: string }[]
}
const all = async (): Promise<[string, Something][]> =>
  typeof indexedDB === 'undefined' ? [] : entries<string, Something>()

/** What waits on this device to be sent for who is here. */
export async function waitingHere(): Promise<{ changes: number; photographs: number }> {
  const changes = new Set<string>()
  let photographs = 0
  for (const [key, { by = whoHere(), pending = [] }] of await all()) {
    if (by !== whoHere()) continue
    if (/^(unsaved|job) /.test(key)) for (const { id } of pending) changes.add(id)
    if (key.startsWith('photo ')) photographs++
  }
  return { changes: changes.size, photographs }
}

/**
 * Lets go of everything that shows jobs to whoever holds this device: kept screens, jobs and catalogues, but those of `but`. What
 * was not sent stays, without the job around it, for the one who did it.
 */
export async function forgetHere(but?: string): Promise<void> {
  if (but === undefined) forgetTyped()
  if (typeof caches !== 'undefined') await caches.delete(keptPages)
  for (const [key, { by, pending, revision = 0 }] of await all()) {
    if (!/^(job|catalogue)( |$)/.test(key) || (but !== undefined && by === but)) continue
    if (pending?.length) {
      const [, jobId = ''] = key.split(' ')
      // as a tab leaves it that is no more (workspace/unsaved.ts)
      const left = { by: by ?? localStorage.getItem(lastHere) ?? undefined, revision, pending }
      await set(`unsaved ${jobId} ${crypto.randomUUID()}`, left)
    }
    await del(key)
  }
}

/** What was half typed in this tab and is kept over a reload (form/useSheet.ts). */
function forgetTyped(): void {
  for (const key of Object.keys(sessionStorage))
    if (key.startsWith('spillway.')) sessionStorage.removeItem(key)
}

/** As many jobs as screens are kept of (workers/field.ts): what is older, and sent, goes. */
const mostJobs = 60

/** Keeps a device that sees many jobs from keeping them all. */
export async function thinOut(): Promise<void> {
  const sent = (await all()).filter(([key, { pending }]) => key.startsWith('job ') && !pending?.length)
  sent.sort(([, a], [, b]) => (b.at ?? 0) - (a.at ?? 0))
  for (const [key] of sent.slice(mostJobs)) await del(key)
}

let handing: { to: string; done: Promise<void> } | null = null

/** From now on this device is theirs who are here: what it showed to whoever was here before goes. Asked again, it is the same work. */
export function handOver(to: string): Promise<void> {
  if (handing?.to !== to) handing = { to, done: hand(to).catch(() => {}) }
  return handing.done
}

async function hand(to: string): Promise<void> {
  const before = localStorage.getItem(lastHere)
  if (before === to) return
  if (before !== null) await forgetHere(to)
  localStorage.setItem(lastHere, to)
}
