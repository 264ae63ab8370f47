import { randomUUID } from 'node:crypto'
import { db } from '../db/connection'
import { firmBehind } from '../db/whose'
import type { Person } from './types'

const columns = {
  personId: 'person.id',
  firmId: 'person.firm_id',
  label: 'person.label',
  role: 'person.role',
  zone: 'firm.zone',
}

const customerRole = 'customer'

/** Who stands in the record for what comes in by a customer's link; made when first needed. */
export async function customerOf(firmId: string): Promise<Person> {
  const label = 'Customer'
  const own = db({ firmId })
  await own('person')
    .insert({ id: randomUUID(), firm_id: firmId, label, role: customerRole })
    .onConflict(['firm_id', 'label'])
    .ignore()
  const row = await own('person')
    .join('firm', 'firm.id', 'person.firm_id')
    .where({ 'person.firm_id': firmId, 'person.role': customerRole })
    .first(columns)
  if (!row) throw new Error('the firm has no customer to write as')
  return row
}

/** The people of a firm, in a fixed order: the first is who acts until someone else is chosen. */
export async function listPeople(firmSlug: string): Promise<(Person & { firm: string })[]> {
  const firm = await firmBehind('slug', firmSlug)
  if (!firm) return []
  return db(firm)('person')
    .join('firm', 'firm.id', 'person.firm_id')
    .where('firm.slug', firmSlug)
    .whereNot('person.role', customerRole)
    .orderBy('person.role')
    .select({ ...columns, firm: 'firm.name' })
}
