import PgBoss from 'pg-boss'
import { needed } from '../env'
import { log } from '../log'

export const stepQueue = 'design-search-step'
export const taskQueue = 'design-search-task'
/** What neither a worker nor twenty tries could do comes here, and ends its search with a word. */
export const deadQueue = 'design-search-dead'
export const nightlyQueue = 'nightly'
/** Packs of a hand-over: one document each. */
export const packQueue = 'hand-over-pack'
/** Photographs on their way into the bucket. */
export const picturesQueue = 'pictures'
/** Letters, one each. */
export const mailQueue = 'mail'

const kept: { boss?: Promise<PgBoss> } =
  (globalThis as { spillwayQueue?: { boss?: Promise<PgBoss> } }).spillwayQueue ?? {}
;(globalThis as { spillwayQueue?: { boss?: Promise<PgBoss> } }).spillwayQueue = kept

/** The queue, for sending alone, or with the care that it needs from those who work on it. */
export async function started(works: boolean): Promise<PgBoss> {
  const connectionString = needed('DATABASE_URL')
  const boss = new PgBoss({
    connectionString,
    max: 4,
    migrate: false,
    schedule: works,
    supervise: works,
    archiveCompletedAfterSeconds: 3600,
    archiveFailedAfterSeconds: 86_400,
    deleteAfterDays: 2,
    ...(works && { maintenanceIntervalSeconds: 15 }),
  })
  boss.on('error', error => log.error({ error: error.message }, 'queue'))
  await boss.start()
  return boss
}

/** Makes the queues, and brings those of an earlier version up to date; as the owner of the database, before anybody serves. */
export async function makeQueues(): Promise<void> {
  const boss = new PgBoss({
    connectionString: needed('SPILLWAY_OWNER_URL'),
    max: 2,
    schedule: false,
    supervise: false,
  })
  boss.on('error', error => log.error({ error: error.message }, 'queue'))
  await boss.start()
  // a piece that a dead worker held is free again after a minute and a half
  const again = { retryLimit: 20, retryDelay: 1, expireInSeconds: 90 }
  await boss.createQueue(deadQueue, { name: deadQueue, policy: 'standard' })
  await boss.createQueue(packQueue, {
    name: packQueue,
    policy: 'standard',
    retryLimit: 3,
    retryDelay: 2,
    expireInSeconds: 300,
  })
  // a mail server may be down for hours: the waits between grow to an hour and a half
  await boss.createQueue(mailQueue, {
    name: mailQueue,
    policy: 'standard',
    retryLimit: 12,
    retryDelay: 10,
    retryBackoff: true,
    expireInSeconds: 60,
  })
  await boss.createQueue(nightlyQueue, { name: nightlyQueue, policy: 'short', retryLimit: 2 })
  await boss.createQueue(picturesQueue, {
    name: picturesQueue,
    policy: 'short',
    retryLimit: 2,
    expireInSeconds: 3600,
  })
  // of one step or piece at most one waits, however many ask for it
  for (const name of [stepQueue, taskQueue]) {
    const options = { name, policy: 'short', deadLetter: deadQueue, ...again } as const
    await boss.createQueue(name, options)
    // one that an earlier version made learns where its dead go
    await boss.updateQueue(name, options)
  }
  await boss.stop({ graceful: false })
}

/** The queue of this process, for sending alone. */
export function sender(): Promise<PgBoss> {
  kept.boss ??= started(false).catch((error: unknown) => {
    kept.boss = undefined
    throw error
  })
  return kept.boss
}

/** Lets go of the queue of this process. */
export async function closeSender(): Promise<void> {
  const boss = await kept.boss
  kept.boss = undefined
  await boss?.stop({ graceful: false })
}
