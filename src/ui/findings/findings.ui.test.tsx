/** @jest-environment jest-fixed-jsdom */
import { screen, within } from '@testing-library/react'
import { severities } from '@/core/checks/finding'
import { circuit, job, load } from '@/core/job/fixtures/jobs'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { millStreet } from '@/server/seeds/jobs/mill-street'
import { quarryRidge } from '@/server/seeds/jobs/quarry-ridge'
import { inWorkspace } from '../test/render'
import { FindingsHere } from './FindingsHere'
import { FindingsView } from './FindingsView'

const section = (name: string) => screen.queryByRole('region', { name })

test.each([alderHollow, millStreet, quarryRidge])(
  'every finding stands under its severity, gravest first',
  j => {
    const { store } = inWorkspace(<FindingsView />, j)
    const { findings } = store.getState().evaluation
    for (const severity of severities) {
      const mine = findings.filter(f => f.severity === severity)
      const shown = section(severity)
      expect(shown?.querySelectorAll('[data-finding]').length ?? 0).toBe(mine.length)
      for (const f of mine) expect(shown?.textContent).toContain(f.sentence)
    }
    const order = screen.getAllByRole('region').map(r => r.getAttribute('aria-label'))
    expect(order).toEqual(severities.filter(s => order.includes(s)))
  },
)

test('a danger that the plan cures leaves the findings and is told as one of today’s house until it is built', async () => {
  const { user, store } = inWorkspace(<FindingsView />, quarryRidge)
  expect(screen.queryByText(/as dangerous as it was found/)).toBeNull()
  await user.click(screen.getByRole('button', { name: 'Plan: neutral and ground apart' }))
  expect(document.querySelector('[data-finding="subpanel.bonded"]')).toBeNull()
  const [settled] = store.getState().evaluation.settled
  expect(settled).toMatchObject({ finding: { id: 'subpanel.bonded' }, today: true })
  expect(screen.getByText('In the house as it stands today')).toBeTruthy()
  expect(screen.getByText(/Until that is built it is as dangerous as it was found/)).toBeTruthy()
})

test('where the checks find nothing that is not called a judgement, and local code is deferred to', () => {
  const { store } = inWorkspace(<FindingsView />, job([circuit(1, { loads: [load(100)] })]))
  const none = store.getState().evaluation.findings.length === 0
  if (none) expect(screen.getByText(/That is not a judgement of the installation/)).toBeTruthy()
  expect(document.body.textContent).not.toMatch(/\b(safe|approved)\b/i)
  expect(document.body.textContent).toMatch(/local code/i)
})

test('a fix is pressed: the finding goes, the survey stays as it was found, and undo brings it back', async () => {
  const { user, store, job: now } = inWorkspace(<FindingsView />, millStreet)
  const before = now()
  const first = store.getState().evaluation.findings.find(f => f.fixes.length)
  if (!first) throw new Error('no fix')
  const card = [...document.querySelectorAll<HTMLElement>(`[data-finding="${first.id}"]`)].find(c =>
    c.textContent?.includes(first.sentence),
  )
  if (!card) throw new Error('no card')
  const [fix] = first.fixes
  await user.click(within(card).getByRole('button', { name: fix?.label ?? '' }))
  expect(store.getState().evaluation.findings.map(f => f.key)).not.toContain(first.key)
  expect(now()).not.toEqual(before)
  expect(now().panels.map(p => p.circuits.map(c => c.position))).toEqual(
    before.panels.map(p => p.circuits.map(c => c.position)),
  )
})

test('each screen shows the findings that are mended there, and none twice', () => {
  const seen: string[] = []
  for (const view of ['ask', 'panel', 'loads', 'source', 'hook-up', 'outage'] as const) {
    const { unmount } = inWorkspace(<FindingsHere view={view} />, millStreet)
    for (const el of document.querySelectorAll('[data-finding]')) seen.push(el.textContent ?? '')
    unmount()
  }
  expect(new Set(seen).size).toBe(seen.length)
  expect(seen.length).toBeGreaterThan(0)
})
