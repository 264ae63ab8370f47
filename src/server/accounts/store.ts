import { CamelCasePlugin, Kysely, PostgresDialect } from 'kysely'
import { Pool } from 'pg'
import { needed } from '../env'

/** Where the library of logins keeps them: a pool of its own, on the schema `login`, which belongs to no firm. */
const kept: { pool?: Pool } = (globalThis as { spillwayLogins?: { pool?: Pool } }).spillwayLogins ?? {}
;(globalThis as { spillwayLogins?: { pool?: Pool } }).spillwayLogins = kept

export function logins(): Kysely<unknown> {
  kept.pool ??= new Pool({
    connectionString: needed('DATABASE_URL'),
    max: 4,
    connectionTimeoutMillis: 4000,
    statement_timeout: 15_000,
    idle_in_transaction_session_timeout: 15_000,
  }).on('error', () => {})
  return new Kysely({ dialect: new PostgresDialect({ pool: kept.pool }), plugins: [new CamelCasePlugin()] })
}

export async function closeLogins(): Promise<void> {
  const { pool } = kept
  kept.pool = undefined
  await pool?.end()
}
