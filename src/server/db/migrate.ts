import type { Knex } from 'knex'
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

/** Brings the database up to date; the names of the migrations that ran. */
export async function migrate(db: Knex): Promise<string[]> {
  const [, names] = await db.migrate.latest({ migrationSource: source })
  return names
}
