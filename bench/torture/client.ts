import { randomUUID } from 'node:crypto'
import type { JobRecord } from '../../src/core/assess/record'
import type { Operation } from '../../src/core/job/operations'
import { enter } from '../enter'
import type { Chance } from './chance'

type Sent = { id: string } & ({ kind: 'do'; operation: Operation } | { kind: 'undo' } | { kind: 'redo' })

export interface Counts {
  acknowledged: Map<string, string>
  tries: number
  conflicts: number
  refused: string[]
  serverErrors: string[]
  slowestMs: number
  /** jobs of other firms that were asked for, and that were seen */
  foreignAsked: number
  foreignSeen: number
}
export const counts = (): Counts => ({
  acknowledged: new Map(),
  tries: 0,
  conflicts: 0,
  refused: [],
  serverErrors: [],
  slowestMs: 0,
  foreignAsked: 0,
  foreignSeen: 0,
})

/** Sessions of the demo’s designer: what many do is not done in one session, whose writes are counted. */
let cookies: string[] = []
const sessions = 40
/** Where the web processes are asked: of several each request takes one, as behind a proxy. */
const urls = (process.env.SPILLWAY_URLS ?? '').split(',').filter(Boolean)
/** What is being asked of each, where the one with the least is asked, as our proxy does (least_conn). */
let waiting: Map<string, number> | null = null
export const asTheProxyDoes = () => {
  waiting = new Map(urls.map(url => [url, 0]))
}
function baseOf(url: string): string {
  const from = Math.floor(Math.random() * urls.length)
  const turned = [...urls.slice(from), ...urls.slice(0, from)]
  const [first = url] = turned
  const asked = waiting
  return asked ? turned.reduce((a, b) => ((asked.get(b) ?? 0) < (asked.get(a) ?? 0) ? b : a), first) : first
}
const count = (base: string, by: number) => waiting?.set(base, (waiting.get(base) ?? 0) + by)

/** From now on everything is asked as the demo’s designer, from many browsers. */
export async function comeIn(url: string): Promise<void> {
  cookies = (await Promise.all(Array.from({ length: sessions }, () => enter(url)))).map(e => e.cookie)
}

export async function ask(
  url: string,
  path: string,
  init: { body?: unknown; bytes?: Uint8Array; text?: string; timeoutMs?: number; as?: string } = {},
): Promise<{ status: number; body: unknown; ms: number }> {
  const { body, bytes, text, timeoutMs = 60_000 } = init
  const as = init.as ?? cookies[Math.floor(Math.random() * cookies.length)]
  const base = baseOf(url)
  count(base, 1)
  const payload = bytes ?? text ?? (body === undefined ? undefined : JSON.stringify(body))
  const from = performance.now()
  try {
    const answer = await fetch(`${base}${path}`, {
      method: payload === undefined ? 'GET' : 'POST',
      headers: {
        origin: base,
        ...(as && { cookie: as }),
        ...(payload !== undefined && {
          'content-type': bytes ? 'application/octet-stream' : 'application/json',
        }),
      },
      body: payload as BodyInit,
      signal: AbortSignal.timeout(timeoutMs),
    })
    const said = await answer.text()
    return { status: answer.status, body: jsonOf(said), ms: performance.now() - from }
  } catch {
    return { status: 0, body: null, ms: performance.now() - from }
  } finally {
    count(base, -1)
  }
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text
  }
}

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** A screen that edits: sends batches, tries again with the same ids after trouble, and takes over what others wrote. */
export async function edits(
  url: string,
  jobId: string,
  c: Chance,
  told: Counts,
  goesOn: () => boolean,
  /** whose session it is, and a job of another firm */
  { as, foreign }: { as?: string; foreign?: string } = {},
): Promise<void> {
  let record: JobRecord | null = null
  while (goesOn() || !record) {
    if (!record) {
      const got = await ask(url, `/api/jobs/${jobId}`, { as })
      record = got.status === 200 ? (got.body as { record: JobRecord }).record : null
      if (!record) await pause(200)
      continue
    }
    if (foreign && c.real() < 0.1) {
      const { status } = await ask(url, `/api/jobs/${foreign}`, { as })
      told.foreignAsked++
      if (status === 200) told.foreignSeen++
    }
    const circuits = record.job.panels[0]?.circuits ?? []
    const one = (): Sent => {
      const way = c.real()
      if (way < 0.15) return { id: randomUUID(), kind: 'undo' }
      if (way < 0.2) return { id: randomUUID(), kind: 'redo' }
      const operation: Operation =
        way < 0.6
          ? { op: 'setOutage', facts: { hours: 1 + c.below(700) } }
          : { op: 'selectCircuit', circuitId: c.pick(circuits).id, picked: c.real() < 0.5 }
      return { id: randomUUID(), kind: 'do', operation }
    }
    const changes = Array.from({ length: 1 + c.below(3) }, one)
    for (;;) {
      told.tries++
      const answer = await ask(url, `/api/jobs/${jobId}/changes`, {
        body: { baseRevision: record.revision, changes },
        as,
      })
      if (answer.status === 200) {
        for (const change of changes) told.acknowledged.set(change.id, jobId)
        record = (answer.body as { record: JobRecord }).record
        break
      }
      if (answer.status === 409) {
        const { record: theirs, applied } = answer.body as { record: JobRecord; applied: string[] }
        told.conflicts++
        // written before the answer was lost: acknowledged now
        for (const id of applied) told.acknowledged.set(id, jobId)
        record = theirs
        break
      }
      if (answer.status === 400) {
        const said = JSON.stringify(answer.body)
        if (!/nothing to (un|re)do/.test(said)) told.refused.push(said.slice(0, 200))
        record = null
        break
      }
      if (answer.status >= 500 && answer.status !== 503)
        told.serverErrors.push(JSON.stringify(answer.body).slice(0, 200))
      if (!goesOn() && told.tries > 1e7) return
      await pause(50 + c.below(250))
    }
    await pause(c.below(120))
  }
}
