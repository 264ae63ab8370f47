import { randomUUID } from 'node:crypto'
import { getAuthTables } from 'better-auth/db'
import { usualSettings } from '@/core/firm/settings'
import { authAt, sessionLasts, signedIn } from '@/server/accounts/auth'
import { forgetLimits } from '@/server/accounts/limits'
import type { Mail } from '@/server/accounts/mails'
import { hashPassword, verifyPassword, weakness } from '@/server/accounts/password'
import { closeLogins } from '@/server/accounts/store'
import { closeDb, ownerDb } from '@/server/db/connection'
import { admitToPage, stillAdmitted } from '@/server/people/admission'
import { firmsOf, memberOf } from '@/server/people/repository'
import { GET, POST } from './auth/[...all]/route'
import * as firm from './firm/route'
import * as firms from './firms/route'
import * as jobs from './jobs/route'
import * as session from './session/route'

const mails: Mail[] = []
let mailServer: 'up' | 'away' = 'up'
jest.mock('@/server/mail/outbox', () => ({
  sendMail: async (mail: Mail) => {
    if (mailServer === 'away') throw new Error('no queue')
    mails.push(mail)
  },
}))

const host = 'here.test'
const origin = `http://${host}`
const good = 'tall pylon under grey weather'

/** A browser: what it is given it sends back. */
class Browser {
  cookies = new Map<string, string>()
  constructor(readonly address = `192.0.2.${Math.ceil(Math.random() * 250)}-${randomUUID()}`) {}

  headers(more: Record<string, string> = {}) {
    const cookie = [...this.cookies].map(([k, v]) => `${k}=${v}`).join('; ')
    return new Headers({
      host,
      origin,
      'x-spillway-address': this.address,
      ...(cookie && { cookie }),
      ...more,
    })
  }

  async ask(path: string, body?: object, handler: typeof POST = body ? POST : GET, more = {}) {
    const request = new Request(`${origin}${path}`, {
      method: body ? 'POST' : 'GET',
      headers: this.headers(body ? { 'content-type': 'application/json', ...more } : more),
      ...(body && { body: JSON.stringify(body) }),
    })
    const response = await handler(request, undefined)
    for (const set of response.headers.getSetCookie()) {
      const [pair = ''] = set.split(';')
      const at = pair.indexOf('=')
      if (/Max-Age=0/.test(set)) this.cookies.delete(pair.slice(0, at))
      else this.cookies.set(pair.slice(0, at), pair.slice(at + 1))
    }
    const text = await response.text()
    return { status: response.status, text, json: () => JSON.parse(text), headers: response.headers }
  }

  auth = (path: string, body?: object, more = {}) => this.ask(`/api/auth${path}`, body, undefined, more)
  who = async () => (await signedIn(this.headers()))?.user.email ?? null
}

const newMail = () => `${randomUUID()}@people.test`
const linkIn = (mail: Mail | undefined) => new URL(/https?:\S+/.exec(mail?.text ?? '')?.[0] ?? origin)
const lettersTo = (to: string) => mails.filter(m => m.to === to)

/** The bytes behind an app’s key, as letters. */
function fromBase32(key: string): string {
  const bits = [...key]
    .map(c => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(c).toString(2).padStart(5, '0'))
    .join('')
  return String.fromCharCode(...(bits.match(/.{8}/g) ?? []).map(b => Number.parseInt(b, 2)))
}

/** Somebody who has signed up, confirmed the address, and is signed in. */
async function somebody(browser = new Browser()) {
  const email = newMail()
  await browser.auth('/sign-up/email', { name: 'Sam', email, password: good })
  const link = linkIn(lettersTo(email)[0])
  await browser.ask(`${link.pathname}${link.search}`)
  return { browser, email }
}

beforeAll(() => {
  process.env.SPILLWAY_SECRET = 'a secret of this test, long enough to seal'
  process.env.SPILLWAY_DEMO = ''
})
beforeEach(() => {
  mailServer = 'up'
})
afterAll(async () => {
  forgetLimits()
  await closeLogins()
  await closeDb()
})

test('the tables of logins are those that the library asks for', async () => {
  const snake = (name: string) => name.replace(/[A-Z]/g, c => `_${c.toLowerCase()}`)
  const asked = Object.values(getAuthTables(authAt(origin).options)).flatMap(t =>
    ['id', ...Object.entries(t.fields).map(([key, f]) => f.fieldName ?? key)].map(
      f => `${snake(t.modelName)}.${snake(f)}`,
    ),
  )
  const there = await ownerDb()('information_schema.columns')
    .where({ table_schema: 'login' })
    .select('table_name', 'column_name')
  expect(asked.length).toBeGreaterThan(30)
  expect(asked.filter(asks => !there.some(c => asks === `${c.table_name}.${c.column_name}`))).toEqual([])
})

test('signing up: the address is confirmed by letter, and only then does the password open', async () => {
  const browser = new Browser()
  const email = newMail()
  const up = await browser.auth('/sign-up/email', {
    name: 'Sam',
    email: ` ${email.toUpperCase()} `,
    password: good,
  })
  expect([up.status, await browser.who()]).toEqual([200, null])
  expect(await browser.auth('/sign-in/email', { email, password: good })).toMatchObject({
    status: 403,
    text: expect.stringMatching(/Confirm your address/),
  })
  const link = linkIn(lettersTo(email)[0])
  const confirmed = await browser.ask(`${link.pathname}${link.search}`)
  expect([confirmed.status, confirmed.headers.get('location')]).toEqual([302, '/firms'])
  expect(await browser.who()).toBe(email)
  const [kept] = await ownerDb()('login.account as a')
    .join('login.user as u', 'u.id', 'a.user_id')
    .where('u.email', email)
    .select('a.password')
  expect(kept.password).toMatch(/^\$argon2id\$v=19\$m=65536,t=3,p=1\$/)
  // the link, replayed by who found it, opens nothing any more
  const finder = new Browser()
  await finder.ask(`${link.pathname}${link.search}`)
  expect(await finder.who()).toBeNull()
})

test('who has an account already, and who has none, are answered alike: by words, by status, by letters', async () => {
  const { email } = await somebody()
  const again = await new Browser().auth('/sign-up/email', { name: 'Sam', email, password: good })
  const first = await new Browser().auth('/sign-up/email', { name: 'Sam', email: newMail(), password: good })
  expect(Object.keys(again.json().user).sort()).toEqual(Object.keys(first.json().user).sort())
  expect(again.status).toBe(first.status)
  expect(lettersTo(email).at(-1)?.subject).toBe('You have an account already')
  const answers = [email, newMail()].map(async e => {
    const wrong = await new Browser().auth('/sign-in/email', { email: e, password: 'not the password' })
    const lost = await new Browser().auth('/request-password-reset', { email: e })
    return [wrong.status, wrong.text, lost.status, lost.text]
  })
  const [known, unknown] = await Promise.all(answers)
  expect(known).toEqual(unknown)
})

test.each([
  ['/sign-up/email', { name: 'Sam', email: 'no address', password: good }, /email .*address/],
  ['/sign-up/email', { name: '', email: 'a@b.test', password: good }, /name/],
  ['/sign-up/email', { name: 'Sam', email: 'a@b.test', password: 'short' }, /password .*10 letters/],
  ['/sign-up/email', { name: 'Sam', email: 'a@b.test', password: 'password1234' }, /password .*tried first/],
  ['/sign-up/email', { name: 'Sam', email: 'a@b.test', password: good, role: 'owner' }, /role/],
  [
    '/sign-up/email',
    { name: 'Sam', email: 'a@b.test', password: good, next: 'https://evil.test' },
    /page of ours/,
  ],
  ['/sign-up/email', { name: 'Sam', email: 'a@b.test', password: good, next: '//evil.test' }, /page of ours/],
  ['/sign-in/email', { email: ['a@b.test'], password: good }, /email/],
])('%s refuses %j and names the field', async (path, body, told) => {
  const answer = await new Browser().auth(path, body)
  const { faults } = answer.json()
  expect([
    answer.status,
    faults.map((f: { path: string; message: string }) => `${f.path} ${f.message}`).join(),
  ]).toEqual([400, expect.stringMatching(told)])
})

test('of the library only the named doors are open', async () => {
  const { browser } = await somebody()
  for (const path of [
    '/delete-user',
    '/list-sessions',
    '/revoke-sessions',
    '/get-session',
    '/ok',
    '/two-factor/view-backup-codes',
  ])
    expect([path, (await browser.auth(path, {})).status, (await browser.auth(path)).status]).toEqual([
      path,
      404,
      404,
    ])
})

test('recovery: the letter opens once, ends every session, and takes no old or weak password', async () => {
  const { browser, email } = await somebody()
  await new Browser().auth('/request-password-reset', { email })
  const letter = lettersTo(email).at(-1)
  const token = linkIn(letter).searchParams.get('token')
  const other = new Browser()
  expect((await other.auth('/reset-password', { token, newPassword: 'aaaaaaaaaaaa' })).status).toBe(400)
  const fresh = 'quiet lantern beside seven geese'
  expect((await other.auth('/reset-password', { token, newPassword: fresh })).status).toBe(200)
  expect(await browser.who()).toBeNull()
  expect((await other.auth('/sign-in/email', { email, password: good })).status).toBe(401)
  expect((await other.auth('/sign-in/email', { email, password: fresh })).status).toBe(200)
  expect((await other.auth('/reset-password', { token, newPassword: good })).text).toMatch(
    /used before, or is too old/,
  )
  expect(lettersTo(email).at(-1)?.subject).toBe('Your password was changed')
})

test('a forged, a foreign and a fixed cookie open nothing', async () => {
  const { browser, email } = await somebody()
  const name = [...browser.cookies.keys()].find(k => k.includes('session_token')) ?? ''
  const value = decodeURIComponent(browser.cookies.get(name) ?? '')
  const forged = new Browser()
  for (const cookie of [
    value.split('.')[0] ?? '',
    `${value.slice(0, -4)}AAAA`,
    `${randomUUID()}.${value.split('.')[1]}`,
  ]) {
    forged.cookies.set(name, encodeURIComponent(cookie))
    expect(await forged.who()).toBeNull()
  }
  // whoever plants a cookie of theirs does not keep it: signing in makes another
  const planted = new Browser()
  planted.cookies.set(name, 'planted')
  await planted.auth('/sign-in/email', { email, password: good })
  expect(planted.cookies.get(name)).not.toBe('planted')
  expect(await planted.who()).toBe(email)
  const elsewhere = await planted.auth('/sign-out', {}, { origin: 'http://elsewhere.test' })
  expect([elsewhere.status, await planted.who()]).toEqual([403, email])
})

test('who guesses is slowed down, and the innocent comes in all the same by the browser that is known', async () => {
  const { browser, email } = await somebody()
  const thief = new Browser()
  const tries = []
  for (let n = 0; n < 10; n++)
    tries.push((await thief.auth('/sign-in/email', { email, password: `guess ${n} guess` })).status)
  expect(tries.slice(-2)).toEqual([429, 429])
  expect((await thief.auth('/sign-in/email', { email, password: good })).status).toBe(429)
  // a crowd from everywhere
  for (let n = 0; n < 45; n++)
    await new Browser().auth('/sign-in/email', { email, password: `guess ${n} guess` })
  const stranger = await new Browser().auth('/sign-in/email', { email, password: good })
  expect([stranger.status, stranger.headers.get('retry-after')]).toEqual([
    429,
    expect.stringMatching(/^\d+$/),
  ])
  await browser.auth('/sign-out', {})
  expect((await browser.auth('/sign-in/email', { email, password: 'a slip of the finger' })).status).toBe(401)
  expect((await browser.auth('/sign-in/email', { email, password: good })).status).toBe(200)
}, 120_000)

test('letters are few for one address, and a mail server that is away changes no answer', async () => {
  const { email } = await somebody()
  const asks = []
  for (let n = 0; n < 9; n++)
    asks.push((await new Browser().auth('/request-password-reset', { email })).status)
  expect(asks).toEqual([200, 200, 200, 200, 200, 429, 429, 429, 429])
  mailServer = 'away'
  const [lost, unknown] = [await somebody(), newMail()]
  mailServer = 'away'
  const answers = await Promise.all(
    [lost.email, unknown].map(e => new Browser().auth('/request-password-reset', { email: e })),
  )
  expect(answers.map(a => [a.status, a.text])).toEqual([
    [200, answers[1]?.text],
    [200, answers[0]?.text],
  ])
})

/** Turns a second step on, as the app of somebody would. */
async function secondStep(browser: Browser) {
  const { totpURI, backupCodes } = (await browser.auth('/two-factor/enable', { password: good })).json()
  const secret = fromBase32(new URL(totpURI).searchParams.get('secret') ?? '')
  const code = async () => (await authAt(origin).api.generateTOTP({ body: { secret } })).code
  expect((await browser.auth('/two-factor/verify-totp', { code: await code() })).status).toBe(200)
  return { code, backupCodes }
}

test('a firm that demands a second step opens to nobody without one; who demands it has one', async () => {
  const { browser } = await somebody()
  await browser.ask('/api/firms', { firm: 'Demanding', label: 'Ann', zone: 'America/New_York' }, firms.POST)
  const settings = { ...usualSettings('Demanding'), secondStep: 'demanded' }
  const keep = () => browser.ask('/api/firm', { settings, version: 0 }, firm.POST)
  expect(await keep()).toMatchObject({ status: 409, text: expect.stringMatching(/takes your own first/) })
  await secondStep(browser)
  expect((await keep()).status).toBe(200)
  const list = async () => browser.ask('/api/jobs', undefined, jobs.GET)
  expect((await list()).status).toBe(200)
  expect((await browser.auth('/two-factor/disable', { password: good })).status).toBe(200)
  expect(await list()).toMatchObject({
    status: 403,
    text: expect.stringMatching(/second step.*Your account/),
  })
  expect(await admitToPage('/jobs', browser.headers())).toEqual({ to: 'second step' })
  expect((await admitToPage('/account', browser.headers())).to).toBe('show')
  await secondStep(browser)
  expect((await list()).status).toBe(200)
})

test('a page that was left open by somebody else does nothing under the name of who came after them', async () => {
  const { browser } = await somebody()
  await browser.ask('/api/firms', { firm: 'Weir', label: 'Ann', zone: 'America/New_York' }, firms.POST)
  const ann = await memberOf((await signedIn(browser.headers()))?.user.id ?? '', null)
  const open = (personId: string) =>
    browser.ask('/api/jobs', { title: 'Kept', place: '' }, jobs.POST, { 'x-spillway-person': personId })
  expect(await open(randomUUID())).toMatchObject({
    status: 401,
    text: expect.stringMatching(/signed in as Ann, Weir, by now, and this page is not theirs/),
  })
  const list = await browser.ask('/api/jobs', undefined, jobs.GET)
  expect(list.json().total).toBe(0)
  expect((await open(ann?.personId ?? '')).status).toBe(200)
})

test('what stays open for hours is looked at again: it ends with the session, and draws none out', async () => {
  const { browser } = await somebody()
  await browser.ask('/api/firms', { firm: 'Weir', label: 'Ann', zone: 'America/New_York' }, firms.POST)
  const ann = await memberOf((await signedIn(browser.headers()))?.user.id ?? '', null)
  const request = new Request(origin, { headers: browser.headers() })
  const still = (personId = ann?.personId ?? '') => stillAdmitted(request, { personId })
  const { session: own } = (await signedIn(browser.headers())) ?? {}
  const soon = new Date(Date.now() + 3_600_000)
  const kept = () => ownerDb()('login.session').where({ id: own?.id })
  await kept().update({ expires_at: soon })
  expect([await still(), await still(randomUUID())]).toEqual([true, false])
  expect((await kept().first('expires_at'))?.expires_at).toEqual(soon)
  await browser.auth('/sign-out', {})
  expect(await still()).toBe(false)
})

test('a second step is asked for after the password, by code or by a code put aside, each once', async () => {
  const { browser, email } = await somebody()
  const { code, backupCodes } = await secondStep(browser)
  const other = new Browser()
  expect((await other.auth('/sign-in/email', { email, password: good })).json()).toMatchObject({
    twoFactorRedirect: true,
  })
  expect(await other.who()).toBeNull()
  expect((await other.auth('/two-factor/verify-totp', { code: '000000' })).text).toMatch(/code is wrong/)
  // a code that was just used is used: whoever looked over a shoulder is late
  expect((await other.auth('/two-factor/verify-totp', { code: await code() })).text).toMatch(/code is wrong/)
  expect(await other.who()).toBeNull()
  await ownerDb()('login.tried').whereLike('key', 'code:%').delete()
  await other.auth('/sign-in/email', { email, password: good })
  expect((await other.auth('/two-factor/verify-totp', { code: await code() })).status).toBe(200)
  expect(await other.who()).toBe(email)
  const third = new Browser()
  const enter = async (with_: string) => {
    await third.auth('/sign-in/email', { email, password: good })
    return (await third.auth('/two-factor/verify-backup-code', { code: with_ })).status
  }
  expect(await enter(backupCodes[0])).toBe(200)
  await third.auth('/sign-out', {})
  expect(await enter(backupCodes[0])).not.toBe(200)
})

test('sessions are listed, ended one by one or all others, and last no longer than they may', async () => {
  const { browser, email } = await somebody()
  const other = new Browser()
  await other.auth('/sign-in/email', { email, password: good })
  const list = async () => (await browser.ask('/api/session', undefined, session.GET)).json()
  const { sessions } = await list()
  expect(sessions.map((s: { current: boolean }) => s.current).sort()).toEqual([false, true])
  const theirs = await somebody()
  const [foreign] = (await theirs.browser.ask('/api/session', undefined, session.GET)).json().sessions
  const end = (sessionId: string) => browser.ask('/api/session', { do: 'end', sessionId }, session.POST)
  expect((await end(foreign.id)).json()).toEqual({ ended: 0 })
  expect(await theirs.browser.who()).toBe(theirs.email)
  expect((await end(sessions.find((s: { current: boolean }) => !s.current).id)).json()).toEqual({ ended: 1 })
  expect([await other.who(), await browser.who()]).toEqual([null, email])
  const since = (seconds: number) =>
    ownerDb()('login.session')
      .where({ id: sessions.find((s: { current: boolean }) => s.current).id })
      .update({ created_at: new Date(Date.now() - seconds * 1000) })
  await since(sessionLasts.most + 60)
  expect(await browser.who()).toBeNull()
  // nor does a clock that was set back make one last longer
  await since(-2 * 86_400)
  expect(await browser.who()).toBeNull()
})

test('a changed address is agreed to at the old one and confirmed at the new one', async () => {
  const { browser, email } = await somebody()
  const to = newMail()
  expect((await browser.auth('/change-email', { newEmail: to })).status).toBe(200)
  expect(await browser.who()).toBe(email)
  const agree = linkIn(lettersTo(email).at(-1))
  await browser.ask(`${agree.pathname}${agree.search}`)
  expect(await browser.who()).toBe(email)
  const confirm = linkIn(lettersTo(to).at(-1))
  await browser.ask(`${confirm.pathname}${confirm.search}`)
  expect(await browser.who()).toBe(to)
})

test('somebody opens a firm, is its owner, and what they do about their login stands in its record', async () => {
  const { browser, email } = await somebody()
  expect(
    (await browser.ask('/api/firms', { firm: '', label: 'Sam', zone: 'Mars/Base' }, firms.POST)).json()
      .faults,
  ).toHaveLength(2)
  const made = await browser.ask(
    '/api/firms',
    { firm: 'Weir Works', label: 'Sam', zone: 'America/Denver' },
    firms.POST,
  )
  const { firmId } = made.json()
  await browser.auth('/sign-out', {})
  await browser.auth('/sign-in/email', { email, password: good })
  const who = await signedIn(browser.headers())
  expect(await firmsOf(who?.user.id ?? '')).toEqual([{ firmId }])
  const entries = await ownerDb()('record_entry')
    .where({ firm_id: firmId })
    .orderBy('id')
    .select('what', 'who', 'address')
  expect(entries.map(e => e.what)).toEqual(['firm opened', 'signed out', 'signed in'])
  expect(entries[2]).toMatchObject({ who: 'Sam', address: browser.address.slice(0, 64) })
})

test('the demo is entered by one press in demo mode alone', async () => {
  const browser = new Browser()
  expect((await browser.auth('/demo/enter', { as: 'designer' })).status).toBe(404)
  process.env.SPILLWAY_DEMO = 'yes'
  const enter = (as: string) =>
    browser.auth('/demo/enter', { as }, { host: 'demo.test', origin: 'http://demo.test' })
  expect((await enter('nobody')).status).toBe(400)
  expect((await enter('designer')).json()).toEqual({ as: 'designer' })
  expect(await browser.who()).toMatch(/^designer@/)
})

test.each([
  ['correct horse battery', null],
  ['four unlikely purple ladders', null],
  ['spillway2026', /tried first/],
  ['Headwater1!', null],
  ['qwertyuiop12', /tried first/],
  ['aaaaaaaaaaaa', /tried first/],
  ['x'.repeat(200), /128 letters at most/],
  ['sam@weir.test', /tried first/],
])('of the password %s it is said: %s', (password, said) => {
  const found = weakness(password, ['sam@weir.test'])
  if (said === null) expect(found).toBeNull()
  else expect(found).toMatch(said)
})

test('one password in two ways of writing its letters is one password', async () => {
  const kept = await hashPassword('café au lait au matin')
  expect(await verifyPassword({ hash: kept, password: 'cafe\u0301 au lait au matin' })).toBe(true)
})
