/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { screen, waitFor, within } from '@testing-library/react'
import { clear } from 'idb-keyval'
import { inWorkspace } from '../test/render'
import { listAside, putAside } from '../workspace/unsaved'
import { HistoryView } from './HistoryView'

beforeEach(() => clear())

const entry = (revision: number, kept = true) => ({
  revision,
  at: '2026-02-16T15:00:00Z',
  who: 'Ben',
  sentence: `did ${revision}`,
  kept,
})

test('changes come newest first with who and when; older ones by a press; what was packed away is told, not shown', async () => {
  const asked: string[] = []
  const { user, server } = inWorkspace(<HistoryView />, undefined, path => {
    if (!path.includes('/history')) return null
    asked.push(path)
    return Response.json(
      path.endsWith('before=2')
        ? { entries: [entry(1, false)], more: false }
        : { entries: [entry(3), entry(2)], more: true },
    )
  })
  const list = await screen.findByRole('list', { name: 'History' })
  expect(within(list).getAllByRole('listitem')[0]?.textContent).toMatch(/did 3Ben, .*, revision 3/)
  await user.click(screen.getByRole('button', { name: 'Older changes' }))
  expect(await screen.findByText('did 1')).toBeTruthy()
  expect(asked).toEqual([
    `/api/jobs/job/history?before=${server.record.revision + 1}`,
    '/api/jobs/job/history?before=2',
  ])
  expect(screen.queryByRole('link', { name: 'Look at revision 1' })).toBeNull()
  expect(screen.getByRole('link', { name: 'Look at revision 2' }).getAttribute('href')).toBe(
    '/jobs/job/revision/2',
  )
  expect(screen.getByText(/packed away long ago/)).toBeTruthy()
})

test('going back asks first, on the revision that is seen; a refusal is told', async () => {
  const sent: unknown[] = []
  const { user, server } = inWorkspace(<HistoryView />, undefined, (path, init) => {
    if (!path.includes('/history')) return null
    if (init?.method !== 'POST') return Response.json({ entries: [entry(0)], more: false })
    sent.push([path, JSON.parse(String(init.body))])
    return Response.json({ message: 'Somebody changed this job meanwhile.', faults: [] }, { status: 409 })
  })
  await user.click(await screen.findByRole('button', { name: 'Go back to revision 0' }))
  await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Go back' }))
  expect(await screen.findByText('Somebody changed this job meanwhile.')).toBeTruthy()
  expect(sent).toEqual([['/api/jobs/job/history/0', { baseRevision: server.record.revision }]])
})

test('what gave way is put on top after all, or let go', async () => {
  const operation = { op: 'setOutage', facts: { hours: 71 } } as const
  await putAside('job', [{ id: 'a', kind: 'do', operation, sentence: 'set the outage' }])
  await putAside('job', [{ id: 'b', kind: 'do', operation, sentence: 'set it again' }])
  const { user, store } = inWorkspace(<HistoryView />, undefined, path =>
    path.includes('/history') ? Response.json({ entries: [], more: false }) : null,
  )
  const aside = await screen.findByRole('region', { name: 'Put aside on this device' })
  await user.click(within(aside).getAllByRole('button', { name: 'Put on top now' })[0] as HTMLElement)
  await waitFor(() => expect(store.getState().job.outage.hours).toBe(71))
  await user.click(await within(aside).findByRole('button', { name: 'Let go' }))
  await waitFor(() => expect(screen.queryByRole('region', { name: 'Put aside on this device' })).toBeNull())
  expect(await listAside('job')).toEqual([])
})
