import type { Knex } from 'knex'
import { db, type OfFirm } from '../db/connection'
import { whence } from '../http/whence'
import type { Actor } from './types'

/** What the record tells, by what it is called there; each with its words. */
export const recorded = {
  'signed in': 'signed in',
  'signed out': 'signed out',
  'sessions ended': 'ended sessions',
  'password changed': 'changed their password',
  'email changed': 'changed their e-mail address',
  'passkey added': 'added a passkey',
  'passkey removed': 'removed a passkey',
  'second step on': 'turned the second step on',
  'second step off': 'turned the second step off',
  'firm opened': 'opened the firm',
  'settings changed': 'changed the firm’s settings',
  invited: 'invited',
  'invitation withdrawn': 'withdrew the invitation of',
  joined: 'joined',
  'role changed': 'gave another role to',
  renamed: 'renamed',
  removed: 'removed',
  left: 'left the firm',
  'handed over': 'handed the firm over to',
  'job deleted': 'deleted the job',
  'job brought back': 'brought back the job',
  'firm deleted': 'deleted the firm',
  'firm brought back': 'brought the firm back',
  'login deleted': 'deleted their account',
  'link made': 'made a link',
  'link withdrawn': 'withdrew a link',
  exported: 'took out',
  'estimate sent': 'sent an estimate',
  accepted: 'accepted an estimate',
  signed: 'signed a pack',
  'finding accepted': 'accepted a finding',
} as const
export type Recorded = keyof typeof recorded

/** Writes down who did what, when and from where; on the transaction that does it, where there is one. */
export async function note(
  actor: Actor,
  what: Recorded,
  about: Record<string, string | number> = {},
  trx: Knex = db(actor),
): Promise<void> {
  await trx('record_entry').insert({
    firm_id: actor.firmId,
    at: new Date(),
    person_id: actor.role === 'customer' ? null : actor.personId,
    who: actor.label,
    what,
    about: JSON.stringify(about),
    ...whence(),
  })
}

export interface RecordEntry {
  id: string
  at: string
  who: string
  what: Recorded
  about: Record<string, string | number>
  address: string | null
  browser: string | null
}

/** What an entry is about, in a line. */
export const aboutText = (about: RecordEntry['about']): string => {
  // an id is for whoever looks one up in the rows; the line has the name
  const { whom, what, id: _, ...rest } = about
  const said = [what, ...Object.entries(rest).map(([key, value]) => `${key} ${value}`)]
  return [whom, said.filter(Boolean).join(', ')].filter(Boolean).join(': ')
}

export const recordPageSize = 50

/** A page of the record, the newest first; `before` is the last id of the page before. */
export async function readRecord(
  firm: OfFirm,
  before: string | null,
  limit = recordPageSize,
): Promise<RecordEntry[]> {
  const rows = await db(firm)('record_entry')
    .where({ firm_id: firm.firmId })
    .modify(q => before !== null && q.where('id', '<', before))
    .orderBy('id', 'desc')
    .limit(limit)
    .select('id', 'at', 'who', 'what', 'about', 'address', 'browser')
  return rows.map((r: Omit<RecordEntry, 'at'> & { at: Date }) => ({ ...r, at: r.at.toISOString() }))
}

/** The whole record, the oldest first, a page at a time. */
export async function* wholeRecord(firm: OfFirm): AsyncGenerator<RecordEntry[]> {
  let after = '0'
  for (;;) {
    const rows = await db(firm)('record_entry')
      .where({ firm_id: firm.firmId })
      .where('id', '>', after)
      .orderBy('id')
      .limit(1000)
      .select('id', 'at', 'who', 'what', 'about', 'address', 'browser')
    if (!rows.length) return
    yield rows.map(r => ({ ...r, at: r.at.toISOString() }))
    after = String(rows.at(-1)?.id)
  }
}
