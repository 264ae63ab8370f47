import knex, { type Knex } from 'knex'
import PostgreSql from 'knex/lib/dialects/postgres/index.js'
import { setting } from '../env'

/** Whose rows a query may see and write: PostgreSQL itself holds every row of another firm back (docs/decisions/0024). */
export interface OfFirm {
  firmId: string
}

/** The pools of this process; kept across hot reloads. */
interface Kept {
  app?: Knex
  unbound?: Knex
  owner?: Knex
  bound?: Map<string, Knex>
}
const kept: Kept = (globalThis as { spillway?: Kept }).spillway ?? {}
;(globalThis as { spillway?: Kept }).spillway = kept

/** Nobody waits longer for a lock, a statement or somebody who forgot a transaction, ms. */
const limits = { lock_timeout: 3000, statement_timeout: 15_000, idle_in_transaction_session_timeout: 15_000 }

interface Wire {
  query: (text: string, values: unknown[]) => Promise<unknown>
  spillwayFirm?: string
}

/** Tells each connection whose rows it may see before anything is asked on it; one that knows already is not told again. */
class BoundClient extends PostgreSql {
  firm = ''

  override async acquireConnection(): Promise<Wire> {
    const wire: Wire = await super.acquireConnection()
    if (wire.spillwayFirm === this.firm) return wire
    try {
      wire.spillwayFirm = undefined
      await wire.query(`select set_config('spillway.firm', $1, false)`, [this.firm])
      wire.spillwayFirm = this.firm
      return wire
    } catch (error) {
      await this.releaseConnection(wire)
      throw error
    }
  }
}

function pool(
  name: 'DATABASE_URL' | 'SPILLWAY_OWNER_URL',
  client: typeof Knex.Client | 'pg',
  max = 10,
): Knex {
  const connectionString = setting(name)
  if (!connectionString) throw new DatabaseAway(`${name} is not set: start with bin/start`)
  return knex({
    client,
    // instants are told in UTC, wherever the database stands
    connection: { connectionString, ...limits, options: '-c TimeZone=UTC' },
    pool: { min: 0, max, acquireTimeoutMillis: 4000, createTimeoutMillis: 3000 },
    acquireConnectionTimeout: 4000,
  })
}

/** More firms than this are not remembered at once: what is bound to a firm is made in microseconds. */
const mostBound = 2000

/** The database as one firm sees it: every query on it, and every transaction, reaches that firm's rows alone. */
export function db({ firmId }: OfFirm): Knex {
  kept.app ??= pool('DATABASE_URL', BoundClient)
  kept.bound ??= new Map()
  let bound = kept.bound.get(firmId)
  if (!bound) {
    bound = kept.app.withUserParams({})
    Object.assign(bound.client, { firm: firmId })
    if (kept.bound.size >= mostBound) kept.bound.clear()
    kept.bound.set(firmId, bound)
  }
  return bound
}

/** The database as nobody sees it: no firm's rows, only what belongs to no firm. */
export function unbound(): Knex {
  // connections of its own: what belongs to no firm does not take a firm’s from those who go on with it
  kept.unbound ??= pool('DATABASE_URL', 'pg', 4)
  return kept.unbound
}

/** The database as its owner sees it: for making, migrating and seeding it, and for tests. No server process has its address. */
export function ownerDb(): Knex {
  kept.owner ??= pool('SPILLWAY_OWNER_URL', 'pg')
  return kept.owner
}

export async function closeDb() {
  const pools = [kept.app, kept.unbound, kept.owner]
  kept.app = kept.unbound = kept.owner = kept.bound = undefined
  await Promise.all(pools.map(p => p?.destroy()))
}
/** The database cannot be reached just now; nothing was written. */
export class DatabaseAway extends Error {}

/** What stands beside the database, as photographs may, cannot be reached just now. */
export class PicturesAway extends Error {}

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
export function troubleOf(error: unknown): 'away' | 'pictures' | 'busy' | 'full' | null {
  if (error instanceof DatabaseAway) return 'away'
  if (error instanceof PicturesAway) return 'pictures'
  if (error instanceof Busy) return 'busy'
  if (!(error instanceof Error)) return null
  const code = codeOf(error)
  if (fullCodes.has(code) || /No space left on device/.test(error.message)) return 'full'
  if (busyCodes.has(code) || /Timeout acquiring a connection/.test(error.message)) return 'busy'
  if (awayCodes.has(code)) return 'away'
  if (error instanceof AggregateError) return troubleOf(error.errors[0])
  return /Connection terminated|Client has encountered a connection error/.test(error.message) ? 'away' : null
}
