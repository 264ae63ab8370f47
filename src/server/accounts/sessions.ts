import { db, unbound } from '../db/connection'
import { note, type Recorded } from '../people/record'
import { firmsOf, memberOf } from '../people/repository'
import type { SignedIn } from './auth'

/** A session of somebody, as they see it. */
export interface SessionShown {
  id: string
  since: string
  lastUsed: string
  address: string | null
  browser: string | null
  current: boolean
}

const sessions = () => unbound()('login.session')

export async function sessionsOf({ session, user }: SignedIn): Promise<SessionShown[]> {
  const rows = await sessions()
    .where({ user_id: user.id })
    .where('expires_at', '>', new Date())
    .orderBy('updated_at', 'desc')
    .limit(50)
    .select('id', 'created_at', 'updated_at', 'ip_address', 'user_agent')
  return rows.map(r => ({
    id: r.id,
    since: r.created_at.toISOString(),
    lastUsed: r.updated_at.toISOString(),
    address: r.ip_address,
    browser: r.user_agent?.slice(0, 200) ?? null,
    current: r.id === session.id,
  }))
}

/** Ends the session itself. */
export const endSession = async ({ session }: SignedIn): Promise<void> => {
  await sessions().where({ id: session.id }).delete()
}

/** Ends a session of somebody’s own, or all but the one in use; how many ended. */
export async function endSessions({ session, user }: SignedIn, which: string | 'others'): Promise<number> {
  const own = sessions().where({ user_id: user.id })
  const ended: number = await (which === 'others'
    ? own.whereNot({ id: session.id })
    : own.where({ id: which })
  ).delete()
  if (ended) await recordOfLogin(user, 'sessions ended')
  return ended
}

/** From now on this session works in another of its person’s firms; false where they are in no such firm. */
export async function workIn({ session, user }: SignedIn, firmId: string): Promise<boolean> {
  if (!(await firmsOf(user.id)).some(f => f.firmId === firmId)) return false
  await sessions().where({ id: session.id, user_id: user.id }).update({ firm_id: firmId })
  return true
}

/** Writes down what somebody did about their login, in the record of each of their firms. */
export async function recordOfLogin({ id }: { id: string }, what: Recorded): Promise<void> {
  for (const firm of await firmsOf(id)) {
    const member = await memberOf(id, firm.firmId)
    if (member) await note(member, what, {}, db(firm))
  }
}

/** The firms of somebody, by name, for choosing. */
export async function firmsShown({ session, user }: SignedIn) {
  const each = await Promise.all((await firmsOf(user.id)).map(f => memberOf(user.id, f.firmId)))
  const found = each.flatMap(m => (m ? [{ firmId: m.firmId, firm: m.firm, role: m.role }] : []))
  const chosen = found.find(f => f.firmId === session.firmId) ?? found[0]
  return found.map(f => ({ ...f, chosen: f === chosen }))
}

/** How somebody comes in, for the page of their account. */
export async function waysIn({ user }: SignedIn) {
  const [passkeys, password] = await Promise.all([
    unbound()('login.passkey')
      .where({ user_id: user.id })
      .orderBy('created_at')
      .select('id', 'name', 'created_at'),
    unbound()('login.account').where({ user_id: user.id, provider_id: 'credential' }).first('id'),
  ])
  return {
    hasPassword: Boolean(password),
    secondStep: user.twoFactorEnabled === true,
    passkeys: passkeys.map(p => ({
      id: String(p.id),
      name: p.name ?? 'Passkey',
      addedAt: p.created_at?.toISOString() ?? null,
    })),
  }
}
