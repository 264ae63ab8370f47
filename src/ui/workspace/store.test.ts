import type { JobRecord } from '@/core/assess/record'
import { circuitsOf } from '@/core/job/panels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { fakeServer, workspaceOf } from '../test/server'
import * as engine from './engine'
import { createWorkspace } from './store'
import type { Unsaved } from './unsaved'

// the store of a device keeps other hours than these clocks
let kept: Unsaved | null = null
let aside: unknown[] = []
jest.mock('./unsaved', () => ({
  nothingLeft: { left: [], taken: async () => {} },
  keepUnsaved: async (_: string, unsaved: Unsaved) => {
    kept = unsaved.pending.length ? unsaved : null
  },
  leftBehind: async () => ({ left: kept ? [kept] : [], taken: async () => {} }),
  putAside: async (_: string, pending: unknown[]) => aside.push(...pending),
}))

const settled = () => jest.advanceTimersByTimeAsync(30_000)
const drop = { op: 'selectCircuit', circuitId: 'c7', picked: false } as const
const picked = (job: JobRecord['job']) => circuitsOf(job).find(c => c.id === 'c7')?.picked

beforeEach(() => {
  jest.useFakeTimers()
  kept = null
  aside = []
})
afterEach(() => jest.useRealTimers())

test('a change shows at once, with every figure, and is saved behind', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  const before = store.getState().evaluation.headline.hoursHad ?? 0
  expect(store.getState().act(drop)).toEqual([])
  expect(picked(store.getState().job)).toBe(false)
  expect(store.getState().evaluation.headline.hoursHad).toBeGreaterThan(before)
  await settled()
  expect(store.getState()).toMatchObject({ pending: [], revision: server.record.revision, saving: 'idle' })
  expect(picked(server.record.job)).toBe(false)
})

test('a refused value changes nothing and sends nothing', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  expect(store.getState().act({ op: 'setOutage', facts: { hours: 1e6 } })).toHaveLength(1)
  await settled()
  expect(server.sent).toBe(0)
  expect(store.getState().job).toBe(alderHollow)
})

test('while the server is away changes are kept and sent when it is back', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  server.away = true
  const { revision } = server.record
  store.getState().act(drop)
  store.getState().act({ op: 'setOutage', facts: { hours: 48 } })
  await jest.advanceTimersByTimeAsync(200)
  expect(store.getState()).toMatchObject({ saving: 'waiting', revision })
  expect(store.getState().pending).toHaveLength(2)
  server.away = false
  await settled()
  expect(store.getState()).toMatchObject({ pending: [], revision: revision + 2 })
  expect(server.record.job.outage.hours).toBe(48)
})

test.each([
  ['mine-on-top', false],
  ['theirs', true],
] as const)(
  'someone else wrote first: the person is shown it and chooses %s',
  async (choice, stillPicked) => {
    const server = fakeServer()
    const store = workspaceOf(server.record)
    server.elsewhere(72)
    store.getState().act(drop)
    await jest.advanceTimersByTimeAsync(200)
    expect(store.getState().conflict?.since[0]?.person).toBe('Other')
    expect(picked(store.getState().job)).toBe(false)
    store.getState().resolve(choice)
    await settled()
    expect(store.getState()).toMatchObject({ conflict: null, pending: [], revision: server.record.revision })
    expect(store.getState().job.outage.hours).toBe(72)
    expect(picked(store.getState().job)).toBe(stillPicked)
    expect(store.getState().job).toEqual(server.record.job)
  },
)

test('with nothing waiting here, others’ work is taken over and told', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  server.elsewhere(72)
  await store.getState().refresh()
  expect(store.getState().job.outage.hours).toBe(72)
  expect(store.getState().notice).toMatch(/^Updated/)
})

test('a step back that does not exist is never sent; one pressed while another is on its way is not lost', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  store.getState().back('undo')
  store.getState().act(drop)
  store.getState().act({ op: 'setOutage', facts: { hours: 48 } })
  for (let n = 0; n < 5; n++) store.getState().back('undo')
  await jest.advanceTimersByTimeAsync(61)
  store.getState().back('redo')
  store.getState().back('undo')
  await settled()
  expect(server.batches.flat()).toEqual(['do', 'do', 'undo', 'undo', 'redo', 'undo'])
  expect(store.getState()).toMatchObject({ pending: [], saving: 'idle', notice: null })
})

test('what is refused is left out and told; what else waits is kept and sent', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  server.refuses = 'setOutage'
  store.getState().act(drop)
  store.getState().act({ op: 'setOutage', facts: { hours: 48 } })
  await settled()
  expect(store.getState()).toMatchObject({ pending: [], notice: 'Not saved: no' })
  expect(picked(server.record.job)).toBe(false)
  expect(server.record.job.outage.hours).toBe(36)
})

test('what customers wrote is put under mine without asking only where all of it was theirs', async () => {
  for (const [customersOnly, asks] of [
    [true, false],
    [false, true],
  ]) {
    const server = fakeServer()
    const store = workspaceOf(server.record)
    server.others = { changes: 90, customersOnly: customersOnly === true }
    server.elsewhere(72)
    store.getState().act(drop)
    await settled()
    expect(store.getState().conflict !== null).toBe(asks)
  }
})

test('what the field writes down goes on top of what others wrote, without asking, and moves no figure', async () => {
  const server = fakeServer()
  const store = workspaceOf(server.record)
  const { evaluation } = store.getState()
  server.elsewhere(72)
  const entry = {
    id: 'e',
    task: 'arrive:found',
    by: 'Ada',
    at: '2026-03-01T12:00:00Z',
    kind: 'began' as const,
  }
  store.getState().act({ op: 'recordWork', about: 'a step', entries: [entry] })
  expect(store.getState().evaluation).toBe(evaluation)
  expect(store.getState().undos).toEqual([])
  await settled()
  expect(store.getState()).toMatchObject({ conflict: null, pending: [] })
  expect(server.record.job).toMatchObject({ outage: { hours: 72 }, work: { log: [entry] } })
})

test('a page that is older than what was confirmed since claims no more than it shows: nothing seems undone', async () => {
  const server = fakeServer()
  const old = server.record
  const entry = (id: string) => ({
    id,
    task: 'arrive:found',
    by: 'Ada',
    at: '2026-03-01T12:00:00Z',
    kind: 'began' as const,
  })
  const record = (store: ReturnType<typeof workspaceOf>, id: string) =>
    store.getState().act({ op: 'recordWork', about: 'a step', entries: [entry(id)] })
  const before = workspaceOf(old)
  record(before, 'a')
  await settled()
  server.away = true
  record(before, 'b')
  await settled()
  // loaded anew in the cellar, from what the device kept of the page, before its own store wrote it down
  const after = workspaceOf(old)
  await after.getState().takeUp()
  expect(after.getState()).toMatchObject({ revision: old.revision, pending: [expect.anything()] })
  server.away = false
  await settled()
  await after.getState().refresh()
  await settled()
  expect(after.getState().job.work?.log.map(e => e.id)).toEqual(['a', 'b'])
  expect(server.record.job.work?.log.map(e => e.id)).toEqual(['a', 'b'])
})

test('what is done before the engine is here waits for it, however often it has to be asked for', async () => {
  const server = fakeServer()
  const { record } = server
  const fetchEngine = jest.fn().mockRejectedValueOnce(new Error('away')).mockResolvedValue(engine)
  const evaluation = engine.evaluate(record.job)
  const store = createWorkspace({ record, evaluation, person: 'Designer', fetchEngine })
  store.getState().act(drop)
  store.getState().act({ op: 'setOutage', facts: { hours: 1e6 } })
  store.getState().back('undo')
  expect(store.getState()).toMatchObject({ live: false, job: record.job, evaluation })
  await settled()
  expect(store.getState()).toMatchObject({ live: true, early: 0, pending: [] })
  expect(store.getState().notice).toMatch(/^Not done: .*hours/)
  expect(server.batches.flat()).toEqual(['do', 'undo'])
  expect(fetchEngine).toHaveBeenCalledTimes(2)
})
