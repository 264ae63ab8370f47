import { randomUUID } from 'node:crypto'
import { type HouseWord, houseWordSchema } from '@/core/card/word'
import { db } from '../db/connection'
import { transaction } from '../db/transaction'
import { type Opened, openLink } from '../links/repository'
import type { Actor } from '../people/types'

/** What somebody said by the page of a house. */
export interface Said {
  id: string
  at: string
  word: HouseWord
  settled: boolean
}

/** What one link takes: the page is for who lives there, not for a crowd. */
export const mostWords = 200

/** The house behind a token; null for one that is unknown or withdrawn. */
export const openHouse = (token: string, now: Date): Promise<Opened | null> => openLink(token, now, 'house')

const told = (rows: readonly { id: string; at: Date; word: unknown; settled_at: Date | null }[]): Said[] =>
  rows.flatMap(r => {
    const word = houseWordSchema.safeParse(r.word)
    return word.success
      ? [{ id: r.id, at: r.at.toISOString(), word: word.data, settled: r.settled_at !== null }]
      : []
  })

/** What was said by one link, the newest first. */
export const saidBy = async ({ linkId, customer }: Pick<Opened, 'linkId' | 'customer'>): Promise<Said[]> =>
  told(
    await db(customer)('house_word')
      .where({ link_id: linkId })
      .orderBy('at', 'desc')
      .limit(10)
      .select('id', 'at', 'word', 'settled_at'),
  )

/** Of a job, whatever link it came by, the newest first. */
export const saidOf = async ({ firmId }: Actor, jobId: string): Promise<Said[]> =>
  told(
    await db({ firmId })('house_word')
      .where({ firm_id: firmId, job_id: jobId })
      .orderBy('at', 'desc')
      .limit(100)
      .select('id', 'at', 'word', 'settled_at'),
  )

/** Keeps what was said; `enough` where the link has taken as much as it may. */
export async function hear(
  { linkId, jobId, customer }: Opened,
  word: HouseWord,
  now: Date,
): Promise<'kept' | 'enough'> {
  return transaction<'kept' | 'enough'>(
    customer,
    async trx => {
      await trx('customer_link').where({ id: linkId }).forUpdate().first('id')
      const [counted] = await trx('house_word').where({ link_id: linkId }).count({ count: '*' })
      if (Number(counted?.count ?? 0) >= mostWords) return 'enough'
      await trx('house_word').insert({
        id: randomUUID(),
        firm_id: customer.firmId,
        job_id: jobId,
        link_id: linkId,
        at: now,
        word: JSON.stringify(word),
      })
      return 'kept'
    },
    outcome => outcome === 'kept',
  )
}

/** Marks what was said as settled; false where there is no such word. */
export const settle = async ({ firmId }: Actor, jobId: string, id: string, now: Date): Promise<boolean> =>
  (await db({ firmId })('house_word')
    .where({ firm_id: firmId, job_id: jobId, id })
    .whereNull('settled_at')
    .update({ settled_at: now })) > 0
