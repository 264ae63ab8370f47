import { randomUUID } from 'node:crypto'
import { closeDb, ownerDb } from '../db/connection'
import { rill6 } from '../seeds/catalogue'
import {
  addEquipment,
  countStock,
  listEquipment,
  listStock,
  mostItems,
  newestVersions,
  putEquipment,
  setStock,
} from './repository'

const actor = { firmId: randomUUID(), personId: randomUUID(), label: 'Tester', role: 'designer' }
beforeAll(() => ownerDb()('firm').insert({ id: actor.firmId, slug: actor.firmId, name: 'Test firm' }))
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

describe('several at once', () => {
  const firm = async () => {
    const firmId = randomUUID()
    await ownerDb()('firm').insert({ id: firmId, slug: firmId, name: 'Another' })
    return { ...actor, firmId }
  }
  const versions = async (of: { firmId: string }, id: string) =>
    (await ownerDb()('equipment').where({ firm_id: of.firmId, id }).orderBy('version').select('version')).map(
      (r: { version: number }) => r.version,
    )

  test('of ten who change one item from the same version one is taken, and nine are told which', async () => {
    const here = await firm()
    await addEquipment(here, [item(1)])
    const told = await Promise.all(
      Array.from({ length: 10 }, (_, n) =>
        putEquipment(here, [{ item: { ...item(1), name: `Rill by ${n}` }, from: 1 }]),
      ),
    )
    expect(told.filter(t => t === null)).toHaveLength(1)
    expect(told.filter(t => t !== null).every(t => t && 'meanwhile' in t)).toBe(true)
    expect(await versions(here, 'rill-1')).toEqual([1, 2])
  })

  test('a list of items is taken whole or not at all', async () => {
    const here = await firm()
    await addEquipment(here, [item(1), item(2)])
    await putEquipment(here, [{ item: item(2), from: 1 }])
    const both = [item(1), item(2)].map(i => ({ item: i, from: 1 }))
    expect(await putEquipment(here, both)).toEqual({ meanwhile: 'Rill 2' })
    expect(await versions(here, 'rill-1')).toEqual([1])
  })

  test('of ten who count one shelf from what they saw one is taken; the others are told what stands there', async () => {
    const here = await firm()
    const told = await Promise.all(
      Array.from({ length: 10 }, (_, n) => countStock(here, 'rill-1', null, n + 1)),
    )
    expect(told.filter(t => t === 'counted')).toHaveLength(1)
    const { 'rill-1': count } = await listStock(here)
    expect(told.filter(t => t !== 'counted')).toEqual(new Array(9).fill(count))
    expect(await countStock(here, 'rill-1', count ?? null, null)).toBe('counted')
    expect(await listStock(here)).toEqual({})
  })

  test('another firm sees and changes nothing of it', async () => {
    const [here, there] = [await firm(), await firm()]
    await addEquipment(here, [item(1)])
    await setStock(here, { 'rill-1': 4 })
    expect([await listEquipment(there), await listStock(there)]).toEqual([[], {}])
    expect(await putEquipment(there, [{ item: item(1), from: 0 }])).toBeNull()
    await setStock(there, { 'rill-1': null })
    expect(await listStock(here)).toEqual({ 'rill-1': 4 })
    expect(await versions(here, 'rill-1')).toEqual([1])
  })

  test('what is no equipment is not written, whoever brings it', async () => {
    const here = await firm()
    await expect(addEquipment(here, [{ ...item(1), continuousW: -5 }])).rejects.toThrow()
    expect(await listEquipment(here)).toEqual([])
  })
})
