/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { screen, waitFor, within } from '@testing-library/react'
import { type Pack, packOf } from '@/core/handover/pack'
import { applied } from '@/core/job/fixtures/jobs'
import type { Job } from '@/core/job/schema'
import { alderHollow, fernbrook, millStreet } from '@/server/seeds/jobs'
import { livedIn } from '@/server/seeds/lived-in'
import { alone, inWorkspace } from '../test/render'
import type { Besides } from '../test/server'
import { DueScreen } from './DueScreen'
import { HandOverView } from './HandOverView'
import { VisitPaper } from './VisitPaper'

jest.mock('next/navigation', () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => '/' }))
// what a canvas draws is not seen here
jest.mock('signature_pad', () => ({
  __esModule: true,
  default: class {
    toData = () => [{ points: [{ x: 1, y: 1 }] }]
    clear() {}
    off() {}
  },
}))

const textOf = (e: Element | null | undefined) => e?.textContent ?? ''
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const quiet: Besides = path =>
  path.includes('/links')
    ? Response.json({ links: [] })
    : /packs|house/.test(path)
      ? Response.json({ packs: [], words: [] })
      : null
const shown = (job: Job, besides: Besides = quiet) => inWorkspace(<HandOverView firm="Firm" />, job, besides)

test('the card follows the design as it is changed, in the language that is chosen; without a source it says what is missing', async () => {
  const { user, store, unmount } = shown(alderHollow)
  const card = () => textOf(document.querySelector('.card-shown'))
  expect(card()).toMatch(/To the battery.*5 Playroom lights.*Back to the utility/s)
  await user.click(press('Español'))
  expect(card()).toMatch(/^[\s\S]*Pasar a la batería/)
  store.getState().act({ op: 'selectCircuit', circuitId: 'c9', picked: false })
  await waitFor(() => expect(card()).not.toMatch(/5 Playroom/))
  unmount()
  shown({ ...alderHollow, source: undefined })
  expect(screen.getByText(/There is no card yet: must be chosen before there is a card/)).toBeDefined()
})

test('a visit is written down against what stands, shows what it changed, and is closed; an outage in a minute', async () => {
  const page = shown(fernbrook)
  const { user } = page
  const form = within(screen.getByRole('form', { name: 'A visit, or an outage' }))
  await user.type(form.getByLabelText(/^In a few words/), 'a lamp was bought')
  await user.click(form.getByRole('button', { name: 'Write it down' }))
  const visit = await screen.findByRole('region', { name: /^A circuit trips/ })
  expect(textOf(visit)).toMatch(/a lamp was bought.*No figure has changed/s)
  page.store.getState().act({ op: 'selectCircuit', circuitId: 'c3', picked: false })
  await waitFor(() => expect(textOf(visit)).toMatch(/Directory and labels.*3 Router and outlets/s))
  expect(within(visit).getByRole('table', { name: 'Figures before and after' })).toBeDefined()
  await user.type(within(visit).getByLabelText('What was done'), 'label anew')
  await user.click(within(visit).getByRole('button', { name: 'Close the visit' }))
  expect(page.job().visits).toMatchObject([{ done: 'label anew', closedOn: expect.any(String) }])

  await user.click(form.getByRole('combobox', { name: 'Why' }))
  await user.click(screen.getByRole('option', { name: 'An outage was lived through' }))
  await user.click(form.getByRole('button', { name: 'Write it down' }))
  expect(textOf(screen.getByRole('form', { name: 'A visit, or an outage' }))).toMatch(/How many hours/)
  expect(page.job().visits).toHaveLength(1)
  await user.type(form.getByLabelText('How many hours'), '5,5')
  await user.click(form.getByRole('button', { name: 'Write it down' }))
  await waitFor(() => expect(page.job().visits).toHaveLength(2))
  expect(screen.getByText(/it carried all of it; a full store was worked out to last/)).toBeDefined()
})

test('the day of the hand-over and the warranties are kept; what cannot be is told at its field', async () => {
  const page = shown(livedIn(fernbrook, 'Ann'))
  const form = within(screen.getByRole('form', { name: 'Handed over' }))
  expect(screen.getByText('2028-02-16: Yearly test')).toBeDefined()
  const serial = form.getByLabelText('Serial number')
  await page.user.clear(serial)
  await page.user.type(serial, 'R6-1')
  await page.user.click(form.getByRole('button', { name: 'Keep it' }))
  await waitFor(() => expect(page.job().handOver?.warranties[0]?.serial).toBe('R6-1'))
})

test('a pack is asked for, told as it is made, opened and signed; a refusal keeps what was written', async () => {
  const document = packOf(millStreet, {
    n: 1,
    firm: 'Firm',
    on: '2026-03-01',
    revision: 2,
    estimates: [],
    jobSha256: 'a'.repeat(64),
  })
  const made: Pack = {
    id: 'p1',
    n: 1,
    revision: 2,
    state: 'made',
    progress: 1,
    trouble: null,
    askedAt: '2026-03-01T10:00:00Z',
    by: 'Designer',
    document,
    sha256: 'b'.repeat(64),
    pdfSha256: 'c'.repeat(64),
    bytes: 220_000,
    signatures: [],
  }
  let packs: Pack[] = []
  let refuse = true
  const { user } = shown(millStreet, (path, init) => {
    if (!path.includes('/packs')) return quiet(path, init)
    if (init?.method === 'POST' && path.endsWith('/packs/1')) {
      if (refuse) return Response.json({ message: 'It is signed already.', faults: [] }, { status: 409 })
      const said = JSON.parse(String(init.body))
      packs = [{ ...made, signatures: [{ ...said, at: '2026-03-01T11:00:00Z' }] }]
    } else if (init?.method === 'POST') packs = [{ ...made, state: 'making', progress: 0.4, document: null }]
    else if (packs[0]?.state === 'making') packs = [made]
    return Response.json({ packs })
  })
  await user.click(press('Make the pack'))
  expect(await screen.findByRole('progressbar', { name: 'How far it is' })).toBeDefined()
  const pack = within(await screen.findByRole('region', { name: 'Pack 1' }))
  const open = await pack.findByRole('link', { name: 'Open (PDF)' }, { timeout: 5000 })
  expect(open.getAttribute('href')).toBe('/api/jobs/job/packs/1')
  await user.click(pack.getByRole('button', { name: 'Sign for the house' }))
  const dialog = within(await screen.findByRole('dialog'))
  await user.click(dialog.getByRole('button', { name: 'Sign' }))
  expect(dialog.getByText('Write the name first.')).toBeDefined()
  await user.type(dialog.getByLabelText('Name'), 'Kim Poe')
  await user.click(dialog.getByRole('button', { name: 'Sign' }))
  expect(await dialog.findByText('It is signed already.')).toBeDefined()
  expect((dialog.getByLabelText('Name') as HTMLInputElement).value).toBe('Kim Poe')
  refuse = false
  await user.click(dialog.getByRole('button', { name: 'Sign' }))
  expect(await screen.findByText(/Signed for the house: Kim Poe, 2026-03-01/)).toBeDefined()
})

test('what the house said is read, kept as a visit that is held against the design, and settled', async () => {
  let settled = false
  const page = shown(alderHollow, (path, init) => {
    if (!path.endsWith('/house')) return quiet(path, init)
    if (init?.method === 'POST') settled = true
    const word = { act: 'outage', on: '2026-02-28', hours: 4, carried: 'some of it', text: 'The heater died' }
    return Response.json({ words: [{ id: 'w', at: '2026-03-01T10:00:00Z', word, settled }] })
  })
  expect(
    await screen.findByText(/Outage of 2026-02-28: 4 h, it carried some of it. The heater died/),
  ).toBeDefined()
  await page.user.click(press('Keep as a visit'))
  expect(await screen.findByText('settled')).toBeDefined()
  expect(page.job().visits).toMatchObject([{ id: 'w', kind: 'outage', by: 'Customer', lived: { hours: 4 } }])
  expect(screen.getByText(/it should have. Look at what was on/)).toBeDefined()
})

test('on paper only what changed: old beside new, the card, the figures; nothing where nothing did', () => {
  const job = livedIn(fernbrook, 'Ann')
  const [outage, year] = job.visits ?? []
  if (!outage || !year) throw new Error('no visits')
  const paper = (of: Job, visit: typeof year) => {
    const { container, unmount } = alone(
      <VisitPaper job={of} visit={visit} firm="Firm" revision={3} printedOn="2027-02-16" />,
    )
    const said = textOf(container)
    unmount()
    return said
  }
  expect(paper(job, year)).toMatch(/3 Router and outlets, 15 A.*3 Router and outlets, reading lamp, 15 A/s)
  expect(paper(job, outage)).toMatch(/it carried all of it/)
  const before = applied(job, { op: 'editCircuit', circuitId: 'c3', facts: { label: 'Router and outlets' } })
  expect(paper(before, year)).toMatch(/Nothing that is printed has changed/)
})

test('what is due across houses: overdue in words, nothing in words', () => {
  const person = {
    label: 'Ann',
    firm: 'Firm',
    zone: 'America/New_York',
    role: 'designer',
    id: 'person-1',
    demo: false,
  } as const
  const due = [{ what: 'yearly test' as const, text: 'Yearly test', on: '2026-01-02' }]
  const { unmount } = alone(
    <DueScreen
      person={person}
      houses={[{ id: 'j', title: 'Kiosk', place: 'Village', due }]}
      page={1}
      pages={1}
      today="2026-03-01"
    />,
  )
  expect(screen.getByText('2026-01-02: Yearly test, overdue')).toBeDefined()
  unmount()
  alone(<DueScreen person={person} houses={[]} page={1} pages={1} today="2026-03-01" />)
  expect(screen.getByText(/Nothing is due/)).toBeDefined()
})
