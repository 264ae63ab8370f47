import { randomUUID } from 'node:crypto'
import { newJob } from '@/core/job/new'
import type { Operation } from '@/core/job/operations'
import { closeDb, ownerDb, troubleOf } from '../db/connection'
import { customerOf } from '../people/repository'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { listJobs, listQuerySchema, mostListed, pageSize } from './list'
import {
  archiveJob,
  type Change,
  changeJob,
  createJob,
  duplicateJob,
  healJobs,
  keepAsTemplate,
  readJobRecord,
  readTemplate,
  revisionsAfter,
} from './repository'

const at = new Date('2026-03-01T12:00:00Z')

const change = (operation: Operation): Change => ({ id: randomUUID(), kind: 'do', operation })
const undo = (): Change => ({ id: randomUUID(), kind: 'undo' })
const redo = (): Change => ({ id: randomUUID(), kind: 'redo' })
const pick = (circuitId: string, picked: boolean): Operation => ({ op: 'selectCircuit', circuitId, picked })
const hours = (value: number): Operation => ({ op: 'setOutage', facts: { hours: value } })

async function write(actor: Actor, id: string, base: number, ...changes: Change[]) {
  const outcome = await changeJob(actor, id, base, changes, at)
  if (outcome.state !== 'written') throw new Error(JSON.stringify(outcome))
  return outcome.record
}

let actor: Actor
let id: string
beforeAll(async () => {
  actor = await testFirm()
})
beforeEach(async () => {
  id = await createJob(actor, alderHollow, 'opened', at)
})
afterAll(closeDb)

test('a change is written with its revision, its sentence and the columns that lists read', async () => {
  const record = await write(actor, id, 1, change(pick('c7', false)))
  expect(record).toMatchObject({ revision: 2, undos: ['dropped 7 Kitchen counter'], redos: [] })
  const { rows } = await listJobs(actor, listQuerySchema.parse({ q: 'alder' }))
  const row = rows.find(r => r.id === id)
  expect(row?.worst?.sentence).toMatch(/shares its neutral/)
  expect(row?.hoursHad).toBeGreaterThan(20)
})

test('a stale revision is refused: nothing is written, and what others did comes back', async () => {
  const other = { ...actor, personId: randomUUID() }
  await ownerDb()('person').insert({
    id: other.personId,
    firm_id: actor.firmId,
    label: `Other ${id}`,
    role: 'technician',
  })
  await write(other, id, 1, change(hours(48)))
  const outcome = await changeJob(actor, id, 1, [change(pick('c7', false))], at)
  expect(outcome).toMatchObject({
    state: 'stale',
    record: { revision: 2, job: { outage: { hours: 48 } } },
    since: [{ revision: 2, sentence: 'set the outage to 48 h', person: `Other ${id}` }],
  })
  expect((await readJobRecord(actor, id))?.revision).toBe(2)
})

test('a change sent twice is written once, also when more came with it the second time', async () => {
  const first = change(hours(48))
  await write(actor, id, 1, first)
  const record = await write(actor, id, 1, first, change(hours(50)))
  expect(record.revision).toBe(3)
  expect(record.job.outage.hours).toBe(50)
})

test('two writers at once: one is written, the other told', async () => {
  const outcomes = await Promise.all([10, 20, 30].map(h => changeJob(actor, id, 1, [change(hours(h))], at)))
  expect(outcomes.map(o => o.state).sort()).toEqual(['stale', 'stale', 'written'])
})

test('a batch with a fault writes none of it', async () => {
  const outcome = await changeJob(actor, id, 1, [change(hours(48)), change(hours(-1))], at)
  expect(outcome).toMatchObject({ state: 'refused', faults: [{ path: 'outage.hours' }] })
  expect((await readJobRecord(actor, id))?.job).toEqual(alderHollow)
})

test('a batch refused at its end leaves nothing, and the job can be written as before', async () => {
  const bad = undo()
  const outcome = await changeJob(actor, id, 1, [change(hours(48)), undo(), bad], at)
  expect(outcome).toMatchObject({ state: 'refused', changeId: bad.id })
  expect(await ownerDb()('job_change').where({ job_id: id }).select('revision')).toEqual([{ revision: 1 }])
  expect((await write(actor, id, 1, change(hours(30)))).revision).toBe(2)
})

test('one change twice in a batch is written once', async () => {
  const once = change(hours(48))
  expect((await write(actor, id, 1, once, once)).revision).toBe(2)
})

test('a job that an earlier version wrote by half is healed, and only that one', async () => {
  const orphan = {
    job_id: id,
    firm_id: actor.firmId,
    person_id: actor.personId,
    kind: 'do',
    sentence: 'x',
    at,
  }
  await ownerDb()('job_change').insert(
    [2, 3].map(revision => ({ ...orphan, revision, change_id: randomUUID() })),
  )
  await expect(changeJob(actor, id, 1, [change(hours(48))], at)).rejects.toThrow(/duplicate key/)
  expect(await healJobs()).toEqual([{ jobId: id, rows: 2 }])
  expect(await healJobs()).toEqual([])
  expect((await write(actor, id, 1, change(hours(48)))).revision).toBe(2)
})

test('what others did is judged over all of it, also what is too long ago to be told', async () => {
  const customer = { ...(await customerOf(actor.firmId)), role: 'designer' }
  await write(actor, id, 1, change(hours(48)))
  for (let n = 0; n < 55; n++) await write(customer, id, n + 2, change(hours(20 + n)))
  const stale = await changeJob(actor, id, 1, [change(hours(9))], at)
  if (stale.state !== 'stale') throw new Error(stale.state)
  expect(stale.since).toHaveLength(50)
  expect(stale.since.every(r => r.role === 'customer')).toBe(true)
  expect(stale.others).toEqual({ changes: 56, customersOnly: false })
})

test('a job whose row somebody forgot to let go delays nobody else', async () => {
  const other = await createJob(actor, alderHollow, 'opened', at)
  const holder = await ownerDb().transaction()
  await holder('job').where({ id }).forUpdate().first('id')
  const stuck = Array.from({ length: 20 }, () =>
    changeJob(actor, id, 1, [change(hours(48))], at).then(
      () => 'written',
      (error: unknown) => `${troubleOf(error)}`,
    ),
  )
  const free = changeJob(actor, other, 1, [change(hours(48))], at).then(o => `other ${o.state}`)
  const first = await Promise.race([...stuck, free])
  const told = new Set(await Promise.all(stuck))
  await holder.rollback()
  expect(first).toBe('other written')
  expect(told).toEqual(new Set(['busy']))
  expect((await write(actor, id, 1, change(hours(48)))).revision).toBe(2)
}, 30_000)

test('undo and redo walk the operations exactly, a new change cuts the redone branch', async () => {
  const move: Operation = { op: 'moveBreaker', circuitId: 'c2', toPosition: 28 }
  const remove: Operation = { op: 'removeCircuit', circuitId: 'c5' }
  const before = await write(actor, id, 1, change(hours(48)))
  const done = await write(actor, id, 2, change(move), change(remove))
  const back = await write(actor, id, 4, undo(), undo())
  expect(back.job).toEqual(before.job)
  expect(back).toMatchObject({
    revision: 6,
    undos: ['set the outage to 48 h'],
    redos: ['moved 2 Boiler and circulators to 28', expect.stringMatching(/^removed/)],
  })
  const forth = await write(actor, id, 6, redo(), redo())
  expect(forth.job).toEqual(done.job)
  expect(forth.redos).toEqual([])
  const branch = await write(actor, id, 8, undo(), change(hours(12)))
  expect(branch).toMatchObject({
    undos: ['set the outage to 12 h', expect.any(String), 'set the outage to 48 h'],
    redos: [],
  })
  const start = await write(actor, id, 10, undo(), undo(), undo())
  expect(start.job).toEqual(alderHollow)
  expect(start.undos).toEqual([])
  expect(await changeJob(actor, id, 13, [undo()], at)).toMatchObject({ state: 'refused' })
})

test('a step taken in an older format, whose places are gone, is refused in words and nothing is written', async () => {
  const { revision } = await write(actor, id, 1, change(pick('c5', false)))
  const gone = [{ op: 'replace', path: ['source', 'station', 'idleW'], value: 9 }]
  await ownerDb()('job_change')
    .where({ job_id: id, revision })
    .update({ backward: JSON.stringify(gone) })
  const outcome = await changeJob(actor, id, revision, [undo()], at)
  expect(JSON.stringify(outcome)).toMatch(/older format since: this step can no longer be taken back/)
  expect((await readJobRecord(actor, id))?.revision).toBe(revision)
})

test('another firm sees nothing of a job and cannot write it', async () => {
  const stranger = await testFirm('Stranger')
  expect(await readJobRecord(stranger, id)).toBeNull()
  expect(await changeJob(stranger, id, 1, [change(hours(1))], at)).toEqual({ state: 'gone' })
  expect(await duplicateJob(stranger, id, at)).toBeNull()
  expect(await archiveJob(stranger, id, true, at)).toBe(false)
  expect(await revisionsAfter(stranger, id, 0)).toEqual([])
  expect((await listJobs(stranger, listQuerySchema.parse({}))).total).toBe(0)
})

test('the list pages, sorts and searches literally, whatever is typed', async () => {
  const own = await testFirm('Lister')
  for (let i = 0; i < pageSize + 3; i++)
    await createJob(
      own,
      { ...newJob({ title: `Job ${i} 100%_\\`, place: 'O’Hara’s; drop table', spaces: 8, mainA: 60 }) },
      'opened',
      at,
    )
  const list = (query: object) => listJobs(own, listQuerySchema.parse(query))
  expect((await list({ page: '2' })).rows).toHaveLength(3)
  expect((await list({ q: '100%_\\' })).total).toBe(pageSize + 3)
  expect((await list({ q: '%9' })).total).toBe(0)
  expect((await list({ q: "hara's'; --" })).total).toBe(0)
  expect((await list({ sort: 'title', order: 'desc' })).rows[0]?.title).toBe('Job 9 100%_\\')
  expect((await list({ sort: 'title', page: '2' })).rows.map(r => r.title.slice(0, 5))).toEqual([
    'Job 7',
    'Job 8',
    'Job 9',
  ])
  // what no list reaches is no page
  expect((await list({ page: String(mostListed / pageSize) })).rows).toEqual([])
  expect((await list({ page: String(mostListed / pageSize + 1) })).rows).toHaveLength(pageSize)
  expect((await list({ sort: 'nonsense', page: '-4', order: 'x' })).rows).toHaveLength(pageSize)
  const [first] = (await list({})).rows
  await archiveJob(own, first?.id ?? '', true, at)
  expect((await list({})).total).toBe(pageSize + 2)
  expect((await list({ archived: 'true' })).rows.map(r => r.id)).toEqual([first?.id])
})

test('of more jobs than are counted the list says so, and a search narrows them', async () => {
  const own = await testFirm('Large')
  await createJob(own, newJob({ title: 'House', place: 'Shore', spaces: 8, mainA: 60 }), 'opened', at)
  await ownerDb().raw(
    `insert into job select (jsonb_populate_record(j, jsonb_build_object('id', gen_random_uuid(), 'search_text', 'house ' || n))).*
       from job j, generate_series(1, :many::int) n where firm_id = :firmId`,
    { many: mostListed, firmId: own.firmId },
  )
  const list = (query: object) => listJobs(own, listQuerySchema.parse(query))
  expect(await list({ page: '500' })).toMatchObject({ total: mostListed, more: true })
  expect(await list({ q: '9999 house' })).toMatchObject({ total: 1, more: false })
})

test('a copy starts from where the job stands, with a history of its own', async () => {
  await write(actor, id, 1, change(hours(48)))
  const copy = await readJobRecord(actor, (await duplicateJob(actor, id, at)) ?? '')
  expect(copy).toMatchObject({
    revision: 1,
    undos: [],
    job: { title: 'Alder Hollow day-care (copy)', outage: { hours: 48 } },
  })
})

test('a template is listed apart, is none of another firm’s, and no job is one', async () => {
  const other = await testFirm()
  const template = (await keepAsTemplate(actor, id, at)) ?? ''
  expect(await readTemplate(actor, template)).toMatchObject({
    title: 'Template: Multi-circuit switch, 36 h',
    panels: [{ circuits: [] }],
    hookup: { method: alderHollow.hookup.method },
  })
  expect(await readTemplate(actor, id)).toBeNull()
  expect([await readTemplate(other, template), await keepAsTemplate(other, id, at)]).toEqual([null, null])
  const listed = async (query: object) =>
    (await listJobs(actor, listQuerySchema.parse(query))).rows.some(r => r.id === template)
  expect([await listed({}), await listed({ templates: 'true' })]).toEqual([false, true])
  const copy = (await duplicateJob(actor, template, at)) ?? ''
  expect(await readTemplate(actor, copy)).not.toBeNull()
  await archiveJob(actor, template, true, at)
  expect([await listed({ templates: 'true' }), await listed({ archived: 'true' })]).toEqual([false, true])
})

test('a technician changes what is seen at the house, and neither decides nor takes back what is built', async () => {
  const technician = { ...actor, role: 'technician' }
  const plan: Operation = { op: 'setSource', facts: { stands: { exposure: 'damp' } } }
  expect(await changeJob(technician, id, 1, [change(pick('c7', false)), change(plan)], at)).toMatchObject({
    state: 'refused',
    faults: [{ message: expect.stringMatching(/here as technician/) }],
  })
  await write(actor, id, 1, change(plan))
  expect(await changeJob(technician, id, 2, [undo()], at)).toMatchObject({ state: 'refused' })
  expect((await write(technician, id, 2, change(hours(30)), undo())).revision).toBe(4)
})
