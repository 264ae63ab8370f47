/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { library } from '@/core/loads/library'
import { alone, inWorkspace } from '../test/render'
import { LibraryPicker } from './LibraryPicker'
import { LibraryScreen } from './LibraryScreen'
import type { FirmTypical } from './useLibrary'

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => {} }) }))
const person = {
  label: 'Designer',
  firm: 'The firm',
  zone: 'America/New_York',
  role: 'designer',
  id: 'person-1',
  demo: false,
} as const
const cpap = library.find(t => t.name === 'CPAP with humidifier')
if (!cpap) throw new Error('no CPAP in the library')
let firms: FirmTypical[]
let sent: { act: string; version: number }[]
let refuses: string | null
beforeEach(() => {
  firms = []
  sent = []
  refuses = null
  global.fetch = async (_, init) => answered(init)
})
function answered(init?: RequestInit): Response {
  if (init?.method === 'GET')
    return refuses ? Response.json({ message: refuses }, { status: 400 }) : Response.json({ loads: firms })
  const body = JSON.parse(String(init?.body))
  sent.push(body)
  if (refuses) return Response.json({ message: refuses, faults: [] }, { status: 409 })
  firms = body.act === 'put' ? [{ typical: body.typical, version: body.version + 1, by: 'Designer' }] : []
  return Response.json({ loads: firms })
}
const besides = (path: string, init?: RequestInit) => (path === '/api/loads' ? answered(init) : null)
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const press = (name: string) => screen.getByRole('button', { name })

test('the firm’s figures stand in ours’ place; what contradicts itself is told; a conflict keeps what was typed', async () => {
  const { user } = alone(<LibraryScreen person={person} firms={firms} />)
  await user.type(field('Find a load'), 'apnea')
  await user.click(press(cpap.name))
  const dialog = within(await screen.findByRole('dialog', { name: cpap.name }))
  const most = dialog.getByRole<HTMLInputElement>('textbox', { name: 'at most' })
  await user.clear(most)
  await user.type(most, '1')
  await user.click(dialog.getByRole('button', { name: 'Keep for the firm' }))
  expect(await dialog.findByText(/^at most must not be below/)).toBeTruthy()
  await user.clear(most)
  await user.type(most, '500')
  refuses = 'Somebody else changed it meanwhile.'
  await user.click(dialog.getByRole('button', { name: 'Keep for the firm' }))
  expect(await dialog.findByText(/changed it meanwhile/)).toBeTruthy()
  expect(most.value).toBe('500')
  refuses = null
  await user.click(dialog.getByRole('button', { name: 'Keep for the firm' }))
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  expect(sent.at(-1)).toMatchObject({
    act: 'put',
    version: 0,
    typical: { id: cpap.id, runningW: { high: 500 } },
  })
  expect(screen.getByRole('row', { name: new RegExp(`${cpap.name} · the firm’s`) })).toBeTruthy()
  await user.click(press(cpap.name))
  await user.click(await screen.findByRole('button', { name: 'Back to the usual figures' }))
  await waitFor(() => expect(sent.at(-1)).toMatchObject({ act: 'drop', version: 1 }))
}, 20_000)

test('a new one takes its id from its name, and its band from the likely figure', async () => {
  const { user } = alone(<LibraryScreen person={person} firms={firms} />)
  await user.click(press('New typical load'))
  const dialog = within(await screen.findByRole('dialog', { name: 'New typical load' }))
  await user.type(dialog.getByRole('textbox', { name: 'Name' }), 'Kiln, small')
  await user.type(dialog.getByRole('textbox', { name: 'Running, likely' }), '1.8 kW')
  await user.click(dialog.getByRole('button', { name: 'Keep for the firm' }))
  await waitFor(() => expect(sent).toHaveLength(1))
  expect(sent[0]).toMatchObject({
    typical: { id: 'kiln-small', runningW: { low: 1800, likely: 1800, high: 1800 } },
  })
  expect(sent[0]).not.toHaveProperty('typical.start')
})

test('a load from the library goes onto its circuit; what the library does not have is entered by hand', async () => {
  const added = jest.fn()
  const { user, job } = inWorkspace(
    <LibraryPicker circuitId="c9" onClose={() => {}} onAdded={added} />,
    undefined,
    besides,
  )
  await user.type(field('What is it'), 'apnea')
  await user.click(await screen.findByRole('button', { name: new RegExp(cpap.name) }))
  const loads = () =>
    job()
      .panels.flatMap(p => p.circuits)
      .find(c => c.id === 'c9')?.loads ?? []
  expect(loads().map(l => l.name)).toContain(cpap.name)
  expect(added).toHaveBeenCalledWith(loads().find(l => l.name === cpap.name)?.id)
  await user.clear(field('What is it'))
  await user.type(field('What is it'), 'theremin')
  expect(screen.getByText(/Nothing in the library answers/)).toBeTruthy()
  await user.click(press('Enter one myself'))
  expect(loads().map(l => l.name)).toContain('theremin')
})

test('where the firm’s loads cannot be fetched, ours are offered with a word', async () => {
  refuses = 'The database cannot be reached.'
  inWorkspace(<LibraryPicker onClose={() => {}} onAdded={() => {}} />, undefined, besides)
  expect(await screen.findByText(/firm’s own loads are missing/)).toBeTruthy()
  expect(screen.getAllByRole('listitem').length).toBeGreaterThan(20)
})
