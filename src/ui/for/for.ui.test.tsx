/** @jest-environment jest-fixed-jsdom */
import { screen, within } from '@testing-library/react'
import { type Answered, type AskedOfCustomer, answerSent, askedOfCustomer } from '@/core/assess/sent'
import { applyOperation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import type { Language } from '@/core/languages'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { alone } from '../test/render'
import { CustomerPage } from './CustomerPage'

/** nothing was asked or sent yet */
const house: Job = { ...alderHollow, photos: [], requests: [] }
const plate = askedOfCustomer(house).find(a => a.wants === 'nameplate' && a.state === 'open')
const photo = askedOfCustomer(house).find(a => a.wants === 'photo' && a.state === 'open')
const by = { by: 'Customer', on: '2026-03-01' }
let sent: Answered[]
let refuses: Response | null

beforeEach(() => {
  sent = []
  refuses = null
  global.fetch = async (_, init) => {
    if (refuses) return refuses
    const answer = JSON.parse(String(init?.body))
    sent.push(answer)
    const job = answerSent(house, answer, by).reduce((was, operation) => {
      const next = applyOperation(was, operation)
      return next.ok ? next.value : was
    }, house)
    return Response.json({ asked: askedOfCustomer(job) })
  }
})
const shown = (language: Language = 'en') =>
  alone(
    <CustomerPage
      token="t"
      firm="The firm"
      title="The job"
      language={language}
      asked={askedOfCustomer(house, language)}
    />,
  )
const card = (asked: AskedOfCustomer | undefined) =>
  within(screen.getByRole('listitem', { name: asked?.title ?? '' }))
const button = (of: ReturnType<typeof card>, name: string | RegExp) => of.getByRole('button', { name })

test('a plate is typed, with its units; what cannot be read says where, and stays typed', async () => {
  const { user } = shown()
  const motor = card(plate)
  await user.click(button(motor, 'Type what the plate says'))
  await user.click(button(motor, 'Send'))
  expect(motor.getByRole('alert').textContent).toMatch(/at least one field/)
  await user.type(motor.getByLabelText(/LRA/), 'a lot')
  await user.click(button(motor, 'Send'))
  expect(motor.getByText(/^LRA is “a lot”, which is no number/)).toBeTruthy()
  expect(motor.getByDisplayValue('a lot')).toBeTruthy()
  expect(sent).toEqual([])
  await user.clear(motor.getByLabelText(/LRA/))
  await user.type(motor.getByLabelText(/LRA/), '34')
  await user.click(button(motor, 'Send'))
  expect(sent).toEqual([{ key: plate?.key, plate: { lockedRotorA: 34 } }])
  expect(await screen.findByText(/You said: 34 A locked rotor/)).toBeTruthy()
})

test('“I don’t know” is an answer, and one thing less is needed', async () => {
  const { user } = shown()
  const count = () => Number(/^\d+/.exec(screen.getByText(/things still needed/).textContent ?? '')?.[0])
  const before = count()
  await user.click(button(card(photo), 'I don’t know'))
  expect(sent).toEqual([{ key: photo?.key, unknown: true }])
  expect(await screen.findByText(/does not know/)).toBeTruthy()
  expect(count()).toBe(before - 1)
})

test('a server that refuses or is away says so at the thing that was sent; the words stay', async () => {
  const { user } = shown()
  const wall = card(photo)
  await user.click(button(wall, 'Write a few words'))
  await user.type(wall.getByLabelText('In a few words'), 'left of the panel')
  refuses = Response.json({ message: 'This link is no longer valid.', faults: [] }, { status: 404 })
  await user.click(button(wall, 'Send'))
  expect((await wall.findByRole('alert')).textContent).toMatch(/no longer valid/)
  expect(wall.getByDisplayValue('left of the panel')).toBeTruthy()
})

test('a file that is too large is not sent at all, and says what to do', async () => {
  const { user } = shown()
  const large = new File(['x'], 'wall.jpg', { type: 'image/jpeg' })
  Object.defineProperty(large, 'size', { value: 21_000_000 })
  const wall = card(photo)
  await user.upload(wall.getByLabelText(`Photograph: ${photo?.title}`), large)
  expect(wall.getByRole('alert').textContent).toMatch(/wall\.jpg is larger than 20 MB: take the picture anew/)
})

test('asked in Spanish, everything is Spanish, what is refused as well; the answer is the same answer', async () => {
  const { user, container } = shown('es')
  const words = () => container.textContent ?? ''
  expect(words()).toMatch(/The firm le pide.*Faltan \d+ cosas.*Abra solo la puerta del panel/s)
  expect(words()).not.toMatch(/still needed|photograph|I don’t know|Nameplate|To count/)
  const motor = card(askedOfCustomer(house, 'es').find(a => a.key === plate?.key))
  await user.click(button(motor, 'Escribir lo que dice la placa'))
  await user.click(button(motor, 'Enviar'))
  expect(motor.getByRole('alert').textContent).toMatch(/Llene al menos un campo/)
  await user.type(motor.getByLabelText(/LRA/), 'mucho')
  await user.click(button(motor, 'Enviar'))
  expect(motor.getByText(/es “mucho”, que no es un número/)).toBeTruthy()
  await user.clear(motor.getByLabelText(/LRA/))
  await user.type(motor.getByLabelText(/LRA/), '34')
  await user.click(button(motor, 'Enviar'))
  expect(sent).toEqual([{ key: plate?.key, plate: { lockedRotorA: 34 } }])
  expect(screen.getByRole('link', { name: 'English' }).getAttribute('href')).toBe('?language=en')
})
