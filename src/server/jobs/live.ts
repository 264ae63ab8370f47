import { EventEmitter } from 'node:events'
import { Client } from 'pg'
import { needed } from '../env'
import { log } from '../log'

/** The channel on which every write of a job is told, with its id and revision, once it is committed. */
export const jobChannel = 'spillway_job'
const againMs = 2000

const heard = new EventEmitter<{ [job: string]: [revision: number] }>().setMaxListeners(0)
let listening: Promise<Client> | null = null

/** One connection of this process hears of all jobs; where it breaks, it is made anew. */
async function listen(): Promise<Client> {
  const client = new Client({ connectionString: needed('DATABASE_URL') })
  const again = () => {
    listening = null
    client.removeAllListeners()
    client.on('error', () => {})
    client.end().catch(() => {})
    // who waits for news asks for a new connection; nobody else needs one
    setTimeout(() => heard.eventNames().length && void hear(), againMs).unref()
  }
  client.on('error', again)
  client.on('end', again)
  client.on('notification', ({ payload = '' }) => {
    const [id = '', revision] = payload.split(' ')
    heard.emit(id, Number(revision))
  })
  await client.connect()
  await client.query(`listen ${jobChannel}`)
  return client
}

/** Ends the one connection, for who ends altogether. */
export async function closeLive(): Promise<void> {
  const client = await listening?.catch(() => null)
  listening = null
  client?.removeAllListeners()
  await client?.end()
}

function hear(): Promise<Client> {
  listening ??= listen().catch(error => {
    listening = null
    log.warn({ error: String(error) }, 'nothing is heard of jobs')
    throw error
  })
  return listening
}

const beatMs = 20_000

/** What is written to a job from now on, as server-sent events that carry its revision; until whoever listens goes away. */
export async function liveEvents(
  jobId: string,
  revision: number,
  gone: AbortSignal,
): Promise<ReadableStream<Uint8Array>> {
  await hear()
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
      const news = (at: number) => tell(`data: ${at}\n\n`)
      // a line now and then keeps what stands between from closing it, and tells that nobody listens any more
      const beat = setInterval(() => tell(': \n\n'), beatMs)
      stop = () => {
        clearInterval(beat)
        heard.off(jobId, news)
      }
      heard.on(jobId, news)
      gone.addEventListener('abort', () => {
        stop()
        try {
          controller.close()
        } catch {
          // closed already
        }
      })
      news(revision)
    },
    cancel: () => stop(),
  })
}
