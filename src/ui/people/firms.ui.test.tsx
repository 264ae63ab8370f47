/** @jest-environment jest-fixed-jsdom */
import { screen, within } from '@testing-library/react'
import { alone } from '../test/render'
import { FirmsScreen } from './FirmsScreen'
import { MailScreen } from './MailScreen'

const uploaded = jest.fn()
jest.mock('../api', () => ({
  ...jest.requireActual('../api'),
  upload: (...asked: unknown[]) => uploaded(...asked),
}))

const given = { name: 'Ann', email: 'ann@b.test', firms: [], inviting: [], deleted: [] }
let sent: { path: string; body: unknown }[]
let answer: { status: number; body: object }
beforeEach(() => {
  sent = []
  answer = { status: 403, body: { message: 'No.', faults: [] } }
  global.fetch = async (path, init) => {
    sent.push({ path: String(path), body: JSON.parse(String(init?.body ?? 'null')) })
    return Response.json(answer.body, { status: answer.status })
  }
})
const shown = (more: object = {}) => alone(<FirmsScreen {...given} {...more} />)
const press = (name: string | RegExp) => screen.getByRole('button', { name })

test('who is in no firm yet opens one under their name, in their zone; a fault stands at its field', async () => {
  const { user } = shown()
  expect(screen.getByRole('heading', { name: 'Welcome' })).toBeTruthy()
  const form = within(screen.getByRole('form', { name: 'Open a firm' }))
  expect(form.getByLabelText('Your name in it')).toHaveProperty('value', 'Ann')
  answer = {
    status: 400,
    body: { message: 'No.', faults: [{ path: 'zone', message: 'must be a time zone' }] },
  }
  await user.type(form.getByLabelText('Name of the firm'), 'Weir Works')
  await user.clear(form.getByLabelText('Time zone'))
  await user.type(form.getByLabelText('Time zone'), 'Nowhere{Enter}')
  expect(await screen.findByText(/must be a time zone/)).toBeTruthy()
  expect(sent.at(-1)).toEqual({
    path: '/api/firms',
    body: { firm: 'Weir Works', label: 'Ann', zone: 'Nowhere' },
  })
  expect(form.getByLabelText('Name of the firm')).toHaveProperty('value', 'Weir Works')
})

test('of several firms one is chosen; one that cannot be entered any more says why', async () => {
  const { user } = shown({
    firms: [
      { firmId: 'w', firm: 'Weir Works', role: 'owner' },
      { firmId: 'm', firm: 'Millpond', role: 'reader' },
    ],
    inviting: [{ firm: 'Sluice & Co', role: 'technician', at: '2026-01-01T00:00:00Z' }],
  })
  answer.body = { message: 'You left this firm.', faults: [] }
  await user.click(press(/Millpond/))
  expect(await screen.findByText('You left this firm.')).toBeTruthy()
  expect(sent).toEqual([{ path: '/api/session', body: { do: 'work in', firmId: 'm' } }])
  expect(screen.getByText(/Sluice & Co has invited you as technician.*sent to ann@b\.test/)).toBeTruthy()
})

test('a deleted firm can be brought back while it may; refused, it says so', async () => {
  const { user } = shown({
    deleted: [{ firmId: 'w', firm: 'Weir Works', deletedAt: '2026-02-01T00:00:00Z' }],
  })
  expect(screen.getByText('Weir Works was deleted 2026-02-01.')).toBeTruthy()
  answer.body = { message: 'It is gone.', faults: [] }
  await user.click(press('Bring Weir Works back'))
  expect(await screen.findByText('It is gone.')).toBeTruthy()
  expect(sent).toEqual([{ path: '/api/firms/back', body: { firmId: 'w' } }])
})

test('an archive that cannot be taken says what is wrong with it', async () => {
  const faults = [{ path: 'archive', message: 'holds “../x”, which no archive of ours does' }]
  uploaded.mockResolvedValue({ ok: false, status: 422, message: 'Nothing was brought in.', faults })
  const { user } = shown()
  await user.upload(screen.getByLabelText('Archive of a firm'), new File(['zip'], 'firm.zip'))
  expect(await screen.findByText(/^The archive: holds “..\/x”/)).toBeTruthy()
  expect(uploaded.mock.calls[0]?.[0]).toBe('/api/firms/import')
  uploaded.mockResolvedValue({ ok: false, status: 0, message: 'The server cannot be reached.', faults: [] })
  await user.upload(screen.getByLabelText('Archive of a firm'), new File(['zip'], 'firm.zip'))
  expect(await screen.findByText('The server cannot be reached.')).toBeTruthy()
})

test('letters of the demo are read as text, with their link alone to be pressed', () => {
  const letter = {
    id: '1',
    at: '2026-02-16T15:00:00Z',
    to: 'ann@b.test',
    subject: 'Confirm',
    text: 'Hello <b>Ann</b>\n\nhttps://here.test/join?token=x',
  }
  const { unmount } = alone(<MailScreen letters={[letter]} />)
  expect(screen.getByText('Hello <b>Ann</b>')).toBeTruthy()
  expect(screen.getByRole('link').getAttribute('href')).toBe('https://here.test/join?token=x')
  unmount()
  alone(<MailScreen letters={[]} />)
  expect(screen.getByText('No letters yet.')).toBeTruthy()
})
