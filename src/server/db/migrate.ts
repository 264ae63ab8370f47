import type { Knex } from 'knex'
import { ownerDb } from './connection'
import { up as jobs } from './migrations/001-jobs'
import { up as survey } from './migrations/002-survey'
import { up as loads } from './migrations/003-loads'
import { up as equipment } from './migrations/004-equipment'
import { up as searches } from './migrations/005-searches'
import { up as stock } from './migrations/006-stock'
import { up as hardening } from './migrations/007-hardening'
import { up as judgement } from './migrations/008-judgement'
import { up as templates } from './migrations/009-templates'
import { up as parts } from './migrations/010-parts'
import { up as estimates } from './migrations/011-estimates'
import { up as work } from './migrations/012-work'
import { up as handOver } from './migrations/013-hand-over'
import { up as tenancy } from './migrations/014-tenancy'
import { up as people } from './migrations/015-people'
import { up as history } from './migrations/016-history'
import { up as dataRights } from './migrations/017-data-rights'
import { up as pictures } from './migrations/018-pictures'
import { up as lists } from './migrations/019-lists'
import { up as scale } from './migrations/020-scale'

/** Forward only, in this order. */
const migrations: Record<string, (db: Knex) => Promise<void>> = {
  '001-jobs': jobs,
  '002-survey': survey,
  '003-loads': loads,
  '004-equipment': equipment,
  '005-searches': searches,
  '006-stock': stock,
  '007-hardening': hardening,
  '008-judgement': judgement,
  '009-templates': templates,
  '010-parts': parts,
  '011-estimates': estimates,
  '012-work': work,
  '013-hand-over': handOver,
  '014-tenancy': tenancy,
  '015-people': people,
  '016-history': history,
  '017-data-rights': dataRights,
  '018-pictures': pictures,
  '019-lists': lists,
  '020-scale': scale,
}

const source: Knex.MigrationSource<string> = {
  getMigrations: async () => Object.keys(migrations),
  getMigrationName: name => name,
  getMigration: async name => {
    const migration = migrations[name]
    if (!migration) throw new Error(`no migration ${name}`)
    const up = async (trx: Knex) => {
      // a large table may take its time
      await trx.raw('set local statement_timeout = 0')
      await migration(trx)
    }
    return { up, down: async () => Promise.reject(new Error('migrations only go forward')) }
  },
}

/** One number for all who prepare this database. */
const lockNumber = 7_450_024

/** Does something to the database while nobody else does; who comes meanwhile waits. As its owner. */
export async function alone<T>(work: () => Promise<T>): Promise<T> {
  const { client } = ownerDb()
  const held = await client.acquireConnection()
  try {
    await held.query('set statement_timeout = 0; set lock_timeout = 0')
    await held.query('select pg_advisory_lock($1)', [lockNumber])
    try {
      return await work()
    } finally {
      await held.query('select pg_advisory_unlock($1)', [lockNumber])
    }
  } finally {
    // with its limits changed it serves nobody else
    await client.destroyRawConnection(held)
    await client.releaseConnection(held)
  }
}

/**
 * Brings the database up to date: the names of the migrations that ran, and of those that a newer release ran, which this one does not
 * know. Migrations only add: it serves beside them.
 */
export async function migrate(db: Knex): Promise<{ ran: string[]; newer: string[] }> {
  // a lock that a killed migration left: whoever comes here holds the one that counts
  await db.migrate.forceFreeMigrationsLock({ migrationSource: source })
  const [, ran] = await db.migrate.latest({ migrationSource: source, disableMigrationsListValidation: true })
  const all: { name: string }[] = await db('knex_migrations').orderBy('id').select('name')
  return { ran, newer: all.map(m => m.name).filter(name => !(name in migrations)) }
}
