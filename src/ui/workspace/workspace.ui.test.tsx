/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { act, screen, waitFor, within } from '@testing-library/react'
import { set } from 'idb-keyval'
import { circuitOf } from '@/core/job/panels'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { inWorkspace } from '../test/render'
import { fakeServer } from '../test/server'
import { Balance } from './Balance'
import { ConflictDialog } from './ConflictDialog'
import * as engine from './engine'
import { StepsNav } from './StepsNav'
import { createWorkspace } from './store'

let path = '/jobs/job/hook-up'
jest.mock('next/navigation', () => ({ usePathname: () => path }))
beforeAll(() => {
  Element.prototype.scrollIntoView = jest.fn()
  // the stream runs across a narrow screen
  Object.defineProperty(HTMLElement.prototype, 'scrollWidth', { configurable: true, value: 900 })
})

test('the steps stand in the parts of the work; each says what is worst there, and the one at hand is told', () => {
  inWorkspace(<StepsNav />, quarryRidge)
  const survey = screen.getByRole('list', { name: 'Survey' })
  expect(
    within(survey)
      .getAllByRole('link')
      .map(l => l.textContent?.replace(/\d? ?(Stop|Fix|Mind|Ask)/, '')),
  ).toEqual(['Panel', 'Trace', 'Photos', 'Loads'])
  const here = screen.getByRole('link', { current: 'page' })
  expect(here.textContent).toMatch(/^Hook-up.*Stop/)
  expect(here.scrollIntoView).toHaveBeenCalled()
})

test('with another step at hand another is told', () => {
  path = '/jobs/job/ask'
  inWorkspace(<StepsNav />)
  expect(screen.getByRole('link', { current: 'page' }).textContent).toMatch(/^Ask/)
})

test('the balance names what limits the output, and every line opens its working', async () => {
  const { user, store } = inWorkspace(<Balance />)
  const line = screen.getByText(/Output: 2,200 VA, by the Sluice 22/).closest('button')
  if (!line) throw new Error('the line is no button')
  await user.click(line)
  expect(store.getState().working?.title).toBe('Whole output, running together')
})

test('somebody else saved first: both are shown, and the person’s choice is kept', async () => {
  const { user, store, server } = inWorkspace(<ConflictDialog />)
  expect(screen.queryByRole('dialog')).toBeNull()
  server.elsewhere(72)
  act(() => {
    store.getState().act({ op: 'selectCircuit', circuitId: 'c7', picked: false })
  })
  const dialog = within(await screen.findByRole('dialog'))
  expect(dialog.getByText(/Other set the outage/)).toBeTruthy()
  expect(dialog.getByText(/dropped 7 Kitchen counter/)).toBeTruthy()
  await user.click(dialog.getByRole('button', { name: 'Put mine on top' }))
  await waitFor(() => expect(store.getState().pending).toEqual([]))
  expect(store.getState().job.outage.hours).toBe(72)
  expect(screen.queryByText(/changed elsewhere/)).toBeNull()
})

test('what an earlier page could not save is taken up before what is tapped while the engine comes', async () => {
  const { record } = fakeServer()
  const operation = { op: 'setOutage', facts: { hours: 48 } }
  const kept = {
    revision: record.revision,
    pending: [{ id: 'a', kind: 'do', operation, sentence: 'set the outage' }],
  }
  await set('unsaved job another', kept)
  const store = createWorkspace({ record, evaluation: engine.evaluate(record.job), person: 'Designer' })
  void store.getState().takeUp()
  store.getState().act({ op: 'selectCircuit', circuitId: 'c7', picked: false })
  expect(store.getState().early).toBe(1)
  await store.getState().start()
  expect(store.getState().pending.map(c => c.id)).toEqual(['a', expect.any(String)])
  expect(store.getState().job.outage.hours).toBe(48)
  expect(circuitOf(store.getState().job, 'c7')?.circuit.picked).toBe(false)
})
