/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { usualSettings } from '@/core/firm/settings'
import { alone } from '../test/render'
import { DataCard } from './DataCard'
import { Join, NewPassword, Recover, SignUp } from './entries'
import { FirmScreen } from './FirmScreen'
import { PeopleScreen } from './PeopleScreen'
import { RecordScreen } from './RecordScreen'
import { SecondStepDialog } from './SecondStepDialog'
import { SignIn } from './SignIn'
import { browserName, momentIn } from './words'

const router = { push: jest.fn(), refresh: jest.fn() }
jest.mock('next/navigation', () => ({ useRouter: () => router }))
const owner = {
  label: 'Ann',
  firm: 'Weir Works',
  zone: 'America/New_York',
  role: 'owner',
  authority: '',
  id: 'person-1',
  demo: false,
} as const
const reader = { ...owner, label: 'Cid', role: 'reader' } as const

let sent: { path: string; body: unknown }[]
let answers: Record<string, () => Response>
const fault = (path: string, message: string) => () =>
  Response.json({ message: 'No.', faults: [{ path, message }] }, { status: 400 })
beforeEach(() => {
  jest.clearAllMocks()
  sent = []
  answers = {}
  global.fetch = async (path, init) => {
    sent.push({ path: String(path), body: init?.body ? JSON.parse(String(init.body)) : null })
    return answers[String(path)]?.() ?? Response.json({})
  }
})
const button = (name: string | RegExp) => screen.getByRole('button', { name })

test('a wrong password is told, what was typed stays; an address that waits gets its letter again', async () => {
  const { user } = alone(<SignIn next="/jobs" demo={false} />)
  expect(screen.queryByText(/This is a demo/)).toBeNull()
  answers['/api/auth/sign-in/email'] = () =>
    Response.json({ message: 'The password is wrong.', faults: [] }, { status: 401 })
  await user.type(screen.getByLabelText('E-mail address'), 'a@b.test')
  await user.type(screen.getByLabelText('Password'), 'guess{Enter}')
  expect(await screen.findByText('The password is wrong.')).toBeTruthy()
  expect(screen.getByLabelText('E-mail address')).toHaveProperty('value', 'a@b.test')
  answers['/api/auth/sign-in/email'] = () =>
    Response.json({ message: 'Confirm first.', faults: [] }, { status: 403 })
  await user.click(button('Sign in'))
  await user.click(await screen.findByRole('button', { name: 'Send the letter again' }))
  expect(await screen.findByText(/Another letter is on its way to a@b.test/)).toBeTruthy()
  expect(sent.at(-1)).toEqual({ path: '/api/auth/send-verification-email', body: { email: 'a@b.test' } })
})

test('the second step takes six digits, or a code that was put aside', async () => {
  const { user } = alone(<SignIn next="/jobs" demo />)
  answers['/api/auth/sign-in/email'] = () => Response.json({ twoFactorRedirect: true })
  answers['/api/auth/two-factor/verify-totp'] = fault('code', 'is wrong')
  await user.type(screen.getByLabelText('E-mail address'), 'a@b.test')
  await user.type(screen.getByLabelText('Password'), 'right{Enter}')
  await user.type(await screen.findByLabelText('Code'), '123456{Enter}')
  expect(await screen.findByText('Code is wrong')).toBeTruthy()
  answers['/api/auth/two-factor/verify-backup-code'] = fault('code', 'was used')
  await user.click(button('I have no app here'))
  await user.type(screen.getByLabelText('Code'), 'abcde{Enter}')
  expect(await screen.findByText('Code was used')).toBeTruthy()
  expect(sent.slice(1).map(s => s.body)).toEqual([{ code: '123456' }, { code: 'abcde' }])
})

test('an account is opened, its faults stand at their fields; then it says where the letter went', async () => {
  const { user } = alone(<SignUp next="/join/x" email="a@b.test" />)
  answers['/api/auth/sign-up/email'] = fault('password', 'is among those that are tried first')
  await user.type(screen.getByLabelText('Name'), 'Ann')
  await user.type(screen.getByLabelText('Password'), 'password12{Enter}')
  expect(await screen.findByText(/Password is among those/)).toBeTruthy()
  delete answers['/api/auth/sign-up/email']
  await user.click(button('Open the account'))
  expect((await screen.findByRole('status')).textContent).toMatch(/on its way to a@b.test/)
  expect(sent.at(-1)?.body).toEqual({
    name: 'Ann',
    email: 'a@b.test',
    password: 'password12',
    next: '/join/x',
  })
})

test('recovery says the same whoever asks; the new password is set by the letter’s token', async () => {
  const { user, unmount } = alone(<Recover />)
  await user.type(screen.getByLabelText('E-mail address'), 'a@b.test{Enter}')
  expect((await screen.findByRole('status')).textContent).toMatch(/^If a@b.test has an account/)
  unmount()
  alone(<NewPassword token="t" />)
  await user.type(screen.getByLabelText('New password'), 'four new words here{Enter}')
  expect(await screen.findByText(/The new password holds/)).toBeTruthy()
  expect(sent.at(-1)?.body).toEqual({ newPassword: 'four new words here', token: 't' })
})

test('an invitation is for one address: whoever is somebody else is told', () => {
  const invited = { firm: 'Weir Works', role: 'technician', email: 'ben@b.test' } as const
  const { unmount } = alone(<Join token="t" invited={invited} email="ann@b.test" />)
  expect(screen.getByText(/signed in as ann@b.test. The invitation is for ben@b.test/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: /^Join/ })).toBeNull()
  unmount()
  const second = alone(<Join token="t" invited={invited} email="ben@b.test" />)
  expect(button('Join Weir Works')).toBeTruthy()
  second.unmount()
  alone(<Join token="t" invited={null} email={null} />)
  expect(screen.getByRole('heading', { name: /no longer valid/ })).toBeTruthy()
})

const ann = {
  id: 'a',
  label: 'Ann',
  role: 'owner',
  email: 'ann@b.test',
  joinedAt: '2026-02-01',
  leftAt: null,
  self: true,
} as const
const ben = { ...ann, id: 'b', label: 'Ben', role: 'technician', email: 'ben@b.test', self: false } as const
const waiting = {
  id: 'i',
  email: 'cid@b.test',
  label: 'Cid',
  role: 'reader',
  by: 'Ann',
  expiresAt: '2026-03-01',
} as const

test('an owner invites, changes and takes out; what is refused is told, and the list is the server’s', async () => {
  const { user } = alone(<PeopleScreen person={owner} people={[ann, ben]} invitations={[]} />)
  answers['/api/people'] = fault('email', 'is of somebody who is here already')
  await user.click(button('Invite somebody'))
  await user.type(screen.getByLabelText('E-mail address'), 'cid@b.test')
  await user.type(screen.getByLabelText('Name'), 'Cid')
  await user.click(button('Send the invitation'))
  expect(await screen.findByText(/E-mail address is of somebody who is here/)).toBeTruthy()
  answers['/api/people'] = () => Response.json({ people: [ann, ben], invitations: [waiting] })
  await user.click(button('Send the invitation'))
  expect(within(await screen.findByRole('table', { name: 'Invited' })).getByText('cid@b.test')).toBeTruthy()
  expect(sent.at(-1)?.body).toEqual({ email: 'cid@b.test', label: 'Cid', role: 'technician' })

  answers['/api/people/b'] = () =>
    Response.json({ people: [ann, { ...ben, leftAt: '2026-02-20' }], invitations: [] })
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  await user.click(button('What can be done about Ben'))
  await user.click(screen.getByRole('menuitem', { name: 'Take out of the firm' }))
  await user.click(button('Take out'))
  expect(await screen.findByText(/^Left: Ben \(2026-02-20\)/)).toBeTruthy()
})

test('who only reads sees who is there, without addresses, and can leave', async () => {
  answers['/api/leave'] = fault('role', 'is of the only owner')
  const { user } = alone(
    <PeopleScreen person={reader} people={[{ ...ann, email: null, self: true }, ben]} invitations={[]} />,
  )
  expect(screen.queryByRole('button', { name: 'Invite somebody' })).toBeNull()
  expect(screen.queryByText('E-mail address')).toBeNull()
  expect(screen.queryByRole('button', { name: 'What can be done about Ben' })).toBeNull()
  await user.click(button('What can be done about Ann'))
  await user.click(screen.getByRole('menuitem', { name: 'Leave the firm' }))
  expect(await screen.findByText('Your role is of the only owner.')).toBeTruthy()
})

const kept = { settings: usualSettings('Weir Works'), version: 3, logo: false, deleted: [], graceDays: 30 }

test('settings are kept on their version; a fault stands at its field; who may not change them reads them', async () => {
  answers['/api/firm'] = fault('settings.zone', 'must be a time zone')
  const { user, unmount } = alone(<FirmScreen person={owner} {...kept} />)
  await user.clear(screen.getByLabelText('Time zone'))
  await user.type(screen.getByLabelText('Time zone'), 'Nowhere')
  await user.click(button('Keep'))
  expect(await screen.findByText('Time zone must be a time zone')).toBeTruthy()
  answers['/api/firm'] = () => Response.json({ ...kept, version: 4 })
  await user.click(button('Keep'))
  expect((await screen.findByRole('status')).textContent).toMatch(/^Kept/)
  expect(sent.at(-1)?.body).toMatchObject({ version: 3, settings: { zone: 'Nowhere' } })
  unmount()
  alone(<FirmScreen person={reader} {...kept} />)
  expect(screen.getByText('NEC 2023')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Keep' })).toBeNull()
  expect(screen.queryByRole('link', { name: 'Take all of it out' })).toBeNull()
})

test('a deleted job is brought back; the firm goes only under its own name', async () => {
  const job = { id: 'j', title: 'Mill Street', deletedAt: '2026-02-01T00:00:00Z' }
  answers['/api/jobs/j/delete'] = () => Response.json({ jobs: [] })
  answers['/api/firm/delete'] = fault('name', 'must be the firm’s name')
  const { user } = alone(<DataCard firm="Weir Works" deleted={[job]} graceDays={30} />)
  await user.click(button('Bring Mill Street back'))
  await waitFor(() => expect(screen.queryByText('Mill Street')).toBeNull())
  expect(sent[0]).toEqual({ path: '/api/jobs/j/delete', body: { deleted: false } })
  await user.click(button('Delete the firm'))
  await user.type(screen.getByLabelText(/Name of the firm/), 'Weir')
  await user.click(button('Delete it'))
  expect(await screen.findByText(/must be the firm’s name/)).toBeTruthy()
})

test('the second step is turned on by password and a first code; then the codes for later are shown once', async () => {
  const closed = jest.fn()
  answers['/api/auth/two-factor/enable'] = () =>
    Response.json({ totpURI: 'otpauth://totp/x?secret=ABCDEF', backupCodes: ['one-1', 'two-2'] })
  const { user } = alone(<SecondStepDialog onClose={closed} />)
  await user.type(screen.getByLabelText('Password'), 'mine{Enter}')
  expect(await screen.findByText('ABCDEF')).toBeTruthy()
  await user.type(screen.getByLabelText('Code'), '123456{Enter}')
  expect(await screen.findByText('two-2')).toBeTruthy()
  await user.click(button('I have put them aside'))
  expect(closed).toHaveBeenCalled()
})

test('the record says when by the firm’s clock, who, what and from where; older entries by address', () => {
  const entry = {
    id: '9',
    at: '2026-02-16T15:00:00Z',
    who: 'Ben',
    what: 'invited',
    about: 'cid@b.test: role reader',
    address: '192.0.2.1',
    browser: 'Mozilla/5.0 (iPhone)',
  }
  alone(<RecordScreen person={owner} entries={[entry]} older="/record?before=9" first={false} />)
  expect(screen.getAllByRole('row')[1]?.textContent).toMatch(
    /2026-02-16 10:00.*Ben.*invited cid@b.test.*192\.0\.2\.1, A phone/,
  )
  expect(screen.getByRole('link', { name: 'Older entries' }).getAttribute('href')).toBe('/record?before=9')
  expect([browserName(null), browserName('iPad'), browserName('X11; Linux')]).toEqual([
    'A program',
    'A tablet',
    'A computer',
  ])
  expect(momentIn('Asia/Tokyo', '2026-02-16T15:00:00Z')).toBe('2026-02-17 00:00')
})
