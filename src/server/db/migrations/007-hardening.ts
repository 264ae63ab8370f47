import type { Knex } from 'knex'

/** Counts and sizes that quotas are held against, an order of searches that no clock decides, and what the house remembers of itself. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('setting', t => {
    t.text('key').primary()
    t.jsonb('value').notNullable()
  })
  await db.schema.alterTable('firm', t => {
    t.text('zone')
      .notNullable()
      .defaultTo('America/New_York')
      .comment('IANA name; the firm’s day is counted in it')
  })
  // demo data that stand whole already are not written again
  await db.raw(
    `insert into setting (key, value) select 'demo', '"whole"' from firm
      where slug = 'headwater' and (select count(*) from job where firm_id = firm.id) >= 6`,
  )

  await db.schema.alterTable('customer_link', t => {
    t.integer('answers').notNullable().defaultTo(0)
    t.bigInteger('bytes').notNullable().defaultTo(0)
  })
  for (const [table, size] of [
    ['photo', 'octet_length(picture) + octet_length(thumbnail)'],
    ['job_file', 'octet_length(content)'],
    ['interval_series', 'octet_length(content)'],
  ] as const) {
    await db.raw(`alter table ${table} add column bytes bigint generated always as (${size}) stored`)
    await db.raw(`create index ${table}_sizes on ${table} (firm_id, job_id) include (bytes)`)
  }

  await db.raw('alter table design_search add column seq bigserial')
  await db.raw('drop index design_search_by_job')
  await db.raw('create index design_search_by_job on design_search (firm_id, job_id, seq desc)')
}
