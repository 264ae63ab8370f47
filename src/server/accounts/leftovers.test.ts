import { randomUUID } from 'node:crypto'
import { closeDb, ownerDb } from '../db/connection'
import { testFirm } from '../people/test-firm'
import { forgetLeftovers, leftoverDays } from './leftovers'

afterAll(closeDb)
const now = new Date('2026-03-01T08:00:00Z')
const ago = (days: number) => new Date(now.getTime() - days * 86_400_000)

async function login(confirmed: boolean, at: Date) {
  const [row] = await ownerDb()('login.user')
    .insert({ name: 'Ann', email: `${randomUUID()}@left.test`, email_verified: confirmed, created_at: at })
    .returning('id')
  return String(row.id)
}
const session = (userId: string, expires: Date) =>
  ownerDb()('login.session').insert({ token: randomUUID(), user_id: userId, expires_at: expires })
const tokens = async (userId: string) => (await ownerDb()('login.session').where({ user_id: userId })).length
const isThere = async (id: string) => Boolean(await ownerDb()('login.user').where({ id }).first('id'))

test('ended sessions and accounts that nobody ever confirmed go; whoever can come in stays, and so does a member', async () => {
  const old = ago(leftoverDays + 1)
  const [confirmed, forgotten, young, member] = [
    await login(true, old),
    await login(false, old),
    await login(false, ago(2)),
    await login(false, old),
  ]
  await session(confirmed, ago(1))
  await session(confirmed, ago(-1))
  const firm = await testFirm()
  await ownerDb()('person').where({ id: firm.personId }).update({ login_id: member })
  await ownerDb()('login.verification').insert({ identifier: forgotten, value: 'x', expires_at: ago(1) })
  const counts = await forgetLeftovers(now)
  expect(counts.sessions).toBeGreaterThanOrEqual(1)
  expect(await tokens(confirmed)).toBe(1)
  expect(await Promise.all([confirmed, forgotten, young, member].map(isThere))).toEqual([
    true,
    false,
    true,
    true,
  ])
  expect(await ownerDb()('login.verification').where({ identifier: forgotten })).toEqual([])
})
