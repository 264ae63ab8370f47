import type { Knex } from 'knex'

/** Equipment can be taken out of use; its versions stay for the jobs that were designed with them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('equipment', t => {
    t.boolean('retired').notNullable().defaultTo(false)
  })
}
