import { randomUUID } from 'node:crypto'
import { closeDb, db } from '../db/connection'
import { rill6 } from '../seeds/catalogue'
import { addEquipment, listEquipment, mostItems, newestVersions, putEquipment } from './repository'

const actor = { firmId: randomUUID(), personId: randomUUID(), label: 'Tester', role: 'designer' }
beforeAll(() => db()('firm').insert({ id: actor.firmId, slug: actor.firmId, name: 'Test firm' }))
afterAll(closeDb)
const item = (n: number) => ({ ...rill6, id: `rill-${n}`, name: `Rill ${n}`, version: 1 })

test('a catalogue is told whole up to its limit; one more is refused in words, and nothing of it is taken', async () => {
  await addEquipment(
    actor,
    Array.from({ length: mostItems }, (_, n) => item(n)),
  )
  expect(await listEquipment(actor)).toHaveLength(mostItems)
  const more = [item(5000), item(5001)].map(i => ({ item: i, from: 0 }))
  expect(await putEquipment(actor, more)).toEqual({ tooMany: mostItems + 2 })
  expect(await newestVersions(actor, ['rill-5000', 'rill-1'])).toEqual(new Map([['rill-1', 1]]))
  expect(await putEquipment(actor, [{ item: item(1), from: 1 }], true)).toBeNull()
  expect(await putEquipment(actor, [{ item: item(5000), from: 0 }])).toBeNull()
  // out of use, it is known by its version all the same: read in again it is no stranger
  expect(await newestVersions(actor, ['rill-1'])).toEqual(new Map([['rill-1', 2]]))
  expect(await putEquipment(actor, [{ item: item(1), from: 1 }])).toEqual({ meanwhile: 'Rill 1' })
})
