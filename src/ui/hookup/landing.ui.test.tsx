/** @jest-environment jest-fixed-jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import { newPanelId } from '@/core/job/new-panel'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { inWorkspace } from '../test/render'
import { LandingDesk } from './LandingDesk'
import { RunsCard } from './RunsCard'

describe('the new panel', () => {
  const shown = () => inWorkspace(<LandingDesk />, quarryRidge)
  const panel = (s: ReturnType<typeof shown>) =>
    s.store.getState().evaluation.house?.panels.find(p => p.id === newPanelId)
  const places = () =>
    within(screen.getByRole('table', { name: 'Where circuits land' }))
      .getAllByRole('row')
      .slice(1)

  test('where no circuit moves there is no such panel', () => {
    const { container } = inWorkspace(<LandingDesk />, alderHollow)
    expect(container.textContent).toBe('')
  })

  test('each circuit has its place and leg, and the survey does not know the panel', () => {
    const s = shown()
    expect(places()).toHaveLength(panel(s)?.circuits.length ?? 0)
    expect(s.job().panels.map(p => p.id)).not.toContain(newPanelId)
    for (const row of places()) expect(row.textContent).toMatch(/L1|L2|both/)
  })

  test('name, spaces and feeder are planned; the survey stays', async () => {
    const s = shown()
    const before = s.job().panels
    await s.user.click(screen.getByRole('combobox', { name: 'Spaces' }))
    await s.user.click(screen.getByRole('option', { name: '30' }))
    await s.user.click(screen.getByRole('combobox', { name: 'Its feeder' }))
    await s.user.click(screen.getByRole('option', { name: '60 A' }))
    const name = screen.getByLabelText('Name')
    await s.user.clear(name)
    await s.user.type(name, 'Kiln room{Enter}')
    expect(panel(s)).toMatchObject({ name: 'Kiln room', spaces: 30 })
    expect(s.job().hookup.newPanel).toMatchObject({ feederA: 60 })
    expect(s.job().panels).toEqual(before)
  })

  test('a place typed is a pin; one that is no place is told at its field and stays typed', async () => {
    const s = shown()
    const first = panel(s)?.circuits[0]
    const field = () => screen.getByLabelText(`Place of ${first?.label}`) as HTMLInputElement
    await s.user.clear(field())
    await s.user.type(field(), '99{Enter}')
    expect(screen.getByText(/must be at most 84/)).toBeTruthy()
    expect(field().value).toBe('99')
    const free = Array.from({ length: panel(s)?.spaces ?? 0 }, (_, i) => i + 1).findLast(
      n => !panel(s)?.circuits.some(c => c.position === n || (c.poles === 2 && c.position + 2 === n)),
    )
    await s.user.clear(field())
    await s.user.type(field(), `${free}{Enter}`)
    await waitFor(() => expect(panel(s)?.circuits.find(c => c.id === first?.id)?.position).toBe(free))
    expect(s.job().hookup.landings?.find(l => l.circuitId === first?.id)?.pinned).toBe(true)
    expect(screen.getByText('by hand')).toBeTruthy()
  })
})

describe('runs', () => {
  const rows = () =>
    screen
      .queryAllByRole('row')
      .slice(1)
      .map(r => r.textContent ?? '')

  test('without any it says what waits for them', () => {
    inWorkspace(<RunsCard />, { ...alderHollow, hookup: { ...alderHollow.hookup, runs: [] } })
    expect(screen.getByText(/No run is entered yet/)).toBeTruthy()
  })

  test('one is entered with its usual figures, told, changed and taken out', async () => {
    const { user, job } = inWorkspace(<RunsCard />, {
      ...alderHollow,
      hookup: { ...alderHollow.hookup, runs: [] },
    })
    await user.click(screen.getByRole('button', { name: 'Run' }))
    const sheet = within(await screen.findByRole('dialog'))
    await user.type(sheet.getByLabelText(/^From, to/), 'Inlet to switch')
    await user.click(sheet.getByRole('button', { name: 'Keep' }))
    await waitFor(() => expect(job().hookup.runs).toHaveLength(1))
    expect(rows()[0]).toMatch(/^Inlet to switch30 A3 × 10 AWG.*, 3 carrying10 AWGnone10 ft/)
    await user.click(screen.getByRole('button', { name: 'Take out' }))
    expect(job().hookup.runs ?? []).toEqual([])
  })

  test('a run without a name is refused at the field, and what was typed stays', async () => {
    const { user, job } = inWorkspace(<RunsCard />, {
      ...alderHollow,
      hookup: { ...alderHollow.hookup, runs: [] },
    })
    await user.click(screen.getByRole('button', { name: 'Run' }))
    const sheet = within(await screen.findByRole('dialog'))
    const length = sheet.getByLabelText(/Length/) as HTMLInputElement
    await user.clear(length)
    await user.type(length, '42')
    await user.click(sheet.getByRole('button', { name: 'Keep' }))
    expect(job().hookup.runs ?? []).toEqual([])
    expect(length.value).toBe('42')
  })
})
