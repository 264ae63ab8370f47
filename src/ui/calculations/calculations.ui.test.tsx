/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { inWorkspace } from '../test/render'
import { CalculationCard } from './CalculationCard'
import { CalculationsView } from './CalculationsView'

const kept = (calculator: string, input: object, note = '') => ({ id: 'k1', calculator, note, input })
const shown = (calculation: ReturnType<typeof kept>) =>
  inWorkspace(<CalculationCard calculation={calculation as never} />, {
    ...alderHollow,
    calculations: [calculation as never],
  })
const drop = { method: 'inrush', inrushA: 10, volts: 120 }

test('what was kept is worked out anew, with its note, its working and the way back to the bench', async () => {
  const { user, store } = shown(kept('start', drop, 'of the sump pump'))
  expect(screen.getByText('of the sump pump')).toBeTruthy()
  expect(screen.getByText(/10 A/)).toBeTruthy()
  const link = screen.getByRole('link', { name: 'Change on the bench' })
  expect(link.getAttribute('href')).toBe('/bench/start?job=job&calculation=k1')
  await user.click(screen.getByRole('button', { name: 'Show the working' }))
  expect(store.getState().working).toBeTruthy()
})

test('inputs that no longer hold are told by name; nothing is shown as an answer', () => {
  shown(kept('start', { method: 'inrush', volts: 120 }))
  expect(screen.getByText(/Cannot be answered as it was kept: inrushA is missing/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Show the working' })).toBeNull()
})

test('a calculator of a later Spillway is said to be none here, and can be removed', async () => {
  const { user, job } = shown(kept('phase-of-the-moon', {}))
  expect(screen.getByText('This Spillway has no such calculator.')).toBeTruthy()
  expect(screen.queryByRole('link', { name: 'Change on the bench' })).toBeNull()
  await user.click(screen.getByRole('button', { name: 'Remove' }))
  expect(job().calculations).toEqual([])
})

test('with nothing kept it says how something comes to be', () => {
  inWorkspace(<CalculationsView />, { ...alderHollow, calculations: [] })
  expect(screen.getByText(/Nothing is kept here yet/)).toBeTruthy()
  expect(screen.getByRole('link', { name: 'Ask the bench' }).getAttribute('href')).toBe('/bench?job=job')
})
