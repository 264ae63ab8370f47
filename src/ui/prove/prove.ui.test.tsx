/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { screen, waitFor, within } from '@testing-library/react'
import { testList } from '@/core/commission'
import { proofOf } from '@/core/commission/scene'
import { applied } from '@/core/job/fixtures/jobs'
import type { Job } from '@/core/job/schema'
import { alderHollow, fernbrook } from '@/server/seeds/jobs'
import { proven, testedOverYears } from '@/server/seeds/proven'
import { instrumentsOf, questionOf } from '@/simulators/house/instruments'
import { truthOf } from '@/simulators/house/truth'
import { upload } from '../api'
import { inWorkspace } from '../test/render'
import { not } from '../test/server'
import { TestsView } from './TestsView'

jest.mock('../api', () => ({ ...jest.requireActual('../api'), upload: jest.fn() }))
jest.mocked(upload).mockResolvedValue(not(0, 'away'))
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: () => {} }),
  usePathname: () => '/jobs/job/tests',
}))
beforeEach(() => {
  Element.prototype.scrollIntoView = jest.fn()
  localStorage.clear()
  sessionStorage.clear()
})

const shown = (job: Job = alderHollow) => inWorkspace(<TestsView />, job)
const card = () => screen.getByRole('article', { name: /^Test \d/ })
const press = (name: string | RegExp) => within(card()).getByRole('button', { name })
const choose = (name: RegExp) =>
  within(screen.getByRole('list', { name: 'Tests' })).getByRole('button', { name })
const log = (page: ReturnType<typeof shown>) => page.job().tests?.log ?? []
const made = (faults: string[]) => applied(alderHollow, { op: 'standInHouse', house: { seed: 3, faults } })
const textOf = (element: Element | null | undefined) => element?.textContent ?? ''

test('a reading is typed, judged and kept; what cannot be stays in its field with what to do', async () => {
  const page = shown()
  const { user } = page
  expect(textOf(card())).toMatch(/Equipment ground of 2 Boiler.*at most 1 Ω/s)
  const field = within(card()).getByRole('textbox', { name: /^Ground bar to the far box/ })
  await user.type(field, '-2')
  await user.click(press('Write down'))
  expect(textOf(card())).toContain('must not be negative')
  expect((field as HTMLInputElement).value).toBe('-2')
  await user.clear(field)
  await user.type(field, '0,3')
  await user.type(within(card()).getByLabelText(/^Instrument, by its number/), 'meter 4')
  await user.click(press('Write down'))
  expect(log(page)).toMatchObject([
    {
      kind: 'read',
      test: 'ground:c2',
      by: 'Designer',
      readings: [{ key: 'ohms', value: 0.3 }],
      instrument: 'meter 4',
      judged: 'passed',
    },
  ])
  expect(textOf(await within(card()).findByRole('status'))).toMatch(/As it should be.*0.3 Ω.*Designer/)
  expect(screen.getByText(/1 of 57 passed/)).toBeDefined()
})

test('what fails names what can be wrong, the likeliest first; mended, it is read again, and the finding goes', async () => {
  const page = shown(made(['neutral-loose:c5']))
  const { user } = page
  await user.click(choose(/Last outlet of 5 Kitchen/))
  await user.click(await within(card()).findByRole('button', { name: /^Set and read all/ }))
  await user.click(press('Write down'))
  expect(textOf(await within(card()).findByRole('status'))).toMatch(
    /Too much is lost on the way.*simulated instrument/,
  )
  expect(log(page).at(-1)).toMatchObject({ judged: 'failed', simulated: true })
  const causes = await within(card()).findByRole('region', { name: 'What can be wrong' })
  expect(textOf(causes)).toMatch(/^What can be wrongThe neutral of 5 Kitchen refrigerator has a poor joint/)
  const stops = () => page.store.getState().evaluation.findings.filter(f => f.id === 'test.failed')
  await waitFor(() => expect(stops()).toHaveLength(1))
  await user.click(within(causes).getAllByRole('button', { name: 'Found it here' })[0] as HTMLElement)
  await user.click(press('Mended'))
  expect(log(page).at(-1)).toMatchObject({ kind: 'mended', cause: 'neutral-loose:c5', simulated: true })
  await within(card()).findByText(/Something was mended since: read it again/)
  await within(card()).findByRole('button', { name: /^Set and read all/ })
  await waitFor(() => expect(stops()).toHaveLength(0))
  await user.click(press(/^Set and read all/))
  await user.click(press('Write down'))
  expect(textOf(await within(card()).findByRole('status'))).toMatch(/^As it should be/)
  expect(screen.getByText(/What was wrong in it is mended/)).toBeDefined()
})

test('the made-up house stands as a hand left it: what is not set reads as it is, and a dial on the wrong range shows nothing', async () => {
  const { user } = shown(made([]))
  await user.click(choose(/Last outlet of 5 Kitchen/))
  const dial = await within(card()).findByRole('region', { name: /^Simulated instrument: Hot–N/ })
  expect(textOf(dial)).toMatch(/stands otherwise.*the main of Main panel, garage: off/)
  // an ordinary day: it lives, by the utility
  await user.click(within(dial).getByRole('button', { name: /^Read Hot–N/ }))
  expect(
    Number.parseFloat(textOf(within(card()).getByRole('status', { name: /it shows/ })).replace('Hot–N', '')),
  ).toBeGreaterThan(114)
  const first = within(card()).getByLabelText(/^Hot–N, V/)
  await user.clear(first)
  await user.click(first)
  await user.click(press(/^By hand/))
  await user.click(within(card()).getByRole('button', { name: 'mV~' }))
  await user.click(press(/^Read Hot–N/))
  expect((first as HTMLInputElement).value).toBe('OL')
  await user.click(press('Write down'))
  expect(textOf(card())).toMatch(/is no reading of V/)
})

test('a compressor that has just run stalls; after its minutes it starts', async () => {
  const { user } = shown(made([]))
  await user.click(
    within(screen.getByRole('table', { name: 'Circuits by supply' })).getByRole('button', {
      name: /^5 Kitchen refrigerator on the source/,
    }),
  )
  await user.click(await within(card()).findByRole('button', { name: 'Set it so' }))
  await user.click(press(/^Read Hot–N/))
  expect(textOf(within(card()).getByRole('region', { name: /Simulated/ }))).toMatch(
    /started against pressure, stalled/,
  )
  await user.click(press('Let 5 minutes pass'))
  await user.click(press(/^Read Hot–N/))
  expect(Number((within(card()).getByLabelText(/^Hot–N, V/) as HTMLInputElement).value)).toBeGreaterThan(110)
})

test('what must stay dead is written down at once; a live one is sent to its own circuit', async () => {
  const page = shown()
  const { user } = page
  const form = within(screen.getByRole('form', { name: 'Read dead one after the other' }))
  const field = form.getByLabelText(/^Highest of the 17 circuits/)
  await user.type(field, '119')
  await user.click(form.getByRole('button', { name: 'All read dead' }))
  expect(screen.getByText(/that one is not dead. Write it down at its own circuit/)).toBeDefined()
  await user.clear(field)
  await user.type(field, '0.4')
  await user.click(form.getByRole('button', { name: 'All read dead' }))
  expect(log(page)).toHaveLength(17)
  expect(screen.getByText('all seen dead')).toBeDefined()
})

test('more watts than planned are taken over by one press, with the hours before and after', async () => {
  const page = shown()
  const { user } = page
  await user.click(
    within(screen.getByRole('table', { name: 'Circuits by supply' })).getByRole('button', {
      name: /^5 Kitchen refrigerator on the source/,
    }),
  )
  await user.type(within(card()).getByLabelText(/^Hot–N, V/), '119')
  await user.type(within(card()).getByLabelText(/^Watts as it comes on/), '640')
  await user.click(press('Write down'))
  const over = await within(card()).findByRole('button', { name: 'Take 640 W over' })
  expect(textOf(card())).toMatch(/drew 640 W as it came on; the plan has 118 W.*Before.*After/s)
  await user.click(over)
  expect(page.job().panels[0]?.circuits.find(c => c.id === 'c5')?.loads[0]?.runningW).toMatchObject({
    value: 640,
    from: 'commissioned',
  })
  expect(textOf(await within(card()).findByRole('status'))).toMatch(/^As it should be/)
})

test('a table of readings is judged line by line; another file says what it should be', async () => {
  const page = shown()
  const { user } = page
  const input = document.querySelector('input[type=file][accept*=csv]') as HTMLInputElement
  await user.upload(input, new File(['time,W\n1,2\n'], 'other.csv'))
  await waitFor(() => expect(page.store.getState().notice).toMatch(/no table of readings/))
  await user.upload(input, new File(['test,key,value\nground:c2,ohms,0.2\nground:c5,ohms,OL\n'], 'day.csv'))
  await waitFor(() => expect(log(page)).toMatchObject([{ judged: 'passed' }, { judged: 'failed' }]))
})

test('the inspection: an appointment, a remark that becomes a task, and what was decided', async () => {
  const page = shown()
  const { user } = page
  const remark = within(await screen.findByRole('form', { name: 'Remark' }))
  await user.click(remark.getByRole('button', { name: 'Write down the remark' }))
  expect(screen.getByText(/must say what was remarked/)).toBeDefined()
  await user.type(remark.getByLabelText(/^A remark/), 'Label at the inlet')
  await user.click(remark.getByRole('button', { name: 'Write down the remark' }))
  const link = screen.getByRole('link', { name: 'A task of the work order' })
  expect(link.getAttribute('href')).toMatch(/\/work#remark:/)
  await user.click(screen.getByRole('button', { name: 'It passed' }))
  expect(screen.getByText(/Said to have passed, while a remark stands open/)).toBeDefined()
})

test('capacity over the years is drawn from its tests, with a table behind it', async () => {
  const { user } = shown(
    testedOverYears(alderHollow, 'Designer', [
      ['2024-03-01', 0.98],
      ['2026-03-01', 0.9],
    ]),
  )
  const chart = within(await screen.findByRole('figure', { name: /^Capacity over the years/ }))
  expect(chart.getByText(/loses about .* % a year/)).toBeDefined()
  await user.click(chart.getByRole('button', { name: 'Table' }))
  expect(textOf(chart.getByRole('table'))).toMatch(/2024-03-01.*98.*2026-03-01.*90/)
})

test('nothing to prove says so; a job proven whole says who decides', async () => {
  const { unmount } = shown({
    ...fernbrook,
    source: undefined,
    hookup: { method: 'undecided', bondingPlug: false },
    planned: [],
    panels: [{ ...fernbrook.panels[0], circuits: [] }],
  } as Job)
  expect(screen.getByText(/Nothing can be proven yet/)).toBeDefined()
  unmount()
  const plugged = applied(fernbrook, { op: 'setHookup', facts: { bondingPlug: true } })
  shown(proven(plugged, { seed: 5, by: ['Ann', 'Ben'], day: '2026-02-13', done: () => true }))
  expect(
    screen.getByText(/All of it passed. Local code, the authority and licensed practice decide/),
  ).toBeDefined()
})

test('the demo’s seeded fault is found by its tests, and only by those', () => {
  const p = proofOf(alderHollow)
  const { read } = instrumentsOf(p, truthOf(p, 22, ['neutral-loose:c11']))
  const far = testList(alderHollow).tests.find(t => t.id === 'far:c11')
  expect(far?.asks.map(a => read(questionOf(far, a)))[3]).toBeLessThan(100)
})
