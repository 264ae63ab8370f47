import { createHash, randomUUID } from 'node:crypto'
import { closeDb, db, ownerDb, unbound } from '../db/connection'
import { listJobs, listQuerySchema } from '../jobs/list'
import { createJob, readJobRecord } from '../jobs/repository'
import { makeLink, openLink } from '../links/repository'
import { fernbrook } from '../seeds/jobs'
import {
  deletedFirms,
  deletedJobs,
  deleteFirm,
  deleteJob,
  deleteLogin,
  erase,
  graceDays,
  takeBackFirm,
  takeBackLogin,
} from './erasing'
import { readRecord } from './record'
import { firmsOf } from './repository'
import { testFirm } from './test-firm'
import type { Actor } from './types'

const now = new Date()
afterAll(closeDb)

/** A firm whose owner has a login. */
async function owned() {
  const actor = await testFirm('Ann', 'owner')
  const id = randomUUID()
  await ownerDb()('login.user').insert({ id, name: 'Ann', email: `${id}@erase.test`, email_verified: true })
  await ownerDb()('person').where({ id: actor.personId }).update({ login_id: id })
  return { actor, signed: { user: { id }, session: {} } as never, loginId: id }
}
const overdue = (table: string, id: string) =>
  ownerDb()(table)
    .where({ id })
    .update({ deleted_at: new Date(now.getTime() - (graceDays + 1) * 86_400_000) })
const proof = (id: string) =>
  unbound()('erased')
    .where({ sha256: createHash('sha256').update(id).digest('hex') })
    .first('what', 'counts')
const told = async (actor: Actor) => (await readRecord(actor, null)).map(e => e.what)

test('a deleted job is out of sight for everybody at once, comes back whole, and is gone after the grace, with a proof', async () => {
  const { actor } = await owned()
  const id = await createJob(actor, fernbrook, 'opened', now)
  const made = await makeLink(actor, id, now)
  const token = typeof made === 'object' ? made.token : ''
  expect(await deleteJob(actor, id, true)).toBe(true)
  expect([await readJobRecord(actor, id), await openLink(token, now)]).toEqual([null, null])
  expect((await listJobs(actor, listQuerySchema.parse({}))).total).toBe(0)
  expect(await deletedJobs(actor)).toMatchObject([{ id, title: fernbrook.title }])
  expect([await deleteJob(actor, id, true), await deleteJob((await owned()).actor, id, false)]).toEqual([
    false,
    false,
  ])
  expect(await deleteJob(actor, id, false)).toBe(true)
  expect((await readJobRecord(actor, id))?.job).toEqual(fernbrook)
  await deleteJob(actor, id, true)
  await erase()
  expect(await deletedJobs(actor)).toHaveLength(1)
  await overdue('job', id)
  expect((await erase()).job).toBeGreaterThan(0)
  expect(await deletedJobs(actor)).toEqual([])
  expect(await proof(id)).toMatchObject({ what: 'job', counts: { changes: 1 } })
  expect(await told(actor)).toEqual(['job deleted', 'job brought back', 'job deleted', 'link made'])
})

test('a deleted firm is worked in by nobody, its owner brings it back, and after the grace nothing of it is left', async () => {
  const { actor, signed, loginId } = await owned()
  await createJob(actor, fernbrook, 'opened', now)
  expect(await deleteFirm(actor, 'Another name')).toBe(false)
  expect(await deleteFirm(actor, 'Test firm')).toBe(true)
  expect(await firmsOf(loginId)).toEqual([])
  expect(await deletedFirms(signed)).toMatchObject([{ firmId: actor.firmId }])
  const other = await owned()
  expect(await takeBackFirm(other.signed, actor.firmId)).toBe(false)
  expect(await takeBackFirm(signed, actor.firmId)).toBe(true)
  expect(await firmsOf(loginId)).toEqual([{ firmId: actor.firmId }])
  await deleteFirm(actor, 'Test firm')
  await overdue('firm', actor.firmId)
  await erase()
  for (const table of ['firm', 'person', 'job', 'job_change', 'record_entry'])
    expect([
      table,
      await ownerDb()(table).where(table === 'firm' ? { id: actor.firmId } : { firm_id: actor.firmId }),
    ]).toEqual([table, []])
  expect(await proof(actor.firmId)).toMatchObject({ what: 'firm', counts: { jobs: 1, people: 1 } })
})

test('a login that is deleted ends its sessions, is taken back by signing in, and after the grace leaves no name', async () => {
  const { actor, signed, loginId } = await owned()
  expect(await deleteLogin(signed)).toEqual({ lastOwnerOf: 'Test firm' })
  // an owner who cannot come in is none: without a login, or on the way out
  const ben = { id: randomUUID(), login: randomUUID() }
  await ownerDb()('person').insert({ id: ben.id, firm_id: actor.firmId, label: 'Ben', role: 'owner' })
  expect(await deleteLogin(signed)).toEqual({ lastOwnerOf: 'Test firm' })
  await ownerDb()('login.user').insert({
    id: ben.login,
    name: 'Ben',
    email: `${ben.login}@erase.test`,
    email_verified: true,
    deleted_at: now,
  })
  await ownerDb()('person').where({ id: ben.id }).update({ login_id: ben.login })
  expect(await deleteLogin(signed)).toEqual({ lastOwnerOf: 'Test firm' })
  await ownerDb()('login.user').where({ id: ben.login }).update({ deleted_at: null })
  await ownerDb()('login.session').insert({
    user_id: loginId,
    token: randomUUID(),
    expires_at: new Date(now.getTime() + 1e9),
  })
  expect(await deleteLogin(signed)).toBe('done')
  expect(await unbound()('login.session').where({ user_id: loginId })).toEqual([])
  expect([await takeBackLogin(loginId), await takeBackLogin(loginId)]).toEqual([true, false])
  await deleteLogin(signed)
  await overdue('login.user', loginId)
  await erase()
  expect(await unbound()('login.user').where({ id: loginId })).toEqual([])
  const person = await db(actor)('person').where({ id: actor.personId }).first('label', 'login_id', 'email')
  expect(person).toEqual({ label: expect.stringMatching(/^Former \w{6}$/), login_id: null, email: null })
  expect(await proof(loginId)).toMatchObject({ what: 'person' })
})
