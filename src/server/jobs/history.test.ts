import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import type { Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { closeDb, ownerDb } from '../db/connection'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { worked } from '../seeds/worked'
import { historyOf, historyPageSize, jobAt, restoreJob } from './history'
import { type Change, changeJob, createJob, readJobRecord } from './repository'

const now = new Date('2026-03-01T12:00:00Z')
let actor: Actor
let id: string
beforeAll(async () => {
  actor = await testFirm()
})
beforeEach(async () => {
  id = await createJob(actor, alderHollow, 'opened', now)
})
afterAll(closeDb)

const hours = (value: number): Operation => ({ op: 'setOutage', facts: { hours: value } })
async function write(base: number, ...operations: (Operation | 'undo' | 'redo')[]) {
  const changes = operations.map(
    (o): Change =>
      typeof o === 'string' ? { id: randomUUID(), kind: o } : { id: randomUUID(), kind: 'do', operation: o },
  )
  const outcome = await changeJob(actor, id, base, changes, now)
  if (outcome.state !== 'written') throw new Error(JSON.stringify(outcome))
  return outcome.record
}

test('every revision is looked back into as it stood, whatever was done, taken back and brought back', async () => {
  const step = fc.oneof(
    fc.integer({ min: 1, max: 600 }).map(hours),
    fc
      .constantFrom('c1', 'c7', 'c11')
      .chain(circuitId =>
        fc.boolean().map((picked): Operation => ({ op: 'selectCircuit', circuitId, picked })),
      ),
    fc.constantFrom('undo' as const, 'redo' as const),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 55, maxLength: 70 }), async steps => {
      id = await createJob(actor, alderHollow, 'opened', now)
      const stood: Job[] = [alderHollow]
      for (const one of steps) {
        const before = await readJobRecord(actor, id)
        const [undos, redos] = [before?.undos.length, before?.redos.length]
        if ((one === 'undo' && !undos) || (one === 'redo' && !redos)) continue
        stood.push((await write(stood.length, one)).job)
      }
      for (const n of [1, 2, Math.ceil(stood.length / 2), 49, 50, 51, stood.length])
        if (n <= stood.length) expect(await jobAt(actor, id, n)).toEqual(stood[n - 1])
      expect(await jobAt(actor, id, stood.length + 1)).toBeNull()
    }),
    { numRuns: 3 },
  )
}, 120_000)

test('going back is one change more, that undo takes back; what happened in the house stays', async () => {
  await write(1, hours(48), { op: 'selectCircuit', circuitId: 'c7', picked: false })
  const { log } = worked(alderHollow, ['Ada', 'Ben']).work ?? { log: [] }
  const entry = log[0]
  if (!entry) throw new Error('nobody worked')
  await write(3, { op: 'recordWork', about: 'a step', entries: [entry] })
  const outcome = await restoreJob(actor, id, 1, 4, now)
  if (outcome.state !== 'written') throw new Error(outcome.state)
  expect(outcome.record).toMatchObject({ revision: 5, undos: ['went back to revision 1'] })
  expect(outcome.record.job).toEqual({ ...alderHollow, work: { log: [entry] } })
  expect((await write(5, 'undo')).job.outage.hours).toBe(48)
  expect(await restoreJob(actor, id, 1, 5, now)).toEqual({ state: 'stale' })
  expect(await jobAt(actor, id, 5)).toEqual(outcome.record.job)
})

test('the list comes by pages, the newest first; what was packed away is told and not shown', async () => {
  for (let n = 0; n < 60; n++) await write(n + 1, hours(10 + n))
  const first = await historyOf(actor, id, null)
  expect([first.entries.length, first.more, first.entries[0]?.revision]).toEqual([historyPageSize, true, 61])
  const rest = await historyOf(actor, id, first.entries.at(-1)?.revision ?? 0)
  expect([rest.entries.length, rest.more, rest.entries.at(-1)?.sentence]).toEqual([11, false, 'opened'])
  await ownerDb()('job_change')
    .where({ job_id: id })
    .where('revision', '<', 30)
    .update({ forward: null, backward: null })
  const { entries } = await historyOf(actor, id, null)
  expect([entries.find(e => e.revision === 50)?.kept, entries.find(e => e.revision === 49)?.kept]).toEqual([
    true,
    false,
  ])
  expect([(await jobAt(actor, id, 50))?.outage.hours, await jobAt(actor, id, 20)]).toEqual([58, null])
  expect(await restoreJob(actor, id, 20, 61, now)).toEqual({ state: 'packed' })
})

test('another firm finds no history', async () => {
  const other = await testFirm()
  expect(await historyOf(other, id, null)).toEqual({ entries: [], more: false })
  expect(await jobAt(other, id, 1)).toBeNull()
  expect(await restoreJob(other, id, 1, 1, now)).toEqual({ state: 'packed' })
})
