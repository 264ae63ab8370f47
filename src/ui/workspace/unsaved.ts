import { del, entries, get, set } from 'idb-keyval'
import { isTheirs, whoHere } from '../common/who'
import type { Pending } from './record'

/**
 * What was not saved yet, on this device: it outlives a reload, a tab that is closed and a browser that dies. Each tab keeps its
 * own, so that two that show one job do not send each other's; what a tab leaves that is no more goes to the next in which the
 * same person opens the job.
 */
export interface Unsaved {
  by?: string | undefined
  revision: number
  pending: Pending[]
}

/** This page, until it is left. */
const tab = crypto.randomUUID()
const lockOf = (of: string) => `spillway tab ${of}`
const start = (jobId: string) => `unsaved ${jobId} `

let holding = false
/** As long as this page lives it holds a lock under its name: others see by it that it is still there. */
function live(): void {
  if (holding || typeof navigator === 'undefined' || !navigator.locks) return
  holding = true
  void navigator.locks.request(lockOf(tab), () => new Promise(() => {})).catch(() => {})
}

async function livingTabs(): Promise<Set<string>> {
  if (typeof navigator === 'undefined' || !navigator.locks) return new Set()
  const held = (await navigator.locks.query()).held ?? []
  return new Set(held.map(l => l.name ?? ''))
}

const isHere = () => typeof indexedDB !== 'undefined'

/** Keeps what this page has not saved of a job; nothing where everything is saved. */
export async function keepUnsaved(jobId: string, { revision, pending }: Unsaved): Promise<void> {
  if (!isHere()) return
  live()
  const key = start(jobId) + tab
  await (pending.length ? set(key, { by: whoHere(), revision, pending } satisfies Unsaved) : del(key))
}

export const nothingLeft = { left: [] as Unsaved[], taken: async () => {} }
/** A store that does not answer is not waited for, ms. */
const longestLookMs = 2000

/** What pages of before have left of a job, the oldest base first, and how to say that it was taken up. */
export async function leftBehind(jobId: string): Promise<typeof nothingLeft> {
  if (!isHere()) return nothingLeft
  const late = new Promise<typeof nothingLeft>(resolve => setTimeout(resolve, longestLookMs, nothingLeft))
  return Promise.race([look(jobId), late])
}

async function look(jobId: string): Promise<typeof nothingLeft> {
  const living = await livingTabs()
  const found = (await entries<string, Unsaved>()).filter(
    ([key, unsaved]) =>
      String(key).startsWith(start(jobId)) &&
      isTheirs(unsaved) &&
      !living.has(lockOf(key.slice(start(jobId).length))) &&
      !key.endsWith(tab),
  )
  return {
    left: found.map(([, unsaved]) => unsaved).sort((a, b) => a.revision - b.revision),
    taken: async () => {
      await Promise.all(found.map(([key]) => del(key)))
    },
  }
}

/** Changes that gave way to somebody else's: kept on this device until they are put on top after all, or let go. */
export interface PutAside {
  by?: string
  at: string
  pending: Pending[]
}
const asideKey = (jobId: string) => `aside ${jobId}`
const everybodysAside = async (jobId: string): Promise<PutAside[]> =>
  isHere() ? ((await get<PutAside[]>(asideKey(jobId))) ?? []) : []

export const listAside = async (jobId: string): Promise<PutAside[]> =>
  (await everybodysAside(jobId)).filter(isTheirs)

export async function putAside(jobId: string, pending: Pending[]): Promise<void> {
  if (!isHere() || !pending.length) return
  const others = await everybodysAside(jobId)
  // each is known by its moment: of two in one the other comes a little later
  const newest = Math.max(0, ...others.map(a => Date.parse(a.at) + 1))
  const at = new Date(Math.max(Date.now(), newest)).toISOString()
  await set(asideKey(jobId), [...others, { by: whoHere(), at, pending } satisfies PutAside])
}

export async function dropAside(jobId: string, at: string): Promise<void> {
  const left = (await everybodysAside(jobId)).filter(a => a.at !== at || !isTheirs(a))
  await (left.length ? set(asideKey(jobId), left) : del(asideKey(jobId)))
}
