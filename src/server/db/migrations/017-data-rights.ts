import type { Knex } from 'knex'

/** Days between the word and the deed: until then it is taken back by one press. */
const graceDays = 30

/** What is deleted is out of sight at once, comes back within the grace, and is gone after it, with a line that says so. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('person', t => {
    t.text('email').comment('by which somebody who comes with an archive is known again')
  })
  await db.raw('update person p set email = u.email from login.user u where u.id = p.login_id')
  for (const table of ['job', 'firm'])
    await db.schema.alterTable(table, t => {
      t.timestamp('deleted_at', { useTz: true })
    })
  await db.raw('create index job_deleted on job (firm_id, deleted_at) where deleted_at is not null')
  await db.raw('alter table login.user add column deleted_at timestamptz')

  // a deleted job is not there for anybody but who asks for what was deleted
  await db.raw('drop policy own_firm on job')
  await db.raw(`create policy own_firm on job
    using (firm_id = spillway_firm()
      and (deleted_at is null or coalesce(current_setting('spillway.deleted', true), '') = 'yes'))
    with check (firm_id = spillway_firm())`)

  await db.schema.createTable('erased', t => {
    t.bigIncrements('id')
    t.timestamp('at', { useTz: true }).notNullable().defaultTo(db.fn.now())
    t.text('what').notNullable().comment('job, person or firm')
    t.text('sha256')
      .notNullable()
      .comment('of its id: who has it can prove that it is gone; nobody else learns what it was')
    t.jsonb('counts').notNullable()
  })

  // the firms of somebody, without those that are deleted
  await db.raw(`create or replace function spillway_firms_of(login uuid) returns setof uuid
    language sql stable security definer set search_path = public, pg_temp
    begin atomic
      select p.firm_id from person p join firm f on f.id = p.firm_id
       where p.login_id = login and p.left_at is null and f.deleted_at is null order by p.joined_at, p.firm_id;
    end`)
  // and those that are, of which they are an owner: to take it back
  await db.raw(`create function spillway_deleted_firms_of(login uuid) returns table (firm uuid, name text, deleted_at timestamptz)
    language sql stable security definer set search_path = public, pg_temp
    begin atomic
      select f.id, f.name, f.deleted_at from person p join firm f on f.id = p.firm_id
       where p.login_id = login and p.left_at is null and p.role = 'owner' and f.deleted_at is not null;
    end`)
  await db.raw(`create function spillway_take_back_firm(login uuid, which uuid) returns boolean
    language sql security definer set search_path = public, pg_temp
    as $$
      with back as (
        update firm set deleted_at = null where id = which and deleted_at is not null and exists (
          select from person where firm_id = which and login_id = login and role = 'owner' and left_at is null)
        returning id)
      select exists (select from back)
    $$`)

  // no link leads into a firm that is deleted
  await db.raw(`create or replace function spillway_firm_behind(what text, key text) returns uuid
    language sql stable security definer set search_path = public, pg_temp
    return (select f.id from firm f where f.deleted_at is null and f.id = case what
      when 'customer_link' then (select firm_id from customer_link where token_hash = key)
      when 'estimate_version' then (select firm_id from estimate_version where token_hash = key)
      when 'invitation' then (select firm_id from invitation where token_hash = key)
      when 'design_search' then (select firm_id from design_search where id = key::uuid)
      when 'pack' then (select firm_id from pack where id = key::uuid)
      when 'slug' then (select id from firm where slug = key)
    end)`)

  // the deed, once the grace is over: of the house itself, whoever calls it
  await db.raw(`create function spillway_erase() returns table (what text, how_many bigint)
    language plpgsql security definer set search_path = public, pg_temp as $$
    declare
      over timestamptz := now() - interval '${graceDays} days';
      gone record;
      counted bigint := 0;
    begin
      for gone in select id, firm_id from job where deleted_at < over loop
        insert into erased (what, sha256, counts) select 'job', encode(sha256(gone.id::text::bytea), 'hex'),
          jsonb_build_object('changes', (select count(*) from job_change where job_id = gone.id),
            'photographs', (select count(*) from photo where job_id = gone.id));
        delete from job where id = gone.id;
        counted := counted + 1;
      end loop;
      what := 'job'; how_many := counted; return next;
      counted := 0;
      for gone in select id from firm where deleted_at < over loop
        insert into erased (what, sha256, counts) select 'firm', encode(sha256(gone.id::text::bytea), 'hex'),
          jsonb_build_object('jobs', (select count(*) from job where firm_id = gone.id),
            'people', (select count(*) from person where firm_id = gone.id));
        delete from job where firm_id = gone.id;
        delete from invitation where firm_id = gone.id;
        delete from equipment where firm_id = gone.id;
        delete from typical_load where firm_id = gone.id;
        delete from person where firm_id = gone.id;
        delete from firm where id = gone.id;
        counted := counted + 1;
      end loop;
      what := 'firm'; how_many := counted; return next;
      counted := 0;
      for gone in select id from login.user where deleted_at < over loop
        insert into erased (what, sha256, counts) values ('person', encode(sha256(gone.id::text::bytea), 'hex'),
          jsonb_build_object('firms', (select count(*) from person where login_id = gone.id)));
        -- what they did stays, under no name of theirs
        update person set label = 'Former ' || left(md5(id::text), 6), email = null, left_at = coalesce(left_at, now())
         where login_id = gone.id;
        delete from login.user where id = gone.id;
        counted := counted + 1;
      end loop;
      what := 'person'; how_many := counted; return next;
    end $$`)
}
