import type { Knex } from 'knex'

/** A firm's own hours by task; and what a battery is charged with at most under its full name. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('firm', t => {
    t.jsonb('labour').comment('hours by task; null: ours')
    t.integer('labour_version').notNullable().defaultTo(0)
  })
  await db.raw(
    `update equipment set facts = (facts - 'chargeA') || jsonb_build_object('maxChargeA', facts -> 'chargeA')
      where kind = 'bank' and facts -> 'chargeA' is not null`,
  )
}
