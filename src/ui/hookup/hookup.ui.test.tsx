/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { usualLabour } from '@/core/hookup/labour'
import { catalogue } from '@/server/seeds/catalogue'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { inWorkspace } from '../test/render'
import { MethodsTable } from './MethodsTable'
import { PathBuilder } from './PathBuilder'
import { PlannedCard } from './PlannedCard'
import { PositionsDesk } from './PositionsDesk'

const hours = { labour: usualLabour, version: 0 }
const choose = async (user: ReturnType<typeof inWorkspace>['user'], label: string, option: string) => {
  await user.click(screen.getByRole('combobox', { name: label }))
  await user.click(screen.getByRole('option', { name: option }))
}

test('methods stand side by side; planning one changes the hook-up, and what exists stays with the job', async () => {
  const { user, job } = inWorkspace(<MethodsTable catalogue={catalogue} hours={hours} />)
  const heads = screen.getAllByRole('columnheader').slice(1)
  expect(heads[0]?.textContent).toMatch(/recommended/)
  await user.click(screen.getByRole('button', { name: 'Plan it: Interlocked inlet' }))
  expect(job().hookup).toMatchObject({ method: 'interlocked-inlet', inlet: { name: 'Sill L14-30' } })
  expect(job().hookup.switch).toBeUndefined()
})

test('a switch that is there already is said so, and stays when another way is looked at', async () => {
  const { user, job, again } = inWorkspace(<PlannedCard catalogue={catalogue} />)
  await user.click(screen.getByRole('checkbox', { name: 'there already' }))
  expect(job().hookup.exists).toEqual(['switch'])
  again(<MethodsTable catalogue={catalogue} hours={hours} />)
  expect(screen.getAllByText('Riffle 6 (there)').length).toBeGreaterThan(0)
  await user.click(screen.getByRole('button', { name: 'Plan it: Interlocked inlet' }))
  expect(job().hookup.switch?.name).toBe('Riffle 6')
})

test('where the neutral of the source goes is asked in words, and left off it stops the job', async () => {
  const { user, job, store } = inWorkspace(<PlannedCard catalogue={catalogue} />)
  const ids = () => store.getState().evaluation.findings.map(f => f.id)
  expect(ids()).not.toContain('neutral.not-landed')
  await choose(user, 'Neutral of the source', 'left off')
  expect(job().hookup.sourceNeutral).toBe('left off')
  expect(ids()).toContain('neutral.not-landed')
  await choose(user, 'Neutral of the source', 'not said')
  expect(job().hookup.sourceNeutral).toBeUndefined()
})

test('the breaker of a position: more than it takes is refused at the field, a fitting one cures the finding', async () => {
  const { user, job, store } = inWorkspace(<PositionsDesk />)
  const field = screen.getByLabelText('Breaker at 1') as HTMLInputElement
  await user.type(field, '40{Enter}')
  expect(screen.getByText(/is 40 A, but position 1 takes at most 30 A/)).toBeTruthy()
  expect(field.value).toBe('40')
  await user.clear(field)
  await user.type(field, '15{Enter}')
  expect(job().hookup.positions?.find(p => p.position === 1)?.breakerA).toBe(15)
  expect(store.getState().evaluation.findings.some(f => f.id === 'position.protects')).toBe(false)
})

test('the path tells of each link what it holds for hours and what opens first; a link taken out leaves a gap that names the adapter', async () => {
  const { user, job } = inWorkspace(<PathBuilder catalogue={catalogue} />)
  const path = within(screen.getByRole('region', { name: 'Path' }))
  expect(path.getAllByText(/24 A for hours; opens first: the TT-30 outlet, within 10 s/).length).toBe(4)
  expect(path.getByText(/Input of the Riffle 6 at 5, within 1 h at 135 %, 120 s at 200 %/)).toBeTruthy()
  await user.click(path.getByRole('button', { name: 'Take link 1 out' }))
  expect(path.getByRole('note').textContent).toMatch(/TT-30 does not take a L14-30 plug/)
  await user.click(path.getByRole('button', { name: /Put Bridge TT-30 to L14-30 in/ }))
  expect(job().hookup.path?.[0]?.name).toBe('Bridge TT-30 to L14-30')
})

test('a cord without its length is told at its field, and what was typed stays; one too weak is a finding that undo takes back', async () => {
  const { user, store } = inWorkspace(<PathBuilder catalogue={catalogue} />)
  const weak = () => store.getState().evaluation.findings.filter(f => f.id === 'cord.weak-link')
  await user.click(screen.getByRole('button', { name: 'Change link 2' }))
  const dialog = within(await screen.findByRole('dialog'))
  const field = (label: string) => dialog.getByLabelText(new RegExp(`^${label}`)) as HTMLInputElement
  await user.clear(field('Rated'))
  await user.type(field('Rated'), '15')
  await user.clear(field('Length'))
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  expect(dialog.getByText(/give the cord’s length/)).toBeTruthy()
  expect(field('Rated').value).toBe('15')
  await user.type(field('Length'), '25')
  await user.click(dialog.getByRole('button', { name: 'Keep' }))
  expect(weak()[0]?.sentence).toMatch(/rated 15 A/)
  store.getState().back('undo')
  await waitFor(() => expect(weak()).toEqual([]))
})

test('as found the path shows what stands there already and nothing else; as planned what is new carries its sign', async () => {
  const there = {
    ...saltmarshLane,
    hookup: { ...saltmarshLane.hookup, exists: ['inlet' as const] },
  }
  const { user } = inWorkspace(<PathBuilder catalogue={catalogue} />, there)
  const path = within(screen.getByRole('region', { name: 'Path' }))
  expect(path.getByText('+ Tow L14-30, 25 ft')).toBeTruthy()
  expect(path.queryByText(/^\+ Sill/)).toBeNull()
  await user.click(path.getByRole('button', { name: 'As found' }))
  expect(screen.getByText('Inlet, there already')).toBeTruthy()
  expect(screen.queryByText(/Tow L14-30/)).toBeNull()
})

test('where nothing stands the path as found says so', async () => {
  const { user } = inWorkspace(<PathBuilder catalogue={catalogue} />)
  await user.click(screen.getByRole('button', { name: 'As found' }))
  expect(screen.getByText('Nothing of it stands in the house as it was found.')).toBeTruthy()
})

test('on a whole panel that is fed the planned card offers what an interlock needs, and no positions', () => {
  inWorkspace(<PlannedCard catalogue={catalogue} />, saltmarshLane)
  expect(screen.getByText('Sluicegate W')).toBeTruthy()
  expect(screen.getByRole('combobox', { name: 'Backfed breaker' })).toBeTruthy()
  expect(screen.queryByRole('combobox', { name: 'Breakers in the new panel' })).toBeNull()
})
