import { randomUUID } from 'node:crypto'
import { answerSent, askedOfCustomer, fileSent } from '@/core/assess/sent'
import { closeDb, ownerDb } from '../db/connection'
import { savePacked } from '../files/repository'
import { createJob, readJobRecord } from '../jobs/repository'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import {
  linkTakes,
  listLinks,
  makeLink,
  mostValidLinks,
  type Opened,
  openLink,
  takeFromCustomer,
  withdrawLink,
} from './repository'

const now = new Date('2026-03-01T12:00:00Z')
const key = askedOfCustomer(alderHollow)[0]?.key ?? ''
const by = { by: 'Customer', on: '2026-03-01' }
let actor: Actor
let jobId: string
let opened: Opened

beforeEach(async () => {
  actor = await testFirm()
  jobId = await createJob(actor, alderHollow, 'opened', now)
  const made = await makeLink(actor, jobId, now)
  const link = typeof made === 'object' && (await openLink(made.token, now))
  if (!link) throw new Error('no link')
  opened = link
})
afterAll(closeDb)

const say = (text: string, wanted = key) =>
  takeFromCustomer(opened, job => answerSent(job, { key: wanted, text }, by), now, null)
const file = (wanted: string) => {
  const id = randomUUID()
  const kept = { name: 'use.csv', kind: 'csv', packed: Buffer.from('packed') }
  return takeFromCustomer(opened, job => fileSent(job, wanted, { id, name: kept.name, bytes: 6 }, by), now, {
    bytes: 6,
    keep: trx => savePacked(actor, jobId, kept, now, id, trx),
  })
}
const link = () =>
  ownerDb()('customer_link').where({ id: opened.linkId }).first('answers', 'uploads', 'bytes')
const files = async () => (await ownerDb()('job_file').where({ job_id: jobId }).select('id')).length

test('many senders at once are all taken, one after the other', async () => {
  const states = await Promise.all(Array.from({ length: 20 }, (_, n) => say(`answer ${n}`)))
  expect(new Set(states.map(s => s.state))).toEqual(new Set(['written']))
  expect((await readJobRecord(actor, jobId))?.revision).toBe(21)
  expect(await link()).toMatchObject({ answers: 20, uploads: 0 })
})

test('what is no longer asked for, and what cannot be taken, leaves no row, no count and no changed state', async () => {
  expect(await file('photo:nothing')).toEqual({ state: 'nothing' })
  expect(await say('x', 'photo:nothing')).toEqual({ state: 'nothing' })
  expect(await say('x'.repeat(600))).toMatchObject({ state: 'refused' })
  expect([await files(), await link()]).toEqual([0, { answers: 0, uploads: 0, bytes: '0' }])
  expect((await readJobRecord(actor, jobId))?.revision).toBe(1)
})

test('words are limited like uploads, and bytes as well; what is too much changes nothing', async () => {
  expect(await file(key)).toEqual(expect.objectContaining({ state: 'written' }))
  await ownerDb()('customer_link').where({ id: opened.linkId }).update({ answers: linkTakes.answers })
  expect(await say('one more')).toEqual({ state: 'enough' })
  await ownerDb()('customer_link')
    .where({ id: opened.linkId })
    .update({ bytes: linkTakes.bytes - 3 })
  expect(await file(key)).toEqual({ state: 'enough' })
  expect([await files(), (await readJobRecord(actor, jobId))?.revision]).toEqual([1, 2])
})

test('every valid link is listed and can be withdrawn; more than twenty at once are not made', async () => {
  for (let n = 1; n < mostValidLinks; n++) await makeLink(actor, jobId, now)
  expect(await makeLink(actor, jobId, now)).toBe('enough')
  for (let n = 0; n < 30; n++) {
    const [first] = await listLinks(actor, jobId, now)
    await withdrawLink(actor, jobId, first?.id ?? '', now)
    await makeLink(actor, jobId, now)
  }
  const valid = (await listLinks(actor, jobId, now)).filter(l => !l.withdrawnAt)
  expect(valid).toHaveLength(mostValidLinks)
  for (const { id } of valid) expect(await withdrawLink(actor, jobId, id, now)).toBe(true)
  expect((await listLinks(actor, jobId, now)).every(l => l.withdrawnAt)).toBe(true)
})

describe('what a link opens', () => {
  const made = async (at = now) => {
    const link = await makeLink(actor, jobId, at)
    if (typeof link !== 'object') throw new Error('no link')
    return link.token
  }
  const later = (days: number) => new Date(now.getTime() + days * 86_400_000)

  test('three weeks to the moment, and not a moment longer', async () => {
    const token = await made()
    expect(await openLink(token, new Date(later(21).getTime() - 1))).toMatchObject({ jobId })
    expect(await openLink(token, later(21))).toBeNull()
  })

  test('withdrawn it opens nothing at once; withdrawing again, or another job’s, does nothing', async () => {
    const token = await made(later(1))
    const [{ id } = { id: '' }] = await listLinks(actor, jobId, later(1))
    const other = await createJob(actor, alderHollow, 'opened', now)
    expect(await withdrawLink(actor, other, id, now)).toBe(false)
    expect(await openLink(token, later(2))).not.toBeNull()
    expect(await withdrawLink(actor, jobId, id, later(2))).toBe(true)
    expect(await openLink(token, later(2))).toBeNull()
    expect(await withdrawLink(actor, jobId, id, later(3))).toBe(false)
  })

  test('guessing tells nothing: unknown, misspelt, too long and hostile tokens open the same nothing', async () => {
    const token = await made()
    const guesses = [
      '',
      'x',
      token.slice(1),
      `${token}a`,
      token.replace(/.$/, c => (c === 'A' ? 'B' : 'A')),
      "' or 1=1 --".padEnd(43, 'x'),
      'x'.repeat(100_000),
    ]
    for (const guess of guesses) expect(await openLink(guess, now)).toBeNull()
    // only a hash is kept: what the database holds opens nothing either
    const rows: { token_hash: string }[] = await ownerDb()('customer_link')
      .where({ job_id: jobId })
      .select('token_hash')
    for (const { token_hash } of rows) expect(await openLink(token_hash.slice(0, 43), now)).toBeNull()
    expect(rows.map(r => r.token_hash)).not.toContain(token)
  })

  test('an archived job is not opened; another firm sees and withdraws none of its links', async () => {
    const token = await made()
    const stranger = await testFirm()
    expect(await listLinks(stranger, jobId, now)).toEqual([])
    const [{ id } = { id: '' }] = await listLinks(actor, jobId, now)
    expect(await withdrawLink(stranger, jobId, id, now)).toBe(false)
    expect(await makeLink(stranger, jobId, now)).toBe('gone')
    await ownerDb()('job').where({ id: jobId }).update({ archived_at: now })
    expect(await openLink(token, now)).toBeNull()
  })

  test('who opened it is told when, and an upload is counted', async () => {
    const token = await made(later(1))
    const [before] = await listLinks(actor, jobId, later(1))
    expect(before).toMatchObject({ seenAt: null, uploads: 0 })
    await openLink(token, later(2))
    const [after] = await listLinks(actor, jobId, later(2))
    expect(after).toMatchObject({ id: before?.id, seenAt: later(2).toISOString() })
  })
})
