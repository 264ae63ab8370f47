import { randomUUID } from 'node:crypto'
import { ownerDb } from '../db/connection'
import type { Person } from './types'

/** A firm of its own with one person, for a test. */
export async function testFirm(label = 'Tester', role = 'designer'): Promise<Person> {
  const person = { firmId: randomUUID(), personId: randomUUID(), label, role }
  await ownerDb()('firm').insert({ id: person.firmId, slug: person.firmId, name: 'Test firm' })
  await ownerDb()('person').insert({ id: person.personId, firm_id: person.firmId, label, role })
  return { ...person, zone: 'America/New_York' }
}
