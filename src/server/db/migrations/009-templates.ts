import type { Knex } from 'knex'

/** Jobs that a firm keeps to start others from: not among the jobs at hand. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('job', t => {
    t.boolean('template').notNullable().defaultTo(false)
  })
  await db.raw('create index job_template on job (firm_id, title) where template')
}
