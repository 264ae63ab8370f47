/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { clear } from 'idb-keyval'
import type { JobRecord } from '@/core/assess/record'
import { upload } from '../api'
import { setWho } from '../common/who'
import { fakeServer, not, workspaceOf } from '../test/server'
import { keepJob, keepPhoto, sendPhotos, waitingPhotos } from './offline'

jest.mock('../api', () => ({ ...jest.requireActual('../api'), upload: jest.fn() }))
const sending = jest.mocked(upload)
const taken = { ok: true as const, data: { width: 40, height: 30 } }
const id = '6f2d2a0e-3c1b-4a53-9c7e-1f6d0c2b8a11'
const other = '7f2d2a0e-3c1b-4a53-9c7e-1f6d0c2b8a12'
const settled = () => new Promise(resolve => setTimeout(resolve, 40))

const workspace = (record?: JobRecord) => {
  const server = fakeServer()
  if (record) server.record = record
  const store = workspaceOf(server.record, 'Installer')
  const [circuit] = store.getState().job.panels[0]?.circuits ?? []
  const waiting = { blob: new Blob(['x']), circuitId: circuit?.id ?? '', name: '7 kitchen, traced' }
  return { server, store, waiting, kept: () => store.getState().job.photos.find(p => p.id === id) }
}
beforeEach(async () => {
  await clear()
  sending.mockReset()
})

test('a photograph waits for the connection, and goes once it is there', async () => {
  const { store, waiting, kept } = workspace()
  await keepPhoto('job', id, waiting)
  await keepPhoto('another job', other, waiting)
  sending.mockResolvedValueOnce(not(0, 'away'))
  expect(await sendPhotos(store)).toEqual([])
  expect([await waitingPhotos('job'), kept()]).toEqual([1, undefined])
  sending.mockResolvedValueOnce(not(503, 'busy'))
  await sendPhotos(store)
  expect(await waitingPhotos('job')).toBe(1)
  sending.mockResolvedValueOnce(taken)
  expect(await sendPhotos(store)).toEqual([])
  expect(sending.mock.lastCall?.[0]).toBe(`/api/jobs/job/photos?photo=${id}`)
  expect(kept()).toMatchObject({ by: 'Installer', about: { kind: 'circuit', circuitId: waiting.circuitId } })
  expect([await waitingPhotos('job'), await waitingPhotos('another job')]).toEqual([0, 1])
})

test('the photographs of one go out under nobody else’s name', async () => {
  const { store, waiting } = workspace()
  setWho('ann')
  await keepPhoto('job', id, waiting)
  setWho('ben')
  expect([await waitingPhotos('job'), await sendPhotos(store)]).toEqual([0, []])
  expect(sending).not.toHaveBeenCalled()
  setWho('ann')
  sending.mockResolvedValueOnce(taken)
  await sendPhotos(store)
  setWho('')
  expect(sending).toHaveBeenCalledTimes(1)
})

test('what is refused is told by its name and does not keep the others back', async () => {
  const { store, waiting, kept } = workspace()
  await keepPhoto('job', id, waiting)
  await keepPhoto('job', other, { ...waiting, name: '9 hall, traced' })
  sending.mockResolvedValueOnce(taken).mockResolvedValueOnce(not(415, 'This is a film.'))
  expect(await sendPhotos(store)).toEqual(['9 hall, traced: This is a film.'])
  expect(kept()).toBeDefined()
  expect(await waitingPhotos('job')).toBe(0)
})

test('what was written without a connection outlives a reload, and is sent afterwards', async () => {
  const before = workspace()
  const stop = keepJob(before.store)
  await settled()
  before.server.away = true
  before.store.getState().act({ op: 'setOutage', facts: { hours: 31 } })
  await settled()
  stop()
  // the page is opened again, from what the server had
  const after = workspace(before.server.record)
  expect(after.store.getState().job.outage.hours).not.toBe(31)
  const end = keepJob(after.store)
  await settled()
  expect(after.store.getState().job.outage.hours).toBe(31)
  await after.store.getState().refresh()
  await settled()
  end()
  expect(after.server.record.job.outage.hours).toBe(31)
})
