/** @jest-environment jest-fixed-jsdom */
import { act, screen, waitFor, within } from '@testing-library/react'
import { costsOf } from '@/core/estimate/costs'
import { optionOf } from '@/core/estimate/document'
import { type Draft, emptyDraft } from '@/core/estimate/draft'
import { moneyText } from '@/core/estimate/money'
import { priced } from '@/core/estimate/priced'
import { promiseOf } from '@/core/estimate/promise'
import type { VersionShown } from '@/core/estimate/shown'
import { type Terms, usualTerms } from '@/core/estimate/terms'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { pricesFor } from '@/server/seeds/prices'
import { inWorkspace } from '../test/render'
import { EstimateView } from './EstimateView'

const tax = { place: 'Alder county', fraction: 0.0625, equipment: true, material: true, labour: false }
const terms: Terms = { ...usualTerms, taxes: [tax] }
const costs = costsOf(alderHollow, { prices: pricesFor([alderHollow]), minutes: [], rates: terms })
const promise = promiseOf(alderHollow)
const option = optionOf({ id: 'a', name: 'Our proposal' }, costs, priced(costs.costs, terms, ''), promise, 1)

/** A server that keeps a draft and what was sent. */
function server(versions: VersionShown[] = []) {
  const state = {
    draft: emptyDraft as Draft,
    draftVersion: 0,
    versions,
    terms,
    sent: [] as object[],
    refuse: null as object | null,
    /** of the job as the server has it */
    revision: 1,
    /** holds back what is answered to a change */
    hold: null as Promise<void> | null,
  }
  const told = () => ({
    revision: state.revision,
    number: state.versions.length ? 'E-0001' : null,
    draft: state.draft,
    draftVersion: state.draftVersion,
    versions: state.versions,
    terms: state.terms,
    // before its design was saved a job costs nothing
    options: state.draft.options.map(o => ({
      id: o.id,
      ...costs,
      ...(state.revision === 0 && { costs: [] }),
      promise,
      stops: ['A shared neutral.'],
    })),
    faults: [],
  })
  const answer = async (path: string, init?: RequestInit) => {
    if (path.startsWith('/api/terms')) return Response.json({ terms: state.terms, version: 0 })
    if (!path.endsWith('/estimate')) return null
    if (!init?.body) return Response.json(told())
    const body = JSON.parse(String(init.body))
    state.sent.push(body)
    if (state.refuse) return Response.json(state.refuse, { status: 409 })
    if (body.act === 'draft') {
      state.draft = body.draft
      state.draftVersion++
    }
    const now = told()
    await state.hold
    return Response.json({
      ...now,
      ...((body.act === 'send' || body.act === 'relink') && { token: 'secret' }),
    })
  }
  return { state, answer }
}
const sentOnce = (facts: Partial<VersionShown> = {}): VersionShown => ({
  n: 1,
  document: {
    format: 1,
    number: 'E-0001',
    version: 1,
    firm: 'F',
    title: 'T',
    place: '',
    on: '2026-11-01',
    validUntil: '2026-12-01',
    intro: '',
    exclusions: '',
    payment: '',
    closing: '',
    options: [option],
  },
  sha256: 'a'.repeat(64),
  sentAt: '2026-11-01T10:00:00Z',
  by: 'Designer',
  expiresAt: '2026-12-02T05:00:00Z',
  seenAt: null,
  state: 'open',
  acceptance: null,
  questions: [{ id: 'q', at: '2026-11-02T10:00:00Z', text: 'May it stand outside?', settled: false }],
  ...facts,
})

test('the design at hand becomes an option with its price; a tax changes it at once; sent, its link is shown', async () => {
  const { state, answer } = server()
  const { user } = inWorkspace(<EstimateView />, alderHollow, answer)
  await user.click(await screen.findByRole('button', { name: 'Add the design at hand' }))
  const card = within(await screen.findByRole('region', { name: 'Option 1' }))
  expect(card.getByText(moneyText(option.total))).toBeTruthy()
  expect(card.getByText(/^Keeps Boiler and circulators/)).toBeTruthy()
  expect(card.getByText(/1 finding that must not be: A shared neutral/)).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Add the design at hand' })).toHaveProperty('disabled', true)
  await user.click(card.getByRole('button', { name: 'What is in it' }))
  const table = within(card.getByRole('table', { name: 'What is in Our proposal' }))
  expect(table.getByRole('row', { name: /Sluice 22.*\$1,700\.00.*catalogue.*\$1,955\.00/ })).toBeTruthy()
  await user.click(screen.getByRole('combobox', { name: 'Tax of' }))
  await user.click(screen.getByRole('option', { name: 'Alder county, 6.25 %' }))
  expect(await card.findByText(moneyText(priced(costs.costs, terms, 'Alder county').total))).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Freeze it and make the link' }))
  const address = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Address to send' })
  expect(address.value).toMatch(/\/offer\/secret$/)
  expect(state.sent.at(-1)).toEqual({ act: 'send', version: 2, revision: 1 })
})

test('an answer worked out before the design was saved does not stand for the design as it is', async () => {
  const { state, answer } = server()
  state.revision = 0
  let release = () => {}
  state.hold = new Promise(done => {
    release = done
  })
  const { user, store } = inWorkspace(<EstimateView />, alderHollow, answer)
  await user.click(await screen.findByRole('button', { name: 'Add the design at hand' }))
  await waitFor(() => expect(state.draft.options).toHaveLength(1))
  state.revision = 1
  act(() => store.setState({ revision: store.getState().revision + 1 }))
  release()
  const card = within(await screen.findByRole('region', { name: 'Option 1' }))
  expect(await card.findByText(moneyText(option.total))).toBeTruthy()
})

test('what somebody else changed meanwhile is told', async () => {
  const { state, answer } = server()
  const { user, store } = inWorkspace(<EstimateView />, alderHollow, answer)
  await screen.findByRole('button', { name: 'Add the design at hand' })
  state.refuse = { message: 'Somebody else changed this estimate meanwhile.', faults: [] }
  await user.click(screen.getByRole('button', { name: 'Add the design at hand' }))
  await waitFor(() => expect(store.getState().notice).toMatch(/Somebody else changed this estimate/))
})

test('what was sent stands with its state, its questions and what was accepted; a new link and a withdrawal are a press', async () => {
  const acceptance = {
    format: 1 as const,
    number: 'E-0001',
    version: 1,
    documentSha256: 'a'.repeat(64),
    option: { id: 'a', name: 'Our proposal', total: option.total },
    name: 'A customer',
    at: '2026-11-03T10:00:00Z',
    signature: [],
    typed: true as const,
  }
  const { state, answer } = server([
    sentOnce({ n: 2, state: 'open', questions: [] }),
    sentOnce({ state: 'accepted', acceptance }),
  ])
  const { user } = inWorkspace(<EstimateView />, alderHollow, answer)
  expect(await screen.findByText(/accepted by A customer on 2026-11-03/)).toBeTruthy()
  expect(screen.getByRole('region', { name: 'Next change order' })).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'I answered it' }))
  expect(state.sent.at(-1)).toEqual({ act: 'settle', questionId: 'q' })
  await user.click(screen.getByRole('button', { name: 'Withdraw' }))
  expect(state.sent.at(-1)).toEqual({ act: 'withdraw', n: 2 })
  await user.click(screen.getAllByRole('button', { name: 'Make its link anew' })[1] as HTMLElement)
  expect(state.sent.at(-1)).toEqual({ act: 'relink', n: 1 })
  expect(await screen.findByRole('textbox', { name: 'Address to send' })).toBeTruthy()
})

test('the firm’s terms: a tax of 120 % is refused at its field, and what was typed stays', async () => {
  const { answer } = server()
  const { user } = inWorkspace(<EstimateView />, alderHollow, answer)
  await user.click(await screen.findByRole('button', { name: 'Rates, taxes, texts' }))
  const field = await screen.findByRole('textbox', { name: /^Tax/ })
  await user.clear(field)
  await user.type(field, '120')
  await user.click(screen.getByRole('button', { name: 'Save for the firm' }))
  expect((await screen.findAllByText(/a sales tax above 30 % is a slip of the pen/)).length).toBeGreaterThan(
    0,
  )
  expect(field).toHaveProperty('value', '120')
})
