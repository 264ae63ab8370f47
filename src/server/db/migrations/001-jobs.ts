import type { Knex } from 'knex'

/** Firms and their people, the catalogue, the jobs and every change to them. */
export async function up(db: Knex): Promise<void> {
  await db.raw('create extension if not exists pg_trgm')
  await db.raw('create extension if not exists btree_gin')

  await db.schema.createTable('firm', t => {
    t.uuid('id').primary()
    t.text('slug').notNullable().unique()
    t.text('name').notNullable()
  })

  await db.schema.createTable('person', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('firm.id')
    t.text('label').notNullable()
    t.text('role').notNullable()
    t.unique(['firm_id', 'label'])
  })

  await db.schema.createTable('equipment', t => {
    t.uuid('firm_id').notNullable().references('firm.id')
    t.text('id').notNullable()
    t.integer('version').notNullable()
    t.text('kind').notNullable()
    t.text('name').notNullable()
    t.jsonb('facts').notNullable()
    t.primary(['firm_id', 'id', 'version'])
    t.index(['firm_id', 'kind', 'name'])
  })

  await db.schema.createTable('job', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('firm.id')
    t.jsonb('document').notNullable()
    t.integer('revision').notNullable()
    t.integer('head').comment('the change that undo takes back; null when there is none')
    t.integer('redo_tip').comment('the last change that redo brings back; null when there is none')
    t.text('title').notNullable()
    t.text('place').notNullable()
    t.text('step').notNullable()
    t.smallint('step_order').notNullable()
    t.smallint('worst').notNullable().comment('0 stop, 1 fix, 2 mind, 3 ask, 4 nothing found')
    t.text('worst_sentence')
    t.double('hours_needed').notNullable()
    t.double('hours_had')
    t.text('search_text').notNullable()
    t.timestamp('created_at').notNullable()
    t.timestamp('updated_at').notNullable()
    t.timestamp('archived_at')
  })
  for (const [name, column] of [
    ['updated', 'updated_at desc'],
    ['title', 'title'],
    ['step', 'step_order'],
    ['worst', 'worst'],
    ['hours', 'hours_had'],
  ])
    await db.raw(`create index job_by_${name} on job (firm_id, (archived_at is null), ${column}, id)`)
  await db.raw('create index job_search on job using gin (firm_id, search_text gin_trgm_ops)')

  await db.schema.createTable('job_change', t => {
    t.uuid('job_id').notNullable().references('job.id').onDelete('CASCADE')
    t.uuid('firm_id').notNullable().references('firm.id')
    t.integer('revision').notNullable()
    t.uuid('change_id').notNullable().comment('made by the screen: a change sent twice is written once')
    t.text('kind').notNullable().checkIn(['create', 'do', 'undo', 'redo'])
    t.integer('parent').comment('for do: the change that stood before it')
    t.integer('of_revision').comment('for undo and redo: the change meant')
    t.jsonb('operation')
    t.jsonb('forward')
    t.jsonb('backward')
    t.text('sentence').notNullable()
    t.uuid('person_id').notNullable().references('person.id')
    t.timestamp('at').notNullable()
    t.primary(['job_id', 'revision'])
    t.unique(['job_id', 'change_id'])
  })
}
