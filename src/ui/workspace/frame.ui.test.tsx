/** @jest-environment jest-fixed-jsdom */
import { act, screen, waitFor, within } from '@testing-library/react'
import { circuitOf } from '@/core/job/panels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { inWorkspace } from '../test/render'
import { Balance } from './Balance'
import { JobFactsDialog } from './JobFactsDialog'
import { Notice } from './Notice'
import { Palette } from './Palette'
import { SaveState } from './SaveState'
import { StepsNav } from './StepsNav'
import { views } from './views'
import { WorkingDrawer } from './WorkingDrawer'

const push = jest.fn()
let path = '/jobs/job/panel'
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }), usePathname: () => path }))
beforeAll(() => {
  Element.prototype.scrollIntoView = jest.fn()
})
beforeEach(() => push.mockClear())
const press = (name: string | RegExp) => screen.getByRole('button', { name })

test('the steps stand in their order, by part of the work, with what is wrong at each; the one at hand is marked', () => {
  path = '/jobs/job/source'
  inWorkspace(<StepsNav />)
  const nav = within(screen.getByRole('navigation', { name: 'Steps of the job' }))
  expect(nav.getAllByRole('link').map(a => a.getAttribute('href')?.split('/')[3])).toEqual(
    views.map(v => v.key),
  )
  expect(nav.getByRole('link', { current: 'page' }).textContent).toMatch(/^Source/)
  expect(nav.getByRole('link', { name: /^Source.*Stop/ })).toBeTruthy()
  expect(nav.getByRole('list', { name: 'Survey' })).toBeTruthy()
})

test('every line of the balance opens its working; the worst finding leads to all of them', async () => {
  const { user, store } = inWorkspace(
    <>
      <Balance />
      <WorkingDrawer />
    </>,
  )
  expect(screen.getByRole('link', { name: /^\d* ?Stop/ }).getAttribute('href')).toBe('/jobs/job/findings')
  await user.click(press(/^Run time/))
  const working = within(await screen.findByRole('dialog', { name: 'Working: Run time' }))
  expect(working.getByText(/^hours = usable energy/)).toBeTruthy()
  expect(working.getByRole('table', { name: 'Inputs' }).textContent).toMatch(
    /catalogue, Sluice 22, version 1/,
  )
  await user.click(working.getAllByRole('button', { name: 'How it is worked out' })[0] as HTMLElement)
  expect(working.getAllByRole('table').length).toBeGreaterThan(2)
  await user.click(working.getByRole('button', { name: 'Close the working' }))
  expect(store.getState().working).toBeNull()
})

test('any command by name: a step, a circuit to pick, a fix, undo', async () => {
  const close = jest.fn()
  const { user, job } = inWorkspace(<Palette onClose={close} onFacts={() => {}} />)
  const field = screen.getByRole('combobox', { name: 'What do you want to do?' })
  await user.type(field, 'go to outage{Enter}')
  expect(push).toHaveBeenCalledWith('/jobs/job/outage')
  expect(close).toHaveBeenCalled()
  await user.clear(field)
  await user.type(field, 'pick 17{Enter}')
  expect(circuitOf(job(), 'c17')?.circuit.picked).toBe(true)
})

test('name, place, step and edition save when left; a name that cannot be stays as typed', async () => {
  const { user, job } = inWorkspace(<JobFactsDialog onClose={() => {}} />)
  const name = screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' })
  await user.clear(name)
  await user.tab()
  expect(screen.getByText(/^Name /, { selector: 'p' })).toBeTruthy()
  expect(job().title).toBe(alderHollow.title)
  await user.type(name, 'Alder, second visit{Enter}')
  expect(job().title).toBe('Alder, second visit')
  await user.click(screen.getByRole('combobox', { name: 'National Electrical Code' }))
  await user.click(screen.getByRole('option', { name: '2017 edition' }))
  expect(job().edition).toBe(2017)
})

test('whether it is saved is said in words; what waits is counted', async () => {
  const { store, server } = inWorkspace(<SaveState />)
  expect(screen.getByRole('status').textContent).toMatch(/^Saved/)
  server.away = true
  act(() => {
    store.getState().act({ op: 'setOutage', facts: { hours: 40 } })
  })
  await waitFor(() =>
    expect(screen.getByRole('status').textContent).toMatch(/^Not saved: 1 change kept here/),
  )
})

test('a notice is one line, read out', () => {
  const { store, again } = inWorkspace(<Notice />)
  act(() => store.getState().say('Moved the breaker.'))
  again(<Notice />)
  expect(screen.getByText('Moved the breaker.')).toBeTruthy()
})
