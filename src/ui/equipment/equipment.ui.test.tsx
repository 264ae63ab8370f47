/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { usualLabour } from '@/core/hookup/labour'
import { catalogue, stock } from '@/server/seeds/catalogue'
import { alone } from '../test/render'
import { CatalogueGrid } from './CatalogueGrid'
import { EquipmentScreen } from './EquipmentScreen'
import type { Firm } from './useEquipment'

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => {} }) }))

const person = {
  label: 'Designer',
  firm: 'The firm',
  zone: 'America/New_York',
  role: 'designer',
  id: 'person-1',
  demo: false,
} as const
// a few of each: jsdom draws a grid slowly
const few = catalogue.filter(e => e.kind === 'station' || e.kind === 'generator').slice(0, 7)
const first: Firm = { equipment: few, stock, labour: usualLabour }
let firm: Firm
let sent: { act: string; [key: string]: unknown }[]
let refuses: { status: number; message: string; faults?: { path: string; message: string }[] } | null

beforeEach(() => {
  firm = first
  sent = []
  refuses = null
  global.fetch = async (_, init) => {
    if (init?.method === 'GET') return Response.json(firm)
    const body = JSON.parse(String(init?.body))
    sent.push(body)
    if (refuses) return Response.json({ faults: [], ...refuses }, { status: refuses.status })
    if (body.act === 'stock')
      firm = { ...firm, stock: { ...firm.stock, ...(body.count !== null && { [body.key]: body.count }) } }
    if (body.act === 'put')
      firm = { ...firm, equipment: [...firm.equipment.filter(e => e.id !== body.item.id), body.item] }
    if (body.act === 'example') firm = first
    return Response.json(firm)
  }
})
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const shown = () => alone(<EquipmentScreen person={person} firm={firm} />)
const count = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name: `In stock: ${name}` })

test('any word finds, a kind narrows, and what answers to nothing says what to do', async () => {
  const { user } = shown()
  expect(screen.getByText(`${few.length} shown.`)).toBeTruthy()
  await user.click(screen.getByRole('textbox', { name: 'Find equipment' }))
  await user.paste('weirgate')
  expect(await screen.findByText(/^[1-5] shown\./)).toBeTruthy()
  await user.paste(' xyz')
  expect(await screen.findByText(/Nothing answers to “weirgate xyz”/)).toBeTruthy()
  await user.clear(screen.getByRole('textbox', { name: 'Find equipment' }))
  await user.click(screen.getByRole('combobox', { name: 'Kind' }))
  await user.click(screen.getByRole('option', { name: 'Generator' }))
  expect(press('New generator')).toBeTruthy()
})

test('a firm without equipment is told where it comes from, and may look around with an example; who may not, may not', async () => {
  firm = { ...first, equipment: [] }
  const { user, unmount } = shown()
  expect(screen.getByText(/makers and models are made up/)).toBeTruthy()
  await user.click(press('Take over the example'))
  expect(await screen.findByText(`${few.length} shown.`)).toBeTruthy()
  expect(sent).toEqual([{ act: 'example' }])
  unmount()
  alone(<EquipmentScreen person={{ ...person, role: 'technician' }} firm={{ ...first, equipment: [] }} />)
  expect(await screen.findByText('0 shown.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: /Take over|^New|Read CSV/ })).toBeNull()
})

test('two are compared side by side, four at most', async () => {
  const { user } = shown()
  const compare = (name: string) => screen.findByRole('checkbox', { name: `Compare ${name}` })
  for (const name of ['Rill 6', 'Sluice 22', 'Brook 15', 'Weirgate 36', 'Spate 64'])
    await user.click(await compare(name))
  const table = within(screen.getByRole('table', { name: 'Side by side' }))
  expect(table.getAllByRole('columnheader')).toHaveLength(5)
  expect(table.queryByText('Rill 6')).toBeNull()
  expect(table.getByText('≠ Continuous')).toBeTruthy()
  await user.click(press('Put away'))
  expect(screen.queryByRole('table', { name: 'Side by side' })).toBeNull()
})

test('a count stands at once and names what it replaces; where somebody counted meanwhile, it goes back with a word', async () => {
  const { user } = shown()
  await screen.findByRole('checkbox', { name: 'Compare Rill 6' })
  const before = count('Rill 6').value
  await user.clear(count('Rill 6'))
  await user.type(count('Rill 6'), '7{Enter}')
  await waitFor(() =>
    expect(sent).toEqual([{ act: 'stock', key: 'rill-6', was: Number(before) || null, count: 7 }]),
  )
  refuses = { status: 409, message: 'Somebody counted Rill 6 meanwhile: 3 stands there now.' }
  firm = { ...firm, stock: { ...firm.stock, 'rill-6': 3 } }
  await user.clear(count('Rill 6'))
  await user.type(count('Rill 6'), '9{Enter}')
  expect(await screen.findByText(/counted Rill 6 meanwhile/)).toBeTruthy()
  await waitFor(() => expect(count('Rill 6').value).toBe('3'))
})

test('a count that is none is told at its field and not sent', async () => {
  const { user } = shown()
  await screen.findByRole('checkbox', { name: 'Compare Rill 6' })
  await user.clear(count('Rill 6'))
  await user.type(count('Rill 6'), '-2{Enter}')
  expect(count('Rill 6').getAttribute('aria-invalid')).toBe('true')
  expect(count('Rill 6').value).toBe('-2')
  expect(sent).toEqual([])
})

test('a sheet typed wrong says what and where; right, it is the next version', async () => {
  const { user } = shown()
  await screen.findByRole('checkbox', { name: 'Compare Rill 6' })
  await user.click(press('Rill 6'))
  const dialog = within(await screen.findByRole('dialog', { name: /Rill 6, version 1/ }))
  const watts = dialog.getByRole<HTMLInputElement>('textbox', { name: 'Continuous' })
  await user.clear(watts)
  await user.type(watts, '0')
  await user.click(dialog.getByRole('button', { name: 'Keep as version 2' }))
  expect(await dialog.findByText(/^Continuous must be from 1 to/)).toBeTruthy()
  expect(dialog.getByRole('alert').textContent).toContain('To put right: Continuous')
  await user.clear(watts)
  await user.type(watts, '650')
  refuses = { status: 409, message: 'Somebody else changed Rill 6 meanwhile.' }
  await user.click(dialog.getByRole('button', { name: 'Keep as version 2' }))
  expect(await dialog.findByText(/changed Rill 6 meanwhile/)).toBeTruthy()
  expect(watts.value).toBe('650')
  refuses = null
  await user.click(dialog.getByRole('button', { name: 'Keep as version 2' }))
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  expect(sent.at(-1)).toMatchObject({ act: 'put', from: 1, item: { id: 'rill-6', continuousW: 650 } })
}, 20_000)

test('a file that cannot be taken lists its faults by row; what is too large is not even sent', async () => {
  const { user } = shown()
  const file = screen.getByLabelText('Catalogue file')
  refuses = {
    status: 422,
    message: 'Nothing was taken over.',
    faults: [{ path: 'row 2, price', message: 'must be a number' }],
  }
  await user.upload(file, new File(['kind,id'], 'more.csv', { type: 'text/csv' }))
  expect((await screen.findByRole('alert')).textContent).toMatch(
    /Nothing was taken over.*row 2, price must be/,
  )
  sent = []
  await user.upload(file, new File(['x'.repeat(1_000_001)], 'large.csv', { type: 'text/csv' }))
  expect((await screen.findByRole('alert')).textContent).toMatch(/larger than 1 MB/)
  expect(sent).toEqual([])
})

test('two thousand items stand in pages', () => {
  const [one] = few
  if (!one) throw new Error('no equipment')
  const many = Array.from({ length: 2000 }, (_, n) => ({ ...one, id: `n${n}`, name: `Item ${n}` }))
  alone(
    <CatalogueGrid
      items={many}
      stock={{}}
      chosen={[]}
      onChosen={() => {}}
      onOpen={() => {}}
      onCount={async () => null}
    />,
  )
  expect(document.body.textContent).toMatch(/1–20 of 2,?000/)
  expect(screen.getAllByRole('row').length).toBeLessThan(30)
})
