import type { Knex } from 'knex'
import { db, type OfFirm } from './connection'

/** Carries an outcome out of a transaction that does not hold. */
class RolledBack<T> extends Error {
  constructor(readonly outcome: T) {
    super('rolled back')
  }
}

/**
 * A transaction of one firm that holds only where `holds` says so of its outcome: any other outcome is answered all the same, and nothing
 * that was written on the way to it stays. The one way to begin a transaction: an early return can then leave nothing behind.
 */
export async function transaction<T>(
  firm: OfFirm,
  work: (trx: Knex.Transaction) => Promise<T>,
  holds: (outcome: T) => boolean,
): Promise<T> {
  try {
    return await db(firm).transaction(async trx => {
      const outcome = await work(trx)
      if (!holds(outcome)) throw new RolledBack(outcome)
      return outcome
    })
  } catch (error) {
    if (error instanceof RolledBack) return error.outcome
    throw error
  }
}

/** For work that always holds when it ends: what is refused there is thrown. */
export const always = () => true
