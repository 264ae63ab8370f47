/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { evaluate } from '@/core/assess/evaluate'
import { testList } from '@/core/commission'
import { applied } from '@/core/job/fixtures/jobs'
import type { Job } from '@/core/job/schema'
import type { TestEntry } from '@/core/job/test-log'
import { alderHollow, fernbrook, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { inspected, proven } from '@/server/seeds/proven'
import { alone, inWorkspace } from '../test/render'
import { fakeServer } from '../test/server'
import { Matrix } from './Matrix'
import { ProbePicture } from './ProbePicture'
import { TestRecord } from './TestRecord'
import { TestsScreen } from './TestsScreen'
import { useTests } from './useTests'

jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: () => {} }),
  usePathname: () => '/jobs/job/prove',
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

function phone(job: Job = alderHollow) {
  const { record } = fakeServer(job)
  return alone(<TestsScreen record={record} evaluation={evaluate(job)} person={person} />)
}
const card = () => screen.getByRole('article', { name: /^Test \d/ })
const number = () => Number(/^Test (\d+)/.exec(card().getAttribute('aria-label') ?? '')?.[1])
const back = () => waitFor(() => expect(card()).toBeDefined())
const live = () => waitFor(() => expect(document.querySelector('[data-live]')).not.toBeNull())

const read = (
  job: Job,
  id: string,
  figures: Record<string, number | string>,
  facts: object = {},
): TestEntry => ({
  kind: 'read',
  id: `e-${id}-${Object.values(figures).join()}`,
  test: id,
  by: 'Ann',
  at: '2026-03-01T09:00:00Z',
  on: '2026-03-01',
  readings: Object.entries(figures).map(([key, value]) => ({ key, value })),
  basis: testList(job).tests.find(t => t.id === id)?.basis ?? 'gone',
  judged: 'passed',
  ...facts,
})
const withLog = (job: Job, ...entries: TestEntry[]) =>
  applied(job, { op: 'recordTests', about: 'tests', entries })

test('one test at a time: the next that is open, back, any of them from the list or the grid; a page loaded anew stands where it was', async () => {
  const { user, unmount } = phone()
  await live()
  expect(number()).toBe(1)
  await user.type(within(card()).getByRole('textbox', { name: /^Ground bar/ }), '0.2')
  await user.click(within(card()).getByRole('button', { name: 'Write down' }))
  // what was read stays on the screen with what it came to
  expect(number()).toBe(1)
  expect(textOf(await within(card()).findByRole('status'))).toMatch(/As it should be/)
  await user.click(screen.getByRole('button', { name: 'Next open' }))
  expect(number()).toBe(2)
  await user.click(screen.getByRole('button', { name: 'Back' }))
  expect(number()).toBe(1)
  await user.click(screen.getByRole('button', { name: 'All tests' }))
  await user.click(
    within(screen.getByRole('list', { name: 'Tests' })).getByRole('button', { name: /Outage drill/ }),
  )
  await back()
  expect(textOf(card())).toMatch(/who lives here follows the card/)
  // after the last of them the first that was left
  await user.click(screen.getByRole('button', { name: 'Next open' }))
  expect(number()).toBe(2)
  await user.click(screen.getByRole('button', { name: 'Circuits by supply' }))
  await user.click(await screen.findByRole('button', { name: /^7 Kitchen counter off/ }))
  await back()
  expect(textOf(card())).toMatch(/7 Kitchen counter off/)
  const at = number()
  unmount()
  phone()
  await live()
  await waitFor(() => expect(number()).toBe(at))
})

test('what is seen is chosen from words; why a figure is expected opens; a test is left out by name and reason, and told', async () => {
  const { user } = phone()
  await live()
  await user.click(screen.getByRole('button', { name: 'All tests' }))
  await user.click(
    within(screen.getByRole('list', { name: 'Tests' })).getByRole('button', {
      name: /positions, thrown slowly/,
    }),
  )
  await back()
  await user.click(within(card()).getByRole('button', { name: 'Write down' }))
  expect(textOf(card())).toMatch(/must be one of: line, off, source/)
  await user.click(within(card()).getByRole('button', { name: /never two at once/ }))
  await user.click(within(card()).getByRole('button', { name: 'Write down' }))
  expect(textOf(await within(card()).findByRole('status'))).toMatch(/As it should be/)

  await user.click(screen.getByRole('button', { name: 'Next open' }))
  await user.click(within(card()).getByRole('button', { name: /^Why L1 pin/ }))
  expect(textOf(await screen.findByRole('dialog'))).toMatch(/nothing feeds it.*ours/s)
  await user.click(screen.getByRole('button', { name: 'Close the working' }))
  await user.click(within(card()).getByRole('button', { name: /^Instruments, articles/ }))
  expect(textOf(card())).toMatch(/Two-pole tester.*NEC 702.5, 406.7/s)
  await user.click(within(card()).getByRole('button', { name: 'Leave it out' }))
  expect(textOf(card())).toMatch(/must give a reason/)
  await user.type(within(card()).getByLabelText(/^Why it is left out/), 'inlet is not fitted yet')
  await user.click(within(card()).getByRole('button', { name: 'Leave it out' }))
  await within(card()).findByText(/Left out by Field technician: inlet is not fitted yet/)
  expect(textOf(screen.getByText(/of 57 passed/))).toMatch(/1 left out/)
  await user.click(within(card()).getByRole('button', { name: /^Everything written down of it/ }))
  expect(textOf(card())).toMatch(/left out: inlet is not fitted yet/)
})

test('a test that was read under another plan, one that was mended, and what better comes first are told', async () => {
  phone(withLog(alderHollow, read(alderHollow, 'ground:c2', { ohms: 0.2 }, { basis: 'another' })))
  await live()
  expect(textOf(card())).toMatch(/It was read under another plan/)
  fireEvent.click(screen.getByRole('button', { name: 'All tests' }))
  fireEvent.click(
    within(screen.getByRole('list', { name: 'Tests' })).getByRole('button', { name: /Outage drill/ }),
  )
  await waitFor(() => expect(textOf(card())).toMatch(/Better first: Legs of the source/))
})

test('the minutes of a compressor are counted down from when it ran last, here and in the grid', async () => {
  jest.useFakeTimers({ now: new Date('2026-03-01T09:01:00Z'), doNotFake: ['queueMicrotask'] })
  try {
    const job = withLog(alderHollow, read(alderHollow, 'utility:c5', { V: 121 }))
    function Grid() {
      const tests = useTests()
      return <Matrix tests={tests} bench={null} currentId={null} onChoose={() => {}} />
    }
    inWorkspace(<Grid />, job)
    expect(screen.getByRole('timer').textContent).toMatch(/wait 4:00/)
    act(() => {
      jest.advanceTimersByTime(61_000)
    })
    expect(screen.getByRole('timer').textContent).toMatch(/wait 2:59/)
    act(() => {
      jest.advanceTimersByTime(180_000)
    })
    expect(screen.queryByRole('timer')).toBeNull()
  } finally {
    jest.useRealTimers()
  }
})

test('the grid adds up what came on against what the source gives, and says when it is too much', () => {
  const heavy = withLog(
    alderHollow,
    read(alderHollow, 'watts:c7', { V: 118, W: 1900 }),
    read(alderHollow, 'watts:c2', { V: 119, W: 400 }),
  )
  function Grid() {
    const tests = useTests()
    return <Matrix tests={tests} bench={null} currentId="watts:c7" onChoose={() => {}} />
  }
  inWorkspace(<Grid />, heavy)
  expect(screen.getByRole('status', { name: 'Together 2,300 W of 2,200 W' })).toBeDefined()
  expect(screen.getByText(/All of it at once is more than the source gives/)).toBeDefined()
  expect(
    screen
      .getByRole('button', { name: /^7 Kitchen counter on the source: doubtful, 118 V, 1,900 W/ })
      .getAttribute('aria-current'),
  ).toBe('step')
})

test('where the probes go is drawn for whatever they are held to: nothing where nothing is', () => {
  const drawn = (job: Job, id: string) =>
    testList(job)
      .tests.find(t => t.id === id)
      ?.asks.map(asked => {
        const { container, unmount } = alone(<ProbePicture asked={asked} />)
        const label = container.querySelector('[role=img]')?.getAttribute('aria-label') ?? null
        unmount()
        return label
      })
  expect(drawn(alderHollow, 'legs')?.[0]).toMatch(/^L1–N: at the inlet/)
  expect(drawn(quarryRidge, 'legs')?.[0]).toMatch(/at the lugs of Critical-load panel/)
  expect(drawn(alderHollow, 'far:c5')).toHaveLength(5)
  expect(drawn(alderHollow, 'far:c5')?.every(Boolean)).toBe(true)
  expect(drawn(alderHollow, 'ground:c5')?.[0]).toMatch(/ground bar to the last box/)
  expect(drawn(alderHollow, 'drill')).toEqual([null, null, null, null])
})

test('the record on paper: what was read with what it came to, lines for what is open, what failed and what is simulated in words', () => {
  const paper = (job: Job) => {
    const { container, unmount } = alone(
      <TestRecord
        job={job}
        list={testList(job)}
        firm="Headwater Electric"
        revision={3}
        printedOn="2026-03-02"
      />,
    )
    const said = textOf(container)
    unmount()
    return said
  }
  const empty = paper(saltmarshLane)
  expect(empty).toMatch(/0 of 63 passed; 63 open/)
  expect(empty).toMatch(/Ground bar to the far box, Ω \(at most 1 Ω\)/)
  expect(empty).toMatch(/Bonded: about 120 V from hot to neutral/)
  const failed = paper(
    withLog(
      alderHollow,
      read(alderHollow, 'ground:c5', { ohms: 'OL' }, { simulated: true, judged: 'failed' }),
      {
        kind: 'mended',
        id: 'm',
        test: 'ground:c5',
        by: 'Ann',
        at: '2026-03-01T09:00:00Z',
        on: '2026-03-01',
        what: 'ground made up',
      },
      read(alderHollow, 'ground:c7', { ohms: 9 }, { judged: 'failed' }),
    ),
  )
  expect(failed).toMatch(/FAILED: Equipment ground of 7 Kitchen counter/)
  expect(failed).toMatch(/TO BE READ AGAIN: Equipment ground of 5/)
  expect(failed).toMatch(/Mended, Ann, 2026-03-01: ground made up/)
  const plugged = applied(fernbrook, { op: 'setHookup', facts: { bondingPlug: true } })
  const whole = paper(
    inspected(
      proven(plugged, { seed: 5, by: ['Ann', 'Ben'], day: '2026-02-13', done: () => true }),
      'Ann',
      '2026-02-16',
    ),
  )
  expect(whole).toMatch(/16 of 16 passed/)
  expect(whole).toMatch(/Remark: Label at the plug: which appliance it is of \(corrected\)/)
  expect(whole).toMatch(/Passed, 2026-02-16, written down by Ann/)
  expect(whole).not.toMatch(/SIMULATED/)
  expect(whole).toMatch(/authority having jurisdiction/)
})
