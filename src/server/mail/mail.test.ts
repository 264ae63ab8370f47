import { createServer, type Server } from 'node:net'
import { mailStandIn, type Received } from '@/simulators/mail'
import { closeDb, ownerDb } from '../db/connection'
import { migrate } from '../db/migrate'
import { closeSender, mailQueue } from '../queue/boss'
import { workOnSearches } from '../search/queue'
import { sendMail } from './outbox'
import { post } from './post'

const letter = {
  to: 'ann@people.test',
  subject: 'Set a new password',
  text: 'Open this:\n\nhttp://here.test/x',
}
const received: Received[] = []
let standIn: Awaited<ReturnType<typeof mailStandIn>>
let silent: Server

const urlOf = (server: Server) => {
  const at = server.address()
  return `smtp://127.0.0.1:${typeof at === 'object' ? at?.port : 0}`
}
const through = (url: string) => {
  process.env.SPILLWAY_SMTP = url
}
const to = (address: string) => received.filter(r => r.to === address)

beforeAll(async () => {
  await migrate(ownerDb())
  standIn = await mailStandIn(async mail => received.push(mail))
  silent = createServer(() => {})
  await new Promise<void>(resolve => silent.listen(0, '127.0.0.1', resolve))
})
afterEach(() => {
  received.length = 0
})
afterAll(async () => {
  silent.close()
  await standIn.stop()
  await closeSender()
  await closeDb()
})

async function until(test: () => Promise<boolean> | boolean) {
  while (!(await test())) await new Promise(resolve => setTimeout(resolve, 50))
}
const waiting = (address: string) =>
  ownerDb().withSchema('pgboss').from('job').where({ name: mailQueue }).whereRaw(`data->>'to' = ?`, address)

test('a letter comes as it was written, in whatever letters', async () => {
  through(standIn.url)
  await post({ ...letter, subject: 'Invitación de “Solar Ñandú”' })
  expect(received).toMatchObject([{ to: letter.to, subject: 'Invitación de “Solar Ñandú”' }])
  expect(received[0]?.text).toContain('http://here.test/x')
})

test('a firm’s name makes no header and no second address of a letter', async () => {
  through(standIn.url)
  await post({ ...letter, subject: 'Come in\r\nBcc: everybody@else.test\r\n\r\nclick here' })
  expect(received).toHaveLength(1)
  expect(received[0]).toMatchObject({
    to: letter.to,
    subject: expect.stringContaining('Bcc: everybody@else.test'),
  })
  expect(received[0]?.text).not.toContain('click here')
})

test('a server that says nothing is given up; so is one that is not there', async () => {
  through(urlOf(silent))
  await expect(post(letter, 60, 20_000)).rejects.toThrow(/greeting/i)
  await expect(post(letter, 20_000, 60)).rejects.toThrow(/timeout/i)
  through('smtp://127.0.0.1:1')
  await expect(post(letter)).rejects.toThrow(/ECONNREFUSED/)
})

test('a letter that is refused waits and is sent once when it can be; it holds up none of those beside it', async () => {
  const [later, now] = ['later@people.test', 'now@people.test']
  let open = false
  const fussy = await mailStandIn(async mail => {
    if (mail.to === later && !open) throw new Error('not just now')
    received.push(mail)
  })
  through(fussy.url)
  for (const address of [later, now]) await sendMail({ ...letter, to: address })
  const working = await workOnSearches()
  // whoever else works on this queue just now may take one first, and knows no mail server: it waits no longer for that
  const comesTo = (address: string, state: string) =>
    until(async () => {
      const found = await waiting(address).first('state')
      if (found?.state === state) return true
      await waiting(address)
        .where({ state: 'retry' })
        .update({ start_after: new Date(0) })
      return false
    })
  await comesTo(now, 'completed')
  await comesTo(later, 'retry')
  open = true
  await comesTo(later, 'completed')
  await working.stop()
  await fussy.stop()
  expect([to(later).length, to(now).length]).toEqual([1, 1])
})
