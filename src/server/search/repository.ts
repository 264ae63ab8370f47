import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import * as z from 'zod'
import { type Equipment, equipmentSchema } from '@/core/equipment'
import { type Job, jobSchema } from '@/core/job/schema'
import type { SearchResult } from '@/core/search/front'
import { type Stock, stockSchema } from '@/core/search/stock'
import type { TaskResult } from '@/core/search/tasks'
import { type Wishes, wishesSchema } from '@/core/search/wishes'
import { db, type OfFirm } from '../db/connection'
import { always, transaction } from '../db/transaction'
import type { Actor } from '../people/types'

export type SearchState = 'running' | 'done' | 'cancelled' | 'failed'

/** A search as the screen shows it. */
export interface SearchRecord {
  id: string
  state: SearchState
  done: number
  what: string
  result: SearchResult | null
  sentence: string | null
  trouble: string | null
  wishes: Wishes
  /** the job it was about: the designs found are of its space */
  job: Job
}

/** What a worker needs to do its part. */
export interface SearchWork {
  id: string
  state: SearchState
  job: Job
  catalogue: Equipment[]
  wishes: Wishes
  stock: Stock
  seed: number
  draws: number
}

const shown = ['id', 'state', 'done', 'what', 'result', 'sentence', 'trouble', 'wishes', 'job'] as const

/** Puts a search down, in the transaction that also sends it on its way. A search of the same job that still runs is cancelled. */
export async function putSearch(
  trx: Knex,
  actor: Actor,
  jobId: string,
  job: Job,
  { catalogue, stock = {} }: { catalogue: Equipment[]; stock?: Stock },
  wishes: Wishes,
  at: Date,
): Promise<string> {
  const id = randomUUID()
  // one at a time for each job: two who start at once leave one search running
  await trx('job').where({ id: jobId, firm_id: actor.firmId }).forUpdate().first('id')
  await cancelSearches(actor, jobId, trx)
  await trx('design_search').insert({
    id,
    firm_id: actor.firmId,
    job_id: jobId,
    job: JSON.stringify(job),
    catalogue: JSON.stringify(catalogue),
    wishes: JSON.stringify(wishes),
    stock: JSON.stringify(stock),
    seed: 1,
    draws: 200,
    state: 'running',
    created_at: at,
  })
  return id
}

/** The latest search of a job of this firm; null where there is none. */
export async function latestSearch(actor: Actor, jobId: string): Promise<SearchRecord | null> {
  const row = await db(actor)('design_search')
    .where({ firm_id: actor.firmId, job_id: jobId })
    .orderBy('seq', 'desc')
    .first(...shown)
  return row ? { ...row, job: jobSchema.parse(row.job), wishes: wishesSchema.parse(row.wishes) } : null
}

/** Cancels what runs of a job; neither answers nor work on the queue stay behind. */
export async function cancelSearches(actor: Actor, jobId: string, trx: Knex = db(actor)): Promise<void> {
  const cancelled: { id: string }[] = await trx('design_search')
    .where({ firm_id: actor.firmId, job_id: jobId, state: 'running' })
    .update({ state: 'cancelled' })
    .returning('id')
  for (const { id } of cancelled) await clearAway(id, trx)
}

/** Takes away what a search that is over has left: answers of its pieces, and work that nobody has begun. */
async function clearAway(id: string, trx: Knex): Promise<void> {
  await trx('design_search_task').where({ search_id: id }).delete()
  const queue = await trx.raw(`select to_regclass('pgboss.job') is not null as there`)
  if (queue.rows[0].there)
    await trx
      .withSchema('pgboss')
      .from('job')
      .whereRaw(`data->>'searchId' = ? and state < 'active'`, [id])
      .delete()
}

/** The work of a search, whichever firm's: only the queue's own workers ask, by an id that they were given. */
export async function searchWork(firm: OfFirm, id: string): Promise<SearchWork | null> {
  const row = await db(firm)('design_search').where({ id }).first()
  return row
    ? {
        id,
        state: row.state,
        job: jobSchema.parse(row.job),
        catalogue: z.array(equipmentSchema).parse(row.catalogue),
        wishes: wishesSchema.parse(row.wishes),
        stock: stockSchema.parse(row.stock),
        seed: row.seed,
        draws: row.draws,
      }
    : null
}

/** The answers to one round of work, by the number of the piece. */
export async function answersOf(firm: OfFirm, id: string, round: number): Promise<Map<number, TaskResult>> {
  const rows: { key: string; answer: TaskResult }[] = await db(firm)('design_search_task')
    .where({ search_id: id })
    .where('key', 'like', `${round}-%`)
    .select('key', 'answer')
  return new Map(rows.map(r => [Number(r.key.split('-')[1]), r.answer]))
}

export const hasAnswer = async (firm: OfFirm, id: string, key: string): Promise<boolean> =>
  Boolean(await db(firm)('design_search_task').where({ search_id: id, key }).first('key'))

/** Keeps an answer; one that is there already stays, and false comes back. */
export async function keepAnswer(
  firm: OfFirm,
  id: string,
  key: string,
  answer: TaskResult,
): Promise<boolean> {
  // of a search that is over nothing is kept
  const kept = await db(firm).raw(
    `insert into design_search_task (search_id, key, answer)
     select id, ?, ? from design_search where id = ? and state = 'running' for share
     on conflict do nothing returning key`,
    [key, JSON.stringify(answer), id],
  )
  return kept.rows.length > 0
}

/** How many answers of a piece’s round are there. */
export async function answersIn(firm: OfFirm, id: string, key: string): Promise<number> {
  const [round] = key.split('-')
  const [count] = await db(firm)('design_search_task')
    .where({ search_id: id })
    .where('key', 'like', `${round}-%`)
    .count({ count: '*' })
  return Number(count?.count ?? 0)
}

export async function tellProgress(firm: OfFirm, id: string, done: number, what: string): Promise<void> {
  await db(firm)('design_search').where({ id, state: 'running' }).update({ done, what })
}

export async function finishSearch(
  firm: OfFirm,
  id: string,
  outcome: { result: SearchResult; sentence: string } | { trouble: string },
): Promise<void> {
  await transaction(
    firm,
    async trx => {
      await trx('design_search')
        .where({ id, state: 'running' })
        .update(
          'result' in outcome
            ? {
                state: 'done',
                done: 1,
                what: 'Done',
                result: JSON.stringify(outcome.result),
                sentence: outcome.sentence,
              }
            : { state: 'failed', trouble: outcome.trouble },
        )
      await clearAway(id, trx)
    },
    always,
  )
}

/** Searches that are said to run, and for which no work is on the queue since an hour: nobody will end them. */
export async function forsakenSearches(firm: OfFirm, now: Date): Promise<string[]> {
  const rows: { id: string }[] = await db(firm)('design_search')
    .where({ state: 'running' })
    .where('created_at', '<', new Date(now.getTime() - 3_600_000))
    .whereRaw(
      `not exists (select from pgboss.job q where q.data->>'searchId' = design_search.id::text and q.state <= 'active')`,
    )
    .select('id')
  return rows.map(r => r.id)
}
