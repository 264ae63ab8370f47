import type { Knex } from 'knex'

/** Photographs and files of a job, the customers' links; undo does not reach back across a change of format. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('photo', t => {
    t.uuid('firm_id').notNullable().references('firm.id')
    t.uuid('id').notNullable()
    t.uuid('job_id').notNullable().references('job.id')
    t.binary('picture').notNullable()
    t.binary('thumbnail').notNullable()
    t.timestamp('at', { useTz: true }).notNullable()
    t.primary(['firm_id', 'id'])
    t.index(['job_id'])
  })

  await db.schema.createTable('job_file', t => {
    t.uuid('firm_id').notNullable().references('firm.id')
    t.uuid('id').notNullable()
    t.uuid('job_id').notNullable().references('job.id')
    t.text('name').notNullable()
    t.text('kind').notNullable()
    t.binary('content').notNullable().comment('gzip')
    t.timestamp('at', { useTz: true }).notNullable()
    t.primary(['firm_id', 'id'])
    t.index(['job_id'])
  })

  await db.schema.createTable('customer_link', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('firm.id')
    t.uuid('job_id').notNullable().references('job.id')
    t.text('token_hash').notNullable().unique().comment('SHA-256 of the token; the token itself is not kept')
    t.uuid('person_id').notNullable().references('person.id')
    t.timestamp('created_at', { useTz: true }).notNullable()
    t.timestamp('expires_at', { useTz: true }).notNullable()
    t.timestamp('withdrawn_at', { useTz: true })
    t.timestamp('seen_at', { useTz: true })
    t.integer('uploads').notNullable().defaultTo(0)
    t.index(['job_id', 'created_at'])
  })

  // what was changed before has its patches in the shape of the old format
  await db('job').update({ head: null, redo_tip: null })
}
