import { unbound } from '../db/connection'

/** Days in which somebody who opened an account confirms its address; a demo’s letters are shown as long. */
export const leftoverDays = 30

const leftovers: Record<string, string> = {
  sessions: 'delete from login.session where expires_at < :now',
  verifications: 'delete from login.verification where expires_at < :now',
  letters: 'delete from login.letter where at < :before',
  // whoever never confirmed an address never came in: nothing hangs on it
  unconfirmed: `delete from login.user u where not u.email_verified and u.created_at < :before
    and not exists (select from spillway_firms_of(u.id))`,
}

/** Takes away what accounts leave behind and nobody can use any more; answers how many rows of each. */
export async function forgetLeftovers(now: Date): Promise<Record<string, number>> {
  const before = new Date(now.getTime() - leftoverDays * 86_400_000)
  const counts: Record<string, number> = {}
  for (const [name, sql] of Object.entries(leftovers)) {
    const done: { rowCount: number | null } = await unbound().raw(sql, { now, before })
    counts[name] = done.rowCount ?? 0
  }
  return counts
}
