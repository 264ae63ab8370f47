import type { Knex } from 'knex'

/** The link to a house’s own page, and what is said by it. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('customer_link', t => {
    t.text('kind')
      .notNullable()
      .defaultTo('ask')
      .comment('ask: what is asked of the customer; house: the page of the house')
    t.timestamp('expires_at', { useTz: true })
      .nullable()
      .alter()
      .comment('null: it lasts until it is withdrawn')
  })
  await db.schema.alterTable('job', t => {
    t.text('due_on').comment('the first day on which something of it is due; null where nothing is')
  })
  await db.raw(
    'create index job_due on job (firm_id, due_on, id) where due_on is not null and archived_at is null',
  )
  await db.schema.createTable('house_word', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.uuid('job_id').notNullable().references('id').inTable('job').onDelete('cascade')
    t.uuid('link_id').notNullable().references('id').inTable('customer_link').onDelete('cascade')
    t.timestamp('at', { useTz: true }).notNullable()
    t.jsonb('word').notNullable().comment('a question, or an outage lived through')
    t.timestamp('settled_at', { useTz: true })
    t.index(['firm_id', 'job_id', 'at'])
    t.index(['link_id', 'at'])
  })
  await db.schema.createTable('pack', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.uuid('job_id').notNullable().references('id').inTable('job').onDelete('cascade')
    t.integer('n').notNullable().comment('of the job, from 1')
    t.uuid('person_id').notNullable().references('id').inTable('person')
    t.timestamp('asked_at', { useTz: true }).notNullable()
    t.text('state').notNullable().checkIn(['making', 'made', 'failed'])
    t.float('progress').notNullable().defaultTo(0)
    t.text('trouble')
    t.jsonb('job').comment('as it stood when it was asked for; dropped once it is made')
    t.integer('revision').notNullable()
    t.text('document').comment('frozen: never written again')
    t.text('sha256').comment('of the document')
    t.binary('pdf')
    t.text('pdf_sha256')
    t.timestamp('made_at', { useTz: true })
    t.jsonb('signatures').notNullable().defaultTo('[]')
    t.unique(['job_id', 'n'])
    t.index(['firm_id', 'job_id'])
  })
}
