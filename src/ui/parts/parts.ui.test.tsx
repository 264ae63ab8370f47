/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { learnedFrom } from '@/core/order/learned'
import { alderHollow } from '@/server/seeds/jobs'
import { pricesFor } from '@/server/seeds/prices'
import { worked } from '@/server/seeds/worked'
import { inWorkspace } from '../test/render'
import { PartsView } from './PartsView'
import type { FirmParts } from './useFirmParts'

const textOf = (element: Element | null | undefined) => element?.textContent ?? ''
const known: FirmParts = {
  prices: pricesFor([alderHollow]),
  stock: { 'twist-small': 40 },
  own: {},
  others: {},
  minutes: [],
  habits: {},
  version: 3,
}
const logs = [worked(alderHollow, ['Ada', 'Ben']).work?.log ?? []]

/** The firm's parts from a server that remembers what it was sent, and refuses what it is told to. */
function shown({ away = false, refuses = '', priced = true } = {}) {
  const sent: Record<string, unknown>[] = []
  const page = inWorkspace(<PartsView today="2026-03-01" firm="Firm" />, alderHollow, (path, init) => {
    if (away && path.includes('/parts'))
      return Response.json({ message: 'The database is away.', faults: [] }, { status: 503 })
    if (path.endsWith('/parts') && !init?.body)
      return Response.json(priced ? known : { ...known, prices: null })
    if (path === '/api/minutes') return Response.json({ learned: learnedFrom(logs, []) })
    if (path.endsWith('/parts')) {
      const body = JSON.parse(String(init?.body))
      sent.push(body)
      return body.act === refuses
        ? Response.json({ message: 'Somebody else changed it.', faults: [] }, { status: 409 })
        : Response.json({
            ...known,
            ...(body.act === 'reserve' && { own: { 'twist-small': 6 } }),
            version: 4,
          })
    }
    if (path === '/api/prices')
      return Response.json({
        taken: 2,
        older: 1,
        doubled: 0,
        faults: [{ row: 3, column: 'price', message: 'is no price' }],
        unknown: { count: 1, some: ['gasket'] },
      })
    return null
  })
  return { ...page, sent }
}

test('each part has how much, why, and a price; what is in stock is not ordered', async () => {
  const { user } = shown()
  expect(await screen.findByText(/\$[\d,]+/, { selector: 'b' })).toBeDefined()
  const connectors = screen.getByRole('table', { name: 'Connectors' })
  const small = within(connectors).getByRole('row', { name: /Twist-on connector, small/ })
  await waitFor(() => expect(textOf(small)).toMatch(/from stock/))
  const why = within(small).getAllByRole('link')
  expect(why[0]?.getAttribute('href')).toMatch(/^\/jobs\/job\/wire/)
  const more = within(small).queryByRole('button', { name: /^and \d+ more/ })
  if (more) {
    await user.click(more)
    expect(within(small).getAllByRole('link').length).toBeGreaterThan(why.length)
  }
})

test('what is kept from stock for this job is let go again; a price book that is read says what became of it', async () => {
  const { user, sent } = shown()
  await user.click(await screen.findByRole('button', { name: 'Keep from stock for this job' }))
  expect(await screen.findByText(/1 part kept for this job/)).toBeDefined()
  await user.click(screen.getByRole('button', { name: 'Let go what is kept' }))
  await waitFor(() => expect(sent.map(s => s.act)).toEqual(['reserve', 'release']))
  await user.upload(
    screen.getByLabelText('A price book as CSV'),
    new File(['part,price'], 'book.csv', { type: 'text/csv' }),
  )
  expect(await screen.findByText(/2 prices taken over, 1 left as they are/)).toBeDefined()
  expect(screen.getByText('Row 3, price: is no price')).toBeDefined()
  expect(screen.getByText(/gasket/)).toBeDefined()
})

test('a price is opened, and one more of it kept; what is no price stays where it was typed', async () => {
  const { user, sent } = shown()
  await user.click(await screen.findByRole('button', { name: 'Price of twist-on connector, large' }))
  const dialog = await screen.findByRole('dialog')
  expect(within(dialog).getByRole('table', { name: 'Prices of it' })).toBeDefined()
  const price = within(dialog).getByRole('textbox', { name: 'Price' })
  await user.clear(price)
  await user.type(price, 'dear')
  await user.tab()
  expect((price as HTMLInputElement).value).toBe('dear')
  await user.clear(price)
  await user.type(price, '12.5')
  await user.tab()
  await user.click(within(dialog).getByRole('button', { name: /^Keep/ }))
  await waitFor(() =>
    expect(sent.at(-1)).toMatchObject({ act: 'price', price: { priceUsd: 12.5, on: '2026-03-01' } }),
  )
})

test('hours learned stand beside what was estimated; too few are not taken over, and somebody else’s change is told', async () => {
  const { user, sent } = shown({ refuses: 'minutes' })
  const table = await screen.findByRole('table', { name: 'Hours learned' })
  expect(textOf(within(table).getByRole('row', { name: /^Lead a circuit through a position/ }))).toMatch(
    /6 tasks of 1 job.*%/,
  )
  expect(textOf(within(table).getByRole('row', { name: /^Mount a device/ }))).toMatch(/too few: from 3 on/)
  await user.click(screen.getByRole('button', { name: 'Take over as the firm’s minutes' }))
  await waitFor(() => expect(sent.at(-1)).toMatchObject({ act: 'minutes', version: 3 }))
  const rows = (sent.at(-1)?.minutes ?? []) as { work: string }[]
  expect(rows.map(r => r.work)).toContain('lead')
  expect(rows.map(r => r.work)).not.toContain('mount')
  expect((await screen.findAllByText('Somebody else changed it.')).length).toBeGreaterThan(0)
})

test('the list stands without prices where the server is away; hours, tools and what is worn stand with it', async () => {
  shown({ away: true })
  expect(await screen.findByText(/Prices and stock could not be read/, {}, { timeout: 8000 })).toBeDefined()
  expect(screen.getByRole('table', { name: 'Hours' })).toBeDefined()
  expect(screen.getByText(/torque screwdriver/)).toBeDefined()
  expect(screen.getByText('safety glasses')).toBeDefined()
}, 15_000)

test('who may see no prices sees what is needed and in stock, and no word of money', async () => {
  shown({ priced: false })
  const connectors = await screen.findByRole('table', { name: 'Connectors' })
  await waitFor(() => expect(within(connectors).queryByText('As')).toBeNull())
  expect(within(connectors).getAllByRole('columnheader').map(textOf)).toEqual([
    'Part',
    'Needed',
    'In stock',
    'Order',
  ])
  expect(screen.getByRole('button', { name: /Keep from stock/ })).toBeDefined()
  expect(screen.queryByText(/\$|Price|Minutes of the firm/)).toBeNull()
})
