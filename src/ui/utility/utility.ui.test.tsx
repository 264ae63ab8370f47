/** @jest-environment jest-fixed-jsdom */
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import type { IntervalSeries } from '@/core/loads/intervals'
import { summed, utilityViews } from '@/core/loads/utility-year'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { inWorkspace } from '../test/render'
import { HeatMap } from './HeatMap'
import { UtilityView } from './UtilityView'

const press = (name: string | RegExp) => screen.getByRole('button', { name })
const days = 20
/** Twenty January days by the hour: 1,000 W, and 3,000 W from six to eight in the evening. */
const series = (flow: IntervalSeries['flow']): IntervalSeries => {
  const hours = Array.from({ length: days * 24 }, (_, n) => n)
  return {
    id: 'M1',
    flow,
    startS: Float64Array.from(hours, n => Date.UTC(2026, 0, 5) / 1000 + n * 3600),
    offsetMin: new Int16Array(hours.length),
    minutes: new Float32Array(hours.length).fill(60),
    Wh: Float64Array.from(hours, n => (n % 24 >= 18 && n % 24 < 20 ? 3000 : 1000)),
  }
}
const house = series('forward')
const views = utilityViews(house)
if (!views) throw new Error('no views')
const kept = (id: number, name: string) => ({
  id: `00000000-0000-4000-8000-00000000000${id}`,
  name,
  warnings: [],
  meters: [
    { id: 'M1', flow: 'reverse', count: 480, totalWh: 12_000, summed: null },
    { id: 'M1', flow: 'forward', count: 480, totalWh: 560_000, summed: summed(house) },
  ],
})
/** A job for which so much is kept, and a server that says so, or why not. */
function page(list: unknown[], answers: (path: string, init?: RequestInit) => Response | null = () => null) {
  return inWorkspace(<UtilityView />, alderHollow, (path, init) => {
    if (!path.includes('/interval-data')) return null
    return answers(path, init) ?? Response.json(path.includes('series=') ? { views } : { series: list })
  })
}

test('a year is read, judged on the panel with its working, taken for the job, and no longer used by a press', async () => {
  const { user, job, store } = page([kept(1, 'year.xml')])
  const said = await screen.findByRole('table', { name: 'What it says' })
  const row = (name: string) => within(said).getByRole('row', { name: new RegExp(`^${name}`) }).textContent
  expect(row('From')).toMatch(/2026-01-05 to 2026-01-24, 20 days by 60 minutes/)
  expect(row('A mean day')).toMatch(/28 kWh|28,000 Wh/)
  expect(row('Highest demand')).toMatch(/3,000 W|3 kW/)
  expect(row('Fed back in all')).toMatch(/12 kWh|12,000 Wh/)
  // an hour hides a higher peak: a quarter more is allowed for
  const allowance = screen.getByRole<HTMLInputElement>('textbox', { name: 'Allowance' })
  expect(allowance.value).toBe('1.25')
  await user.click(press('Show the working'))
  expect(store.getState().working).not.toBeNull()
  await user.clear(allowance)
  await user.type(allowance, '4')
  await user.click(press('Use it for this job'))
  expect(await screen.findByText('Allowance must be from 1 to 3')).toBeTruthy()
  expect(allowance.value).toBe('4')
  expect(job().utility).toBeUndefined()
  await user.clear(allowance)
  await user.type(allowance, '1.5')
  await user.click(press('Use it for this job'))
  await waitFor(() => expect(job().utility?.document).toBe('year.xml'))
  expect(job().utility).toMatchObject({ meterId: 'M1', minutes: 60, reverseWh: 12_000 })
  expect(job().panels.find(p => p.demandW)?.demandW).toMatchObject({ value: 3000, peakFactor: 1.5 })
  await user.click(press('No longer use it'))
  expect(job().utility).toBeUndefined()
})

test('of several files the one asked for is looked at; another meter of it says what it is', async () => {
  const { user } = page([kept(1, 'old.xml'), kept(2, 'new.csv')])
  const list = within(await screen.findByRole('list', { name: 'Kept with the job' }))
  await user.click(within(list.getByText(/^new.csv/)).getByRole('button', { name: 'Look' }))
  expect(await screen.findByRole('heading', { name: 'new.csv' })).toBeTruthy()
  await user.click(screen.getByRole('combobox', { name: 'Meter' }))
  await user.click(screen.getByRole('option', { name: /fed back/ }))
  expect(screen.getByText(/Its intervals are of no usual length/)).toBeTruthy()
})

test('what cannot be fetched is told, what can stands there at once, and nothing kept says what it is good for', async () => {
  let away = true
  const { user } = page([], (path, init) =>
    !path.endsWith('/fetch') || init?.method !== 'POST'
      ? null
      : away
        ? Response.json({ message: 'The utility’s service does not answer.' }, { status: 502 })
        : Response.json(kept(3, 'fetched')),
  )
  expect(await screen.findByText(/^Nothing is here yet/)).toBeTruthy()
  await user.click(press('Fetch from the simulated utility'))
  expect((await screen.findByRole('alert')).textContent).toBe('The utility’s service does not answer.')
  away = false
  await user.click(press('Fetch from the simulated utility'))
  expect(await screen.findByRole('heading', { name: 'fetched' })).toBeTruthy()
  expect(screen.queryByRole('alert')).toBeNull()
})

test('a file larger than is taken is not sent', async () => {
  const { user } = page([])
  const huge = new File(['x'], 'decade.xml', { type: 'text/xml' })
  Object.defineProperty(huge, 'size', { value: 251_000_000 })
  await user.upload(await screen.findByLabelText('File of the utility'), huge)
  expect((await screen.findByRole('alert')).textContent).toMatch(/^decade.xml is larger than 250 MB/)
})

test('the year is read hour by hour with the arrows, and stops at its edges', () => {
  const gap = views.days.map((d, n) => (n === 1 ? { ...d, W: d.W.map(() => null) } : d))
  inWorkspace(<HeatMap days={gap} />)
  const map = screen.getByRole('img')
  const go = (...keys: string[]) => {
    for (const key of keys) fireEvent.keyDown(map, { key })
    return screen.getByRole('status').textContent
  }
  expect(go('ArrowLeft', 'ArrowUp')).toMatch(/^2026-01-05, 0:00: (1,000 W|1 kW)/)
  expect(go(...new Array(18).fill('ArrowDown'))).toMatch(/^2026-01-05, 18:00: (3,000 W|3 kW)/)
  expect(go('ArrowRight')).toBe('2026-01-06, 18:00: not read')
  expect(go(...new Array(30).fill('ArrowRight'))).toMatch(/^2026-01-24, 18:00/)
})
