/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { catalogue, millrace8 } from '@/server/seeds/catalogue'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { inWorkspace } from '../test/render'
import { SourceView } from './SourceView'

const bare = { ...alderHollow, source: undefined }
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const region = (name: string) => within(screen.getByRole('region', { name }))
const view = (job = alderHollow) =>
  inWorkspace(<SourceView catalogue={catalogue} />, job as typeof alderHollow)

test('without a source the way to one stands; what was chosen is a unit with its figures', async () => {
  const { user, job } = view(bare as never)
  await user.click(press('Choose a source'))
  const dialog = within(await screen.findByRole('dialog'))
  await user.type(dialog.getByRole('textbox', { name: 'Find equipment' }), 'rill')
  await user.click(dialog.getByRole('button', { name: /^Rill 6/ }))
  expect(job().source?.units[0]?.equipment.name).toBe('Rill 6')
  expect(region('Rill 6').getByText('Continuous')).toBeTruthy()
})

test('expansions are counted within what the unit takes; taken away, the source is gone', async () => {
  const { user, job } = view()
  const more = press('Expansion units: one more')
  await user.click(more)
  await user.click(more)
  expect(job().source?.units[0]?.expansionUnits).toBe(3)
  expect(more).toHaveProperty('disabled', true)
  await user.click(press('Take away'))
  expect(job().source).toBeUndefined()
})

test('an arrangement that cannot be says why and cannot be chosen; one that can lights or kills a leg', async () => {
  const { user, job } = view()
  expect(screen.getByRole('radio', { name: /^Split phase/ })).toHaveProperty('disabled', true)
  expect(screen.getByText(/puts out 120 V only/)).toBeTruthy()
  await user.click(screen.getByRole('radio', { name: /^One leg/ }))
  expect(job().source?.arrangement).toBe('one-leg')
  expect(screen.getByRole('region', { name: 'L2, dead' })).toBeTruthy()
  await user.click(screen.getByRole('combobox', { name: 'Live leg' }))
  await user.click(screen.getByRole('option', { name: 'L2' }))
  expect(screen.getByRole('region', { name: 'L1, dead' })).toBeTruthy()
})

test('a figure of what it delivers opens its working', async () => {
  const { user, store } = view()
  const [figure] = region('What it delivers').getAllByRole('button')
  if (figure) await user.click(figure)
  expect(store.getState().working).not.toBeNull()
})

test('a generator is added, changed with what was typed wrong told, and taken away', async () => {
  const { user, job } = view()
  const charges = () => region('What charges it, and where it stands')
  await user.click(charges().getByRole('button', { name: 'Generator' }))
  await user.click(await screen.findByRole('button', { name: /^Freshet 18/ }))
  expect(job().source?.generator?.equipment.name).toBe('Freshet 18')
  const [, change] = charges().getAllByRole('button', { name: 'Change' })
  await user.click(charges().getAllByRole('button', { name: 'Change' })[0] as HTMLElement)
  expect(change).toBeTruthy()
  const dialog = within(await screen.findByRole('dialog', { name: 'Freshet 18' }))
  const fuel = dialog.getByRole<HTMLInputElement>('textbox', { name: 'Fuel kept' })
  await user.clear(fuel)
  await user.type(fuel, 'many')
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  expect(await dialog.findByText(/^Fuel kept must be a number/)).toBeTruthy()
  await user.clear(fuel)
  await user.type(fuel, '12')
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  await waitFor(() => expect(job().source?.generator?.gallons).toBe(12))
  await user.click(charges().getAllByRole('button', { name: 'Take away' })[0] as HTMLElement)
  expect(job().source?.generator).toBeUndefined()
})

test('a newer version in the catalogue is offered, and taken over by a press', async () => {
  const unit = alderHollow.source?.units[0]?.equipment
  if (!unit) throw new Error('no unit')
  const newer = { ...unit, version: unit.version + 1, continuousW: 2400 }
  const { user, job } = inWorkspace(
    <SourceView catalogue={[newer, ...catalogue.filter(c => c.id !== unit.id)]} />,
  )
  expect(screen.getByText(`The catalogue has version ${newer.version}.`, { exact: false })).toBeTruthy()
  await user.click(press('Take it over'))
  expect(job().source?.units[0]?.equipment.continuousW).toBe(2400)
})

test('an inverter brings its bank: strings in parallel, and a fuse that may stay unknown', async () => {
  const { user, job } = view(bare as never)
  await user.click(press('Choose a source'))
  const dialog = within(await screen.findByRole('dialog'))
  await user.click(dialog.getByRole('button', { name: new RegExp(`^${millrace8.name}`) }))
  const bank = () => job().source?.units[0]?.bank
  expect(bank()?.parallel).toBe(1)
  await user.click(press(/in parallel: one more$/))
  expect(bank()?.parallel).toBe(2)
  const fuse = screen.getByRole<HTMLInputElement>('textbox', { name: 'Fuse of the bank' })
  await user.type(fuse, '250{Enter}')
  expect(bank()?.fuseA).toBe(250)
  await user.clear(fuse)
  await user.tab()
  expect(bank()?.fuseA).toBeUndefined()
})

test('two units, their combiner and solar modules of a larger house are all told', () => {
  view(saltmarshLane)
  expect(screen.getAllByRole('region', { name: 'Weirgate 36' })).toHaveLength(2)
  expect(region('What charges it, and where it stands').getAllByText(/in series ×/)).toHaveLength(
    saltmarshLane.source?.arrays?.length ?? 0,
  )
})
