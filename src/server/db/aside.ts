import knex from 'knex'
import { needed } from '../env'

/** Of the databases that were set aside the last two are kept. */
const asidesKept = 2

/**
 * Makes the database that SPILLWAY_OWNER_URL names where there is none. With `fresh` one that is there is set aside under another
 * name first, never removed; answers that name.
 */
export async function needDatabase(fresh: boolean, now: Date): Promise<{ aside: string | null }> {
  const url = new URL(needed('SPILLWAY_OWNER_URL'))
  const name = url.pathname.slice(1)
  url.pathname = '/postgres'
  const admin = knex({ client: 'pg', connection: url.toString(), pool: { min: 0, max: 1 } })
  try {
    const found: { datname: string }[] = await admin('pg_database')
      .where('datname', name)
      .orWhereLike('datname', `${name}_aside_%`)
      .orderBy('datname', 'desc')
      .select('datname')
    const there = found.some(f => f.datname === name)
    if (there && !fresh) return { aside: null }
    let aside: string | null = null
    if (there) {
      aside = `${name}_aside_${now.toISOString().replace(/\D/g, '').slice(0, 14)}`
      await admin.raw('select pg_terminate_backend(pid) from pg_stat_activity where datname = ?', [name])
      await admin.raw('alter database ?? rename to ??', [name, aside])
    }
    await admin.raw('create database ??', [name])
    const asides = [...(aside ? [aside] : []), ...found.map(f => f.datname).filter(d => d !== name)]
    for (const old of asides.slice(asidesKept)) await admin.raw('drop database ??', [old])
    return { aside }
  } finally {
    await admin.destroy()
  }
}
