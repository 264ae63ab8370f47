import knex, { type Knex } from 'knex'

/** The one pool of this process; kept across hot reloads. */
const kept: { db?: Knex } = (globalThis as { spillway?: { db?: Knex } }).spillway ?? {}
;(globalThis as { spillway?: { db?: Knex } }).spillway = kept

export function db(): Knex {
  const connection = process.env.DATABASE_URL
  if (!connection) throw new DatabaseAway('DATABASE_URL is not set: start with bin/start')
  kept.db ??= knex({
    client: 'pg',
    connection,
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
  '53300',
])

/** Whether an error means that the server is down, starting or shutting down, rather than that the query is wrong. */
export function isAway(error: unknown): boolean {
  if (error instanceof DatabaseAway) return true
  if (!(error instanceof Error)) return false
  const code = 'code' in error ? String(error.code) : ''
  if (awayCodes.has(code)) return true
  if (error instanceof AggregateError) return error.errors.some(isAway)
  return /Connection terminated|Timeout acquiring a connection|Client has encountered a connection error/.test(
    error.message,
  )
}
