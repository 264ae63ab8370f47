import type { Knex } from 'knex'
import type PgBoss from 'pg-boss'
import * as z from 'zod'
import { searchSentence } from '@/core/search/front'
import { search } from '@/core/search/search'
import { type Space, spaceOf } from '@/core/search/space'
import { type Crew, perform, type Task } from '@/core/search/tasks'
import { forgetLeftovers } from '../accounts/leftovers'
import type { OfFirm } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { allFirms } from '../db/whose'
import { bucket } from '../files/bucket'
import { moveAll, sweepBucket } from '../files/moving'
import { log } from '../log'
import { readMail } from '../mail/outbox'
import { post as give } from '../mail/post'
import { nightly } from '../nightly/nightly'
import { failPack, makePack, putPack } from '../packs/repository'
import { erase } from '../people/erasing'
import {
  deadQueue,
  mailQueue,
  nightlyQueue,
  packQueue,
  picturesQueue,
  sender,
  started,
  stepQueue,
  taskQueue,
} from '../queue/boss'
import {
  answersIn,
  answersOf,
  finishSearch,
  forsakenSearches,
  hasAnswer,
  keepAnswer,
  putSearch,
  searchWork,
  tellProgress,
} from './repository'

/*
 * Searches on the queue. One kind of job goes a step further in a search, and hands out a round of pieces; the other kind
 * does one piece. Whatever is interrupted is done again by whoever is there, and an answer is kept once.
 */

/** Whatever is handed to a worker says whose it is. */
const stepSchema = z.object({ searchId: z.uuid(), firmId: z.uuid() })
const packSchema = z.object({ packId: z.uuid(), firmId: z.uuid() })
type Asked = z.infer<typeof stepSchema>
const taskSchema = stepSchema.extend({
  key: z.string(),
  of: z.int(),
  task: z.custom<Task>(value => typeof value === 'object' && value !== null),
})

/** Puts something down within a transaction and hands it to the workers: both, or neither. */
async function handed<T extends string | null>(
  queue: string,
  { firmId }: OfFirm,
  put: (trx: Knex) => Promise<T>,
  about: (id: string) => object,
): Promise<T> {
  const boss = await sender()
  return transaction(
    { firmId },
    async trx => {
      const id = await put(trx)
      if (id === null) return id
      const connection = await trx.client.acquireConnection()
      await boss.send(
        queue,
        { ...about(id), firmId },
        {
          singletonKey: id,
          db: { executeSql: (text: string, values: unknown[]) => connection.query(text, values) },
        },
      )
      return id
    },
    always,
  )
}

/** Puts a search down and hands it to the workers. Answers its id. */
export const startSearch = (...asked: ParametersAfter<typeof putSearch>): Promise<string> =>
  handed(
    stepQueue,
    asked[0],
    trx => putSearch(trx, ...asked),
    searchId => ({ searchId }),
  )

/** Puts a pack down and hands it to the workers. Answers its id; null where there is no such job. */
export const startPack = (...asked: ParametersAfter<typeof putPack>): Promise<string | null> =>
  handed(
    packQueue,
    asked[0],
    trx => putPack(trx, ...asked),
    packId => ({ packId }),
  )

type ParametersAfter<F> = F extends (first: never, ...rest: infer R) => unknown ? R : never

const sendStep = (boss: PgBoss, asked: Asked) => boss.send(stepQueue, asked, { singletonKey: asked.searchId })

let spaces: { id: string; space: Space } | null = null
async function spaceFor(asked: Asked): Promise<{ space: Space; seed: number; draws: number } | null> {
  const { searchId } = asked
  const work = await searchWork(asked, searchId)
  if (work?.state !== 'running') return null
  if (spaces?.id !== searchId)
    spaces = { id: searchId, space: spaceOf(work.job, work.catalogue, work.wishes, work.stock) }
  return { space: spaces.space, seed: work.seed, draws: work.draws }
}

/** The queue, and a nudge to this worker's own pollers: what was just sent need not wait for their next turn. */
interface Post {
  boss: PgBoss
  wake: (what: 'steps' | 'pieces') => void
}

/** A promise, and what fulfils it. */
function signal(): { promise: Promise<void>; give: () => void } {
  let give = () => {}
  const promise = new Promise<void>(resolve => {
    give = resolve
  })
  return { promise, give }
}

/** A search that this worker holds between two steps: parked at the round that is not whole. */
interface Held {
  /** goes on, and answers when it is parked again or over */
  on: () => Promise<void>
}

function hold({ boss, wake }: Post, asked: Asked, work: { space: Space; seed: number; draws: number }): Held {
  const { searchId } = asked
  let round = 0
  let latest: [number, string] = [0, 'Starting']
  let parked = signal()
  let go = signal()
  const crew: Crew = async tasks => {
    const now = round++
    if (!tasks.length) return []
    for (;;) {
      const answers = await answersOf(asked, searchId, now)
      const missing = tasks.map((task, n) => ({ task, n })).filter(({ n }) => !answers.has(n))
      if (!missing.length) return tasks.map((_, n) => answers.get(n)).filter(a => a !== undefined)
      await tellProgress(asked, searchId, ...latest)
      for (const { task, n } of missing)
        await boss.send(
          taskQueue,
          { ...asked, key: `${now}-${n}`, of: tasks.length, task },
          { singletonKey: `${searchId} ${now}-${n}` },
        )
      wake('pieces')
      go = signal()
      parked.give()
      await go.promise
    }
  }
  const over = search(work.space, crew, {
    seed: work.seed,
    draws: work.draws,
    progress: (done, what) => {
      latest = [done, what]
    },
  }).then(result => finishSearch(asked, searchId, { result, sentence: searchSentence(result) }))
  // told by whoever waits for it
  over.catch(() => {})
  return {
    on: () => {
      parked = signal()
      const next = Promise.race([parked.promise, over])
      go.give()
      return next
    },
  }
}

/**
 * A step further. A worker that holds the search goes on where it stands; another plays it again from the answers that are
 * kept, up to the first round that is not whole. That round is handed out.
 */
async function step(post: Post, held: Map<string, Held>, asked: Asked): Promise<void> {
  const { searchId } = asked
  const work = await spaceFor(asked)
  if (!work) {
    held.delete(searchId)
    return
  }
  const known = held.get(searchId)
  try {
    if (known) return await known.on()
    // one at a time: another is played again when it comes up
    held.clear()
    const one = hold(post, asked, work)
    held.set(searchId, one)
    await one.on()
  } catch (error) {
    held.delete(searchId)
    throw error
  }
}

/**
 * One piece. Whoever keeps the last answer of a round calls for the next step; a piece whose answer is there already says
 * nothing more, but where it is tried again: the one before may have died before it could call.
 */
async function piece({ boss, wake }: Post, data: unknown, triedAgain: boolean): Promise<void> {
  const { key, of, task, ...asked } = taskSchema.parse(data)
  const { searchId } = asked
  const work = await spaceFor(asked)
  if (!work) return
  const isNew =
    !(await hasAnswer(asked, searchId, key)) &&
    (await keepAnswer(asked, searchId, key, perform(work.space, task)))
  if (!isNew && !triedAgain) return
  if ((await answersIn(asked, searchId, key)) < of) return
  await sendStep(boss, asked)
  wake('steps')
}

const piecesAtATime = 4
const packRetries = 2
const lettersAtOnce = 8
/** What fails this often fails for good: the search is told to have failed, and what it failed of. */
const mostFailures = 3

async function orFail(job: PgBoss.JobWithMetadata<unknown>, work: () => Promise<void>): Promise<void> {
  try {
    await work()
  } catch (error) {
    const about = stepSchema.loose().safeParse(job.data)
    if (job.retryCount < mostFailures || !about.success) throw error
    log.error({ err: error, search: about.data.searchId }, 'search failed')
    await giveUp(about.data)
  }
}

const giveUp = (asked: Asked) =>
  finishSearch(asked, asked.searchId, {
    trouble: 'The search failed on the server; nothing was changed. Search again, or search here.',
  })

/** Works on searches until it is stopped; as many processes as there are machines may do so beside each other. */
export async function workOnSearches(): Promise<{ stop: () => Promise<void> }> {
  const boss = await started(true)
  const held = new Map<string, Held>()
  const often = { batchSize: 1, pollingIntervalSeconds: 0.5, includeMetadata: true } as const
  const pollers = { steps: '', pieces: '' }
  const post: Post = { boss, wake: what => boss.notifyWorker(pollers[what]) }
  pollers.steps = await boss.work(stepQueue, often, async ([job]) => {
    if (job) await orFail(job, () => step(post, held, stepSchema.parse(job.data)))
  })
  // a piece takes less than the queue is asked again: a few are taken at a time, and the rest left to others
  pollers.pieces = await boss.work(taskQueue, { ...often, batchSize: piecesAtATime }, async jobs => {
    for (const job of jobs) await orFail(job, () => piece(post, job.data, job.retryCount > 0))
    if (jobs.length === piecesAtATime) post.wake('pieces')
  })
  await boss.work(deadQueue, often, async ([job]) => {
    const about = stepSchema.loose().safeParse(job?.data)
    if (about.success) await giveUp(about.data)
  })
  await boss.work(packQueue, often, async ([job]) => {
    if (!job) return
    const { packId, ...firm } = packSchema.parse(job.data)
    try {
      await makePack(firm, packId)
    } catch (error) {
      log.error({ err: error, pack: packId }, 'pack failed')
      if (job.retryCount < packRetries) throw error
      await failPack(
        firm,
        packId,
        'The pack could not be made on the server; nothing was changed. Make it again.',
      )
    }
  })
  // a slow mail server holds a few letters at once, not all behind one; each that it refuses waits by itself
  await boss.work(mailQueue, { ...often, batchSize: lettersAtOnce }, async letters => {
    const given = await Promise.allSettled(letters.map(async ({ data }) => give(readMail(data))))
    for (const [n, { id }] of letters.entries()) {
      const outcome = given[n]
      if (outcome?.status !== 'rejected') continue
      log.warn({ error: String(outcome.reason) }, 'the mail server did not take a letter; it waits')
      await boss.fail(mailQueue, id, { message: String(outcome.reason) })
    }
  })
  const sweep = async () => {
    for (const firm of await allFirms())
      for (const searchId of await forsakenSearches(firm, new Date())) await giveUp({ ...firm, searchId })
  }
  await sweep()
  await boss.work(nightlyQueue, { batchSize: 1, pollingIntervalSeconds: 30 }, async () => {
    await sweep()
    for (const firm of await allFirms()) await nightly(firm, new Date())
    log.info(
      { ...(await erase()), ...(await forgetLeftovers(new Date())), swept: await sweepBucket(new Date()) },
      'what was deleted is gone',
    )
  })
  if (bucket()) {
    await boss.work(picturesQueue, { batchSize: 1, pollingIntervalSeconds: 30 }, async () => {
      log.info({ moved: await moveAll() }, 'photographs moved into the bucket')
    })
    await boss.schedule(picturesQueue, '*/10 * * * *')
  } else await boss.unschedule(picturesQueue)
  // in the night of most firms
  await boss.schedule(nightlyQueue, '23 8 * * *')
  return { stop: () => boss.stop({ graceful: true, timeout: 5000 }) }
}
