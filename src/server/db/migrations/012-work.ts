import type { Knex } from 'knex'

/** Jobs in which the field wrote something down, the newest first: what the firm’s minutes are learned from. */
export async function up(db: Knex): Promise<void> {
  await db.raw(
    `create index job_worked on job (firm_id, updated_at desc) where jsonb_exists(document, 'work')`,
  )
}
