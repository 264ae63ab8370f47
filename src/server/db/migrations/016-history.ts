import type { Knex } from 'knex'

/** A job as it stood at some of its revisions: what is between is replayed from there. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('job_snapshot', t => {
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.uuid('job_id').notNullable()
    t.integer('revision').notNullable()
    t.jsonb('document').notNullable()
    t.primary(['job_id', 'revision'])
    t.foreign(['firm_id', 'job_id']).references(['firm_id', 'id']).inTable('job').onDelete('cascade')
  })
  await db.raw('alter table job_snapshot enable row level security')
  await db.raw(
    'create policy own_firm on job_snapshot using (firm_id = spillway_firm()) with check (firm_id = spillway_firm())',
  )
  // what was written before cannot be replayed from its beginning: it is looked back into from here on
  await db.raw(
    'insert into job_snapshot (firm_id, job_id, revision, document) select firm_id, id, revision, document from job',
  )
}
