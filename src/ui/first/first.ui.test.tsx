/** @jest-environment jest-fixed-jsdom */
import 'fake-indexeddb/auto'
import { screen, waitFor, within } from '@testing-library/react'
import { usualTerms } from '@/core/estimate/terms'
import { usualLabour } from '@/core/hookup/labour'
import { newJob } from '@/core/job/new'
import { catalogue } from '@/server/seeds/catalogue'
import { designing } from '@/workers/desks/first-designs'
import { inWorkspace } from '../test/render'
import { fakeWorkers } from '../test/workers'
import { FirstView } from './FirstView'

beforeAll(() => {
  Element.prototype.scrollIntoView = jest.fn()
})
const empty = newJob({ title: 'Call', place: '', spaces: 30, mainA: 200 })
const firm = { equipment: catalogue, stock: {}, labour: usualLabour }
const answers: Record<string, object> = {
  '/api/equipment': firm,
  '/api/loads': { loads: [] },
  '/api/terms': { terms: usualTerms, version: 0 },
}
const answering = (path: string) => (answers[path] ? Response.json(answers[path]) : null)
const open = (job = empty) => {
  fakeWorkers(() => designing())
  return inWorkspace(<FirstView />, job, path => answering(path))
}
const box = () => screen.getByRole('combobox', { name: 'What must live' })
const card = (name: string) => within(screen.getByRole('region', { name }))
const names = () =>
  within(screen.getByRole('list', { name: 'What must live' }))
    .queryAllByRole('listitem')
    .map(li => /^\d+\. ([^0-9]*)/.exec(li.textContent ?? '')?.[1])

test('things in any words become wants with a figure each, and the answer follows', async () => {
  const { user, job } = open()
  expect(card('How big').getByText(/one thing is enough/)).toBeTruthy()
  await user.type(box(), 'two refrigerators, well pump, glass kiln{Enter}')
  await waitFor(() => expect(names()).toHaveLength(3))
  expect(job().brief.wants.map(w => w.loads?.length ?? 0)).toEqual([2, 1, 0])
  expect(card('How big').getByText(/Not counted/).parentElement?.textContent).toMatch(/Glass kiln/)
  expect(card('How big').getByText('needed')).toBeTruthy()
  const before = card('How big').getByRole('button', { name: /Wh$/ }).textContent
  await user.click(screen.getByRole('radio', { name: 'deeper than 200 ft' }))
  expect(job().brief.wants[1]?.loads?.[0]?.load.name).toBe('Well pump, 1 hp')
  await waitFor(() =>
    expect(card('How big').getByRole('button', { name: /Wh$/ }).textContent).not.toBe(before),
  )
  // answered, it is a line that opens again
  await user.click(screen.getByRole('button', { name: /How deep is the well\? deeper/ }))
  expect(screen.getByRole('radio', { name: 'deeper than 200 ft' })).toHaveProperty('checked', true)
})

test('the list while typing takes a thing with its answer; what no library knows takes watts and hours', async () => {
  const { user, job } = open()
  await user.type(box(), 'electric dry')
  await user.click(await screen.findByRole('option', { name: /Dryer electric/ }))
  expect(job().brief.wants[0]).toMatchObject({ name: 'Dryer', answers: { kind: 'electric' } })
  await user.type(box(), 'glass kiln{Enter}')
  await user.click(await screen.findByRole('button', { name: 'Say what Glass kiln draws' }))
  await user.type(screen.getByLabelText(/^Watts while it runs/), '1800')
  await user.type(screen.getByLabelText(/^Hours a day/), '30')
  await user.click(screen.getByRole('button', { name: 'Set' }))
  expect(await screen.findByText(/must be hours of a day, from 0 to 24/)).toBeTruthy()
  await user.clear(screen.getByLabelText(/^Hours a day/))
  await user.type(screen.getByLabelText(/^Hours a day/), '6')
  await user.click(screen.getByRole('button', { name: 'Set' }))
  await waitFor(() => expect(job().brief.wants[1]?.loads?.[0]?.load.runningW.value).toBe(1800))
})

test('designs come by themselves; one press takes one up as source and hook-up', async () => {
  const { user, job } = open()
  await user.type(box(), 'refrigerator, internet{Enter}')
  const [take] = await screen.findAllByRole('button', { name: 'Take as the design' }, { timeout: 8000 })
  expect(card('Designs that may do').getAllByText(/lasts 24 h in about .* of 100/).length).toBeGreaterThan(0)
  await user.click(take as HTMLElement)
  expect(job().source?.units.length).toBeGreaterThan(0)
  expect(job().hookup.method).not.toBe('undecided')
  // what to send for is ranked with the rest, once the price is known to hang on it
  expect(card('Ask or measure next').getByText(/Photographs of the panel/)).toBeTruthy()
})

test('an outage that cannot be is refused where it was typed, and stays there', async () => {
  const { user, job } = open()
  const hours = screen.getByLabelText('Hours')
  await user.clear(hours)
  await user.type(hours, '2000{Enter}')
  expect(screen.getByText(/Hours must be from 0.5 to 720/)).toBeTruthy()
  expect(hours).toHaveProperty('value', '2000')
  await user.click(screen.getByRole('button', { name: '72 h' }))
  expect(job().outage.hours).toBe(72)
})

test('more than forty things are told, and those that fit are there', async () => {
  const { user, job } = open()
  await user.click(box())
  await user.paste(Array.from({ length: 41 }, () => 'sump pump').join(', '))
  await user.click(screen.getByRole('button', { name: 'Add' }))
  expect(await screen.findByText(/At most 40 things: Sump pump did not fit/)).toBeTruthy()
  expect(job().brief.wants).toHaveLength(40)
}, 60_000)
