import { randomUUID } from 'node:crypto'
import { db, type OfFirm, unbound } from '../db/connection'
import { firmBehind } from '../db/whose'
import type { Person } from './types'

const columns = {
  personId: 'person.id',
  firmId: 'person.firm_id',
  label: 'person.label',
  role: 'person.role',
  zone: 'firm.zone',
}
type Member = Person & {
  firm: string
  authority: string | null
  units: string | null
  secondStep: string | null
}

const customerRole = 'customer'

/** Who stands in the record for what comes in by a customer's link; made when first needed. */
export async function customerOf(firmId: string): Promise<Person> {
  const own = db({ firmId })
  const find = (): Promise<Person | undefined> =>
    own('person')
      .join('firm', 'firm.id', 'person.firm_id')
      .where({ 'person.firm_id': firmId, 'person.role': customerRole })
      .first(columns)
  const there = await find()
  if (there) return there
  await own('person')
    .insert({ id: randomUUID(), firm_id: firmId, label: 'Customer', role: customerRole })
    .onConflict(['firm_id', 'label'])
    .ignore()
  const row = await find()
  if (!row) throw new Error('the firm has no customer to write as')
  return row
}

/** The firms that a login belongs to, in the order of joining. */
export async function firmsOf(loginId: string): Promise<OfFirm[]> {
  const found: { rows: { firm: string }[] } = await unbound().raw(
    'select firm from spillway_firms_of(?) as firm',
    [loginId],
  )
  return found.rows.map(r => ({ firmId: r.firm }))
}

/** A login as a person of the firm that it works in: the one chosen, or the first; null where it is in none. */
export async function memberOf(loginId: string, chosen: string | null): Promise<Member | null> {
  const firms = await firmsOf(loginId)
  const firm = firms.find(f => f.firmId === chosen) ?? firms[0]
  if (!firm) return null
  const row: Member | undefined = await db(firm)('person')
    .join('firm', 'firm.id', 'person.firm_id')
    .where({ 'person.firm_id': firm.firmId, 'person.login_id': loginId })
    .whereNull('person.left_at')
    .first({
      ...columns,
      firm: 'firm.name',
      authority: db(firm).raw(`firm.settings->>'authority'`),
      units: db(firm).raw(`firm.settings->>'units'`),
      secondStep: db(firm).raw(`firm.settings->>'secondStep'`),
    })
  return row ?? null
}

/** The people of a firm that work in it, in a fixed order. */
export async function listPeople(firmSlug: string): Promise<(Person & { firm: string })[]> {
  const firm = await firmBehind('slug', firmSlug)
  if (!firm) return []
  return db(firm)('person')
    .join('firm', 'firm.id', 'person.firm_id')
    .where('firm.slug', firmSlug)
    .whereNot('person.role', customerRole)
    .whereNull('person.left_at')
    .orderBy('person.role')
    .select({ ...columns, firm: 'firm.name' })
}
