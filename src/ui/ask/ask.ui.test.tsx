/** @jest-environment jest-fixed-jsdom */
import { act, screen, waitFor, within } from '@testing-library/react'
import { askedOf } from '@/core/ask/questions'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { useFirstAnswer, useMaking } from '../first/useFirstAnswer'
import { inWorkspace } from '../test/render'
import { AskView } from './AskView'
import { LinkBox } from './LinkBox'
import { RequestList } from './RequestList'
import { Wants } from './Wants'

beforeAll(() => {
  Element.prototype.scrollIntoView = jest.fn()
})
const fresh = { ...alderHollow, brief: { ...alderHollow.brief, wants: [] }, requests: [] }
const press = (name: string | RegExp) => screen.getByRole('button', { name })
const names = () =>
  within(screen.getByRole('list', { name: 'What must live' }))
    .queryAllByRole('listitem')
    .map(li => /^\d+\. (.*?)(circuit|\d|$)/.exec(li.textContent ?? '')?.[1])

const Listed = () => {
  const making = useMaking()
  return <Wants making={making} answer={useFirstAnswer(making)} />
}
const asked = () => screen.getByRole('combobox', { name: 'What must live' })

describe('what must live', () => {
  const three = async () => {
    const page = inWorkspace(<Listed />, fresh)
    await page.user.type(asked(), 'Furnace, Refrigerator, Sump{Enter}')
    await waitFor(() => expect(names()).toHaveLength(3))
    return page
  }

  test('is put in order by arrows, by the grip with the keyboard, and taken off', async () => {
    const { user, job } = await three()
    await user.click(press('Refrigerator: more important'))
    expect(job().brief.wants.map(w => w.name)).toEqual(['Refrigerator', 'Furnace', 'Sump pump'])
    expect(press('Refrigerator: more important')).toHaveProperty('disabled', true)
    act(() => press('Move Sump pump').focus())
    await user.keyboard(' ')
    await screen.findByText(/^(Picked up Sump|Sump pump is over)/)
    await user.keyboard('{Escape}')
    await screen.findByText(/^Sump pump stays at place 3 of 3/)
    await user.click(press('Take Furnace off the list'))
    expect(job().brief.wants.map(w => w.name)).toEqual(['Refrigerator', 'Sump pump'])
  })

  test('is tied to the circuit that carries it, which can then be picked', async () => {
    const { user, job } = await three()
    await user.click(screen.getByRole('combobox', { name: 'Circuit that carries Sump pump' }))
    await user.click(screen.getByRole('option', { name: /^17 / }))
    expect(job().brief.wants.at(-1)?.circuitIds).toEqual(['c17'])
    // it took over what was said of it, and must run
    expect(job().brief.wants.at(-1)?.loads).toBeUndefined()
    expect(job().panels[0]?.circuits.find(c => c.id === 'c17')?.picked).toBe(true)
  })
})

test('an answer opens the questions that follow from it; pressed once more, it is open again', async () => {
  const { user, job } = inWorkspace(<AskView />, {
    ...fresh,
    brief: { wants: [] } as unknown as typeof alderHollow.brief,
  })
  const asked = () => askedOf(job().brief).map(q => q.key)
  expect(asked()).not.toContain('generatorW')
  const generator = within(document.querySelector('[data-question=generator]') as HTMLElement)
  await user.click(generator.getByRole('radio', { name: 'yes' }))
  expect(asked()).toContain('generatorW')
  const watts = within(document.querySelector('[data-question=generatorW]') as HTMLElement)
  await user.type(watts.getByRole('textbox'), '7{Enter}')
  expect(watts.getByText(/must be from 300 to/)).toBeTruthy()
  await user.clear(watts.getByRole('textbox'))
  await user.type(watts.getByRole('textbox'), '1800{Enter}')
  expect(job().brief.generatorW).toBe(1800)
  await user.click(generator.getByRole('radio', { name: 'yes' }))
  expect(job().brief.generator).toBeUndefined()
})

test('requests: all asked at once, one answered for, one of our own added and removed', async () => {
  const { user, job, store } = inWorkspace(<RequestList />, fresh)
  await user.click(press('Mark all as asked'))
  expect(store.getState().evaluation.requests.every(r => r.state !== 'to ask')).toBe(true)
  await user.type(screen.getByRole('textbox', { name: 'Ask for something else' }), 'The meter outside{Enter}')
  const own = (await screen.findByText('The meter outside')).closest('li') as HTMLElement
  await user.click(within(own).getByRole('combobox', { name: 'State' }))
  await user.click(screen.getByRole('option', { name: 'refused' }))
  expect(job().requests.find(r => r.own)?.state).toBe('refused')
  await user.click(within(own).getByRole('button', { name: 'Remove' }))
  expect(job().requests.some(r => r.own)).toBe(false)
})

test('the customer’s link is shown once, copied, withdrawn; what the server refuses is told', async () => {
  const link = {
    id: 'l1',
    createdAt: '2026-02-01T10:00:00Z',
    expiresAt: '2999-01-01T10:00:00Z',
    withdrawnAt: null as string | null,
    seenAt: null,
    by: 'Designer',
    uploads: 0,
  }
  let links: (typeof link)[] = []
  let refuses = false
  const { user } = inWorkspace(<LinkBox />, alderHollow, (path, init) => {
    if (!path.endsWith('/links?kind=ask')) return null
    if (init?.method === 'GET') return Response.json({ links })
    if (refuses) return Response.json({ message: 'Too many links.' }, { status: 409 })
    const asked = JSON.parse(String(init?.body))
    if (asked.do === 'make') {
      links = [link]
      return Response.json({ token: 'secret', links })
    }
    links = [{ ...link, withdrawnAt: '2026-02-02T10:00:00Z' }]
    return Response.json({ links })
  })
  await waitFor(() => expect(press('Make a link')).toHaveProperty('disabled', false))
  await user.click(press('Make a link'))
  const address = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Address to send' })
  expect(address.value).toMatch(/\/for\/secret$/)
  await user.click(press('Copy'))
  expect(await screen.findByText('Copied.')).toBeTruthy()
  await user.click(press('Withdraw'))
  expect(await screen.findByText(/withdrawn 2026-02-02/)).toBeTruthy()
  expect(screen.queryByRole('textbox', { name: 'Address to send' })).toBeNull()
  refuses = true
  await user.click(press('Make a link'))
  expect(await screen.findByText('Too many links.')).toBeTruthy()
})
