import type { Knex } from 'knex'

/** The firm's price book, what of its stock is kept for which job, and its minutes by kind of work. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('part_price', t => {
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.text('part').notNullable()
    t.double('quantity').notNullable().comment('how many, or how many ft, are in one put-up')
    t.text('supplier').notNullable().defaultTo('')
    t.text('name').notNullable().defaultTo('')
    t.double('price_usd').comment('null: asked for')
    t.specificType('substitutes', 'text[]').notNullable().defaultTo('{}')
    t.text('priced_on').notNullable().comment('YYYY-MM-DD, a day of the firm')
    t.primary(['firm_id', 'part', 'quantity', 'supplier'])
  })
  await db.schema.createTable('part_reserved', t => {
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.uuid('job_id').notNullable().references('id').inTable('job').onDelete('cascade')
    t.text('key').notNullable()
    t.double('count').notNullable()
    t.primary(['job_id', 'key'])
    t.index(['firm_id', 'key'])
  })
  await db.schema.alterTable('firm', t => {
    t.jsonb('minutes').comment('by kind of work; null: the usual ones')
    t.jsonb('habits').comment('how the firm likes to wire, for new jobs; null: the usual way')
    t.integer('minutes_version').notNullable().defaultTo(0)
  })
}
