import { closeDb, troubleOf, unbound } from '@/server/db/connection'
import { setting } from '@/server/env'
import { log } from '@/server/log'
import { workOnSearches } from '@/server/search/queue'
import { mailStandIn } from '@/simulators/mail'

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** How long it may take to end, once told to. The keeper gives 8 s. */
const longestEndMs = 7000

/** Works on background searches until it is told to stop; a database that is away is waited for. */
export async function work(): Promise<number> {
  let ended = false
  const end = new Promise<void>(resolve => {
    for (const signal of ['SIGTERM', 'SIGINT'] as const)
      process.once(signal, () => {
        ended = true
        resolve()
        // what does not end is cut, as where the database ends with us: a queue that only began may wait for it for good
        setTimeout(() => process.exit(0), longestEndMs).unref()
      })
  })
  const letters = await lettersShown()
  while (!ended) {
    const working = await workOnSearches().catch((error: unknown) => {
      if (!troubleOf(error)) throw error
      log.warn({ error: String(error) }, 'the database is away; waiting for it')
      return null
    })
    if (!working) {
      await Promise.race([pause(1000), end])
      continue
    }
    process.stdout.write('worker ready\n')
    await end
    await working.stop()
  }
  await letters?.stop()
  await closeDb()
  return 0
}

/** A demo sends nothing: a stand-in takes its letters, and a page shows them. */
async function lettersShown() {
  if (!setting('SPILLWAY_DEMO') || setting('SPILLWAY_SMTP')) return null
  const standIn = await mailStandIn(mail => unbound()('login.letter').insert({ ...mail }))
  process.env.SPILLWAY_SMTP = standIn.url
  return standIn
}
