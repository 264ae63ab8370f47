import type { Knex } from 'knex'

/** What the firm has in stock, apart from the catalogue: a count changes daily and is no new version of an item. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('equipment_stock', t => {
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.text('key')
      .notNullable()
      .comment('id of the item, or of a station with /expansion for its expansion units')
    t.integer('count').notNullable()
    t.primary(['firm_id', 'key'])
  })
  await db.schema.alterTable('design_search', t => {
    t.jsonb('stock').notNullable().defaultTo('{}').comment('as it was when the search began')
  })
}
