import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { type Role, roles } from '@/core/firm/roles'
import { usualSettings } from '@/core/firm/settings'
import type { Mail } from '../accounts/mails'
import { closeDb, db, ownerDb, unbound } from '../db/connection'
import {
  changePerson,
  invitationsOf,
  invite,
  invitingFirms,
  join,
  mostWaiting,
  openFirm,
  openInvitation,
  peopleOf,
  removePerson,
  withdrawInvitation,
} from './firms'
import { note, readRecord, wholeRecord } from './record'
import { memberOf } from './repository'
import { keepSettings, settingsOf } from './settings'
import type { Actor } from './types'

const mails: Mail[] = []
jest.mock('../mail/outbox', () => ({ sendMail: async (mail: Mail) => mails.push(mail) }))
afterAll(closeDb)

async function login(email = `${randomUUID()}@people.test`) {
  const id = randomUUID()
  await ownerDb()('login.user').insert({ id, name: 'Somebody', email, email_verified: true })
  return { id, email }
}
/** A firm, its owner, and the owner's login. */
async function firm() {
  const by = await login()
  const opened = await openFirm(by, { firm: 'Weir Works', label: 'Ann', zone: 'America/Denver' })
  if (opened === 'enough') throw new Error('no firm')
  const actor = await memberOf(by.id, opened.firmId)
  if (!actor) throw new Error('no owner')
  return { actor, by }
}
const tokenTo = (email: string) =>
  /join\/([\w-]{43})/.exec(mails.findLast(m => m.to === email)?.text ?? '')?.[1] ?? ''
/** Somebody who was invited and joined. */
async function joined(actor: Actor, role: Role, label = `P ${randomUUID().slice(0, 8)}`) {
  const who = await login()
  expect(await invite(actor, { email: who.email, label, role }, 'http://here.test')).toBe('done')
  await join(tokenTo(who.email), who)
  const person = await memberOf(who.id, actor.firmId)
  if (!person) throw new Error('not in')
  return { person, who }
}
const told = async (actor: Actor) => (await readRecord(actor, null)).map(e => e.what)

test('an invitation brings in the one it was sent to, once, in the role it says', async () => {
  const { actor } = await firm()
  const who = await login()
  await invite(
    actor,
    { email: who.email.toUpperCase(), label: 'Ben', role: 'technician' },
    'http://here.test',
  )
  const token = tokenTo(who.email)
  expect(await invitingFirms(who.email)).toMatchObject([{ firm: 'Weir Works', role: 'technician' }])
  expect(await openInvitation(token)).toMatchObject({ firm: 'Weir Works', role: 'technician', label: 'Ben' })
  expect(await join(token, await login())).toBe('another')
  expect(await join(token, who)).toEqual({ firmId: actor.firmId })
  expect(await memberOf(who.id, null)).toMatchObject({
    label: 'Ben',
    role: 'technician',
    zone: 'America/Denver',
  })
  expect([await join(token, who), await openInvitation(token), await openInvitation('x')]).toEqual([
    'gone',
    null,
    null,
  ])
  const row = await ownerDb()('invitation').where({ firm_id: actor.firmId }).first('token_hash')
  expect(row.token_hash).not.toContain(token)
  expect(await told(actor)).toEqual(['joined', 'invited', 'firm opened'])
})

test('an invitation that was withdrawn, sent anew or is too old opens nothing; a firm has so many waiting', async () => {
  const { actor } = await firm()
  const email = `${randomUUID()}@people.test`
  const send = () => invite(actor, { email, label: 'Ben', role: 'reader' }, 'http://here.test')
  await send()
  const first = tokenTo(email)
  await send()
  expect([await openInvitation(first), (await invitationsOf(actor)).length]).toEqual([null, 1])
  const [one] = await invitationsOf(actor)
  const other = await firm()
  expect(await withdrawInvitation(other.actor, one?.id ?? '')).toBe('gone')
  expect(await withdrawInvitation(actor, one?.id ?? '')).toBe('done')
  expect(await openInvitation(tokenTo(email))).toBeNull()
  await send()
  await ownerDb()('invitation')
    .where({ email })
    .update({ expires_at: new Date(Date.now() - 1000) })
  expect(await openInvitation(tokenTo(email))).toBeNull()
  for (let n = 0; n < mostWaiting; n++)
    await invite(actor, { email: `${n}-${email}`, label: `B ${n}`, role: 'reader' }, 'http://here.test')
  expect(await send()).toMatchObject({
    faults: [{ path: 'email', message: expect.stringMatching(/waits behind/) }],
  })
})

test('nobody is invited twice over, nor under a name that is taken', async () => {
  const { actor, by } = await firm()
  const faults = (email: string, label: string) =>
    invite(actor, { email, label, role: 'owner' }, 'http://here.test')
  expect(await faults(by.email, 'Other')).toMatchObject({ faults: [{ path: 'email' }] })
  expect(await faults('new@people.test', 'Ann')).toMatchObject({ faults: [{ path: 'label' }] })
})

test('a firm is never without an owner, whatever its people do to each other, one after another or at once', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(2), fc.nat(2), fc.constantFrom(...roles, 'remove' as const)), {
        minLength: 1,
        maxLength: 8,
      }),
      fc.boolean(),
      async (steps, atOnce) => {
        const { actor } = await firm()
        const people = [actor, (await joined(actor, 'owner')).person, (await joined(actor, 'owner')).person]
        const act = ([by, whom, what]: (typeof steps)[number]) => {
          const [a, b] = [people[by], people[whom]]
          if (!a || !b) throw new Error('nobody')
          return what === 'remove' ? removePerson(a, b.personId) : changePerson(a, b.personId, { role: what })
        }
        if (atOnce) await Promise.all(steps.map(act))
        else for (const step of steps) await act(step)
        const owners = (await peopleOf(actor, false)).filter(p => p.role === 'owner' && p.leftAt === null)
        expect(owners.length).toBeGreaterThan(0)
      },
    ),
    { numRuns: 12 },
  )
})

test('who is removed is out at once and stays in the record; who comes back is the same person', async () => {
  const { actor } = await firm()
  const { person, who } = await joined(actor, 'designer', 'Cid')
  expect(await removePerson(actor, person.personId)).toBe('done')
  expect(await memberOf(who.id, actor.firmId)).toBeNull()
  expect((await peopleOf(actor, true)).find(p => p.id === person.personId)).toMatchObject({
    label: 'Cid',
    leftAt: expect.any(String),
  })
  await invite(actor, { email: who.email, label: 'Cid again', role: 'reader' }, 'http://here.test')
  await join(tokenTo(who.email), who)
  expect(await memberOf(who.id, actor.firmId)).toMatchObject({ personId: person.personId, role: 'reader' })
  expect(await told(actor)).toEqual(['joined', 'invited', 'removed', 'joined', 'invited', 'firm opened'])
})

test('with a foreign person’s id nothing is changed', async () => {
  const [one, other] = [await firm(), await firm()]
  expect(await changePerson(one.actor, other.actor.personId, { role: 'reader' })).toBe('gone')
  expect(await removePerson(one.actor, other.actor.personId)).toBe('gone')
  expect(await memberOf(other.by.id, null)).toMatchObject({ role: 'owner' })
})

test('somebody in several firms works in the one chosen, and in none they have left', async () => {
  const [one, other] = [await firm(), await firm()]
  await invite(other.actor, { email: one.by.email, label: 'Guest', role: 'reader' }, 'http://here.test')
  await join(tokenTo(one.by.email), one.by)
  expect(await memberOf(one.by.id, other.actor.firmId)).toMatchObject({ label: 'Guest' })
  const guest = await memberOf(one.by.id, other.actor.firmId)
  await removePerson(other.actor, guest?.personId ?? '')
  expect(await memberOf(one.by.id, other.actor.firmId)).toMatchObject({ label: 'Ann' })
})

test('settings are kept on the version they were read from; two at once lose neither', async () => {
  const { actor } = await firm()
  const { settings, version } = await settingsOf(actor)
  expect(settings).toEqual({ ...usualSettings('Weir Works'), zone: 'America/Denver' })
  expect(await keepSettings(actor, { ...settings, telephone: '555 0100' }, version)).toBe('done')
  expect(await keepSettings(actor, { ...settings, telephone: '555 0199' }, version)).toBe('stale')
  expect((await settingsOf(actor)).settings.telephone).toBe('555 0100')
  expect((await readRecord(actor, null))[0]).toMatchObject({
    what: 'settings changed',
    about: { what: 'telephone' },
  })
})

test('the record is only added to, by whomever; it is read a page at a time, and by its own firm', async () => {
  const [{ actor }, other] = [await firm(), await firm()]
  for (let n = 0; n < 120; n++) await note(actor, 'exported', { what: `paper ${n}` })
  for (const at of [db(actor), ownerDb()])
    for (const change of [
      () => at('record_entry').where({ firm_id: actor.firmId }).update({ who: 'nobody' }),
      () => at('record_entry').where({ firm_id: actor.firmId }).delete(),
    ])
      await expect(change()).rejects.toMatchObject({ code: '42501' })
  const pages: string[][] = []
  for (let before: string | null = null; ; ) {
    const page = await readRecord(actor, before)
    if (!page.length) break
    pages.push(page.map(e => e.id))
    before = page.at(-1)?.id ?? null
  }
  expect(pages.map(p => p.length)).toEqual([50, 50, 21])
  let whole = 0
  for await (const entries of wholeRecord(actor)) whole += entries.length
  expect(whole).toBe(121)
  expect((await readRecord(other.actor, null)).every(e => e.what === 'firm opened')).toBe(true)
  expect(await unbound()('record_entry').select('id')).toEqual([])
})
