import knex, { type Knex } from 'knex'
import { setting } from '../env'

/** The one pool of this process; kept across hot reloads. */
const kept: { db?: Knex } = (globalThis as { spillway?: { db?: Knex } }).spillway ?? {}
;(globalThis as { spillway?: { db?: Knex } }).spillway = kept

/** Nobody waits longer for a lock, a statement or somebody who forgot a transaction, ms. */
const limits = { lock_timeout: 3000, statement_timeout: 15_000, idle_in_transaction_session_timeout: 15_000 }

export function db(): Knex {
  const connectionString = setting('DATABASE_URL')
  if (!connectionString) throw new DatabaseAway('DATABASE_URL is not set: start with bin/start')
  kept.db ??= knex({
    client: 'pg',
    connection: { connectionString, ...limits },
    pool: { min: 0, max: 10, acquireTimeoutMillis: 4000, createTimeoutMillis: 3000 },
    acquireConnectionTimeout: 4000,
  })
  return kept.db
}

export async function closeDb() {
  await kept.db?.destroy()
  kept.db = undefined
}

/** The database cannot be reached just now; nothing was written. */
export class DatabaseAway extends Error {}

/** Too much is asked at once, or somebody holds what is asked for; nothing was written, and trying again helps. */
export class Busy extends Error {}

const awayCodes = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
])
// lock not to be had, statement or waiting too long, deadlock, not serializable, too many connections
const busyCodes = new Set(['55P03', '57014', '25P03', '40P01', '40001', '53300'])
const fullCodes = new Set(['53100', 'ENOSPC', 'EDQUOT'])

const codeOf = (error: unknown): string =>
  error instanceof Error && 'code' in error ? String(error.code) : ''

/** What keeps the database from answering: away, busy or full; null where the query itself is wrong. */
export function troubleOf(error: unknown): 'away' | 'busy' | 'full' | null {
  if (error instanceof DatabaseAway) return 'away'
  if (error instanceof Busy) return 'busy'
  if (!(error instanceof Error)) return null
  const code = codeOf(error)
  if (fullCodes.has(code) || /No space left on device/.test(error.message)) return 'full'
  if (busyCodes.has(code) || /Timeout acquiring a connection/.test(error.message)) return 'busy'
  if (awayCodes.has(code)) return 'away'
  if (error instanceof AggregateError) return troubleOf(error.errors[0])
  return /Connection terminated|Client has encountered a connection error/.test(error.message) ? 'away' : null
}
