import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { pricesFor } from '@/server/seeds/prices'
import { offerHtml } from '../formats/offer-html'
import { inLanguage } from '../languages'
import { costsOf } from './costs'
import { type EstimateDocument, type Option, optionOf } from './document'
import { guessUsd } from './guess'
import { priced } from './priced'
import { lengthText, promiseIn, promiseOf } from './promise'
import { usualTerms } from './terms'
import { basisText, changeLine, changeText, headOf, lastsText, unsettledText } from './words'

const tax = { place: 'Alder county', fraction: 0.06, equipment: true, material: true, labour: false }
const costs = costsOf(alderHollow, { prices: pricesFor([alderHollow]), minutes: [], rates: usualTerms })
const money = (low: number, high = low) => ({ low, high })
const option = (facts: Partial<Option> = {}): Option => ({
  ...optionOf(
    { id: 'a', name: 'A' },
    { basis: 'wiring plan', unpriced: [] },
    priced([], usualTerms, ''),
    promiseOf(alderHollow),
  ),
  total: money(100_000),
  ...facts,
})
const document = (facts: Partial<EstimateDocument> = {}): EstimateDocument => ({
  format: 1,
  number: 'E-7',
  version: 1,
  firm: 'Firm & Co',
  title: 'A <house>',
  place: '',
  on: '2026-11-29',
  validUntil: '2026-12-29',
  intro: 'One.\nTwo.',
  exclusions: '',
  payment: '',
  closing: '',
  options: [option()],
  ...facts,
})
const was = { version: 1, option: 'Small', acceptedOn: '2026-11-01', was: money(90_000), lines: [] }
const standing = {
  state: 'open' as const,
  acceptance: null,
  questions: [],
  sha256: 'f'.repeat(64),
  token: 't',
}

test('what a price rests on, and what is still open, is said to whoever pays', () => {
  expect(basisText(option())).toBe('From the wiring plan of your house.')
  expect(basisText(option({ unpriced: ['a', 'b'] }))).toMatch(/2 parts at the usual range/)
  expect(basisText(option({ basis: 'method’s ranges' }))).toMatch(/nobody has seen your panel yet/)
  expect(unsettledText(option())).toBeNull()
  expect(unsettledText(option({ unsettled: 2 }))).toBe(
    '2 points of our own checks must be settled before this is built; the price may change with them.',
  )
})

test.each([
  [{ chance: 0.95, hours: 36, middleH: 36 }, 'all 36 h in 95 of 100 outages'],
  [{ chance: 0.999, hours: 36, middleH: 36 }, 'all 36 h in more than 99 of 100 outages'],
  [{ chance: 0, hours: 36, middleH: 18.2 }, 'about 18 h; all 36 h in 0 of 100 outages'],
  [{ chance: null, hours: 36, middleH: null }, 'cannot be said yet'],
])('beside each other: %j', (facts, said) => {
  const o = option()
  expect(lastsText({ promise: { ...o.promise, ...facts } })).toBe(said)
})

test('a change order says what it changes, dearer, cheaper or neither; an estimate says nothing of the kind', () => {
  expect(changeText(document())).toBeNull()
  const change = (now: number) =>
    changeText(document({ changeOf: was, options: [option({ total: money(now) })] }))
  expect(change(100_000)).toBe('Changes “Small”, accepted on 2026-11-01 at $900.00: +$100.00, to $1,000.00.')
  expect(change(80_000)).toMatch(/−\$100\.00, to \$800\.00/)
  expect(change(90_000)).toMatch(/the price stays/)
  expect(changeLine({ name: 'x', was: null, now: money(500) })).toBe('new: $5.00')
  expect(changeLine({ name: 'x', was: money(500), now: null })).toBe('no longer: −$5.00')
  expect(changeLine({ name: 'x', was: money(500), now: money(700) })).toBe('$5.00 before, $7.00 now: +$2.00')
  expect([headOf(document()), headOf(document({ version: 3, changeOf: was }))]).toEqual([
    'Estimate E-7',
    'Change order E-7, version 3',
  ])
})

test('a guess is never nothing, for any kind of part, by the piece or the foot', () => {
  for (const kind of [
    'device',
    'breaker',
    'wire',
    'raceway',
    'fitting',
    'connector',
    'box',
    'cord',
    'label',
    'sundry',
  ] as const)
    for (const unit of ['each', 'ft'] as const) {
      const { low, high } = guessUsd(kind, unit, 3)
      expect(low > 0 && high > low).toBe(true)
    }
})

test.each([
  ['newer', /newer version of this estimate/],
  ['expired', /valid until 2026-12-29/],
  ['withdrawn', /has withdrawn this estimate/],
] as const)('a page that is %s says so, and cannot be accepted', (state, words) => {
  const page = offerHtml(document(), { ...standing, state })
  expect(page).toMatch(words)
  expect(page).not.toMatch(/id="accept"/)
})

test('the page names house and firm as text, not as markup; its paragraphs are paragraphs', () => {
  const page = offerHtml(document(), standing)
  expect(page).toContain('A &lt;house&gt;')
  expect(page).toContain('Firm &amp; Co')
  expect(page).toContain('<p>One.</p><p>Two.</p>')
  expect(page).toMatch(/id="accept"[\s\S]*checked/)
})

test('an acceptance stands on the page with its name, drawn or typed', () => {
  const acceptance = {
    format: 1 as const,
    number: 'E-7',
    version: 1,
    documentSha256: 'f'.repeat(64),
    option: { id: 'a', name: 'A', total: money(100_000) },
    name: 'Kim "K" Lee',
    at: '2026-11-30T10:00:00Z',
    signature: [
      [
        [0, 0],
        [300, 100],
      ] as [number, number][],
    ],
  }
  const page = offerHtml(document(), { ...standing, state: 'accepted', acceptance })
  expect(page).toContain('aria-label="Signature of Kim &quot;K&quot; Lee"')
  expect(page).toContain('M0.0 0.0 L300.0 100.0')
  expect(page).toContain('/api/offer/t/pdf?signed')
  expect(
    offerHtml(document(), { ...standing, state: 'accepted', acceptance: { ...acceptance, typed: true } }),
  ).toContain('Signed with the typed name')
})

test('an estimate in Spanish is Spanish throughout, on the page and in what it rests on; the promise is the same promise', () => {
  const english = promiseOf(alderHollow)
  const promise = promiseIn('es', alderHollow, english)
  expect({ ...promise, sentence: '', cautions: [] }).toEqual({ ...english, sentence: '', cautions: [] })
  expect(promise.sentence).toMatch(/^Mantiene con corriente .* apagones como este en invierno/)
  const spanish = (facts: Partial<Option> = {}): Option => ({
    ...optionOf(
      { id: 'a', name: 'Propuesta' },
      { basis: 'wiring plan', unpriced: ['x'] },
      priced(costs.costs, { ...usualTerms, taxes: [tax] }, tax.place),
      promise,
      1,
      'es',
    ),
    total: money(100_000),
    ...facts,
  })
  const page = offerHtml(document({ language: 'es', options: [spanish()] }), standing)
  expect(page).toMatch(/^<!doctype html><html lang="es">/)
  for (const said of [
    'Presupuesto E-7',
    'Qué incluye el precio',
    'Mano de obra',
    'Permiso e inspección',
    'Impuesto, Alder county',
    'Queda 1 punto de nuestra revisión',
    'Firme con el dedo o el ratón',
    '1 pieza a su precio habitual',
  ])
    expect(page).toContain(said)
  const words = page.replace(/<(style|script)[\s\S]*?<\/\1>/g, '').replace(/<[^>]*>/g, ' ')
  expect(words).not.toMatch(/Estimate|Permit|Work |price|Sign |Together|Tax,|Accept |Valid/)
  const closed = offerHtml(document({ language: 'es' }), { ...standing, state: 'withdrawn' })
  expect(closed).toContain('Firm &amp; Co retiró este presupuesto')
  const changed = document({ language: 'es', changeOf: was, options: [spanish({ total: money(80_000) })] })
  expect(changeText(changed)).toMatch(/^Cambia “Small”, aceptada el 2026-11-01 por \$900\.00: −\$100\.00/)
  expect(headOf(changed)).toBe('Orden de cambio E-7')
})

test.each([
  [5, 'for 5 h', 'durante 5 h'],
  [12, 'through the night (12 h)', 'toda la noche (12 h)'],
  [24, 'for a day and a night (24 h)', 'un día y una noche (24 h)'],
  [36, 'for a day and a half (36 h)', 'un día y medio (36 h)'],
  [48, 'for 2 days (48 h)', '2 días (48 h)'],
  [60, 'for 2 and a half days (60 h)', '2 días y medio (60 h)'],
  [50, 'for 50 h', 'durante 50 h'],
])('%f h are said as people say them', (hours, en, es) => {
  expect([lengthText(hours), lengthText(hours, inLanguage('es'))]).toEqual([en, es])
})

test('an offer says what its prices are in, where that is not US dollars, in its own language', () => {
  expect(offerHtml(document(), standing)).not.toMatch(/dollars/)
  expect(offerHtml(document({ currency: 'CAD' }), standing)).toMatch(/All prices are in Canadian dollars\./)
  expect(offerHtml(document({ currency: 'MXN', language: 'es' }), standing)).toMatch(/pesos mexicanos/)
})
