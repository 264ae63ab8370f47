import type { HouseWord } from '@/core/card/word'
import { closeDb, ownerDb } from '../db/connection'
import { createJob } from '../jobs/repository'
import { listLinks, makeLink, openLink, withdrawLink } from '../links/repository'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { hear, mostWords, openHouse, saidBy, saidOf, settle } from './repository'

const now = new Date('2026-03-01T12:00:00Z')
const years = (n: number) => new Date(now.getTime() + n * 365 * 86_400_000)
const outage: HouseWord = { act: 'outage', on: '2026-02-28', hours: 4, carried: 'all of it', text: '' }
let actor: Actor
let jobId: string
let token: string

beforeEach(async () => {
  actor = await testFirm()
  jobId = await createJob(actor, alderHollow, 'opened', now)
  const made = await makeLink(actor, jobId, now, 'house')
  if (typeof made !== 'object') throw new Error('no link')
  token = made.token
})
afterAll(closeDb)

const opened = async () => {
  const house = await openHouse(token, now)
  if (!house) throw new Error('not open')
  return house
}

test('the link of a house lasts for years, opens no questions, and nothing once it is withdrawn; renewed it is another', async () => {
  expect(await openHouse(token, years(20))).toMatchObject({ jobId })
  expect(await openLink(token, now)).toBeNull()
  const ask = await makeLink(actor, jobId, now)
  expect(typeof ask === 'object' && (await openHouse(ask.token, now))).toBeNull()
  const [link] = await listLinks(actor, jobId, now, 'house')
  expect(link).toMatchObject({ expiresAt: null, withdrawnAt: null })
  expect(await listLinks(actor, jobId, now)).toHaveLength(1)
  await withdrawLink(actor, jobId, link?.id ?? '', now)
  expect(await openHouse(token, now)).toBeNull()
  const again = await makeLink(actor, jobId, now, 'house')
  expect(typeof again === 'object' && (await openHouse(again.token, years(1)))).toMatchObject({ jobId })
  for (const guess of ['', token.slice(1), `${token}a`, 'x'.repeat(43)])
    expect(await openHouse(guess, now)).toBeNull()
})

test('what is said is kept, shown by the link and to the firm, settled once; another firm sees and settles nothing', async () => {
  expect(await hear(await opened(), { act: 'ask', text: 'May it stand outside?' }, now)).toBe('kept')
  expect(await hear(await opened(), outage, years(1))).toBe('kept')
  expect((await saidBy(await opened())).map(s => s.word)).toEqual([
    outage,
    { act: 'ask', text: 'May it stand outside?' },
  ])
  const [last] = await saidOf(actor, jobId)
  const stranger = await testFirm()
  expect(await saidOf(stranger, jobId)).toEqual([])
  expect(await settle(stranger, jobId, last?.id ?? '', now)).toBe(false)
  expect(await settle(actor, jobId, last?.id ?? '', now)).toBe(true)
  expect(await settle(actor, jobId, last?.id ?? '', now)).toBe(false)
  expect((await saidOf(actor, jobId)).map(s => s.settled)).toEqual([true, false])
})

test('a link takes no more than it may, however many send at once', async () => {
  const house = await opened()
  for (let n = 0; n < mostWords - 2; n += 99)
    await Promise.all(Array.from({ length: Math.min(99, mostWords - 2 - n) }, () => hear(house, outage, now)))
  const last = await Promise.all(Array.from({ length: 6 }, () => hear(house, outage, now)))
  expect(last.filter(s => s === 'kept')).toHaveLength(2)
  const [counted] = await ownerDb()('house_word').where({ job_id: jobId }).count({ count: '*' })
  expect(Number(counted?.count)).toBe(mostWords)
})
