import { randomUUID } from 'node:crypto'
import type { Job } from '@/core/job/schema'
import { search } from '@/core/search/search'
import { spaceOf } from '@/core/search/space'
import { alone } from '@/core/search/tasks'
import { wishesSchema } from '@/core/search/wishes'
import { closeDb, ownerDb } from '../db/connection'
import { migrate } from '../db/migrate'
import { createJob } from '../jobs/repository'
import { listPacks } from '../packs/repository'
import { listPeople } from '../people/repository'
import { type Actor, servedFirm } from '../people/types'
import { closeSender } from '../queue/boss'
import { freshet18, sluice22, weirgate36 } from '../seeds/catalogue'
import { seedDemo } from '../seeds/demo'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { startPack, startSearch, workOnSearches } from './queue'
import { cancelSearches, keepAnswer, latestSearch } from './repository'

const catalogue = [sluice22, weirgate36, freshet18]
const wishes = wishesSchema.parse({})
const job: Job = { ...alderHollow, outage: { ...alderHollow.outage, hours: 20 } }
let actor: Actor
let jobId: string

beforeAll(async () => {
  await migrate(ownerDb())
  await seedDemo()
  const [first] = await listPeople(servedFirm)
  if (!first) throw new Error('no demo firm')
  actor = first
  jobId = await createJob(actor, job, 'for the queue', new Date('2026-01-01'))
})
afterAll(async () => {
  await closeSender()
  await closeDb()
})

async function until(test: () => Promise<boolean>) {
  while (!(await test())) await new Promise(resolve => setTimeout(resolve, 50))
}
const state = async () => (await latestSearch(actor, jobId))?.state
const count = async () => Number((await ownerDb()('design_search').count({ count: '*' }))[0]?.count ?? 0)
const queued = async (id: string) =>
  (await ownerDb().withSchema('pgboss').from('job').whereRaw(`data->>'searchId' = ?`, id).select('id')).length
const pieces = async () =>
  Number((await ownerDb()('design_search_task').count({ count: '*' }))[0]?.count ?? 0)

test('a search that is interrupted goes on with another worker, and comes to what it comes to alone', async () => {
  const id = await startSearch(actor, jobId, job, { catalogue }, wishes, new Date('2026-01-02'))
  const first = await workOnSearches()
  await until(async () => (await pieces()) > 0 || (await state()) === 'done')
  await first.stop()
  const [second, third] = await Promise.all([workOnSearches(), workOnSearches()])
  await until(async () => (await state()) === 'done')
  await Promise.all([second.stop(), third.stop()])
  const space = spaceOf(job, catalogue, wishes)
  const here = await search(space, alone(space), { seed: 1, draws: 200 })
  expect((await latestSearch(actor, jobId))?.result).toEqual(JSON.parse(JSON.stringify(here)))
  expect(await pieces()).toBe(0)
  // nothing was done twice but what the interruption cost: no piece calls others into being
  const [sent] = await ownerDb()
    .withSchema('pgboss')
    .from('job')
    .where({ name: 'design-search-task' })
    .whereRaw(`data->>'searchId' = ?`, id)
    .select(ownerDb().raw(`count(*)::int as jobs, count(distinct data->>'key')::int as keys`))
  expect(sent.jobs).toBeLessThanOrEqual(sent.keys + 8)
}, 120_000)

test('a search that cannot be is told to have failed, and does not run for ever', async () => {
  const id = await startSearch(actor, jobId, job, { catalogue }, wishes, new Date('2026-01-02T12:00'))
  await ownerDb()('design_search').where({ id }).update({ catalogue: '[{"kind":"nothing"}]' })
  const worker = await workOnSearches()
  await until(async () => (await state()) !== 'running')
  await worker.stop()
  const failed = await latestSearch(actor, jobId)
  expect(failed).toMatchObject({ state: 'failed', trouble: expect.stringContaining('Search again') })
}, 60_000)

test('another firm sees nothing of it; a cancelled search stays cancelled and leaves nothing', async () => {
  expect(await latestSearch({ ...actor, firmId: '5a1de000-0000-4000-8000-0000000000ff' }, jobId)).toBeNull()
  // the clock of another machine may stand behind: the order is that of writing
  const id = await startSearch(actor, jobId, job, { catalogue }, wishes, new Date('2025-01-01'))
  expect(await keepAnswer(actor, id, '0-0', JSON.parse('[]'))).toBe(true)
  await cancelSearches(actor, jobId)
  expect(await keepAnswer(actor, id, '0-1', JSON.parse('[]'))).toBe(false)
  expect([await pieces(), await queued(id)]).toEqual([0, 0])
  const worker = await workOnSearches()
  await worker.stop()
  expect(await state()).toBe('cancelled')
}, 60_000)

test('of a search that cannot be sent no row stays; one that nobody works on any more is ended with a word', async () => {
  const before = await count()
  await expect(startSearch(actor, randomUUID(), job, { catalogue }, wishes, new Date())).rejects.toThrow()
  expect(await count()).toBe(before)
  const id = await startSearch(actor, jobId, job, { catalogue }, wishes, new Date('2026-01-04'))
  await ownerDb().withSchema('pgboss').from('job').whereRaw(`data->>'searchId' = ?`, id).delete()
  const worker = await workOnSearches()
  await worker.stop()
  expect(await latestSearch(actor, jobId)).toMatchObject({
    state: 'failed',
    trouble: expect.stringContaining('Search again'),
  })
}, 60_000)

test('a pack is made by the worker, whoever asked and went away; one that cannot be made says so after its tries', async () => {
  const kiosk = await createJob(actor, alderHollow, 'for a pack', new Date('2026-01-01'))
  expect(await startPack(actor, randomUUID(), new Date('2026-01-02'))).toBeNull()
  await startPack(actor, kiosk, new Date('2026-01-02'))
  const broken = (await startPack(actor, kiosk, new Date('2026-01-03'))) ?? ''
  await ownerDb()('pack')
    .where({ id: broken })
    .update({ job: JSON.stringify({ formatVersion: 99 }) })
  const worker = await workOnSearches()
  await until(async () => (await listPacks(actor, kiosk)).every(p => p.state !== 'making'))
  await worker.stop()
  expect((await listPacks(actor, kiosk)).map(p => [p.n, p.state, p.trouble?.slice(0, 30) ?? null])).toEqual([
    [2, 'failed', 'The pack could not be made on '],
    [1, 'made', null],
  ])
}, 120_000)
