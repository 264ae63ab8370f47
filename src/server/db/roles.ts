import { needed } from '../env'
import { ownerDb } from './connection'

/**
 * The role that the servers come as: it reads and writes rows, owns nothing, changes no table and passes no policy. Made where
 * it is missing, and given anew what earlier versions of the house did not have. As the owner, after migrations and queues.
 */
export async function needAppRole(): Promise<void> {
  const { username: role, password } = new URL(needed('DATABASE_URL'))
  const db = ownerDb()
  const found = await db('pg_roles').where({ rolname: role }).first('rolname')
  // a name cannot be bound to a statement of this kind: knex quotes it
  if (!found) await db.raw('create role ?? nosuperuser nocreatedb nocreaterole nobypassrls', [role])
  const secret: { rows: { said: string }[] } = await db.raw(
    `select format('alter role %I login password %L', ?::text, ?::text) as said`,
    [role, decodeURIComponent(password)],
  )
  await db.raw(secret.rows[0]?.said ?? '')
  for (const schema of ['public', 'pgboss', 'login']) {
    await db.raw('grant usage on schema ?? to ??', [schema, role])
    await db.raw('grant select, insert, update, delete on all tables in schema ?? to ??', [schema, role])
    await db.raw('grant usage on all sequences in schema ?? to ??', [schema, role])
    await db.raw('grant execute on all functions in schema ?? to ??', [schema, role])
  }
  // the record of migrations is the owner’s
  await db.raw('revoke all on knex_migrations, knex_migrations_lock from ??', [role])
  // the record is only added to
  await db.raw('revoke update, delete on record_entry from ??', [role])
}
