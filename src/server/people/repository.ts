import { randomUUID } from 'node:crypto'
import { db } from '../db/connection'
import type { Actor } from './types'

const columns = {
  personId: 'person.id',
  firmId: 'person.firm_id',
  label: 'person.label',
  role: 'person.role',
}

const customerRole = 'customer'

/** Who stands in the record for what comes in by a customer's link; made when first needed. */
export async function customerOf(firmId: string): Promise<Actor> {
  const label = 'Customer'
  await db()('person')
    .insert({ id: randomUUID(), firm_id: firmId, label, role: customerRole })
    .onConflict(['firm_id', 'label'])
    .ignore()
  const row = await db()('person').where({ firm_id: firmId, role: customerRole }).first(columns)
  if (!row) throw new Error('the firm has no customer to write as')
  return row
}

/** The people of a firm, in a fixed order: the first is who acts until someone else is chosen. */
export async function listPeople(firmSlug: string): Promise<(Actor & { firm: string })[]> {
  return db()('person')
    .join('firm', 'firm.id', 'person.firm_id')
    .where('firm.slug', firmSlug)
    .whereNot('person.role', customerRole)
    .orderBy('person.role')
    .select({ ...columns, firm: 'firm.name' })
}
