/** @jest-environment jest-fixed-jsdom */
import { act, screen, within } from '@testing-library/react'
import { checkCatalogue, families } from '@/core/checks/catalogue'
import { severities } from '@/core/checks/finding'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { CalculationCard } from '../calculations/CalculationCard'
import { FindingsHere } from '../findings/FindingsHere'
import { FindingsView } from '../findings/FindingsView'
import { alone, inWorkspace } from '../test/render'
import { ChecksScreen } from './ChecksScreen'

jest.mock('next/navigation', () => ({
  usePathname: () => '/checks',
  useRouter: () => ({ refresh: () => {} }),
}))
const person = {
  label: 'Designer',
  firm: 'The firm',
  zone: 'America/New_York',
  role: 'designer',
  id: 'person-1',
  demo: false,
} as const
const wrong = {
  ...alderHollow,
  hookup: { ...alderHollow.hookup, path: [], runs: [], sourceNeutral: 'left off' as const },
}

test('every check stands once in its family, with what makes it speak and its article by edition', () => {
  alone(<ChecksScreen person={person} />)
  for (const family of families) expect(screen.getByRole('table', { name: family })).toBeTruthy()
  const rows = screen.getAllByRole('row').filter(r => r.id)
  expect(rows.map(r => r.id).sort()).toEqual(checkCatalogue.map(c => c.id).sort())
  const one = checkCatalogue.find(c => c.id === 'wire.small')
  const row = rows.find(r => r.id === one?.id)
  expect(row?.textContent).toMatch(/2017: .*2020: .*2023: /)
  expect(row?.textContent).toContain(one?.provoke)
})

test('every finding is listed, the gravest first; none is no judgement of the installation', () => {
  const { store, unmount } = inWorkspace(<FindingsView />, wrong)
  const { findings } = store.getState().evaluation
  const shown = screen.getAllByRole('article').map(a => a.dataset.severity ?? '')
  expect(shown).toHaveLength(findings.length)
  expect(shown).toEqual(severities.flatMap(s => shown.filter(one => one === s)))
  expect(within(screen.getByRole('region', { name: 'stop' })).getAllByRole('article')).toHaveLength(
    findings.filter(f => f.severity === 'stop').length,
  )
  unmount()
  const silent = inWorkspace(<FindingsView />)
  act(() => silent.store.setState(s => ({ evaluation: { ...s.evaluation, findings: [] } })))
  expect(screen.getByText(/That is not a judgement of the installation/)).toBeTruthy()
})

test('on a screen stand the findings that are mended there, and they go with their cause', () => {
  const { store } = inWorkspace(<FindingsHere view="hook-up" />, wrong)
  const ids = () => screen.queryAllByRole('article').map(a => a.dataset.finding)
  expect(ids()).toContain('neutral.not-landed')
  expect(ids()).not.toContain(undefined)
  act(() => void store.getState().act({ op: 'setHookup', facts: { sourceNeutral: 'lands' }, clear: [] }))
  expect(ids()).not.toContain('neutral.not-landed')
})

describe('a calculation kept with the job', () => {
  const [kept] = alderHollow.calculations
  if (!kept) throw new Error('none kept')
  test('is worked out anew, opens its working, and goes by a press that undo takes back', async () => {
    const { user, store, job } = inWorkspace(<CalculationCard calculation={kept} />)
    await user.click(screen.getByRole('button', { name: 'Show the working' }))
    expect(store.getState().working).not.toBeNull()
    expect(screen.getByRole('link', { name: 'Change on the bench' }).getAttribute('href')).toBe(
      `/bench/${kept.calculator}?job=job&calculation=${kept.id}`,
    )
    await user.click(screen.getByRole('button', { name: 'Remove' }))
    expect(job().calculations).not.toContainEqual(kept)
  })

  test.each([
    [{ ...kept, calculator: 'gone' }, /has no such calculator/],
    [{ ...kept, input: {} }, /^Cannot be answered as it was kept: /],
  ])('that can no longer be answered says why', (calculation, why) => {
    inWorkspace(<CalculationCard calculation={calculation} />)
    expect(screen.getByText(why)).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Show the working' })).toBeNull()
    expect(screen.getByRole('button', { name: 'Remove' })).toBeTruthy()
  })
})
