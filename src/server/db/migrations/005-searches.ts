import type { Knex } from 'knex'

/** Searches for designs that run in the background: what was asked, and the answer of each piece of work. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('design_search', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.uuid('job_id').notNullable().references('id').inTable('job').onDelete('cascade')
    t.jsonb('job').notNullable().comment('as it was when the search began')
    t.jsonb('catalogue').notNullable().comment('as it was when the search began')
    t.jsonb('wishes').notNullable()
    t.integer('seed').notNullable()
    t.integer('draws').notNullable()
    t.text('state').notNullable().comment('running, done, cancelled or failed')
    t.double('done').notNullable().defaultTo(0)
    t.text('what').notNullable().defaultTo('Waiting for a worker')
    t.jsonb('result')
    t.text('sentence')
    t.text('trouble')
    t.timestamp('created_at').notNullable()
    t.index(['firm_id', 'job_id', 'created_at'], 'design_search_by_job')
  })
  await db.schema.createTable('design_search_task', t => {
    t.uuid('search_id').notNullable().references('id').inTable('design_search').onDelete('cascade')
    t.text('key').notNullable().comment('round and number of the piece of work: the same whoever asks for it')
    t.jsonb('answer').notNullable()
    t.primary(['search_id', 'key'])
  })
}
