import type { Knex } from 'knex'

/** What a thousand firms and ten million changes cost, and need not (docs/scale.md). */
export async function up(db: Knex): Promise<void> {
  // a function in a policy is read anew for every statement: said in full, it is not
  const firm = `(nullif(current_setting('spillway.firm', true), ''))::uuid`
  const found: { rows: { table: string; name: string; using: string | null; check: string | null }[] } =
    await db.raw(
      `select tablename as table, policyname as name, qual as using, with_check as check from pg_policies
        where schemaname = 'public' and concat(qual, with_check) like '%spillway_firm()%' order by 1, 2`,
    )
  const inFull = (said: string | null) => said?.replaceAll('spillway_firm()', firm)
  for (const { table, name, using, check } of found.rows)
    await db.raw(
      `alter policy ?? on ?? ${using ? `using (${inFull(using)})` : ''} ${check ? `with check (${inFull(check)})` : ''}`,
      [name, table],
    )
  // pages that an index alone may answer for are looked through soon after a twentieth of them changed, not a fifth
  await db.raw(
    'alter table job set (autovacuum_vacuum_scale_factor = 0.05, autovacuum_vacuum_insert_scale_factor = 0.05)',
  )
  // the only jobs that have steps to pack away
  await db.raw('create index job_long on job (firm_id, id) where revision > 200')
}
