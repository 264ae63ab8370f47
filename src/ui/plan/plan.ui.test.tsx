/** @jest-environment jest-fixed-jsdom */
import { act, screen, within } from '@testing-library/react'
import { applied, circuit, job } from '@/core/job/fixtures/jobs'
import { toPlan } from '@/core/plan/change'
import { FindingsView } from '../findings/FindingsView'
import { CircuitInspector } from '../panel/CircuitInspector'
import { PanelDrawing } from '../panel/PanelDrawing'
import { PanelView } from '../panel/PanelView'
import { inWorkspace } from '../test/render'
import { PlanView } from './PlanView'

const house = job([circuit(1), circuit(3), circuit(6, { wire: { material: 'cu', size: '14' } })], {
  hookup: { method: 'undecided', bondingPlug: false },
})
const button = (name: string | RegExp) => screen.getByRole('button', { name })

test('a moved breaker is shown where it is planned; one press shows where it was found', async () => {
  const { user, job: now, store } = inWorkspace(<PanelView />, house)
  expect(button('As found').getAttribute('aria-pressed')).toBe('true')
  act(() => void store.getState().act({ op: 'planMove', circuitId: 'c1', toPosition: 9 }))
  expect(await screen.findByRole('button', { name: /^9 circuit 1, .*planned: moved$/ })).toBeTruthy()
  expect(button('As planned').getAttribute('aria-pressed')).toBe('true')
  await user.click(button('As found'))
  expect(button(/^1 circuit 1, .*planned: moved$/)).toBeTruthy()
  expect(now().panels).toBe(house.panels)
  // the list beside it takes it back
  await user.click(await screen.findByRole('button', { name: /^Take back: Move 1 circuit 1 to 9/ }))
  expect(now().planned).toEqual([])
})

test('as found an edit corrects the survey; as planned it is planned', async () => {
  const {
    user,
    job: now,
    store,
  } = inWorkspace(
    <>
      <PanelDrawing onAdd={jest.fn()} />
      <CircuitInspector />
    </>,
    house,
  )
  const rate = async (rating: string) => {
    await user.click(await screen.findByRole('combobox', { name: 'Breaker' }))
    await user.click(screen.getByRole('option', { name: rating }))
  }
  act(() => void store.getState().select('c3', true))
  await rate('15 A')
  expect(now().panels[0]?.circuits[1]?.breakerA).toBe(15)
  act(() => void store.getState().showHouse('planned'))
  await rate('30 A')
  expect(now().panels[0]?.circuits[1]?.breakerA).toBe(15)
  expect(now().planned).toMatchObject([{ kind: 'exchange', circuitId: 'c3', breakerA: 30 }])
  await user.click(button('Plan to take it out'))
  expect(store.getState().notice).toMatch(/^Planned to take out|^Not changed/)
})

test('the plan is read aloud in order, compared, and says what this house does not bear', async () => {
  const { user, store } = inWorkspace(<PlanView today="1 March 2026" firm="The firm" />, house)
  expect(screen.getByRole('heading', { name: 'Nothing is planned' })).toBeTruthy()
  act(() => void store.getState().act({ op: 'planMove', circuitId: 'c1', toPosition: 9 }))
  act(() => void store.getState().act({ op: 'planMove', circuitId: 'c3', toPosition: 1 }))
  const items = await screen.findAllByRole('listitem')
  expect(items.map(i => i.textContent)).toEqual([
    expect.stringMatching(/Move 1 circuit 1 to 9 \(L1\)/),
    expect.stringMatching(/Move 3 circuit 3 to 1 \(L1\).*after: Move 1 circuit 1/),
  ])
  expect(screen.getAllByRole('figure')).toHaveLength(2)
  act(() => void store.getState().act({ op: 'addCircuit', circuit: circuit(9) }))
  expect(await screen.findByText(/This house does not bear it: .*needs space 9/)).toBeTruthy()
  // what rests on it goes with it
  await user.click(button(/^Take back: Move 1/))
  expect(screen.queryAllByRole('listitem')).toEqual([])
})

test('a fix plans, is told of, and what endangers the house today stays told until it is built', async () => {
  const { user, job: now } = inWorkspace(<FindingsView />, house)
  const card = screen.getAllByRole('article').find(a => a.dataset.finding === 'wire.small')
  if (!card) throw new Error('not found')
  await user.click(within(card).getByRole('button', { name: 'Plan a 15 A breaker' }))
  expect(now().planned).toMatchObject([
    { kind: 'exchange', origin: 'finding', settles: 'wire.small|c6', by: expect.any(String), breakerA: 15 },
  ])
  const today = await screen.findByRole('region', { name: 'In the house as it stands today' })
  expect(today.textContent).toMatch(
    /Settled by the plan: Exchange the breaker of 6 circuit 6 for a 15 A breaker/,
  )
  expect(screen.queryAllByRole('article').map(a => a.dataset.finding)).not.toContain('wire.small')
})

test('a breaker can be planned for a free space, and taken back', async () => {
  const { user, job: now, store } = inWorkspace(<CircuitInspector />, house)
  act(() => {
    store
      .getState()
      .act(toPlan({ kind: 'add', panelId: 'main', circuit: circuit(9, { id: 'new', label: 'Feeder' }) }))
  })
  act(() => void store.getState().select('new', true))
  expect(await screen.findByText('It is planned, and not in the survey.')).toBeTruthy()
  await user.click(button('Plan to take it out'))
  expect(now().planned).toEqual([])
})

test('a panel whose drawing the plan leaves as it is, is not compared with itself', () => {
  const fed = {
    ...house,
    panels: house.panels.map(p => ({
      ...p,
      supply: 'fed from another panel' as const,
      neutralBonded: false,
    })),
  }
  const { store } = inWorkspace(
    <PlanView today="1 March 2026" firm="The firm" />,
    applied(fed, { op: 'setHookup', facts: { method: 'sub-panel-interlock', intercepts: true } }),
  )
  expect(screen.getByText(/in the feeder of Main panel/)).toBeTruthy()
  expect(screen.getByRole('heading', { name: 'Back-up panel' })).toBeTruthy()
  expect(screen.queryByRole('heading', { name: 'Main panel' })).toBeNull()
  // on paper it says which job, which revision and which day
  expect(screen.getByText('Test job').parentElement?.textContent).toBe(
    `Test job. The firm, revision ${store.getState().revision}, 1 March 2026.`,
  )
})
