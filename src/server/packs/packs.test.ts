import { createHash, randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { applied } from '@/core/job/fixtures/jobs'
import type { Job } from '@/core/job/schema'
import { calendarOf } from '../calendar'
import { closeDb, ownerDb } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { savePhoto } from '../files/repository'
import { listDue } from '../jobs/due'
import { changeJob, createJob } from '../jobs/repository'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { fernbrook } from '../seeds/jobs/fernbrook'
import { millStreet } from '../seeds/jobs/mill-street'
import { livedIn } from '../seeds/lived-in'
import { failPack, listPacks, makePack, newestPack, packPaper, putPack, signPack } from './repository'

const now = new Date('2026-03-01T12:00:00Z')
const zone = 'America/New_York'
let actor: Actor
beforeEach(async () => {
  actor = await testFirm()
})
afterAll(closeDb)

const asked = (jobId: string, by: Actor = actor) =>
  transaction(actor, async trx => putPack(trx, by, jobId, now), always)
async function made(job: Job): Promise<string> {
  const jobId = await createJob(actor, job, 'opened', now)
  await makePack(actor, (await asked(jobId)) ?? '')
  return jobId
}
const sum = (bytes: Buffer | null) =>
  createHash('sha256')
    .update(bytes ?? '')
    .digest('hex')

test('a pack is of the job as it stood when it was asked for, frozen with its sums; one that is made stays as it is', async () => {
  const jobId = await createJob(actor, fernbrook, 'opened', now)
  const id = (await asked(jobId)) ?? ''
  await changeJob(
    actor,
    jobId,
    1,
    [
      {
        id: randomUUID(),
        kind: 'do',
        operation: { op: 'setJobFacts', facts: { title: 'Another house' } },
      },
    ],
    now,
  )
  expect(await listPacks(actor, jobId)).toMatchObject([{ n: 1, state: 'making', document: null }])
  await makePack(actor, id)
  const [pack] = await listPacks(actor, jobId)
  expect(pack).toMatchObject({
    state: 'made',
    progress: 1,
    revision: 1,
    document: { title: 'Fernbrook library kiosk', on: '2026-03-01', photographs: fernbrook.photos.length },
  })
  const paper = await packPaper(actor, jobId, 1)
  expect(paper?.subarray(0, 5).toString()).toBe('%PDF-')
  expect(sum(paper)).toBe(pack?.pdfSha256)
  expect(paper?.toString('latin1')).toMatch(/job\.json/)
  await makePack(actor, id)
  await failPack(actor, id, 'too late')
  expect(sum(await packPaper(actor, jobId, 1))).toBe(pack?.pdfSha256)
  expect(await newestPack(actor, jobId)).toBe(1)
  await makePack(actor, (await asked(jobId)) ?? '')
  expect((await listPacks(actor, jobId)).map(p => [p.n, p.document?.title])).toEqual([
    [2, 'Another house'],
    [1, 'Fernbrook library kiosk'],
  ])
})

test('open stops, a photograph that is missing, no source and no card do not keep it from being made', async () => {
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#456' } })
    .jpeg()
    .toBuffer()
  const [kept, missing] = [randomUUID(), randomUUID()]
  const photo = (id: string) => ({
    id,
    name: 'Panel',
    by: 'Ann',
    on: '2026-02-01',
    width: 60,
    height: 40,
    turns: 1 as const,
    about: { kind: 'other' as const },
    marks: [],
  })
  const jobId = await createJob(
    actor,
    { ...millStreet, source: undefined, photos: [photo(kept), photo(missing)] },
    'opened',
    now,
  )
  await savePhoto(actor, jobId, { picture, thumbnail: picture }, now, kept)
  await makePack(actor, (await asked(jobId)) ?? '')
  const [pack] = await listPacks(actor, jobId)
  expect(pack).toMatchObject({ state: 'made', document: { card: expect.stringMatching(/There is no card/) } })
  expect(pack?.document?.stops.length).toBeGreaterThanOrEqual(0)
  const [one] = await ownerDb()('photo').where({ id: missing })
  expect(one).toBeUndefined()
})

test('it is signed once by each side, and only where it is; another firm gets and signs nothing', async () => {
  const jobId = await made(fernbrook)
  const person = { ...actor, zone }
  const sign = (as: 'installer' | 'customer', n = 1, by = person) =>
    signPack(by, jobId, n, { as, name: 'Ann Lee', signature: [], typed: true }, now)
  expect(await sign('installer')).toBe('signed')
  expect(await sign('installer')).toBe('taken')
  expect(await Promise.all([sign('customer'), sign('customer')])).toEqual(
    expect.arrayContaining(['signed', 'taken']),
  )
  expect(await sign('customer', 2)).toBe('gone')
  const stranger = await testFirm()
  expect(await sign('customer', 1, { ...stranger, zone })).toBe('gone')
  expect(await packPaper(stranger, jobId, 1)).toBeNull()
  expect(await listPacks(stranger, jobId)).toEqual([])
  expect(await asked(jobId, stranger)).toBeNull()
  expect((await listPacks(actor, jobId))[0]?.signatures.map(s => s.as)).toEqual(['installer', 'customer'])
})

test('what is due is listed across houses, the next first, and stands in a calendar file', async () => {
  const quiet = await createJob(actor, millStreet, 'opened', now)
  const handed = livedIn(fernbrook, 'Ann')
  const later = await createJob(actor, handed, 'opened', now)
  const sooner = await createJob(
    actor,
    applied(millStreet, { op: 'setHandOver', facts: { on: '2026-01-05', warranties: [] } }),
    'opened',
    now,
  )
  const { houses, total } = await listDue(actor, 1)
  expect(houses.map(h => h.id)).toEqual([sooner, later])
  expect([total, houses.some(h => h.id === quiet)]).toEqual([2, false])
  expect((await listDue(await testFirm(), 1)).houses).toEqual([])
  const ics = calendarOf({ id: later, title: handed.title }, houses[1]?.due ?? [], now)
  expect(ics).toMatch(/^BEGIN:VCALENDAR\r\n/)
  expect(ics).toMatch(/DTSTART;VALUE=DATE:20280216[\s\S]*RRULE:FREQ=YEARLY/)
  expect(ics.match(/BEGIN:VEVENT/g)).toHaveLength(2)
})
