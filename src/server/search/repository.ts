import { randomUUID } from 'node:crypto'
import * as z from 'zod'
import { type Equipment, equipmentSchema } from '@/core/equipment'
import { type Job, jobSchema } from '@/core/job/schema'
import type { SearchResult } from '@/core/search/search'
import { type Wishes, wishesSchema } from '@/core/search/space'
import { type Stock, stockSchema } from '@/core/search/stock'
import type { Answer } from '@/core/search/tasks'
import { db } from '../db/connection'
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

/** Puts a search down; whoever works takes it from there. A search of the same job that still runs is cancelled. */
export async function startSearch(
  actor: Actor,
  jobId: string,
  job: Job,
  { catalogue, stock = {} }: { catalogue: Equipment[]; stock?: Stock },
  wishes: Wishes,
  at: Date,
): Promise<string> {
  const id = randomUUID()
  await db().transaction(async trx => {
    await trx('design_search')
      .where({ firm_id: actor.firmId, job_id: jobId, state: 'running' })
      .update({ state: 'cancelled' })
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
  })
  return id
}

/** The latest search of a job of this firm; null where there is none. */
export async function latestSearch(actor: Actor, jobId: string): Promise<SearchRecord | null> {
  const row = await db()('design_search')
    .where({ firm_id: actor.firmId, job_id: jobId })
    .orderBy('created_at', 'desc')
    .first(...shown)
  return row ? { ...row, job: jobSchema.parse(row.job), wishes: wishesSchema.parse(row.wishes) } : null
}

export async function cancelSearches(actor: Actor, jobId: string): Promise<void> {
  await db()('design_search')
    .where({ firm_id: actor.firmId, job_id: jobId, state: 'running' })
    .update({ state: 'cancelled' })
}

/** The work of a search, whichever firm's: only the queue's own workers ask, by an id that they were given. */
export async function searchWork(id: string): Promise<SearchWork | null> {
  const row = await db()('design_search').where({ id }).first()
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
export async function answersOf(id: string, round: number): Promise<Map<number, Answer>> {
  const rows: { key: string; answer: Answer }[] = await db()('design_search_task')
    .where({ search_id: id })
    .where('key', 'like', `${round}-%`)
    .select('key', 'answer')
  return new Map(rows.map(r => [Number(r.key.split('-')[1]), r.answer]))
}

export const hasAnswer = async (id: string, key: string): Promise<boolean> =>
  Boolean(await db()('design_search_task').where({ search_id: id, key }).first('key'))

/** Keeps an answer; one that is there already stays, and false comes back. */
export async function keepAnswer(id: string, key: string, answer: Answer): Promise<boolean> {
  const kept = await db()('design_search_task')
    .insert({ search_id: id, key, answer: JSON.stringify(answer) })
    .onConflict(['search_id', 'key'])
    .ignore()
    .returning('key')
  return kept.length > 0
}

/** How many answers of a piece’s round are there. */
export async function answersIn(id: string, key: string): Promise<number> {
  const [round] = key.split('-')
  const [count] = await db()('design_search_task')
    .where({ search_id: id })
    .where('key', 'like', `${round}-%`)
    .count({ count: '*' })
  return Number(count?.count ?? 0)
}

export async function tellProgress(id: string, done: number, what: string): Promise<void> {
  await db()('design_search').where({ id, state: 'running' }).update({ done, what })
}

export async function finishSearch(
  id: string,
  outcome: { result: SearchResult; sentence: string } | { trouble: string },
): Promise<void> {
  await db()('design_search')
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
  // the pieces have served
  await db()('design_search_task').where({ search_id: id }).delete()
}
