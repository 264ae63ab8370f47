import { randomUUID } from 'node:crypto'
import type { Entry } from '@/core/job/work-log'
import { closeDb, ownerDb } from '../db/connection'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { worked } from '../seeds/worked'
import { closeLive, liveEvents } from './live'
import { changeJob, createJob, duplicateJob, readJobRecord } from './repository'
import { workLogs } from './worked'

const now = new Date('2026-03-01T12:00:00Z')
let actor: Actor
beforeAll(async () => {
  actor = await testFirm()
})
afterAll(async () => {
  await closeLive()
  await closeDb()
})

const note = (id: string): Entry => ({
  id,
  task: 'arrive:found',
  by: 'Ada',
  at: '2026-03-01T12:00:00Z',
  kind: 'note',
  text: 'warm',
})
const write = (id: string, revision: number, kind: 'do' | 'undo' = 'do') =>
  changeJob(
    actor,
    id,
    revision,
    [
      kind === 'undo'
        ? { id: randomUUID(), kind }
        : {
            id: randomUUID(),
            kind,
            operation: { op: 'recordWork', about: 'a step', entries: [note(randomUUID())] },
          },
    ],
    now,
  )

const ann = { name: 'Ann', personId: 'ann' }
const still = async () => true

test('who may no longer listen hears nothing more; what cannot be told just now ends nobody', async () => {
  const id = await createJob(actor, alderHollow, 'opened', now)
  const answers = [Promise.resolve(true), Promise.reject(new Error('away')), Promise.resolve(false)]
  for (const answer of answers) answer.catch(() => {})
  const asked = jest.fn(() => answers.shift() ?? Promise.resolve(true))
  const { signal } = new AbortController()
  const reader = (await liveEvents(id, 1, ann, signal, asked, 5)).getReader()
  while (!(await reader.read()).done);
  expect(asked).toHaveBeenCalledTimes(3)
})

test('who listens hears of each write of that job once it is kept, and of no other; until he goes', async () => {
  const [id, other] = [
    await createJob(actor, alderHollow, 'opened', now),
    await createJob(actor, alderHollow, 'opened', now),
  ]
  const gone = new AbortController()
  const reader = (await liveEvents(id, 1, ann, gone.signal, still)).getReader()
  const heard = async () => new TextDecoder().decode((await reader.read()).value)
  expect(await heard()).toBe('data: 1\n\n')
  await write(other, 1)
  await write(id, 1)
  expect(await heard()).toBe('data: 2\n\n')
  gone.abort()
  expect((await reader.read()).done).toBe(true)
})

test('what the field wrote down is no step to undo, and no part of a copy', async () => {
  const id = await createJob(actor, worked(alderHollow, ['Ada', 'Ben'], 'hots:c5'), 'opened', now)
  const kept = await write(id, 1)
  expect(kept).toMatchObject({ state: 'written', record: { undos: [] } })
  expect(await write(id, 2, 'undo')).toMatchObject({
    state: 'refused',
    faults: [{ message: expect.stringMatching(/in the field/) }],
  })
  const copy = await readJobRecord(actor, (await duplicateJob(actor, id, now)) ?? '')
  expect(copy?.job.work).toBeUndefined()
  expect(copy?.job.planned.some(c => c.built)).toBe(false)
  expect((await workLogs(actor)).some(log => log.length > 30)).toBe(true)
})

test('what was proven is no step to undo, and no part of a copy; two who wrote at once are both kept', async () => {
  const id = await createJob(actor, alderHollow, 'opened', now)
  const read = (entry: string, by: string) => ({
    id: randomUUID(),
    kind: 'do' as const,
    operation: {
      op: 'recordTests' as const,
      about: 'a test',
      entries: [
        {
          kind: 'read' as const,
          id: entry,
          test: 'ground:c5',
          by,
          at: now.toISOString(),
          on: '2026-03-01',
          readings: [{ key: 'ohms', value: 0.2 }],
          basis: 'b',
          judged: 'passed' as const,
        },
      ],
    },
  })
  const [ann, ben] = [read('a', 'Ann'), read('b', 'Ben')]
  expect(await changeJob(actor, id, 1, [ann], now)).toMatchObject({ state: 'written', record: { undos: [] } })
  // Ben was in the cellar: what Ann wrote is told, and his is written on top of it
  const stale = await changeJob(actor, id, 1, [ben], now)
  expect(stale).toMatchObject({ state: 'stale', since: [{ sentence: 'tested a test' }] })
  expect(await changeJob(actor, id, 2, [ben], now)).toMatchObject({ state: 'written' })
  // sent twice, written once
  await changeJob(actor, id, 3, [read('b', 'Ben')], now)
  const kept = (await readJobRecord(actor, id))?.job
  expect(kept?.tests?.log.map(e => e.by)).toEqual(['Ann', 'Ben'])
  const copy = await readJobRecord(actor, (await duplicateJob(actor, id, now)) ?? '')
  expect(copy?.job.tests).toBeUndefined()
})

test('those who look at a job know of each other, from process to process, until they go', async () => {
  const id = await createJob(actor, alderHollow, 'opened', now)
  const look = async (name: string, job = id) => {
    const gone = new AbortController()
    const reader = (await liveEvents(job, 1, { name, personId: name }, gone.signal, still)).getReader()
    let told = ''
    /** Reads on until the newest word of people is this. */
    const until = async (people: object) => {
      while (!told.endsWith(`event: people\ndata: ${JSON.stringify(people)}\n\n`))
        told += new TextDecoder().decode((await reader.read()).value)
    }
    return { until, leave: () => gone.abort() }
  }
  const ann = await look('Ann')
  const ben = await look('Ben')
  const cid = await look('Cid', await createJob(actor, alderHollow, 'opened', now))
  await ann.until({ names: ['Ben'], again: false })
  await ben.until({ names: ['Ann'], again: false })
  const second = await look('Ben')
  await second.until({ names: ['Ann'], again: true })
  ben.leave()
  second.leave()
  await ann.until({ names: [], again: false })
  // whom another process serves says so by the same channel
  await ownerDb().raw('select pg_notify(?, ?)', [
    'spillway_here',
    JSON.stringify({ job: id, by: 'far', say: 'here', name: 'Far', personId: 'far' }),
  ])
  await ann.until({ names: ['Far'], again: false })
  ann.leave()
  cid.leave()
})
