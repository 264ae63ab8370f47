/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { screen, waitFor, within } from '@testing-library/react'
import { alderHollow, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { worked } from '@/server/seeds/worked'
import { upload } from '../api'
import { inWorkspace } from '../test/render'
import { not } from '../test/server'
import { waitingPhotos } from '../trace/offline'
import { begin, minutesSince } from './clock'
import { WorkView } from './WorkView'

jest.mock('../api', () => ({ ...jest.requireActual('../api'), upload: jest.fn() }))
jest.mocked(upload).mockResolvedValue(not(0, 'away'))
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: () => {} }),
  usePathname: () => '/jobs/job/work',
}))
beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
})

const people = ['Designer', 'Apprentice'] as const
const shown = (job = alderHollow) => inWorkspace(<WorkView minutes={[]} />, job)
const step = () => screen.getByRole('article')
const press = (name: string | RegExp) => within(step()).getByRole('button', { name })
const choose = (name: RegExp) =>
  within(screen.getByRole('list', { name: 'Steps of the work' })).getByRole('button', { name })
const log = (page: ReturnType<typeof shown>) => page.job().work?.log ?? []

const textOf = (element: Element | null | undefined) => element?.textContent ?? ''
const typedIn = (element: HTMLElement) => (element as HTMLInputElement).value

test('a step is begun, its hold point passed, done, and taken back; how long it took is counted', async () => {
  const page = shown()
  const { user } = page
  expect(textOf(screen.getByText(/^Power off for about 2 h/))).toContain('refrigerators included')
  await user.click(press('Done'))
  expect(textOf(within(step()).getByRole('alert'))).toContain('as the survey has it')
  await user.click(press('Begin'))
  expect(screen.getByText(/is at: See that the house/)).toBeDefined()
  await user.click(press('I have seen it'))
  await user.click(press('Done'))
  expect(screen.getByText('1 of 23 steps', { exact: false })).toBeDefined()
  expect(log(page).map(e => e.kind)).toEqual(['began', 'evidence', 'done'])
  expect(log(page).at(-1)).toMatchObject({ minutes: 0, estimated: { work: 'prepare', minutes: 8 } })
  await user.click(choose(/See that the house/))
  await user.click(press('Take back'))
  expect(log(page).at(-1)?.kind).toBe('taken back')
  expect(press('Done')).toBeDefined()
})

test('under what rests on it nothing is taken back; what is skipped has a name and a reason', async () => {
  const page = shown(worked(alderHollow, people, 'isolate:w1'))
  const { user } = page
  await user.click(choose(/Mount the transfer switch/))
  await user.click(press('Take back'))
  expect(textOf(within(step()).getByRole('alert'))).toContain('take that back first')
  await user.click(choose(/Prove dead/))
  expect(textOf(step())).toMatch(/Not yet\. Comes first: Switch off and lock/)
  await user.click(press('Begin'))
  expect(log(page).filter(e => e.task === 'prove:w1')).toEqual([])
  await user.click(choose(/^.*Switch off and lock/))
  const hold = (name: RegExp) => within(within(step()).getByRole('region', { name }))
  const cord = hold(/cord at the inlet/)
  await user.type(cord.getByLabelText(/^Without a photograph/), 'in the van')
  await user.click(cord.getByRole('button', { name: 'Write down' }))
  const without = () => hold(/the main of/i).getAllByRole('button', { name: 'Go on without it' })
  await user.click(without()[0] as HTMLElement)
  await user.click(without().at(-1) as HTMLElement)
  expect(textOf(step())).toContain('must say something')
  await user.type(screen.getByLabelText(/^Why it is gone on without/), 'no lock fits this main')
  await user.click(without().at(-1) as HTMLElement)
  expect(log(page).at(-1)).toMatchObject({ kind: 'skipped', why: 'no lock fits this main' })
  await user.click(press('Done'))
  expect(textOf(screen.getByText(/went on without a hold point/))).toContain('no lock fits this main')
})

test('to prove dead: readings are typed or simulated, what is no number stays, a live one keeps hands out', async () => {
  const page = shown(worked(saltmarshLane, people, 'prove:w1'))
  const { user } = page
  expect(within(step()).queryByRole('button', { name: 'Go on without it' })).toBeNull()
  expect(textOf(within(step()).getAllByText(/STAYS LIVE/)[0])).toContain('line side')
  await user.click(press('From the simulated meter'))
  expect(typedIn(screen.getByLabelText(/^L1–L2/))).toBe('0.1')
  await user.clear(screen.getByLabelText(/^L1–N/))
  await user.type(screen.getByLabelText(/^L1–N/), 'nothing')
  await user.click(press('Write down'))
  expect(typedIn(screen.getByLabelText(/^L1–N/))).toBe('nothing')
  expect(textOf(step())).toContain('must be a number')
  await user.clear(screen.getByLabelText(/^L1–N/))
  await user.type(screen.getByLabelText(/^L1–N/), '119')
  await user.click(press('Write down'))
  expect(textOf(within(step()).getByRole('alert'))).toContain('119 V. It is live: keep your hands out.')
  await user.click(press('Done'))
  expect(log(page).some(e => e.kind === 'done' && e.task === 'prove:w1')).toBe(false)
  await user.click(press('From the simulated meter'))
  await user.click(press('Write down'))
  expect(textOf(screen.getByText(/with readings of the simulated meter/).parentElement)).toContain(
    'Prove dead',
  )
  await user.click(press('Done'))
  expect(log(page).slice(-2)).toMatchObject([
    { kind: 'evidence', simulated: true },
    { kind: 'done', task: 'prove:w1' },
  ])
})

test('done otherwise takes the figures over, and the checks say at once what they think of it', async () => {
  const page = shown(worked(saltmarshLane, people, 'breaker:backfeed:main'))
  const { user } = page
  await user.type(screen.getByLabelText(/^Torque of the last screw/), '30')
  await user.type(screen.getByLabelText(/^Torque tool/), 'T-7')
  await user.click(press('Write down'))
  await user.click(press('Done otherwise'))
  const dialog = await screen.findByRole('dialog')
  await user.clear(within(dialog).getByLabelText(/^Breaker/))
  await user.type(within(dialog).getByLabelText(/^Breaker/), '60')
  await user.type(within(dialog).getByLabelText(/^What was done, and why/), 'the one on the truck')
  await user.click(within(dialog).getByRole('button', { name: 'Write down as done' }))
  expect(await screen.findByText(/The checks say of the house/)).toBeDefined()
  expect(textOf(screen.getByRole('dialog'))).toContain('60 A')
  expect(page.job().hookup.backfed?.breakerA).toBe(60)
  expect(log(page).at(-1)).toMatchObject({ kind: 'done', otherwise: 'the one on the truck' })
})

test('a photograph is kept for its step; a device that is full says so and loses nothing', async () => {
  const page = shown()
  const { user } = page
  const file = new File(['x'], 'a.jpg', { type: 'image/jpeg' })
  await user.upload(screen.getByLabelText(/^Photograph of: See that/), file)
  await waitFor(async () => expect(await waitingPhotos('job')).toBe(1))
  Object.defineProperty(navigator, 'storage', {
    configurable: true,
    value: { estimate: async () => ({ quota: 10_000_000, usage: 9_000_000 }) },
  })
  await user.upload(screen.getByLabelText(/^Photograph of: See that/), file)
  await waitFor(() => expect(page.store.getState().notice).toMatch(/room for 1 MB only: nothing was taken/))
  expect(await waitingPhotos('job')).toBe(1)
})

test('the order is put by hand, within what is allowed, and back as it was', async () => {
  const page = shown(quarryRidge)
  const { user } = page
  await user.click(choose(/Mount the inverter/))
  await user.click(screen.getByRole('button', { name: 'Earlier' }))
  expect(choose(/^.*4\. Mount the inverter/)).toBeDefined()
  await user.click(screen.getByRole('button', { name: 'As computed' }))
  expect(choose(/^.*5\. Mount the inverter/)).toBeDefined()
  await user.click(choose(/Prove dead/))
  await user.click(screen.getByRole('button', { name: 'Earlier' }))
  expect(page.store.getState().notice).toMatch(/^Not allowed: “Prove dead/)
})

test('the booklet is typed in in one go; a line that cannot be read says what it wants, and what is typed stays', async () => {
  const page = shown(worked(saltmarshLane, people, 'isolate:w1'))
  const { user } = page
  await user.click(screen.getByRole('button', { name: 'From paper' }))
  const dialog = await screen.findByRole('dialog')
  await user.click(within(dialog).getAllByRole('button', { name: 'All up to here' })[1] as HTMLElement)
  for (const box of within(dialog).getAllByRole('textbox', { name: /^Lock and tag/ }))
    await user.type(box, 'tag 14')
  const prove = within(dialog).getByRole('textbox', { name: /^Prove, test, prove/ })
  await user.type(prove, '121 0 0 0')
  await user.click(within(dialog).getByRole('button', { name: 'Write down' }))
  expect(textOf(dialog)).toContain('wants 8 in this order')
  expect(typedIn(prove)).toBe('121 0 0 0')
  await user.type(prove, ' 0 0 0 121')
  await user.click(within(dialog).getByRole('button', { name: 'Write down' }))
  await waitFor(() => expect(page.store.getState().notice).toBe('2 steps typed in.'))
  expect(
    log(page)
      .filter(e => e.kind === 'done')
      .slice(-2)
      .map(e => e.task),
  ).toEqual(['isolate:w1', 'prove:w1'])
  expect(screen.queryByText(/hold point is open/)).toBeNull()
})

test('minutes are counted by a clock that nobody sets; after a reload by the time of day, unless that went back', () => {
  begin('job', 'a')
  expect(minutesSince('job', 'a')).toBe(0)
  const begun = (atMs: number) =>
    localStorage.setItem('spillway.begun.job.a', JSON.stringify({ page: 'before', sinceMs: 0, atMs }))
  begun(Date.now() - 10 * 60_000)
  expect(minutesSince('job', 'a')).toBe(10)
  begun(Date.now() + 60 * 60_000)
  expect(minutesSince('job', 'a')).toBeNull()
  begun(Date.now() - 40 * 3_600_000)
  expect(minutesSince('job', 'a')).toBeNull()
})
