import type { Knex } from 'knex'

/** A photograph may stand in a bucket beside the database, which then keeps its sum, its size and the small one of it. */
export async function up(db: Knex): Promise<void> {
  await db.raw('drop index photo_sizes')
  await db.raw('alter table photo drop column bytes')
  await db.schema.alterTable('photo', t => {
    t.setNullable('picture')
    t.text('picture_sha256').comment('of a picture that stands in the bucket, or is on its way there')
    t.integer('picture_bytes')
  })
  await db.raw(
    'alter table photo add constraint picture_is_somewhere check (picture is not null or picture_sha256 is not null)',
  )
  await db.raw(`alter table photo add column bytes bigint generated always as
    (coalesce(octet_length(picture), picture_bytes, 0) + octet_length(thumbnail)) stored`)
  await db.raw('create index photo_sizes on photo (firm_id, job_id) include (bytes)')
  await db.raw('create index photo_here on photo (firm_id, at) where picture is not null')

  // what no row names any more, until the bucket has let go of it; of no firm, for the firm may be gone too
  await db.schema.createTable('picture_gone', t => {
    t.uuid('firm_id').notNullable()
    t.uuid('id').notNullable()
    t.timestamp('at', { useTz: true }).notNullable().index()
    t.primary(['firm_id', 'id'])
  })
  await db.raw('alter table picture_gone enable row level security')
  await db.raw(`create function spillway_picture_goes() returns trigger
    language plpgsql security definer set search_path = public, pg_temp as $$
    begin
      insert into picture_gone values (old.firm_id, old.id, now())
        on conflict (firm_id, id) do update set at = excluded.at;
      return null;
    end $$`)
  await db.raw(
    `create trigger picture_goes after delete on photo for each row when (old.picture_sha256 is not null)
      execute function spillway_picture_goes()`,
  )
  // a photograph that came back (an archive taken in, a restored job) is not swept
  await db.raw(`create function spillway_pictures_gone(before timestamptz, many integer)
    returns table (firm uuid, photo uuid)
    language sql stable security definer set search_path = public, pg_temp
    begin atomic
      select g.firm_id, g.id from picture_gone g where g.at < before
         and not exists (select from photo p where p.firm_id = g.firm_id and p.id = g.id)
       order by g.at limit many;
    end`)
  await db.raw(`create function spillway_picture_swept(firm uuid, photo uuid) returns void
    language sql security definer set search_path = public, pg_temp
    begin atomic
      delete from picture_gone where firm_id = firm and id = photo;
    end`)
}
