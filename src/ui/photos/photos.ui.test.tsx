/** @jest-environment jest-fixed-jsdom */
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import type { Photo, PhotoMark } from '@/core/ask/evidence'
import { circuitOf } from '@/core/job/panels'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { upload } from '../api'
import { inWorkspace } from '../test/render'
import { not } from '../test/server'
import { MarkCard } from './MarkCard'
import { PhotosView } from './PhotosView'
import { Picture } from './Picture'

jest.mock('../api', () => ({ ...jest.requireActual('../api'), upload: jest.fn() }))
const sending = jest.mocked(upload)

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`
const mark: PhotoMark = {
  id: id(1),
  x: 0.4,
  y: 0.4,
  w: 0.2,
  h: 0.1,
  text: '',
  about: { kind: 'panel', panelId: 'main' },
}
const photo: Photo = {
  id: id(2),
  name: 'Door open',
  by: 'Designer',
  on: '2026-02-01',
  width: 900,
  height: 1200,
  turns: 0,
  about: { kind: 'panel', panelId: 'main' },
  marks: [mark],
}
const house = { ...alderHollow, photos: [photo, { ...photo, id: id(3), name: 'The wall', marks: [] }] }
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const card = (of: PhotoMark, onPut = jest.fn()) =>
  inWorkspace(
    <ul>
      <MarkCard photo={photo} mark={of} number={1} onPut={onPut} />
    </ul>,
    house,
  )

test('a breaker read off a picture is entered as in the survey; what cannot be stays typed', async () => {
  const onPut = jest.fn()
  const { user, job } = card(mark, onPut)
  await user.type(field('Enter it as a breaker'), '99 20 beyond{Enter}')
  expect(await screen.findByText(/99/, { selector: 'p' })).toBeTruthy()
  expect(field('Enter it as a breaker').value).toBe('99 20 beyond')
  await user.clear(field('Enter it as a breaker'))
  await user.type(field('Enter it as a breaker'), '27 20 workshop{Enter}')
  const entered = await waitFor(() => {
    const found = job().panels[0]?.circuits.find(c => c.position === 27)
    expect(found?.label).toBe('workshop')
    return found
  })
  expect(onPut).toHaveBeenCalledWith({
    ...mark,
    text: '27 20 workshop',
    about: { kind: 'circuit', circuitId: entered?.id },
  })
})

test('a plate read off a picture goes onto a load with its day; what is missing is named', async () => {
  const onPut = jest.fn()
  const { user, job } = card(
    { ...mark, text: '115 V 1.6 A LRA 12', about: { kind: 'circuit', circuitId: 'c17' } },
    onPut,
  )
  expect(field('V').value).toBe('115')
  expect(field('LRA, A').value).toBe('12')
  await user.click(press('Put on the load'))
  expect(await screen.findByText('Load is needed: name the load')).toBeTruthy()
  await user.type(field('Load'), 'Second pump')
  await user.clear(field('V'))
  await user.type(field('V'), 'lots')
  await user.click(press('Put on the load'))
  expect(await screen.findByText(/^V must be/)).toBeTruthy()
  await user.clear(field('V'))
  await user.type(field('V'), '120')
  await user.click(press('Put on the load'))
  await waitFor(() =>
    expect(circuitOf(job(), 'c17')?.circuit.loads.find(l => l.name === 'Second pump')?.plate).toMatchObject({
      volts: 120,
      lockedRotorA: 12,
    }),
  )
  expect(onPut).toHaveBeenCalledWith(
    expect.objectContaining({ about: expect.objectContaining({ kind: 'load' }) }),
  )
})

test('a mark is moved and sized by the arrows, drawn by the pointer, and a tap marks around it', () => {
  const onChange = jest.fn()
  const onDrawn = jest.fn()
  const shown = (marking: boolean) => (
    <Picture
      photo={photo}
      marking={marking}
      selected={null}
      onDrawn={onDrawn}
      onSelect={() => {}}
      onChange={onChange}
    />
  )
  const { again } = inWorkspace(shown(false), house)
  fireEvent.keyDown(press(/^Mark 1/), { key: 'ArrowRight' })
  expect(onChange).toHaveBeenLastCalledWith(expect.objectContaining({ x: expect.closeTo(0.41), w: 0.2 }))
  fireEvent.keyDown(press(/^Mark 1/), { key: 'ArrowDown', shiftKey: true })
  expect(onChange).toHaveBeenLastCalledWith(expect.objectContaining({ y: 0.4, h: expect.closeTo(0.11) }))

  again(shown(true))
  const surface = document.querySelector<HTMLElement>('[data-marking=true]')
  if (!surface) throw new Error('nothing to draw on')
  surface.setPointerCapture = () => {}
  for (const [side, px] of [
    ['offsetWidth', 100],
    ['offsetHeight', 200],
  ] as const)
    Object.defineProperty(surface, side, { value: px })
  const at = (type: string, x: number, y: number) => {
    const event = new MouseEvent(type, { bubbles: true })
    Object.defineProperties(event, { offsetX: { value: x }, offsetY: { value: y }, pointerId: { value: 1 } })
    fireEvent(surface, event)
  }
  at('pointerdown', 10, 20)
  at('pointermove', 60, 120)
  at('pointerup', 60, 120)
  expect(onDrawn).toHaveBeenLastCalledWith({ x: 0.1, y: 0.1, w: 0.5, h: 0.5 })
  at('pointerdown', 50, 100)
  at('pointerup', 50, 100)
  expect(onDrawn.mock.calls.at(-1)?.[0]).toMatchObject({ w: 0.16, h: 0.08 })
})

test('one photograph of all is on the desk; a job without any says where they come from', async () => {
  const { user, unmount } = inWorkspace(<PhotosView />, house)
  const strip = within(screen.getByRole('list', { name: 'All photographs' }))
  expect(strip.getAllByRole('button', { pressed: true })[0]?.textContent).toMatch(/Door open/)
  await user.click(strip.getByRole('button', { name: /The wall/ }))
  expect(strip.getAllByRole('button', { pressed: true })[0]?.textContent).toMatch(/The wall/)
  unmount()
  inWorkspace(<PhotosView />, { ...house, photos: [] })
  expect(screen.getByText(/No photographs yet/)).toBeTruthy()
})

test('what is larger than can be sent is told and not sent', async () => {
  const { user } = inWorkspace(<PhotosView />, house)
  await user.upload(
    screen.getByLabelText('Photographs to add'),
    new File(['x'.repeat(20_000_001)], 'film.jpg', { type: 'image/jpeg' }),
  )
  expect((await screen.findByRole('alert')).textContent).toMatch(/film.jpg: larger than 20 MB/)
})

test('a picture is sent again under its own id when the connection fails; what is refused is told, and the next goes on', async () => {
  const { user, job } = inWorkspace(<PhotosView />, house)
  sending
    .mockResolvedValueOnce(not(0, 'away'))
    .mockResolvedValueOnce({ ok: true, data: { width: 40, height: 30 } })
    .mockResolvedValueOnce(not(415, 'This is no picture.'))
  const [door, letter] = ['door.jpg', 'letter.jpg'].map(name => new File(['x'], name, { type: 'image/jpeg' }))
  await user.upload(screen.getByLabelText('Photographs to add'), [door, letter] as File[])
  expect((await screen.findByRole('alert')).textContent).toBe('letter.jpg: This is no picture.')
  const [first, second, third] = sending.mock.calls.map(([path]) => path)
  expect([first === second, second === third]).toEqual([true, false])
  expect(job().photos.filter(p => p.name === 'door')).toHaveLength(1)
  expect(first).toContain(job().photos.find(p => p.name === 'door')?.id)
})
