import { EventEmitter } from 'node:events'
import { Client } from 'pg'
import * as z from 'zod'
import { unbound } from '../db/connection'
import { needed } from '../env'
import { log } from '../log'

/** The channel on which every write of a job is told, with its id and revision, once it is committed. */
export const jobChannel = 'spillway_job'
/** The channel on which those who look at a job tell each other that they are there. */
const hereChannel = 'spillway_here'
const againMs = 2000

type News = { revision: number } | { people: true }
const heard = new EventEmitter<{ [job: string]: [news: News] }>().setMaxListeners(0)
let listening: Promise<Client> | null = null

/** Somebody who looks at a job, by the connection they look by. */
interface Looking {
  name: string
  personId: string
  /** when they were last heard of, ms */
  at: number
}
/** Who looks at which job, in whatever process of whatever machine: as they tell it themselves, and forgotten when they are silent. */
const looking = new Map<string, Map<string, Looking>>()

const hereSchema = z.object({
  job: z.string(),
  by: z.string(),
  say: z.enum(['here', 'gone', 'who']),
  name: z.string().default(''),
  personId: z.string().default(''),
})
type Here = z.input<typeof hereSchema>

/** What this process has said for those whom it serves: said again when a new one asks who is there. */
const own = new Map<string, Here>()
let telling: Promise<unknown> = Promise.resolve()
/** One after another: over two connections a farewell could overtake its greeting. */
const tellOthers = (here: Here): void => {
  telling = telling
    .then(() => unbound().raw('select pg_notify(?, ?)', [hereChannel, JSON.stringify(here)]))
    .catch(error => log.warn({ error: String(error) }, 'who looks at a job was not told'))
}

function hearOfPeople(payload: string): void {
  const { job, by, say, name, personId } = hereSchema.parse(JSON.parse(payload))
  const of = looking.get(job) ?? new Map<string, Looking>()
  if (say === 'who') {
    for (const here of own.values()) if (here.job === job) tellOthers(here)
    return
  }
  const before = of.has(by)
  if (say === 'here') of.set(by, { name, personId, at: Date.now() })
  else of.delete(by)
  if (of.size) looking.set(job, of)
  else looking.delete(job)
  if (before !== of.has(by)) heard.emit(job, { people: true })
}

const usualBeatMs = 20_000
/** So many beats apart it is asked whether whoever listens still may. */
const looksEvery = 3
/** Who has been silent for so long is gone, ms: a process that was killed says no farewell. */
const forgottenMs = 3 * usualBeatMs

/** The others who look at a job: by their names, each once; `again` where the same person looks from elsewhere too. */
function othersAt(job: string, but: string, personId: string): { names: string[]; again: boolean } {
  const of = looking.get(job) ?? new Map<string, Looking>()
  for (const [by, { at }] of of) if (at < Date.now() - forgottenMs) of.delete(by)
  const others = [...of].filter(([by]) => by !== but).map(([, l]) => l)
  return {
    names: [...new Set(others.filter(l => l.personId !== personId).map(l => l.name))].sort(),
    again: others.some(l => l.personId === personId),
  }
}

/** One connection of this process hears of all jobs; where it breaks, it is made anew. */
async function listen(): Promise<Client> {
  const client = new Client({ connectionString: needed('DATABASE_URL') })
  const again = () => {
    listening = null
    client.removeAllListeners()
    client.on('error', () => {})
    client.end().catch(() => {})
    // who waits for news asks for a new connection; nobody else needs one
    setTimeout(() => heard.eventNames().length && void hear().catch(() => {}), againMs).unref()
  }
  client.on('error', again)
  client.on('end', again)
  client.on('notification', ({ channel, payload = '' }) => {
    if (channel === hereChannel) return hearOfPeople(payload)
    const [id = '', revision] = payload.split(' ')
    heard.emit(id, { revision: Number(revision) })
  })
  await client.connect()
  await client.query(`listen ${jobChannel}; listen ${hereChannel}`)
  return client
}

/** Ends the one connection, for who ends altogether. */
export async function closeLive(): Promise<void> {
  const client = await listening?.catch(() => null)
  listening = null
  client?.removeAllListeners()
  await client?.end()
  await telling
}

function hear(): Promise<Client> {
  listening ??= listen().catch(error => {
    listening = null
    log.warn({ error: String(error) }, 'nothing is heard of jobs')
    throw error
  })
  return listening
}

/**
 * What is written to a job from now on, and who else looks at it, as server-sent events; until whoever listens goes away, or
 * `still` tells that they may no longer: a session that was ended, a role that was taken.
 */
export async function liveEvents(
  jobId: string,
  revision: number,
  who: { name: string; personId: string },
  gone: AbortSignal,
  still: () => Promise<boolean>,
  beatMs = usualBeatMs,
): Promise<ReadableStream<Uint8Array>> {
  await hear()
  const by = crypto.randomUUID()
  const here: Here = { job: jobId, by, say: 'here', ...who }
  const bytes = new TextEncoder()
  let stop = () => {}
  return new ReadableStream({
    start(controller) {
      const tell = (line: string) => {
        try {
          controller.enqueue(bytes.encode(line))
        } catch {
          stop()
        }
      }
      let said = JSON.stringify({ names: [], again: false })
      const people = () => {
        const now = JSON.stringify(othersAt(jobId, by, who.personId))
        if (now !== said) tell(`event: people\ndata: ${now}\n\n`)
        said = now
      }
      const news = (about: News) => {
        if ('revision' in about) tell(`data: ${about.revision}\n\n`)
        else people()
      }
      let beats = 0
      // a line now and then keeps what stands between from closing it, and tells that nobody listens any more
      const beat = setInterval(() => {
        tell(': \n\n')
        tellOthers(here)
        people()
        // what cannot be told just now is asked again with the next look
        if (++beats % looksEvery === 0)
          void still().then(
            may => may || end(),
            () => {},
          )
      }, beatMs)
      let stopped = false
      stop = () => {
        if (stopped) return
        stopped = true
        clearInterval(beat)
        heard.off(jobId, news)
        own.delete(by)
        tellOthers({ ...here, say: 'gone' })
      }
      const end = () => {
        stop()
        try {
          controller.close()
        } catch {
          // closed already
        }
      }
      heard.on(jobId, news)
      own.set(by, here)
      gone.addEventListener('abort', end)
      tell(`data: ${revision}\n\n`)
      tellOthers(here)
      tellOthers({ ...here, say: 'who' })
    },
    cancel: () => stop(),
  })
}
