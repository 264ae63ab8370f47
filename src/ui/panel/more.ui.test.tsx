/** @jest-environment jest-fixed-jsdom */
import { act, screen, waitFor, within } from '@testing-library/react'
import { circuitOf } from '@/core/job/panels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { inWorkspace } from '../test/render'
import { AddBreakerDialog } from './AddBreakerDialog'
import { AddPanelDialog } from './AddPanelDialog'
import { ArrangeHere } from './ArrangeHere'
import { CircuitInspector } from './CircuitInspector'
import { CircuitSheet } from './CircuitSheet'
import { MovingStrip } from './MovingStrip'
import { PanelFactsDialog } from './PanelFactsDialog'

const press = (name: string | RegExp) => screen.getByRole('button', { name })
const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name })
type User = ReturnType<typeof inWorkspace>['user']
const choose = async (user: User, label: string, option: string | RegExp) => {
  await user.click(screen.getByRole('combobox', { name: label }))
  await user.click(screen.getByRole('option', { name: option }))
}
const main = alderHollow.panels[0]
if (!main) throw new Error('no panel')

test('a breaker is put into a free space; what does not fit is refused with the reason, and stays typed', async () => {
  const close = jest.fn()
  const { user, job, store } = inWorkspace(<AddBreakerDialog space={27} half={undefined} onClose={close} />)
  const dialog = within(screen.getByRole('dialog', { name: /^Breaker at 27/ }))
  await user.type(dialog.getByRole('textbox', { name: 'Label' }), 'workshop')
  await choose(user, 'Breaker', '30 A')
  await choose(user, 'Kind', /^two-pole/)
  await user.click(dialog.getByRole('button', { name: 'Add' }))
  await waitFor(() => expect(close).toHaveBeenCalled())
  const added = job().panels[0]?.circuits.find(c => c.position === 27)
  expect(added).toMatchObject({ label: 'workshop', breakerA: 30, poles: 2, picked: false })
  expect(store.getState().selectedId).toBe(added?.id)
})

test('a space can be marked as one that cannot be used, and back', async () => {
  const close = jest.fn()
  const { user, job, again } = inWorkspace(<AddBreakerDialog space={27} half={undefined} onClose={close} />)
  await user.click(press('Cannot be used'))
  expect(job().panels[0]?.unusable).toContain(27)
  again(<AddBreakerDialog key="again" space={27} half={undefined} onClose={close} />)
  expect(screen.getByText(/cannot be used\./)).toBeTruthy()
  await user.click(press('It can be used'))
  expect(job().panels[0]?.unusable).not.toContain(27)
})

test('another panel takes the next mark and a two-pole as its feeder; a mark that is taken is told', async () => {
  const close = jest.fn()
  const { user, job } = inWorkspace(<AddPanelDialog onClose={close} />)
  await user.clear(field('Name'))
  await user.type(field('Name'), 'Shed')
  await choose(user, 'Fed by', /Heat-pump feed/)
  await user.click(press('Add'))
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(job().panels.at(-1)).toMatchObject({ name: 'Shed', mark: 'B', spaces: 12, feederId: 'c12' })
})

test('what cannot be a mark is told at its field', async () => {
  const { user, job } = inWorkspace(<AddPanelDialog onClose={() => {}} />)
  await user.clear(field('Mark'))
  await user.type(field('Mark'), 'far too long a mark')
  await user.click(press('Add'))
  expect(await screen.findByText(/^Mark /, { selector: 'p' })).toBeTruthy()
  expect(job().panels).toHaveLength(1)
})

test('the facts of a panel save when left: legs row by row, tandem spaces as on the sticker, an emptied one is unknown again', async () => {
  const { user, job } = inWorkspace(<PanelFactsDialog onClose={() => {}} />)
  const panel = () => job().panels[0]
  const put = async (name: string, text: string) => {
    await user.clear(field(name))
    if (text) await user.type(field(name), text)
    await user.tab()
  }
  await put('Spaces that take tandems', '17-19, 25')
  expect(panel()?.tandemSpaces).toEqual([17, 18, 19, 25])
  await put('Spaces that take tandems', '99')
  expect(screen.getByText(/^Spaces that take tandems must be spaces of this panel/)).toBeTruthy()
  expect(field('Spaces that take tandems').value).toBe('99')
  await put('Spaces that take tandems', '')
  expect(panel()?.tandemSpaces).toBeUndefined()
  await put('Breaker types it permits', 'WL, WLT')
  expect(panel()?.breakerTypes).toEqual(['WL', 'WLT'])
  await put('Clear depth in front', '30')
  expect(panel()?.clearDepthIn).toBe(30)
  await choose(user, 'Bus legs', 'row by row, as measured')
  await put('Legs from the top', '1 1 2')
  expect(screen.getByText(/must be 15 figures, 1 or 2 for each row; this has 3/)).toBeTruthy()
  await choose(user, 'Main', 'main lugs only')
  expect(panel()?.mainA).toBeUndefined()
}, 30_000)

describe('the sheet of a circuit', () => {
  const open = (id: string, job = alderHollow) => {
    const found = circuitOf(job, id)
    if (!found) throw new Error(`no ${id}`)
    const page = inWorkspace(<CircuitInspector />, job)
    act(() => page.store.getState().select(id, true))
    return page
  }

  test('is edited in place; what the panel refuses is told and nothing is lost', async () => {
    const { user, job } = open('c9')
    const label = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Label' })
    await user.clear(label)
    await user.type(label, 'Playroom, ceiling{Enter}')
    expect(circuitOf(job(), 'c9')?.circuit.label).toBe('Playroom, ceiling')
    await choose(user, 'Breaker', '20 A')
    await choose(user, 'Importance', '1, must run')
    await choose(user, 'Protection', 'both')
    expect(circuitOf(job(), 'c9')?.circuit).toMatchObject({ breakerA: 20, tier: 1, protection: 'dual' })
    const position = field('Position')
    await user.clear(position)
    await user.type(position, '1{Enter}')
    expect(screen.getByText(/^Position /, { selector: 'p' })).toBeTruthy()
    expect(circuitOf(job(), 'c9')?.circuit.position).toBe(9)
  })

  test('who saw it die is written down, and taken back', async () => {
    const { user, job } = open('c4')
    await user.click(await screen.findByRole('button', { name: 'I saw it die today' }))
    expect(circuitOf(job(), 'c4')?.circuit.traced).toMatchObject({ by: 'Designer', found: 'known' })
    expect(screen.getByText(/seen to die by Designer/)).toBeTruthy()
    await user.click(press('Mark as not traced'))
    expect(circuitOf(job(), 'c4')?.circuit.traced).toBeUndefined()
  })

  test('its average opens its working; a load is edited and removed from it', async () => {
    const { user, job, store } = open('c5')
    await user.click(await screen.findByRole('button', { name: /on average$/ }))
    expect(store.getState().working).not.toBeNull()
    await user.click(press('Edit Kitchen refrigerator'))
    const dialog = within(await screen.findByRole('dialog', { name: 'Kitchen refrigerator' }))
    await user.click(dialog.getByRole('button', { name: 'Remove' }))
    expect(circuitOf(job(), 'c5')?.circuit.loads.some(l => l.name === 'Kitchen refrigerator')).toBe(false)
  })

  test('a neutral is shared by name, a wire said in size and metal, and what can carry it stands beneath', async () => {
    const { user, job } = open('c11')
    await screen.findByRole('textbox', { name: 'Label' })
    await choose(user, 'Neutral', /^shared with 13/)
    expect(circuitOf(job(), 'c11')?.circuit.neutral).toEqual({ kind: 'shared', with: 'c13' })
    await choose(user, 'Wire', '12 AWG copper')
    expect(circuitOf(job(), 'c11')?.circuit.wire).toMatchObject({ size: '12', material: 'cu' })
    await choose(user, 'Laid as, terminals', 'NM cable: 60 °C')
    expect(circuitOf(job(), 'c11')?.circuit.wire?.use).toBe('NM cable')
    expect(screen.getByRole('region', { name: 'Can be carried by' }).textContent).toMatch(
      /One leg.*Both legs tied/,
    )
  })

  test('is removed with a word that undo brings it back, and closed', async () => {
    const { user, job, store } = open('c13')
    await user.click(await screen.findByRole('button', { name: 'Remove this breaker' }))
    expect(circuitOf(job(), 'c13')).toBeUndefined()
    expect(store.getState()).toMatchObject({ selectedId: null })
    expect(store.getState().notice).toMatch(/^Removed 13/)
  })

  test('moves to another panel, into its first space that takes it', async () => {
    const from = quarryRidge.panels[0]?.circuits.find(c => c.poles === 1)
    if (!from) throw new Error('no circuit')
    const view = {
      circuit: from,
      panel: quarryRidge.panels[0] as (typeof quarryRidge.panels)[number],
      job: quarryRidge,
      findings: [],
      states: [],
      legs: null,
      arrangement: quarryRidge.source?.arrangement,
    }
    const { user, job } = inWorkspace(<CircuitSheet circuit={from} view={view} />, quarryRidge)
    const other = quarryRidge.panels[1]
    await choose(user, 'Stands in', `move to ${other?.name}`)
    expect(job().planned.filter(c => c.kind === 'move')).toMatchObject([
      { places: [{ circuitId: from.id, panelId: other?.id }] },
    ])
  })
})

test('the arrangement is switched beside the drawing, to what the source can be brought to as it stands', async () => {
  const { user, job } = inWorkspace(<ArrangeHere />)
  const button = screen.getByRole('button', { name: 'Arrangement: both legs tied' })
  await user.click(button)
  const ways = (await screen.findAllByRole('menuitemradio')).map(w => w.textContent)
  expect(ways).toEqual(['one leg, L1 live', 'one leg, L2 live', 'both legs tied'])
  await user.click(screen.getByRole('menuitemradio', { name: 'one leg, L2 live', checked: false }))
  expect(job().source).toMatchObject({ arrangement: 'one-leg', liveLeg: 'L2' })
  expect(button.textContent).toBe('Arrangement: one leg, L2 live')
})

test('while a breaker is moved the strip says what it would change, and puts it there or lets it be', async () => {
  const { user, job, store } = inWorkspace(<MovingStrip />)
  act(() => store.getState().move('c9'))
  expect(screen.getByText(/Tap the place/)).toBeTruthy()
  act(() => store.getState().aim(27))
  expect(screen.getByRole('heading').textContent).toBe('Moving 9 Playroom lights to 27')
  expect(screen.getAllByRole('listitem')[0]?.textContent).toMatch(/Playroom lights: 9 to 27/)
  await user.click(press('Put it at 27'))
  expect(job().planned.filter(c => c.kind === 'move')).toMatchObject([
    { places: [{ circuitId: 'c9', position: 27 }] },
  ])
  act(() => store.getState().move('c11'))
  await user.click(press('Leave it where it is (Esc)'))
  expect(store.getState().moving).toBeNull()
})

test('what is picked stands by importance; a press opens it; what carries it is judged when asked', async () => {
  const { user, store } = inWorkspace(<CircuitInspector />)
  const must = within(screen.getByRole('region', { name: 'Must run' }))
  expect(must.getAllByRole('listitem')).toHaveLength(3)
  await user.click(press('What carries these, what the panel can take'))
  expect((await screen.findByRole('region', { name: 'What this panel can take' })).textContent).toMatch(
    /free/,
  )
  expect(screen.getByRole('region', { name: 'Carried by each arrangement' }).textContent).toMatch(/\d of 6/)
  await user.click(must.getByRole('button', { name: /Boiler/ }))
  expect(store.getState().selectedId).toBe('c2')
})
