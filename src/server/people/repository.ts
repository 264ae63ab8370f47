import { db } from '../db/connection'
import type { Actor } from './types'

const columns = {
  personId: 'person.id',
  firmId: 'person.firm_id',
  label: 'person.label',
  role: 'person.role',
}

/** The people of a firm, in a fixed order: the first is who acts until someone else is chosen. */
export async function listPeople(firmSlug: string): Promise<(Actor & { firm: string })[]> {
  return db()('person')
    .join('firm', 'firm.id', 'person.firm_id')
    .where('firm.slug', firmSlug)
    .orderBy('person.role')
    .select({ ...columns, firm: 'firm.name' })
}
