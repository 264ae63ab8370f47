/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { loadsOverview } from '@/core/assess/loads-overview'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { meterReadings } from '@/workers/desks/meter-readings'
import { inWorkspace } from '../test/render'
import { fakeWorkers } from '../test/workers'
import { useWorkspace } from '../workspace/store'
import { MeterTab } from './MeterTab'

const uploaded = jest.fn()
jest.mock('../api', () => ({
  ...jest.requireActual('../api'),
  upload: (...asked: unknown[]) => uploaded(...asked),
}))

// jsdom lays nothing out: there is no room to draw in
jest.mock('recharts', () => ({ ...jest.requireActual('recharts'), ResponsiveContainer: () => null }))

/** Two days of a refrigerator, a row a minute: 12 minutes on at 150 W of every 40, in between 3 W; the last hour is a visitor’s iron. */
const csv = (iron: boolean) =>
  [
    'time,W',
    ...Array.from({ length: 2880 }, (_, m) => {
      const at = new Date(Date.UTC(2026, 0, 1, 0, m)).toISOString().slice(0, 16).replace('T', ' ')
      return `${at},${iron && m >= 2820 ? 1400 : m % 40 < 12 ? 150 : 3}`
    }),
  ].join('\n')
const file = (text: string, name = 'kitchen.csv') => new File([text], name, { type: 'text/csv' })
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })

function Tab() {
  const job = useWorkspace(s => s.job)
  const row = loadsOverview(job).rows.find(r => r.load.name === 'Kitchen refrigerator')
  return row ? <MeterTab row={row} /> : null
}
const kept = [{ id: 'f1', name: 'last-week.csv', on: '2026-01-20' }]
async function shown(way: string) {
  fakeWorkers(meterReadings)
  uploaded.mockReset().mockResolvedValue({ ok: true, data: {} })
  const page = inWorkspace(<Tab />, alderHollow, path => {
    if (path.endsWith('/logs')) return Response.json({ files: kept })
    if (path === '/api/files/f1') return new Response(csv(false))
    if (path.includes('/simulated-meter')) return new Response(simulated)
    return null
  })
  await page.user.click(press(way))
  const fridge = () => loadsOverview(page.job()).rows.find(r => r.load.name === 'Kitchen refrigerator')?.load
  return { ...page, fridge }
}
let simulated = ''
const choose = async (user: Awaited<ReturnType<typeof shown>>['user'], chosen: File) =>
  user.upload((await screen.findByLabelText('File of readings')) as HTMLInputElement, chosen)
const found = async () => within(await screen.findByRole('table', { name: 'What was found' }))

test('a file is read, told apart, set right where a visitor ironed, taken onto the load, and kept with the job', async () => {
  const { user, fridge } = await shown('A series from a file')
  await choose(user, file(csv(true)))
  await user.click(await screen.findByRole('button', { name: 'Read the file' }))
  expect((await found()).getByText(/^1,4\d\d W/, { exact: false })).toBeTruthy()
  await user.type(field('From'), '47')
  await user.type(field('To'), '48')
  await user.click(press('Leave this out'))
  await waitFor(async () => expect((await found()).queryByText(/1,4\d\d W/)).toBeNull())
  expect((await found()).getByText('30.2 %')).toBeTruthy()
  await user.click(press('Take into the load'))
  expect(await screen.findByText(/Undo takes it back\.$/)).toBeTruthy()
  expect(fridge()?.logs?.at(-1)).toMatchObject({
    kind: 'series',
    name: 'kitchen',
    on: '2026-01-01',
    runningW: 150,
  })
  expect(uploaded.mock.lastCall?.[0]).toBe('/api/jobs/job/logs?name=kitchen.csv')
  const logs = within(screen.getByRole('list', { name: 'Logs of this load' }))
  expect(logs.getByText(/runs 30.2 % of the time/)).toBeTruthy()
  await user.click(logs.getByRole('button', { name: 'Remove the log kitchen' }))
  expect(fridge()?.logs ?? []).toEqual([])
}, 60_000)

test('what is no log is told by its name and changes nothing; one that is kept with the job opens again and is not sent twice', async () => {
  const { user, fridge } = await shown('A series from a file')
  await choose(user, file('a recipe for bread', 'bread.csv'))
  expect(await screen.findByText(/^bread\.csv /)).toBeTruthy()
  await user.click(await screen.findByRole('button', { name: 'Open' }))
  await user.click(await screen.findByRole('button', { name: 'Read the file' }))
  await found()
  await user.click(press('Take into the load'))
  await waitFor(() => expect(fridge()?.logs).toHaveLength(1))
  expect(uploaded).not.toHaveBeenCalled()
}, 60_000)

test('a file that could not be kept is told; the log is taken all the same', async () => {
  const { user, fridge, store } = await shown('A series from a file')
  uploaded.mockResolvedValue({ ok: false, status: 413, message: 'The job has no room left.', faults: [] })
  await choose(user, file(csv(false)))
  await user.click(await screen.findByRole('button', { name: 'Read the file' }))
  await found()
  await user.click(press('Take into the load'))
  await waitFor(() => expect(store.getState().notice).toMatch(/could not be kept: The job has no room left/))
  expect(fridge()?.logs).toHaveLength(1)
}, 60_000)

test('a simulated meter is asked for as long as was said, and says when it sends nothing', async () => {
  const { user } = await shown('Simulated meter')
  await user.clear(field('Log for'))
  await user.type(field('Log for'), '400')
  await user.click(press('Start the meter'))
  expect(await screen.findByText(/^Log for must be a number from 0\.01 to 336/)).toBeTruthy()
  await user.clear(field('Log for'))
  await user.type(field('Log for'), '48')
  await user.click(press('Start the meter'))
  expect(await screen.findByText('The simulated meter sent nothing.')).toBeTruthy()
  simulated = csv(false)
  await user.click(press('Start the meter'))
  expect((await found()).getByText('30 %')).toBeTruthy()
}, 60_000)
