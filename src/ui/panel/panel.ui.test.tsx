/** @jest-environment jest-fixed-jsdom */
import { act, screen, waitFor, within } from '@testing-library/react'
import { circuitOf } from '@/core/job/panels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { inWorkspace } from '../test/render'
import { shownPanel } from '../workspace/store'
import { CircuitInspector } from './CircuitInspector'
import { EnterBreakers } from './EnterBreakers'
import { LoadDialog } from './LoadDialog'
import { PanelDrawing } from './PanelDrawing'

const focusOn = (element: HTMLElement) => act(() => element.focus())
const breaker = (name: string) => screen.getByRole('button', { name: new RegExp(`^${name}`) })

test('a tap on a breaker drops and picks it, and the figures answer at once', async () => {
  const { user, job, store } = inWorkspace(<PanelDrawing onAdd={jest.fn()} />)
  const hours = () => store.getState().evaluation.headline.hoursHad ?? 0
  const before = hours()
  expect(breaker('5 Kitchen refrigerator').getAttribute('aria-pressed')).toBe('true')
  await user.click(breaker('5 Kitchen refrigerator'))
  expect(circuitOf(job(), 'c5')?.circuit.picked).toBe(false)
  expect(hours()).toBeGreaterThan(before)
  await user.click(breaker('5 Kitchen refrigerator'))
  expect(hours()).toBe(before)
})

test('the keyboard alone: arrows walk, space picks, M takes a breaker along and Enter sets it down', async () => {
  const { user, job, store } = inWorkspace(<PanelDrawing onAdd={jest.fn()} />)
  focusOn(breaker('9 Playroom lights'))
  await user.keyboard('[ArrowDown]')
  expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^11 Nap room/)
  await user.keyboard(' ')
  expect(circuitOf(job(), 'c11')?.circuit.picked).toBe(false)
  focusOn(breaker('9 Playroom lights'))
  await user.keyboard('m')
  for (let n = 0; n < 9; n++) await user.keyboard('[ArrowDown]')
  expect(document.activeElement?.getAttribute('data-space')).toBe('27')
  await user.keyboard('[Enter]')
  // planned: the survey keeps it where it was found
  expect(circuitOf(job(), 'c9')?.circuit.position).toBe(9)
  expect(shownPanel(store.getState()).circuits.find(c => c.id === 'c9')?.position).toBe(27)
})

test('a breaker that cannot stand there stays, and the person is told why', async () => {
  const { user, job, store } = inWorkspace(<PanelDrawing onAdd={jest.fn()} />)
  focusOn(breaker('1·3 Range'))
  await user.keyboard('m[End][Enter]')
  expect(circuitOf(job(), 'c1')?.circuit.position).toBe(1)
  expect(store.getState().notice).toMatch(/^Not planned: the panel /)
  await user.keyboard('[Escape]')
  expect(store.getState().moving).toBeNull()
})

test('a free space asks for what stands there; an open one shows its circuit', async () => {
  const onAdd = jest.fn()
  const { user, store } = inWorkspace(<PanelDrawing onAdd={onAdd} />)
  await user.click(breaker('27 free'))
  expect(onAdd).toHaveBeenCalledWith(27, undefined)
  await user.click(screen.getByRole('button', { name: 'Open 17 Sump pump' }))
  expect(store.getState().selectedId).toBe('c17')
})

test('the keyboard goes on at the breaker whose circuit was closed, and at the space of one that was removed', async () => {
  const { user } = inWorkspace(
    <>
      <PanelDrawing onAdd={jest.fn()} />
      <CircuitInspector />
    </>,
  )
  focusOn(breaker('17 Sump pump'))
  await user.keyboard('[Enter]')
  await user.click(await screen.findByRole('button', { name: 'Close the circuit' }))
  await waitFor(() => expect(document.activeElement).toBe(breaker('17 Sump pump')))
  await user.keyboard('[Enter]')
  await user.click(await screen.findByRole('button', { name: /^Remove/ }))
  await waitFor(() => expect(document.activeElement).toBe(breaker('17 free')))
})

test('breakers entered by line: what is understood is entered, what is not stays with the reason', async () => {
  const { user, job } = inWorkspace(<EnterBreakers panelId="main" onClose={jest.fn()} />)
  const field = screen.getByLabelText('Enter breakers, a line each')
  await user.type(field, '27 20 workshop{Enter}')
  expect(job().panels[0]?.circuits.find(c => c.position === 27)?.label).toBe('workshop')
  expect((field as HTMLInputElement).value).toBe('')
  await user.type(field, '99 20 beyond{Enter}')
  expect((field as HTMLInputElement).value).toBe('99 20 beyond')
  expect(screen.getByText(/99/, { selector: 'p' })).toBeTruthy()
})

test('a load: what is typed wrong stays, with what to do; right, it is kept with its motor and its connection', async () => {
  const onClose = jest.fn()
  const { user, job } = inWorkspace(<LoadDialog circuitId="c27x" load={null} onClose={onClose} />)
  const dialog = within(screen.getByRole('dialog'))
  await user.type(dialog.getByLabelText('Name'), 'Well pump')
  await user.type(dialog.getByLabelText('Running'), 'ninety')
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  expect(onClose).not.toHaveBeenCalled()
  expect((dialog.getByLabelText('Running') as HTMLInputElement).value).toBe('ninety')
  expect(dialog.getByText(/^Running /)).toBeTruthy()
  expect(job().panels[0]?.circuits.some(c => c.loads.some(l => l.name === 'Well pump'))).toBe(false)
})

test('an edited load keeps what the dialog does not show', async () => {
  const was = circuitOf(alderHollow, 'c17')?.circuit.loads[0]
  if (!was) throw new Error('no sump')
  const { user, job } = inWorkspace(<LoadDialog circuitId="c17" load={was} onClose={jest.fn()} />)
  const running = screen.getByLabelText('Running')
  await user.clear(running)
  await user.type(running, '540')
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  const load = circuitOf(job(), 'c17')?.circuit.loads[0]
  expect(load?.runningW.value).toBe(540)
  expect(load).toMatchObject({ motorType: 'split-phase', connection: 'plug', start: was.start })
})
