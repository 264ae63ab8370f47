/** @jest-environment jest-fixed-jsdom */
import { act, screen, waitFor, within } from '@testing-library/react'
import { wiringPlan } from '@/core/work/wiring'
import { demoJobs } from '@/server/seeds/jobs'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { PartsView } from '../parts/PartsView'
import { inWorkspace } from '../test/render'
import { WallSketch } from './WallSketch'
import { WireView } from './WireView'
import { usualBox } from './wall-boxes'

const firmParts = {
  prices: [
    {
      part: 'twist-small',
      name: '',
      quantity: 100,
      priceUsd: 14,
      supplier: 'Yard',
      substitutes: [],
      on: '2026-01-01',
    },
  ],
  stock: { 'twist-large': 8 },
  own: {},
  others: { 'twist-large': 7 },
  minutes: [],
  habits: {},
  version: 0,
}
let asked: unknown[] = []
const besides = (path: string, init?: RequestInit) => {
  if (path === '/api/prices')
    return Response.json({
      taken: 2,
      older: 1,
      doubled: 0,
      unknown: { count: 1, some: ['elbow grease'] },
      faults: [{ row: 3, column: 'price', message: '“€ 2” is in another money: prices are in $' }],
    })
  if (!path.endsWith('/parts')) return null
  if (init?.body) asked.push(JSON.parse(String(init.body)))
  return Response.json(firmParts)
}
beforeEach(() => {
  asked = []
})

const wire = (job = saltmarshLane) => inWorkspace(<WireView today="2026-11-29" firm="Firm" />, job, besides)
const parts = (job = alderHollow) => inWorkspace(<PartsView today="2026-11-29" firm="Firm" />, job, besides)

test('a way takes its length by hand, tells who said it, and goes back to what is proposed', async () => {
  const { user, job } = wire()
  const way = screen.getByRole('row', { name: /Inlet to Main panel/ })
  expect(way.textContent).toMatch(/from the wall.*trade size 3\/4.*strap/s)
  const length = within(way).getByRole('textbox', { name: 'Length' })
  await user.clear(length)
  await user.type(length, '5000{Enter}')
  expect(within(way).getByText(/^Length must be from 0\.5 to 2,000 ft/)).toBeTruthy()
  await user.clear(length)
  await user.type(length, '31{Enter}')
  expect(job().wiring?.routes).toEqual([{ id: 'inlet', lengthFt: 31 }])
  await waitFor(() => expect(way.textContent).toMatch(/entered/))
  await user.click(within(way).getByRole('checkbox', { name: 'wet' }))
  expect(job().wiring?.routes).toEqual([{ id: 'inlet', lengthFt: 31, wet: true }])
  await user.click(within(way).getByRole('button', { name: 'As proposed' }))
  expect(job().wiring?.routes).toBeUndefined()
})

test('a job of which nothing is wired says what to do first', () => {
  const { method: _, ...hookup } = alderHollow.hookup
  wire({ ...alderHollow, hookup: { ...hookup, method: 'undecided' } })
  expect(screen.getByRole('heading', { name: 'Nothing is wired yet' })).toBeTruthy()
})

test('the wall: what is not placed can be, each to the right of the last; and it is taken off again', async () => {
  const bare = { ...saltmarshLane, wiring: undefined }
  const { user, job } = inWorkspace(<WallSketch plan={wiringPlan(bare)} />, bare)
  await user.click(screen.getByRole('button', { name: /Place Sill/ }))
  await user.click(screen.getByRole('button', { name: /Place Main panel/ }))
  expect(job().wiring?.sketch?.boxes.map(b => [b.of, b.leftFt])).toEqual([
    ['inlet', 0],
    ['panel-main', 1.5],
  ])
  expect(screen.getByText(/2 of 2 placed/)).toBeTruthy()
  expect(usualBox('bank-u1', [])).toMatchObject({ bottomFt: 0, leftFt: 0 })
})

test('parts: what others keep is not free, what is cheapest is bought, and each line says why', async () => {
  const { user } = parts()
  const small = await screen.findByRole('row', { name: /Twist-on connector, small/ })
  await waitFor(() => expect(small.textContent).toMatch(/1 × 100 Yard.*\$14/))
  expect(small.textContent).toMatch(/Splice of 5 Kitchen refrigerator.*and 3 more/)
  await user.click(within(small).getByRole('button', { name: 'and 3 more' }))
  expect(small.textContent).toMatch(/Nap room/)
  // 3 needed, 8 there, 7 kept for others
  const large = screen.getByRole('row', { name: /Twist-on connector, large/ })
  expect(
    within(large)
      .getAllByRole('cell')
      .map(c => c.textContent),
  ).toEqual(['3', '', '2', '', 'ask'])
  const count = within(large).getByRole('textbox', { name: /In stock/ })
  await user.clear(count)
  await user.type(count, '9{Enter}')
  expect(asked).toEqual([{ act: 'count', key: 'twist-large', was: 8, count: 9 }])
})

test('a price is kept of today; what is kept from stock is asked of the server', async () => {
  const { user } = parts()
  await user.click(await screen.findByRole('button', { name: /Price of twist-on connector, small/ }))
  const dialog = screen.getByRole('dialog')
  expect(dialog.textContent).toMatch(/100\$14Yard2026-01-01/)
  const usd = within(dialog).getByRole('textbox', { name: 'Price' })
  await user.clear(usd)
  await user.type(usd, '0{Tab}')
  expect(within(dialog).getByText(/^Price must be from 0\.001/)).toBeTruthy()
  await user.clear(usd)
  await user.type(usd, '15.5{Tab}')
  await user.click(within(dialog).getByRole('button', { name: 'Keep, of today' }))
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  await user.click(screen.getByRole('button', { name: 'Keep from stock for this job' }))
  expect(asked).toMatchObject([
    { act: 'price', price: { part: 'twist-small', quantity: 100, priceUsd: 15.5, on: '2026-11-29' } },
    { act: 'reserve' },
  ])
})

test('a price book is read, and each row that was not taken is told with why', async () => {
  const { user } = parts()
  const file = new File(['part,quantity,price,date'], 'book.csv', { type: 'text/csv' })
  await user.upload(await screen.findByLabelText('A price book as CSV'), file)
  expect((await screen.findByText(/2 prices taken over, 1 left as they are/)).textContent).toMatch(
    /1 part of it stand on no list .*elbow grease.*Row 3, price: .*another money/,
  )
})

test('hours, tools and lifts stand under the parts, by the firm’s minutes', async () => {
  parts(demoJobs[2]?.job)
  const hours = await screen.findByRole('table', { name: 'Hours' })
  expect(within(hours).getByRole('row', { name: /Put up a panel/ }).textContent).toMatch(/1752$/)
  expect(screen.getByText(/Cascade 48-280: 268 lb.*, lifted by 6/)).toBeTruthy()
  await act(async () => {})
})

test('a habit is changed on the job, and kept for new ones', async () => {
  const { user, job } = wire()
  await user.click(await screen.findByRole('radio', { name: /^lever/ }))
  expect(job().wiring?.habits).toEqual({ connectors: 'lever' })
  await user.click(screen.getByRole('button', { name: 'Begin new jobs like this' }))
  expect(asked).toEqual([{ act: 'habits', habits: { connectors: 'lever' }, version: 0 }])
})

test('how full a way is opens its working; splices and boxes say with what they are made', async () => {
  const { user, store } = wire(demoJobs[5]?.job)
  const way = screen.getByRole('row', { name: /^Inlet to the box where the autotransformer joins/ })
  await user.click(within(way).getByRole('button', { name: /How full/ }))
  expect(store.getState().working?.references.join()).toMatch(/chapter 9/i)
  expect(screen.getByRole('table', { name: 'Boxes' }).textContent).toMatch(/4 × 2⅛ in square.*of 30\.3 in³/)
  expect(screen.getByRole('table', { name: 'Splices' }).textContent).toMatch(/twist-on connector/)
})

test('a light falls on one circuit in drawing and schedule, and the list of ways shortens the schedule', async () => {
  const { user } = wire(alderHollow)
  const schedule = await screen.findByRole('region', { name: 'Schedule' })
  await waitFor(() => expect(schedule.textContent).toMatch(/20 conductors/))
  await user.click(screen.getByRole('combobox', { name: 'Light one circuit' }))
  await user.click(screen.getByRole('option', { name: 'Kitchen refrigerator' }))
  await waitFor(() => expect(schedule.textContent).toMatch(/3 conductors/))
})

test('volts at the last outlet of a circuit whose length is known, with their working', async () => {
  const { user, store } = wire(alderHollow)
  const row = screen.getByRole('row', { name: /^5 Kitchen refrigerator 55 ft/ })
  expect(row.textContent).toMatch(/V.*\d %$/)
  await user.click(within(row).getByRole('button', { name: /^Volts at the last outlet/ }))
  expect(store.getState().working?.title).toMatch(/drop/i)
})
