import type { Knex } from 'knex'

/** Logins (the tables of the library that keeps them, in a schema of their own), people of firms, invitations, the record. */
export async function up(db: Knex): Promise<void> {
  await logins(db)

  await db.schema.alterTable('person', t => {
    t.uuid('login_id')
      .references('id')
      .inTable('login.user')
      .onDelete('set null')
      .comment('whose login this is; null: somebody of before, or a customer')
    t.timestamp('joined_at', { useTz: true }).notNullable().defaultTo(db.fn.now())
    t.timestamp('left_at', { useTz: true }).comment('who left stays in the record, and comes in no more')
    t.unique(['firm_id', 'login_id'])
    t.index(['login_id'])
  })
  await db.raw(`alter table person add constraint person_role
    check (role in ('owner', 'designer', 'technician', 'reader', 'customer'))`)
  await db.schema.alterTable('firm', t => {
    t.jsonb('settings').comment('the firm’s own ways; null: the usual ones')
    t.integer('settings_version').notNullable().defaultTo(0)
    t.binary('logo').comment('PNG, written anew from what was sent')
  })

  await db.schema.createTable('invitation', t => {
    t.uuid('id').primary()
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.text('email').notNullable().comment('in small letters')
    t.text('label').notNullable()
    t.text('role').notNullable().checkIn(['owner', 'designer', 'technician', 'reader'])
    t.text('token_hash').notNullable().unique().comment('SHA-256 of the token; the token itself is not kept')
    t.uuid('person_id').notNullable()
    t.timestamp('at', { useTz: true }).notNullable()
    t.timestamp('expires_at', { useTz: true }).notNullable()
    t.timestamp('accepted_at', { useTz: true })
    t.timestamp('withdrawn_at', { useTz: true })
    t.foreign(['firm_id', 'person_id']).references(['firm_id', 'id']).inTable('person')
    t.index(['firm_id', 'at'])
  })

  await db.schema.createTable('record_entry', t => {
    t.bigIncrements('id')
    t.uuid('firm_id').notNullable().references('id').inTable('firm').onDelete('cascade')
    t.timestamp('at', { useTz: true }).notNullable()
    t.uuid('person_id').comment('null: by a link')
    t.text('who').notNullable().comment('as they were called then')
    t.text('what').notNullable()
    t.jsonb('about').notNullable().defaultTo('{}')
    t.text('address').comment('where it came from')
    t.text('browser')
    t.index(['firm_id', 'id'])
  })
  // what is written down stays as it is: nobody changes it, and it goes with its firm alone
  await db.raw(`create function spillway_stays() returns trigger language plpgsql as $$
    begin
      if tg_op = 'DELETE' and not exists (select from firm where id = old.firm_id) then return old; end if;
      raise exception 'the record is only added to' using errcode = '42501';
    end $$`)
  await db.raw(`create trigger record_stays before update or delete on record_entry
    for each row execute function spillway_stays()`)

  for (const table of ['invitation', 'record_entry']) {
    await db.raw('alter table ?? enable row level security', [table])
    await db.raw(
      'create policy own_firm on ?? using (firm_id = spillway_firm()) with check (firm_id = spillway_firm())',
      [table],
    )
  }

  await db.raw(`create or replace function spillway_firm_behind(what text, key text) returns uuid
    language sql stable security definer set search_path = public, pg_temp
    return case what
      when 'customer_link' then (select firm_id from customer_link where token_hash = key)
      when 'estimate_version' then (select firm_id from estimate_version where token_hash = key)
      when 'invitation' then (select firm_id from invitation where token_hash = key)
      when 'design_search' then (select firm_id from design_search where id = key::uuid)
      when 'pack' then (select firm_id from pack where id = key::uuid)
      when 'slug' then (select id from firm where slug = key)
    end`)
  await db.raw(`create function spillway_firms_of(login uuid) returns setof uuid
    language sql stable security definer set search_path = public, pg_temp
    begin atomic
      select firm_id from person where login_id = login and left_at is null order by joined_at, firm_id;
    end`)
  await db.raw(`create function spillway_inviting(address text) returns setof uuid
    language sql stable security definer set search_path = public, pg_temp
    begin atomic
      select distinct firm_id from invitation
       where email = address and accepted_at is null and withdrawn_at is null and expires_at > now();
    end`)
}

/** As the library asks for them: accounts.test.ts fails where it asks for more. */
async function logins(db: Knex) {
  await db.raw('create schema login')
  const made = () => db.schema.withSchema('login')
  const id = (t: Knex.CreateTableBuilder) => t.uuid('id').primary().defaultTo(db.raw('gen_random_uuid()'))
  const moment = (t: Knex.CreateTableBuilder, name: string) =>
    t.timestamp(name, { useTz: true }).notNullable().defaultTo(db.fn.now())
  const ofUser = (t: Knex.CreateTableBuilder) =>
    t.uuid('user_id').notNullable().references('id').inTable('login.user').onDelete('cascade').index()
  await made().createTable('user', t => {
    id(t)
    t.text('name').notNullable()
    t.text('email').notNullable().unique()
    t.boolean('email_verified').notNullable()
    t.text('image')
    moment(t, 'created_at')
    moment(t, 'updated_at')
    t.boolean('two_factor_enabled')
  })
  await made().createTable('session', t => {
    id(t)
    t.timestamp('expires_at', { useTz: true }).notNullable()
    t.text('token').notNullable().unique()
    moment(t, 'created_at')
    moment(t, 'updated_at')
    t.text('ip_address')
    t.text('user_agent')
    ofUser(t)
    t.uuid('firm_id').comment('of several firms, the one that is worked in')
  })
  await made().createTable('account', t => {
    id(t)
    t.text('account_id').notNullable()
    t.text('provider_id').notNullable()
    ofUser(t)
    for (const name of ['access_token', 'refresh_token', 'id_token', 'scope', 'password']) t.text(name)
    t.timestamp('access_token_expires_at', { useTz: true })
    t.timestamp('refresh_token_expires_at', { useTz: true })
    moment(t, 'created_at')
    moment(t, 'updated_at')
  })
  await made().createTable('verification', t => {
    id(t)
    t.text('identifier').notNullable().index()
    t.text('value').notNullable()
    t.timestamp('expires_at', { useTz: true }).notNullable()
    moment(t, 'created_at')
    moment(t, 'updated_at')
  })
  await made().createTable('two_factor', t => {
    id(t)
    t.text('secret').notNullable().index()
    t.text('backup_codes').notNullable()
    ofUser(t)
    t.boolean('verified')
    t.integer('failed_verification_count')
    t.timestamp('locked_until', { useTz: true })
  })
  await made().createTable('passkey', t => {
    id(t)
    t.text('name')
    t.text('public_key').notNullable()
    ofUser(t)
    t.text('credential_id').notNullable().index()
    t.integer('counter').notNullable()
    t.text('device_type').notNullable()
    t.boolean('backed_up').notNullable()
    t.text('transports')
    t.timestamp('created_at', { useTz: true })
    t.text('aaguid')
  })
  // letters of a demo, which go nowhere
  await made().createTable('letter', t => {
    t.bigIncrements('id')
    moment(t, 'at')
    for (const name of ['to', 'subject', 'text']) t.text(name).notNullable()
  })
  // how often somebody tried something, counted by the limiter: lost in a crash, which only forgives
  await made().createTable('tried', t => {
    t.string('key', 255).primary()
    t.integer('points').notNullable().defaultTo(0)
    t.bigInteger('expire').index()
  })
  await db.raw('alter table login.tried set unlogged')
}
