/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import type { JobListRow } from '@/core/assess/record'
import { alone } from '../test/render'
import { listAddress } from './address'
import { JobsScreen } from './JobsScreen'

const router = { push: jest.fn(), replace: jest.fn(), refresh: jest.fn() }
jest.mock('next/navigation', () => ({ useRouter: () => router }))
const person = {
  label: 'Designer',
  firm: 'The firm',
  zone: 'America/New_York',
  role: 'designer',
  id: 'person-1',
  demo: false,
} as const
const address = { q: '', sort: 'updated', order: '', page: 1, archived: false, templates: false }
const row = (facts: Partial<JobListRow> = {}): JobListRow => ({
  id: 'one',
  title: 'Mill Street',
  place: 'Upper flat',
  step: 'survey',
  worst: { severity: 'stop', sentence: 'The neutral is shared.' },
  hoursHad: 12,
  hoursNeeded: 24,
  updatedAt: '2026-02-16T15:00:00Z',
  ...facts,
})
let sent: string[]
let answers: () => Response
beforeEach(() => {
  jest.clearAllMocks()
  sent = []
  answers = () => Response.json({ id: 'copy', rows: [] })
  global.fetch = async path => {
    sent.push(String(path))
    return answers()
  }
})
const shown = (rows: JobListRow[], more: Partial<Parameters<typeof JobsScreen>[0]> = {}) =>
  alone(
    <JobsScreen
      person={person}
      rows={rows}
      total={rows.length}
      more={false}
      pageSize={20}
      address={address}
      order="desc"
      {...more}
    />,
  )
const hrefOf = (name: string | RegExp) => screen.getByRole('link', { name }).getAttribute('href')

test('a row says job, place, step, the worst finding and hours had of needed', () => {
  shown([row(), row({ id: 'two', title: 'Bare', place: '', worst: null, hoursHad: null })])
  const [, first, second] = screen.getAllByRole('row')
  expect(first?.textContent).toMatch(
    /Mill Street.*Upper flat.*survey.*Stop.*The neutral is shared.*12 h \/ 24 h/,
  )
  expect(second?.textContent).toMatch(/No place given.*Nothing found.*– \/ 24 h/)
  expect(hrefOf('Mill Street')).toBe('/jobs/one/panel')
})

test('heads lead to the list in their order, the other way round when pressed again; pages and archive by address', () => {
  shown([row()], { total: 45, address: { ...address, sort: 'title', page: 2 }, order: 'asc' })
  expect(screen.getByRole('columnheader', { name: /Job and place/ }).getAttribute('aria-sort')).toBe(
    'ascending',
  )
  expect(hrefOf(/Job and place/)).toBe('/jobs?sort=title&order=desc')
  expect(hrefOf(/Hours/)).toBe('/jobs?sort=hours&order=asc')
  expect(hrefOf('Go to page 3')).toBe('/jobs?sort=title&page=3')
  expect(screen.getByRole('link', { name: 'page 2' }).getAttribute('aria-current')).toBeTruthy()
  expect(hrefOf('Archived jobs')).toBe('/jobs?sort=title&archived=true')
  expect(listAddress(address, {})).toBe('/jobs')
})

test('more jobs than are counted are told, with what to do', () => {
  shown([row()], { total: 10_000, more: true })
  expect(screen.getByText(/^More than 10,000 jobs: look for a word/)).toBeTruthy()
  expect(hrefOf('Go to page 500')).toBe('/jobs?page=500')
})

test('what is sought is asked for after a pause, or when the field is left', async () => {
  const { user } = shown([row()])
  await user.type(screen.getByRole('searchbox'), 'mill ')
  await user.tab()
  expect(router.replace).toHaveBeenCalledTimes(1)
  expect(router.replace).toHaveBeenCalledWith('/jobs?q=mill')
})

test('a search without answer, an empty archive and no jobs at all are told apart', () => {
  shown([], { address: { ...address, q: 'nowhere' } })
  expect(screen.getByText(/None of the jobs at hand has “nowhere”/)).toBeTruthy()
  expect(hrefOf('Show all')).toBe('/jobs')
})

test('an empty archive says so; where there is no job yet the way to the first one stands', async () => {
  const { unmount } = shown([], { address: { ...address, archived: true } })
  expect(screen.getByText('Nothing is archived.')).toBeTruthy()
  unmount()
  const { user } = shown([])
  const [, first] = screen.getAllByRole('button', { name: 'New job' })
  if (first) await user.click(first)
  expect(await screen.findByRole('dialog', { name: 'New job' })).toBeTruthy()
})

test('a template is kept from a job’s menu, and starts a job from its own', async () => {
  const { user, unmount } = shown([row()])
  await user.click(screen.getByRole('button', { name: 'More for Mill Street' }))
  await user.click(await screen.findByRole('menuitem', { name: 'Keep as a template' }))
  expect(await screen.findByText('The ways of Mill Street are kept under Templates.')).toBeTruthy()
  expect(sent).toEqual(['/api/jobs/one/template'])
  expect(hrefOf('Templates')).toBe('/jobs?templates=true')
  unmount()
  answers = () => Response.json({ rows: [row({ title: 'Template: Mill' })] })
  const page = shown([row()], { address: { ...address, templates: true } })
  await page.user.click(screen.getByRole('button', { name: 'More for Mill Street' }))
  await page.user.click(await screen.findByRole('menuitem', { name: 'Start a job from it' }))
  const chosen = await screen.findByRole('combobox', { name: 'Begin with' })
  expect(chosen.textContent).toBe('Template: Mill')
})

test('the menu of a job copies and archives it; what came of it is told', async () => {
  const { user } = shown([row()])
  const choose = async (name: string) => {
    await user.click(screen.getByRole('button', { name: 'More for Mill Street' }))
    await user.click(await screen.findByRole('menuitem', { name }))
  }
  await choose('Duplicate')
  expect(await screen.findByText('Made a copy of Mill Street.')).toBeTruthy()
  answers = () => Response.json({ message: 'The database cannot be reached.' }, { status: 503 })
  await choose('Archive')
  expect(await screen.findByText('The database cannot be reached.')).toBeTruthy()
  expect(sent).toEqual(['/api/jobs/one/duplicate', '/api/jobs/one/archive'])
  expect(router.refresh).toHaveBeenCalled()
})

test('a job file opens; one that cannot be taken says why, line by line', async () => {
  const { user } = shown([row()])
  const file = screen.getByLabelText('Job file')
  await user.upload(file, new File(['{}'], 'house.json', { type: 'application/json' }))
  await waitFor(() => expect(router.push).toHaveBeenCalledWith('/jobs/copy/panel'))
  answers = () =>
    Response.json(
      { message: 'Not a job.', faults: [{ path: 'panels', message: 'is missing' }] },
      { status: 400 },
    )
  await user.upload(file, new File(['{}'], 'bill.json', { type: 'application/json' }))
  const alert = within(await screen.findByRole('alert'))
  expect(alert.getByText('bill.json: Not a job.')).toBeTruthy()
  expect(alert.getByText('panels is missing')).toBeTruthy()
  await user.upload(file, new File(['x'.repeat(2_000_001)], 'film.json', { type: 'application/json' }))
  expect(await screen.findByText(/film.json is 2 MB/)).toBeTruthy()
})
