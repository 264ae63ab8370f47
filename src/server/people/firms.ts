import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { type Role, roleWords } from '@/core/firm/roles'
import { firmSettingsSchema, usualSettings } from '@/core/firm/settings'
import { type Fault, fault } from '@/core/outcome'
import * as mails from '../accounts/mails'
import { db, type OfFirm, unbound } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { firmBehind } from '../db/whose'
import { sendMail } from '../mail/outbox'
import { note } from './record'
import { firmsOf } from './repository'
import type { Actor } from './types'

const sum = (token: string) => createHash('sha256').update(token).digest('hex')
const day = 86_400_000
const invitationDays = 7
/** Invitations of one firm that wait at once. */
export const mostWaiting = 30
/** Firms that one login opens. */
const mostFirms = 20

/** One of the firm’s people, as the list shows them. */
export interface PersonListed {
  id: string
  label: string
  role: Role
  email: string | null
  joinedAt: string
  leftAt: string | null
  self: boolean
}

/** An invitation that waits for an answer. */
export interface Invitation {
  id: string
  email: string
  label: string
  role: Role
  by: string
  at: string
  expiresAt: string
}

export type Done = 'done' | 'gone' | { faults: Fault[] }

const lockedFirm = (trx: Knex, { firmId }: OfFirm) => trx('firm').where({ id: firmId }).forUpdate().first()

/** Opens a firm, and makes whoever opens it its owner. */
export async function openFirm(
  login: { id: string; email: string },
  { firm, label, zone }: { firm: string; label: string; zone: string },
): Promise<{ firmId: string } | 'enough'> {
  if ((await firmsOf(login.id)).length >= mostFirms) return 'enough'
  const firmId = randomUUID()
  const actor: Actor = { firmId, personId: randomUUID(), label, role: 'owner' }
  const settings = firmSettingsSchema.parse({ ...usualSettings(firm), zone })
  await transaction(
    actor,
    async trx => {
      await trx('firm').insert({
        id: firmId,
        slug: firmId,
        name: firm,
        zone,
        settings: JSON.stringify(settings),
      })
      await trx('person').insert({
        id: actor.personId,
        firm_id: firmId,
        label,
        role: 'owner',
        login_id: login.id,
        email: login.email,
      })
      await note(actor, 'firm opened', { firm }, trx)
    },
    always,
  )
  return { firmId }
}

/** The people of the firm, those who work in it first; e-mail addresses are told to whom the list is opened with `withEmail`. */
export async function peopleOf(actor: Actor, withEmail: boolean): Promise<PersonListed[]> {
  const rows = await db(actor)('person as p')
    .leftJoin('login.user as u', 'u.id', 'p.login_id')
    .where({ 'p.firm_id': actor.firmId })
    .whereNot('p.role', 'customer')
    .orderByRaw('(p.left_at is not null), p.joined_at, p.id')
    .select('p.id', 'p.label', 'p.role', 'p.joined_at', 'p.left_at', 'u.email')
  return rows.map(r => ({
    id: r.id,
    label: r.label,
    role: r.role,
    email: withEmail ? r.email : null,
    joinedAt: r.joined_at.toISOString(),
    leftAt: r.left_at?.toISOString() ?? null,
    self: r.id === actor.personId,
  }))
}

const waiting = (q: Knex.QueryBuilder) =>
  q.whereNull('accepted_at').whereNull('withdrawn_at').where('expires_at', '>', new Date())

/** The invitations that wait, the newest first. */
export async function invitationsOf(actor: Actor): Promise<Invitation[]> {
  const rows = await db(actor)('invitation as i')
    .join('person as p', 'p.id', 'i.person_id')
    .where({ 'i.firm_id': actor.firmId })
    .modify(waiting)
    .orderBy('i.at', 'desc')
    .limit(mostWaiting)
    .select('i.id', 'i.email', 'i.label', 'i.role', 'i.at', 'i.expires_at', { by: 'p.label' })
  return rows.map((r: Omit<Invitation, 'at' | 'expiresAt'> & { at: Date; expires_at: Date }) => ({
    id: r.id,
    email: r.email,
    label: r.label,
    role: r.role,
    by: r.by,
    at: r.at.toISOString(),
    expiresAt: r.expires_at.toISOString(),
  }))
}

/** Invites somebody by e-mail. What was sent to the same address before is withdrawn: one invitation of a firm counts. */
export async function invite(
  actor: Actor,
  asked: { email: string; label: string; role: Role },
  origin: string,
): Promise<Done> {
  const email = asked.email.toLowerCase()
  const token = randomBytes(32).toString('base64url')
  const outcome = await transaction<Done | { firm: string }>(
    actor,
    async trx => {
      const firm = await lockedFirm(trx, actor)
      const same = await trx('person as p')
        .leftJoin('login.user as u', 'u.id', 'p.login_id')
        .where({ 'p.firm_id': actor.firmId })
        .whereNull('p.left_at')
        .where(q => q.where('u.email', email).orWhere('p.label', asked.label))
        .select('p.label', 'u.email')
      if (same.some(s => s.email === email))
        return { faults: [fault('email', 'is of somebody who is here already')] }
      if (same.length) return { faults: [fault('label', 'is the name of somebody here: take another')] }
      await trx('invitation')
        .where({ firm_id: actor.firmId, email })
        .modify(waiting)
        .update({ withdrawn_at: new Date() })
      const [open] = await trx('invitation')
        .where({ firm_id: actor.firmId })
        .modify(waiting)
        .count({ count: '*' })
      if (Number(open?.count) >= mostWaiting)
        return {
          faults: [
            fault('email', `waits behind ${mostWaiting} others: withdraw some, or wait for their answers`),
          ],
        }
      await trx('invitation').insert({
        id: randomUUID(),
        firm_id: actor.firmId,
        email,
        label: asked.label,
        role: asked.role,
        token_hash: sum(token),
        person_id: actor.personId,
        at: new Date(),
        expires_at: new Date(Date.now() + invitationDays * day),
      })
      await note(actor, 'invited', { whom: email, role: asked.role }, trx)
      return { firm: String(firm.name) }
    },
    o => typeof o === 'object' && 'firm' in o,
  )
  if (typeof outcome === 'string' || 'faults' in outcome) return outcome
  await sendMail(
    mails.invitation(origin, email, outcome.firm, roleWords[asked.role].name.toLowerCase(), token),
  )
  return 'done'
}

export async function withdrawInvitation(actor: Actor, id: string): Promise<Done> {
  return transaction<Done>(
    actor,
    async trx => {
      const [row] = await trx('invitation')
        .where({ firm_id: actor.firmId, id })
        .modify(waiting)
        .update({ withdrawn_at: new Date() })
        .returning('email')
      if (!row) return 'gone'
      await note(actor, 'invitation withdrawn', { whom: row.email }, trx)
      return 'done'
    },
    o => o === 'done',
  )
}

/** What an invitation is to: for whoever holds its link. */
export interface Invited {
  firmId: string
  firm: string
  role: Role
  label: string
  email: string
}

/** The invitation behind a token; null for one that is unknown, used, withdrawn or too old: none of them says which. */
export async function openInvitation(token: string): Promise<Invited | null> {
  if (!/^[\w-]{43}$/.test(token)) return null
  const firm = await firmBehind('invitation', sum(token))
  if (!firm) return null
  const row = await db(firm)('invitation as i')
    .join('firm as f', 'f.id', 'i.firm_id')
    .where({ 'i.token_hash': sum(token) })
    .modify(waiting)
    .first('i.email', 'i.role', 'i.label', { firm: 'f.name' })
  return row ? { ...row, ...firm } : null
}

/**
 * Joins a firm by an invitation: once, and only as the one it was sent to. Somebody who left and comes back is the same person as
 * before.
 */
export async function join(
  token: string,
  login: { id: string; email: string },
): Promise<{ firmId: string } | 'gone' | 'another'> {
  const invited = await openInvitation(token)
  if (!invited) return 'gone'
  if (invited.email !== login.email.toLowerCase()) return 'another'
  return transaction<{ firmId: string } | 'gone' | 'another'>(
    invited,
    async trx => {
      await lockedFirm(trx, invited)
      const [row] = await trx('invitation')
        .where({ token_hash: sum(token) })
        .modify(waiting)
        .update({ accepted_at: new Date() })
        .returning(['role', 'label'])
      if (!row) return 'gone'
      // somebody of before: by the login, or by the address that an archive knew them by
      const before = await trx('person')
        .where({ firm_id: invited.firmId })
        .where(q =>
          q.where('login_id', login.id).orWhere(o => o.whereNull('login_id').where('email', invited.email)),
        )
        .orderByRaw('login_id nulls last')
        .first('id', 'label')
      const label = before?.label ?? (await freeLabel(trx, invited.firmId, row.label))
      const personId = before?.id ?? randomUUID()
      if (before)
        await trx('person')
          .where({ id: personId })
          .update({ role: row.role, left_at: null, login_id: login.id, email: invited.email })
      else
        await trx('person').insert({
          id: personId,
          firm_id: invited.firmId,
          label,
          role: row.role,
          login_id: login.id,
          email: invited.email,
        })
      const actor = { firmId: invited.firmId, personId, label, role: row.role }
      await note(actor, 'joined', { role: row.role }, trx)
      return { firmId: invited.firmId }
    },
    o => typeof o === 'object',
  )
}

/** A name that nobody of the firm has, beginning with the one wanted. */
async function freeLabel(trx: Knex, firmId: string, wanted: string): Promise<string> {
  const taken = new Set<string>(await trx('person').where({ firm_id: firmId }).pluck('label'))
  for (let n = 1; ; n++) {
    const label = n === 1 ? wanted : `${wanted} ${n}`
    if (!taken.has(label)) return label
  }
}

/** The firms that have invited an address: told to whoever proved that it is theirs. */
export async function invitingFirms(email: string): Promise<{ firm: string; role: Role; at: string }[]> {
  const found: { rows: { firm: string }[] } = await unbound().raw(
    'select firm from spillway_inviting(?) as firm',
    [email.toLowerCase()],
  )
  const each = await Promise.all(
    found.rows.map(({ firm: firmId }) =>
      db({ firmId })('invitation as i')
        .join('firm as f', 'f.id', 'i.firm_id')
        .where({ 'i.email': email.toLowerCase() })
        .modify(waiting)
        .select('i.role', 'i.at', { firm: 'f.name' }),
    ),
  )
  return each.flat().map(r => ({ ...r, at: r.at.toISOString() }))
}

/** Whether a firm has an owner who can come in, beside one person: whose login is there, and is not to go. */
export async function hasOwnerBeside(trx: Knex, firmId: string, personId: string): Promise<boolean> {
  const other = await trx('person as p')
    .join('login.user as u', 'u.id', 'p.login_id')
    .where({ 'p.firm_id': firmId, 'p.role': 'owner' })
    .whereNull('p.left_at')
    .whereNull('u.deleted_at')
    .whereNot({ 'p.id': personId })
    .first('p.id')
  return Boolean(other)
}

/** Somebody who works in the firm, while nobody else changes its people. */
async function workingPerson(trx: Knex, actor: Actor, personId: string) {
  await lockedFirm(trx, actor)
  return trx('person')
    .where({ firm_id: actor.firmId, id: personId })
    .whereNull('left_at')
    .whereNot('role', 'customer')
    .first('role', 'label', 'login_id')
}

const lastOwner = fault('role', 'is of the only owner: make somebody else an owner first')

/** Gives somebody another role or name. A firm is never without an owner. */
export async function changePerson(
  actor: Actor,
  personId: string,
  to: { role?: Role; label?: string },
): Promise<Done> {
  return transaction<Done>(
    actor,
    async trx => {
      const row = await workingPerson(trx, actor, personId)
      if (!row) return 'gone'
      if (to.role && to.role !== row.role) {
        if (row.role === 'owner' && !(await hasOwnerBeside(trx, actor.firmId, personId)))
          return { faults: [lastOwner] }
        await trx('person').where({ id: personId }).update({ role: to.role })
        await note(actor, 'role changed', { whom: row.label, from: row.role, to: to.role }, trx)
      }
      if (to.label && to.label !== row.label) {
        if (await trx('person').where({ firm_id: actor.firmId, label: to.label }).first('id'))
          return {
            faults: [fault('label', 'is the name of somebody here, or of somebody who was: take another')],
          }
        await trx('person').where({ id: personId }).update({ label: to.label })
        await note(actor, 'renamed', { whom: row.label, to: to.label }, trx)
      }
      return 'done'
    },
    o => o === 'done',
  )
}

/**
 * Takes somebody out of the firm, or lets them leave: they come in no more from the next request on; what they did stays theirs in
 * the record.
 */
export async function removePerson(actor: Actor, personId: string): Promise<Done> {
  const leaves = actor.personId === personId
  return transaction<Done>(
    actor,
    async trx => {
      const row = await workingPerson(trx, actor, personId)
      if (!row) return 'gone'
      if (row.role === 'owner' && !(await hasOwnerBeside(trx, actor.firmId, personId)))
        return { faults: [lastOwner] }
      await trx('person').where({ id: personId }).update({ left_at: new Date() })
      await trx('login.session')
        .where({ user_id: row.login_id, firm_id: actor.firmId })
        .update({ firm_id: null })
      await note(actor, leaves ? 'left' : 'removed', leaves ? {} : { whom: row.label }, trx)
      return 'done'
    },
    o => o === 'done',
  )
}
