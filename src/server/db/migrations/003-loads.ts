import type { Knex } from 'knex'

/** Intervals of the utility's data beside the job that they belong to, and the firm's own typical loads. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('interval_series', t => {
    t.uuid('firm_id').notNullable().references('firm.id')
    t.uuid('id').notNullable()
    t.uuid('job_id').notNullable().references('job.id')
    t.text('name').notNullable()
    t.jsonb('about').notNullable().comment('meters with their sums, and the warnings of reading')
    t.binary('content').notNullable().comment('gzip of the intervals')
    t.timestamp('at', { useTz: true }).notNullable()
    t.primary(['firm_id', 'id'])
    t.index(['job_id', 'at'])
  })

  await db.schema.createTable('typical_load', t => {
    t.uuid('firm_id').notNullable().references('firm.id')
    t.text('id').notNullable()
    t.jsonb('facts').notNullable()
    t.integer('version').notNullable().defaultTo(1)
    t.text('by').notNullable()
    t.timestamp('at', { useTz: true }).notNullable()
    t.primary(['firm_id', 'id'])
  })
}
