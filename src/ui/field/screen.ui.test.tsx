/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { evaluate } from '@/core/assess/evaluate'
import type { Entry } from '@/core/job/work-log'
import { workOrder } from '@/core/order'
import { standOf } from '@/core/order/stand'
import { alderHollow, fernbrook, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { worked } from '@/server/seeds/worked'
import { alone, inWorkspace } from '../test/render'
import { fakeServer } from '../test/server'
import { useLive } from '../workspace/useLive'
import { Booklet } from './Booklet'
import { FieldScreen } from './FieldView'
import { Merged } from './Merged'
import { StepDrawing } from './StepDrawing'
import { WaterPicture } from './WaterPicture'
import { WorkView } from './WorkView'

jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: () => {} }),
  usePathname: () => '/jobs/job/work',
}))
const person = {
  label: 'Field technician',
  firm: 'Firm',
  zone: 'America/New_York',
  role: 'designer',
  id: 'person-1',
  demo: false,
} as const
const textOf = (element: Element | null | undefined) => element?.textContent ?? ''

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  global.scrollTo = () => {}
})

/** A page of its own, as a phone opens it. */
function phone(job = alderHollow) {
  const { record } = fakeServer(job)
  return alone(<FieldScreen record={record} evaluation={evaluate(job)} person={person} minutes={[]} />)
}
const step = () => screen.getByRole('article')
const stepNo = () => Number(/^Step (\d+)/.exec(step().getAttribute('aria-label') ?? '')?.[1])

test('one step at a time: done, back, next, and any of them from the list; a page loaded anew stands where it was', async () => {
  const { user, unmount } = phone()
  await waitFor(() => expect(document.querySelector('[data-live]')).not.toBeNull())
  expect(stepNo()).toBe(1)
  expect(screen.queryByRole('list', { name: 'Steps of the work' })).toBeNull()
  await user.click(screen.getByRole('button', { name: 'Done' }))
  expect(textOf(within(step()).getByRole('alert'))).toMatch(/as the survey has it/)
  await user.click(screen.getByRole('button', { name: 'I have seen it' }))
  await user.click(screen.getByRole('button', { name: 'Done' }))
  await waitFor(() => expect(stepNo()).toBe(2))
  await user.click(screen.getByRole('button', { name: 'Back' }))
  expect(stepNo()).toBe(1)
  expect(screen.getByRole('button', { name: 'To step 2' })).toBeDefined()
  await user.click(screen.getByRole('button', { name: 'Next' }))
  expect(stepNo()).toBe(2)
  await user.click(screen.getByRole('button', { name: 'All steps' }))
  await user.click(
    within(screen.getByRole('list', { name: 'Steps of the work' })).getByRole('button', {
      name: /Prove dead/,
    }),
  )
  await waitFor(() => expect(stepNo()).toBe(8))
  unmount()
  phone()
  await waitFor(() => expect(stepNo()).toBe(8))
  await waitFor(() => expect(document.querySelector('[data-live]')).not.toBeNull())
})

test('what is not planned is said, and where that is done', async () => {
  phone({ ...alderHollow, planned: [], hookup: { method: 'undecided', bondingPlug: false } })
  await waitFor(() => expect(document.querySelector('[data-live]')).not.toBeNull())
  expect(screen.getByText(/Nothing is planned to be done/)).toBeDefined()
  expect(screen.getByRole('button', { name: 'Done' })).toHaveProperty('disabled', true)
})

test('the picture in water: off, or as it stands now; the wrong idea is answered', async () => {
  const { windows } = workOrder(saltmarshLane)
  const [window] = windows
  if (!window) throw new Error('no window')
  const stand = standOf(saltmarshLane, workOrder(saltmarshLane))
  const { user } = inWorkspace(
    <WaterPicture window={window} windows={windows} stand={stand} />,
    saltmarshLane,
  )
  const drawn = () => textOf(document.querySelector('svg'))
  expect(drawn()).toMatch(/LINE SIDE LIVE/)
  await user.click(screen.getByRole('button', { name: 'As it stands now' }))
  expect(drawn()).not.toMatch(/LINE SIDE LIVE/)
  expect(screen.getByText(/“The main is off, so it is dead.”/).parentElement?.textContent).toMatch(
    /Only until somebody moves one more handle: the solar inverter/,
  )
})

test('a step is drawn: its breaker by number, its wires by mark, and what stays live over the main', () => {
  const order = workOrder(alderHollow)
  const hot = order.tasks.find(t => t.id === 'hots:c5')
  const [panel] = alderHollow.panels
  if (!hot || !panel) throw new Error('no step')
  const { rerender } = alone(<StepDrawing task={hot} panel={panel} />)
  const drawing = screen.getByRole('img', { name: /Main panel, garage: the place of this step/ })
  expect(textOf(drawing)).toMatch(/main 150 A: LIVE.*5.*3 in.*3 out/)
  const many = workOrder(quarryRidge).tasks.find(t => t.id === 'enter:led-over:studio')
  if (!many) throw new Error('no step')
  rerender(<StepDrawing task={many} panel={undefined} />)
  expect(textOf(screen.getByRole('img', { name: 'The wires of this step' }))).toMatch(/and \d+ more$/)
})

test('the booklet has a box for each step, lines for what is read, and what stays live wherever hands are', () => {
  const begun = worked(saltmarshLane, ['Ada', 'Ben'], 'isolate:w1')
  const order = workOrder(begun)
  const [hold] = order.tasks.find(t => t.id === 'isolate:w1')?.holds ?? []
  const skip = {
    id: 's',
    task: 'isolate:w1',
    by: 'Ben',
    at: '2026-03-01T10:00:00Z',
    kind: 'skipped',
    hold: hold?.id ?? '',
    why: 'no lock fits',
  } as const
  const job = { ...begun, work: { log: [...(begun.work?.log ?? []), skip] } }
  alone(
    <Booklet
      job={job}
      order={order}
      lead="Power off"
      stops={['A stop.']}
      firm="Firm"
      revision={3}
      printedOn="2026-03-01"
    />,
  )
  const steps = screen.getAllByRole('region')
  expect(steps).toHaveLength(order.tasks.length)
  expect(textOf(steps[0])).toMatch(/^✓.*Ada · seen/)
  // what somebody went on without prints, with who and why
  expect(textOf(steps[order.tasks.findIndex(t => t.id === 'isolate:w1')])).toMatch(
    /Gone on without: Ben, no lock fits/,
  )
  const prove = steps[order.tasks.findIndex(t => t.phase === 'prove')]
  expect(textOf(prove)).toMatch(
    /STAYS LIVE: the line side.*STOP · Prove, test, prove.*Known source, before, V.*L1–L2, V/,
  )
  expect(textOf(document.querySelector('article'))).toMatch(/To prove dead is never left out/)
  expect(screen.getByText(/is mended before anything is opened: A stop\./)).toBeDefined()
})

test('office and field are told alike what no longer fits, and whose clock jumped', () => {
  const log = [
    { id: 'a', task: 'hots:gone', by: 'Ada', at: '2026-03-02T10:00:00Z', kind: 'done', on: '2026-03-02' },
    { id: 'b', task: 'arrive:found', by: 'Ada', at: '2026-03-01T10:00:00Z', kind: 'began' },
  ] as Entry[]
  const job = { ...alderHollow, work: { log } }
  alone(<Merged stand={standOf(job, workOrder(job))} />)
  expect(screen.getByText(/was done, and the plan no longer has it/)).toBeDefined()
  expect(screen.getByText(/The clock of Ada jumped/)).toBeDefined()
})

test('the office hears of others by the server’s events, while somebody looks', async () => {
  let people: ((e: { data: string }) => void) | undefined
  const Live = () => {
    useLive()
    return null
  }
  const opened: {
    url: string
    onopen?: () => void
    onmessage?: (e: { data: string }) => void
    close: jest.Mock
  }[] = []
  Object.assign(globalThis, {
    EventSource: class {
      close = jest.fn()
      addEventListener = (_: string, hear: (e: { data: string }) => void) => {
        people = hear
      }
      constructor(readonly url: string) {
        opened.push(this as never)
      }
    },
  })
  const page = inWorkspace(
    <>
      <Live />
      <WorkView minutes={[]} />
    </>,
    fernbrook,
  )
  expect(opened.map(o => o.url)).toEqual(['/api/jobs/job/live'])
  expect(screen.getByText(/no live connection/)).toBeDefined()
  act(() => opened[0]?.onopen?.())
  expect(screen.getByText('as it comes')).toBeDefined()
  act(() => people?.({ data: '{"names":["Ada"],"again":true}' }))
  expect(page.store.getState().others).toEqual(['Ada', 'you, elsewhere,'])
  page.server.record = {
    ...page.server.record,
    revision: page.server.record.revision + 1,
    job: worked(fernbrook, ['Ada', 'Ben'], 'prove:w1'),
  }
  act(() => opened[0]?.onmessage?.({ data: String(page.server.record.revision) }))
  expect(await screen.findByText(/is at: Prove dead: 1 Unit heater/)).toBeDefined()
  expect(screen.getByText(/Power is off now/)).toBeDefined()
  // in a pocket it hears nothing
  Object.defineProperty(document, 'visibilityState', { configurable: true, value: 'hidden' })
  fireEvent(document, new Event('visibilitychange'))
  expect(opened[0]?.close).toHaveBeenCalled()
  expect(opened).toHaveLength(1)
  Object.defineProperty(document, 'visibilityState', { configurable: true, value: 'visible' })
  fireEvent(document, new Event('visibilitychange'))
  expect(opened).toHaveLength(2)
  Reflect.deleteProperty(globalThis, 'EventSource')
})

test('an empty order says what to do first; a note is kept with its name', async () => {
  const page = inWorkspace(<WorkView minutes={[]} />, fernbrook)
  await page.user.click(within(step()).getByRole('button', { name: 'Note' }))
  await page.user.click(screen.getByRole('button', { name: 'Keep the note' }))
  expect(textOf(step())).toMatch(/must say something/)
  await page.user.type(screen.getByLabelText('What the next one should know'), 'the dog is out back')
  await page.user.click(screen.getByRole('button', { name: 'Keep the note' }))
  expect(page.job().work?.log.at(-1)).toMatchObject({
    kind: 'note',
    text: 'the dog is out back',
    by: 'Designer',
  })
  expect(textOf(step())).toMatch(/Designer: the dog is out back/)
})
