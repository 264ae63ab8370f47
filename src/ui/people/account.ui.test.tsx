/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { alone } from '../test/render'
import { AccountScreen } from './AccountScreen'

const router = { push: jest.fn(), refresh: jest.fn() }
jest.mock('next/navigation', () => ({ useRouter: () => router }))

const at = '2026-02-16T15:00:00Z'
const session = {
  id: 'here',
  since: at,
  lastUsed: at,
  address: '192.0.2.1',
  browser: 'iPhone',
  current: true,
}
const given = {
  person: {
    id: 'person-1',
    label: 'Ann',
    firm: 'Weir Works',
    zone: 'America/New_York',
    role: 'owner',
    demo: false,
  } as const,
  lacksSecondStep: false,
  name: 'Ann',
  email: 'ann@b.test',
  zone: 'America/New_York',
  sessions: [session, { ...session, id: 'there', browser: 'X11; Linux', address: null, current: false }],
  ways: { hasPassword: true, secondStep: false, passkeys: [{ id: 'p1', name: 'A phone', addedAt: at }] },
}
let sent: { path: string; body: unknown }[]
let refused: string | null
beforeEach(() => {
  jest.clearAllMocks()
  sent = []
  refused = null
  global.fetch = async (path, init) => {
    sent.push({ path: String(path), body: JSON.parse(String(init?.body ?? 'null')) })
    return refused
      ? Response.json({ message: refused, faults: [] }, { status: 403 })
      : Response.json({ ok: true })
  }
})
const shown = (more: Partial<typeof given> = {}) => alone(<AccountScreen {...given} {...more} />)
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const form = (name: string) => within(screen.getByRole('form', { name }))

test('sessions are told by device and clock; one is ended, or all others', async () => {
  const { user } = shown()
  const list = within(screen.getByRole('list', { name: 'Sessions' }))
  expect(list.getByText(/A phone, from 192\.0\.2\.1/)).toBeTruthy()
  expect(list.getAllByText(/2026-02-16 10:00/)).toHaveLength(2)
  await user.click(press('End the session of A computer'))
  await user.click(press('End all others'))
  expect(sent.map(s => s.body)).toEqual([{ do: 'end', sessionId: 'there' }, { do: 'end others' }])
  expect(router.refresh).toHaveBeenCalledTimes(2)
  refused = 'Sign in again first.'
  await user.click(press('End all others'))
  expect(await screen.findByText('Sign in again first.')).toBeTruthy()
})

test('a password changes by the one until now; a wrong one is told and what was typed stays', async () => {
  const { user } = shown()
  const password = form('Password')
  refused = 'The password until now is wrong.'
  await user.type(password.getByLabelText('Password until now'), 'guess')
  await user.type(password.getByLabelText('New password'), 'tall pylon under weather')
  await user.click(password.getByRole('button', { name: 'Change the password' }))
  expect(await screen.findByText(refused)).toBeTruthy()
  expect(password.getByLabelText('New password')).toHaveProperty('value', 'tall pylon under weather')
  refused = null
  await user.click(password.getByRole('button', { name: 'Change the password' }))
  expect(await screen.findByText(/other sessions were ended/)).toBeTruthy()
})

test('an address is agreed to at the old one and confirmed at the new one; until then nothing changes', async () => {
  const { user } = shown()
  await user.type(screen.getByLabelText('New address'), 'ann@c.test{Enter}')
  expect(await screen.findByText(/on its way to ann@b\.test.*Then ann@c\.test is asked/)).toBeTruthy()
  expect(sent).toEqual([{ path: '/api/auth/change-email', body: { newEmail: 'ann@c.test' } }])
})

test('a firm that demands a second step says so first, and the way there is one press', async () => {
  const { user, unmount } = shown({ lacksSecondStep: true })
  expect(screen.getByRole('note').textContent).toMatch(/Weir Works asks everybody for a second step/)
  await user.click(press('Turn it on'))
  expect(await screen.findByRole('dialog')).toBeTruthy()
  unmount()
  shown({ ways: { ...given.ways, secondStep: true } })
  expect(screen.queryByText(/asks everybody/)).toBeNull()
  expect(form('Turn the second step off').getByLabelText('Password')).toBeTruthy()
})

test('a passkey is removed; a device that has none says so', async () => {
  const { user } = shown()
  await user.click(press('Remove A phone'))
  expect(sent).toEqual([{ path: '/api/auth/passkey/delete-passkey', body: { id: 'p1' } }])
  await user.click(press('Add a passkey'))
  expect(await screen.findByText(/No passkey was made|could not/)).toBeTruthy()
})

test('an account is deleted only under its own address', async () => {
  refused = 'This is not your address.'
  const { user } = shown()
  await user.click(press('Delete your account'))
  const dialog = within(await screen.findByRole('dialog'))
  await user.type(dialog.getByLabelText(/Your e-mail address, to be sure/), 'x@y.test')
  await user.click(dialog.getByRole('button', { name: 'Delete it' }))
  await waitFor(() => expect(dialog.getByText('This is not your address.')).toBeTruthy())
  expect(sent).toEqual([{ path: '/api/account/delete', body: { email: 'x@y.test' } }])
})
