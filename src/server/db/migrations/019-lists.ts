import type { Knex } from 'knex'

/**
 * Lists of firms with a hundred thousand jobs. All that a list is counted, sought and sorted by stands in one index, so that no job is
 * opened for it (docs/scale.md).
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`create index job_listed on job (firm_id, updated_at desc, id)
    include (archived_at, deleted_at, template, search_text, step_order, worst, hours_had)`)
  // titles are sorted as they are sought, in small letters
  await db.raw('drop index job_by_title')
  await db.raw('create index job_by_title on job (firm_id, (archived_at is null), search_text, id)')
  // what PostgreSQL may tell before it knows the firm is never a word of a text: with policies of rows nobody asks this index
  await db.raw('drop index job_search')
}
