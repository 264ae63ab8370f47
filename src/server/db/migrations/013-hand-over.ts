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
}
