import { randomUUID } from 'node:crypto'
import { usualLabour } from '@/core/hookup/labour'
import { closeDb, ownerDb } from '../db/connection'
import { putLabour, readLabour } from './labour'

const [firm, other] = [actor(), actor()]
function actor() {
  return { firmId: randomUUID() }
}
beforeAll(() =>
  ownerDb()('firm').insert(
    [firm, other].map(({ firmId }) => ({ id: firmId, slug: firmId, name: 'Test firm' })),
  ),
)
afterAll(closeDb)

test('hours are ours until the firm gives its own; two who change them at once do not overwrite each other', async () => {
  expect(await readLabour(firm)).toEqual({ labour: usualLabour, version: 0 })
  const own = { tasks: [{ method: 'cord-and-plug' as const, least: 1, most: 2, eachMost: 0.5 }] }
  expect(await putLabour(firm, own, 0)).toBe(true)
  expect(await putLabour(firm, usualLabour, 0)).toBe(false)
  expect(await readLabour(firm)).toEqual({ labour: own, version: 1 })
  expect(await readLabour(other)).toEqual({ labour: usualLabour, version: 0 })
})
