import type { Knex } from 'knex'
import type { SignedIn } from '../accounts/auth'
import { db, unbound } from '../db/connection'
import { transaction } from '../db/transaction'
import { hasOwnerBeside } from './firms'
import { note } from './record'
import { firmsOf, memberOf } from './repository'
import type { Actor } from './types'

/** Days in which what was deleted comes back by one press; after them it is gone (migration 017). */
export const graceDays = 30

/** A job that is to go. */
export interface DeletedJob {
  id: string
  title: string
  deletedAt: string
}

/** For this transaction what is deleted is there. */
const seeDeleted = (trx: Knex) => trx.raw(`set local spillway.deleted = 'yes'`)

/** Deletes a job, or brings it back; false where there is none such. */
export async function deleteJob(actor: Actor, id: string, deleted: boolean): Promise<boolean> {
  return transaction(
    actor,
    async trx => {
      await seeDeleted(trx)
      const [row] = await trx('job')
        .where({ id, firm_id: actor.firmId })
        .whereRaw('(deleted_at is null) = ?', [deleted])
        .update({ deleted_at: deleted ? new Date() : null })
        .returning('title')
      if (!row) return false
      await note(actor, deleted ? 'job deleted' : 'job brought back', { what: row.title, id }, trx)
      return true
    },
    done => done,
  )
}

/** The jobs that are to go, the last first. */
export async function deletedJobs(actor: Actor): Promise<DeletedJob[]> {
  return db(actor).transaction(async trx => {
    await seeDeleted(trx)
    const rows = await trx('job')
      .where({ firm_id: actor.firmId })
      .whereNotNull('deleted_at')
      .orderBy('deleted_at', 'desc')
      .limit(100)
      .select('id', 'title', 'deleted_at')
    return rows.map(r => ({ id: r.id, title: r.title, deletedAt: r.deleted_at.toISOString() }))
  })
}

/** Deletes the firm: from now on nobody works in it, and no link leads into it. */
export async function deleteFirm(actor: Actor, name: string): Promise<boolean> {
  return transaction(
    actor,
    async trx => {
      const count = await trx('firm')
        .where({ id: actor.firmId, name })
        .whereNull('deleted_at')
        .update({ deleted_at: new Date() })
      if (count) await note(actor, 'firm deleted', { what: name }, trx)
      return count > 0
    },
    done => done,
  )
}

/** The firms of somebody that are to go, of which they are an owner. */
export async function deletedFirms({
  user,
}: SignedIn): Promise<{ firmId: string; firm: string; deletedAt: string }[]> {
  const found: { rows: { firm: string; name: string; deleted_at: Date }[] } = await unbound().raw(
    'select * from spillway_deleted_firms_of(?)',
    [user.id],
  )
  return found.rows.map(r => ({ firmId: r.firm, firm: r.name, deletedAt: r.deleted_at.toISOString() }))
}

/** Brings a deleted firm back; false where it is none of theirs. */
export async function takeBackFirm({ user }: SignedIn, firmId: string): Promise<boolean> {
  const done = await unbound().raw('select spillway_take_back_firm(?, ?) as back', [user.id, firmId])
  if (!done.rows[0]?.back) return false
  const member = await memberOf(user.id, firmId)
  if (member?.firmId === firmId) await note(member, 'firm brought back')
  return true
}

/**
 * Deletes somebody’s login: every session ends, and signing in again within the grace takes it back. `last owner of` names a firm
 * that would be left without one.
 */
export async function deleteLogin({ user }: SignedIn): Promise<'done' | { lastOwnerOf: string }> {
  const mark = (deletedAt: Date | null) =>
    unbound()('login.user').where({ id: user.id }).update({ deleted_at: deletedAt })
  // marked first: of two owners who go at once neither counts on the other
  await mark(new Date())
  const members = (await Promise.all((await firmsOf(user.id)).map(f => memberOf(user.id, f.firmId)))).filter(
    m => m !== null,
  )
  for (const member of members)
    if (member.role === 'owner' && !(await hasOwnerBeside(db(member), member.firmId, member.personId))) {
      await mark(null)
      return { lastOwnerOf: member.firm }
    }
  await unbound()('login.session').where({ user_id: user.id }).delete()
  for (const member of members) await note(member, 'login deleted')
  return 'done'
}

/** Signing in again takes a deletion back; whether there was one. */
export const takeBackLogin = async (id: string): Promise<boolean> =>
  (await unbound()('login.user').where({ id }).whereNotNull('deleted_at').update({ deleted_at: null })) > 0

/** What goes for good once its grace is over; how many of each. */
export async function erase(): Promise<Record<string, number>> {
  const done: { rows: { what: string; how_many: string }[] } = await unbound().raw(
    'select * from spillway_erase()',
  )
  return Object.fromEntries(done.rows.map(r => [r.what, Number(r.how_many)]))
}
