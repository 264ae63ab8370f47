import type { Knex } from 'knex'

/** Tables whose rows carry the firm that they belong to. */
const ofFirm = [
  'person',
  'equipment',
  'equipment_stock',
  'job',
  'job_change',
  'photo',
  'job_file',
  'customer_link',
  'interval_series',
  'typical_load',
  'design_search',
  'part_price',
  'part_reserved',
  'estimate',
  'estimate_version',
  'estimate_question',
  'house_word',
  'pack',
]

/** What hangs on a job, and goes with it. */
const ofJob = [
  'job_change',
  'photo',
  'job_file',
  'customer_link',
  'interval_series',
  'design_search',
  'part_reserved',
  'estimate',
  'house_word',
  'pack',
]
/** What somebody of the firm did. */
const ofPerson = ['job_change', 'customer_link', 'estimate_version', 'pack']

/** PostgreSQL itself holds back the rows of every firm but the one that a connection is bound to. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`create function spillway_firm() returns uuid language sql stable parallel safe
    return nullif(current_setting('spillway.firm', true), '')::uuid`)
  const held = async (table: string, whose: string) => {
    await db.raw('alter table ?? enable row level security', [table])
    await db.raw(`create policy own_firm on ?? using (${whose}) with check (${whose})`, [table])
  }
  for (const table of ofFirm) await held(table, 'firm_id = spillway_firm()')
  await held('firm', 'id = spillway_firm()')
  // the policy of the search itself stands in this question too
  await held('design_search_task', 'exists (select from design_search s where s.id = search_id)')

  // nothing of one firm hangs on a job, or on somebody, of another
  for (const [parent, column, children, on] of [
    ['job', 'job_id', ofJob, 'cascade'],
    ['person', 'person_id', ofPerson, 'restrict'],
  ] as const) {
    await db.raw('alter table ?? add constraint ?? unique (firm_id, id)', [parent, `${parent}_of_firm`])
    for (const table of children) {
      await db.raw('alter table ?? drop constraint ??', [table, `${table}_${column}_foreign`])
      await db.raw(
        `alter table ?? add constraint ?? foreign key (firm_id, ??) references ?? (firm_id, id) on delete ${on}`,
        [table, `${table}_${column}_foreign`, column, parent],
      )
    }
  }

  // what comes before anybody knows the firm: the firm alone is told, of one whose secret’s hash or id is given
  await db.raw(`create function spillway_firm_behind(what text, key text) returns uuid
    language sql stable security definer set search_path = public, pg_temp
    return case what
      when 'customer_link' then (select firm_id from customer_link where token_hash = key)
      when 'estimate_version' then (select firm_id from estimate_version where token_hash = key)
      when 'design_search' then (select firm_id from design_search where id = key::uuid)
      when 'pack' then (select firm_id from pack where id = key::uuid)
      when 'slug' then (select id from firm where slug = key)
    end`)
  await db.raw(`create function spillway_firms() returns setof uuid
    language sql stable security definer set search_path = public, pg_temp
    begin atomic select id from firm order by id; end`)
}
