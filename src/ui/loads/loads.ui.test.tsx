/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { loadsOverview } from '@/core/assess/loads-overview'
import { job as bare, circuit } from '@/core/job/fixtures/jobs'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { inWorkspace } from '../test/render'
import { FiguresTab } from './FiguresTab'
import { LoadsView } from './LoadsView'
import { PatternTab } from './PatternTab'
import { PlateTab } from './PlateTab'

jest.mock('next/navigation', () => ({ usePathname: () => '/jobs/job/loads' }))

const rowOf = (name: string) => {
  const row = loadsOverview(alderHollow).rows.find(r => r.load.name === name)
  if (!row) throw new Error(`no load ${name}`)
  return row
}
const fridge = rowOf('Kitchen refrigerator')
const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name })
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const loadOf = (job: typeof alderHollow, id = fridge.load.id) =>
  job.panels.flatMap(p => p.circuits.flatMap(c => c.loads)).find(l => l.id === id)
/** The house with one load in the place of its own. */
const withLoad = (load: typeof fridge.load): typeof alderHollow => ({
  ...alderHollow,
  panels: alderHollow.panels.map(p => ({
    ...p,
    circuits: p.circuits.map(c => ({ ...c, loads: c.loads.map(l => (l.id === load.id ? load : l)) })),
  })),
})
beforeEach(() => sessionStorage.clear())

test('every load is listed with how it is known, the doubtful ones first to be measured', () => {
  inWorkspace(<LoadsView />)
  const table = within(screen.getByRole('table', { name: 'Loads by circuit' }))
  expect(table.getAllByRole('row')).toHaveLength(loadsOverview(alderHollow).rows.length + 1)
  const next = within(screen.getByRole('region', { name: 'What to measure next' }))
  expect(next.getAllByRole('listitem')[0]?.textContent).toMatch(/^\d+(\.\d+)? %/)
  expect(screen.getByRole('region', { name: 'Needs by school' }).textContent).toMatch(/Why it differs/)
})

test('a job without loads says where they come from', () => {
  inWorkspace(<LoadsView />, bare([circuit(1, { loads: [] })]))
  expect(screen.getByText(/No load is entered yet/)).toBeTruthy()
  expect(screen.queryByRole('region', { name: 'Needs by school' })).toBeNull()
})

test('another source of a figure counts when it is pressed, and is marked', async () => {
  const { duty, ...known } = { duty: fridge.load.dutyFraction, ...fridge }
  const typical = { value: 0.4, from: 'typical value' as const }
  const load: typeof fridge.load = { ...fridge.load, dutyFraction: { ...duty, others: [typical] } }
  const { user, job, again } = inWorkspace(<FiguresTab row={{ ...known, load }} />, withLoad(load))
  const inForce = () => screen.getAllByRole('button', { pressed: true }).map(b => b.textContent)
  expect(inForce().join()).toMatch(/metered/)
  const other = screen
    .getAllByRole('button', { pressed: false })
    .find(b => /of the time/.test(b.textContent ?? ''))
  if (!other) throw new Error('no other source')
  await user.click(other)
  expect(loadOf(job())?.dutyFraction.from).not.toBe('metered')
  const now = loadOf(job())
  if (now) again(<FiguresTab row={{ ...fridge, load: now }} />)
  expect(inForce().join()).toMatch(/chosen by hand/)
})

test('a plate as printed fills its fields; what contradicts itself is told; taken, it comes into force', async () => {
  const { user, job } = inWorkspace(<PlateTab row={fridge} />)
  await user.clear(field('As printed'))
  await user.type(field('As printed'), '115 V 60 Hz 1 PH, RLA 1.8, LRA 12.5{Enter}')
  await waitFor(() => expect(field('LRA, locked rotor').value).toBe('12.5'))
  expect(field('Volts').value).toBe('115')
  await user.type(field('Watts'), '900')
  expect(screen.getByRole('table', { name: 'What the plate comes to' })).toBeTruthy()
  expect(document.body.textContent).toMatch(/900 W|impossible|cannot/)
  await user.clear(field('Watts'))
  await user.clear(field('Amps'))
  await user.click(press('Take the nameplate'))
  expect((await screen.findByRole('status')).textContent).toMatch(/^Kitchen refrigerator/)
  expect(loadOf(job())?.plate).toMatchObject({ volts: 115, lockedRotorA: 12.5 })
})

test('a plate with a figure that is none stays as typed, with the reason; an empty one says what is wanted', async () => {
  const { user } = inWorkspace(<PlateTab row={rowOf('Playroom lights (LED)')} />)
  await user.click(press('Take the nameplate'))
  expect((await screen.findByRole('alert')).textContent).toMatch(/at least one figure/)
  await user.type(field('Amps'), 'some')
  await user.click(press('Take the nameplate'))
  expect(await screen.findByText(/^Amps must be/)).toBeTruthy()
  expect(field('Amps').value).toBe('some')
})

test('when it runs: spans of the day, lower levels and a start sequence are kept with the load', async () => {
  const { user, job } = inWorkspace(<PatternTab row={fridge} onClose={() => {}} />)
  const choose = async (label: string, option: string) => {
    await user.click(screen.getByRole('combobox', { name: label }))
    await user.click(screen.getByRole('option', { name: option }))
  }
  await choose('It runs', 'at certain hours')
  await choose('On', 'weekdays')
  await user.click(press('Another span'))
  expect(screen.getAllByRole('textbox', { name: 'From' })).toHaveLength(2)
  await user.click(press(/^Take row 2 away/))
  await user.click(press('A lower level'))
  await user.type(field('Level'), '60')
  await user.type(field('Of the running time'), '40')
  await choose('Weather', 'more the colder it is')
  await user.click(press('Keep'))
  expect(await screen.findByText(/^Needs none at/, { selector: 'p' })).toBeTruthy()
  await user.type(field('Needs none at'), '60')
  await user.click(press('Keep'))
  expect((await screen.findByRole('status')).textContent).toMatch(/Kitchen refrigerator/)
  expect(loadOf(job())).toMatchObject({
    pattern: { kind: 'scheduled', days: 'weekdays', spans: [{ fromH: 18, toH: 22 }] },
    stages: [{ W: 60, shareFraction: 0.4 }],
    weather: { mode: 'heating' },
  })
})

test('what must not run together is ticked; the load can be taken away', async () => {
  const close = jest.fn()
  const { user, job } = inWorkspace(<PatternTab row={fridge} onClose={close} />)
  const microwave = rowOf('Microwave').load.id
  await user.click(screen.getByRole('checkbox', { name: 'Microwave' }))
  await user.click(press('Keep'))
  await screen.findByRole('status')
  expect(loadOf(job())?.notWith).toEqual([microwave])
  await user.click(press('Remove this load'))
  expect(loadOf(job())).toBeUndefined()
  expect(close).toHaveBeenCalled()
})
