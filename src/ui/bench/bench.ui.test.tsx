/** @jest-environment jest-fixed-jsdom */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { calculators } from '@/core/calculators'
import { useUnitChoice } from '../form/units'
import { alone } from '../test/render'
import { Bench } from './Bench'
import { CalculatorView } from './CalculatorView'

let path = '/bench/voltage-drop'
jest.mock('next/navigation', () => ({ usePathname: () => path, useRouter: () => ({ refresh: () => {} }) }))
jest.mock('next/dynamic', () => () => () => null)
const person = {
  label: 'Designer',
  firm: 'The firm',
  zone: 'America/New_York',
  role: 'designer',
  id: 'person-1',
  demo: false,
} as const
const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name })
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const answer = () => screen.getByRole('region', { name: 'Answer' }).textContent ?? ''
const one = (name: string) => {
  const found = calculators.find(c => c.name === name)
  if (!found) throw new Error(`no ${name}`)
  return found
}
const view = (name: string, draft: Record<string, unknown> | null = null, onDraft = jest.fn()) =>
  alone(<CalculatorView calculator={one(name)} draft={draft} onDraft={onDraft} from={null} focus={false} />)

beforeEach(() => {
  path = '/bench/voltage-drop'
  window.history.replaceState(null, '', path)
  act(() => useUnitChoice.setState({ length: 'ft', temperature: 'F' }))
})

test('every question answers its example, and again once it is emptied waits for what it needs', async () => {
  for (const c of calculators) {
    const { unmount, user } = view(c.name)
    expect(answer()).not.toMatch(/Waiting|must/)
    await user.click(press('start empty'))
    expect(answer()).not.toBe('')
    expect(screen.queryByText(/An example stands here/)).toBeNull()
    unmount()
  }
}, 120_000)

test('the answer follows every key; what is wrong says what to do and stays typed; the link carries it', async () => {
  const onDraft = jest.fn()
  const { user } = view('voltage-drop', null, onDraft)
  const before = answer()
  await user.clear(field('Current'))
  await user.type(field('Current'), '30')
  expect(answer()).not.toBe(before)
  await user.clear(field('Length, one way'))
  expect(answer()).toMatch(/^Waiting for length, one way/)
  await user.type(field('Length, one way'), '6o')
  expect(answer()).toMatch(/Length, one way must be a number/)
  expect(field('Length, one way').value).toBe('6o')
  await user.clear(field('Length, one way'))
  await user.type(field('Length, one way'), '40 m')
  await waitFor(() => expect(onDraft).toHaveBeenLastCalledWith(expect.objectContaining({ currentA: 30 })))
  await waitFor(() => expect(decodeURIComponent(window.location.search)).toContain('"currentA":30'))
})

test('a wire’s size is stepped along the ladder; aluminum has no 14', async () => {
  const { user } = view('voltage-drop')
  expect(screen.getByRole('radio', { name: '14 AWG' })).toBeTruthy()
  await user.click(screen.getByRole('radio', { name: '6 AWG' }))
  await user.click(screen.getByRole('radio', { name: 'aluminum' }))
  expect(screen.queryByRole('radio', { name: '14 AWG' })).toBeNull()
  expect(screen.getByRole<HTMLInputElement>('radio', { name: '6 AWG' }).checked).toBe(true)
})

test('rows of a log: pasted, more than a screen holds are counted along, and kept to one again', async () => {
  const { user } = view('interval-demand')
  const rows = Array.from(
    { length: 40 },
    (_, n) => `2026-01-15T${String(n % 24).padStart(2, '0')}:00:00-05:00\t60\t${500 + n}`,
  )
  const [first] = screen.getAllByRole('textbox', { name: 'Start' })
  fireEvent.paste(first as HTMLElement, { clipboardData: { getData: () => rows.join('\n') } })
  expect(await screen.findByText('and 28 more rows, all counted')).toBeTruthy()
  await user.click(press('Keep the first only'))
  expect(screen.getAllByRole('textbox', { name: 'Start' })).toHaveLength(1)
})

test('a kind of input that is switched away from does not count, and is there when one comes back', async () => {
  const { user } = view('start')
  const kinds = () => screen.getAllByRole<HTMLInputElement>('radio').map(r => r.labels?.[0]?.textContent)
  const [now, other] = [kinds().at(-2), kinds().at(-1)]
  const before = answer()
  await user.click(screen.getByRole('radio', { name: other ?? '' }))
  expect(answer()).not.toBe(before)
  await user.click(screen.getByRole('radio', { name: now ?? '' }))
  expect(answer()).toBe(before)
})

test('the outlet’s readings are typed where the meter goes, and the verdict changes', async () => {
  const { user } = view('outlet-readings')
  const fields = screen.getAllByRole<HTMLInputElement>('textbox')
  const before = answer()
  const [first] = fields
  if (!first) throw new Error('no reading')
  await user.clear(first)
  await user.type(first, '0')
  expect(answer()).not.toBe(before)
})

describe('the bench', () => {
  test('a question is found by any word, opened by Enter, and what was typed there stays while one looks at another', async () => {
    const { user } = alone(<Bench person={person} given={null} from={null} />)
    await user.clear(field('Current'))
    await user.type(field('Current'), '17')
    await user.type(field('What do you want to know?'), 'box fill{Enter}')
    expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(/box/i)
    const nav = within(screen.getByRole('navigation', { name: 'Questions' }))
    await user.click(nav.getByRole('link', { name: one('voltage-drop').question }))
    expect(field('Current').value).toBe('17')
    expect(nav.getByRole('link', { current: 'page' }).textContent).toBe(one('voltage-drop').question)
  })

  test('arrows walk the questions from the field and back; Escape empties it', async () => {
    const { user } = alone(<Bench person={person} given={null} from={null} />)
    await user.type(field('What do you want to know?'), 'volts')
    await user.keyboard('[ArrowDown]')
    expect(document.activeElement?.tagName).toBe('A')
    await user.keyboard('[ArrowUp]')
    expect(document.activeElement).toBe(field('What do you want to know?'))
    await user.keyboard('[Escape]')
    expect(field('What do you want to know?').value).toBe('')
  })

  test('metres are typed and read, and no figure changes by it', async () => {
    const { user } = alone(<Bench person={person} given={null} from={null} />)
    const before = answer()
    await user.click(press('m'))
    expect(field('Length, one way').value).not.toBe('60')
    expect(answer()).toBe(before)
    await user.click(press('ft'))
    expect(field('Length, one way').value).toBe('60')
  })

  test('inputs that came with the link stand in the fields; an unknown question says so', () => {
    const { unmount } = alone(
      <Bench person={person} given={{ ...one('voltage-drop').example, currentA: 9 }} from={null} />,
    )
    expect(field('Current').value).toBe('9')
    unmount()
    path = '/bench/nonsense'
    alone(<Bench person={person} given={null} from={null} />)
    expect(screen.getByRole('heading', { name: 'There is no such question' })).toBeTruthy()
  })
})
