/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { act, screen, waitFor, within } from '@testing-library/react'
import { clear, set } from 'idb-keyval'
import type { Role } from '@/core/firm/roles'
import { alone } from '../test/render'
import { PersonMenu } from './PersonMenu'
import { setWho } from './who'

const asked: { path: string; body: unknown; as: string | null }[] = []
let firms: { firmId: string; firm: string; chosen: boolean }[]
let answer: { status: number; message: string } | null
beforeEach(async () => {
  await clear()
  setWho('ann')
  asked.length = 0
  firms = [{ firmId: 'w', firm: 'Weir Works', chosen: true }]
  answer = { status: 503, message: 'The database is away.' }
  global.fetch = async (path, init) => {
    const as = new Headers(init?.headers).get('x-spillway-person')
    asked.push({ path: String(path), body: JSON.parse(String(init?.body ?? 'null')), as })
    if (init?.method === 'GET') return Response.json({ firms })
    return Response.json({ message: answer?.message, faults: [] }, { status: answer?.status ?? 200 })
  }
})
const shown = async (role: Role, demo = false) => {
  const person = { label: 'Ann', firm: 'Weir Works', role, demo }
  const page = alone(<PersonMenu person={person} anchor={document.body} onClose={close} />)
  // the firms are told
  await act(() => new Promise(resolve => setTimeout(resolve, 10)))
  return page
}
const close = jest.fn()
const item = (name: string | RegExp) => screen.getByRole('menuitem', { name })
const posted = () => asked.filter(a => a.body !== null)

test('who may read the record is led there', async () => {
  await shown('owner')
  expect(item('Record').getAttribute('href')).toBe('/record')
})

test('a technician is led to people, firm and account', async () => {
  await shown('technician')
  expect(screen.getAllByRole('menuitem').map(i => i.textContent)).toEqual([
    'People',
    'Firm',
    'Your account',
    'Sign out',
  ])
})

test('another firm that is not to be had says why, and the menu stays', async () => {
  firms.push({ firmId: 'm', firm: 'Millpond', chosen: false })
  const { user } = await shown('owner')
  await user.click(await screen.findByRole('menuitem', { name: 'Work in Millpond' }))
  expect(await screen.findByText('The database is away.')).toBeTruthy()
  expect(posted()).toEqual([{ path: '/api/session', body: { do: 'work in', firmId: 'm' }, as: 'ann' }])
})

test('a sign-out that does not reach the server says that nothing is ended', async () => {
  const { user } = await shown('designer', true)
  expect(item('Look around as technician')).toBeTruthy()
  await user.click(item('Sign out'))
  expect(await screen.findByText(/^You are still signed in\. The database is away\./)).toBeTruthy()
})

test('what was not sent is told before somebody leaves, and who stays stays', async () => {
  const pending = [{ id: '1', kind: 'undo', sentence: 'undo' }]
  await set('unsaved job tab', { by: 'ann', revision: 1, pending })
  await set('photo job p', { by: 'ben', name: 'of another' })
  const { user } = await shown('technician')
  await user.click(item('Sign out'))
  const dialog = within(await screen.findByRole('dialog', { name: 'Not everything was sent' }))
  expect(dialog.getByText(/^Waiting on this device for the connection: 1 change of yours/)).toBeTruthy()
  expect(posted()).toEqual([])
  await user.click(dialog.getByRole('button', { name: 'Stay signed in' }))
  expect(close).toHaveBeenCalled()
  await user.click(dialog.getByRole('button', { name: 'Sign out' }))
  await waitFor(() => expect(posted()[0]?.path).toBe('/api/auth/sign-out'))
  expect(await dialog.findByText(/^You are still signed in/)).toBeTruthy()
})
