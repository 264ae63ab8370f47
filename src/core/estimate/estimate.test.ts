import * as fc from 'fast-check'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { ospreyPoint } from '@/server/seeds/jobs/osprey-point'
import { firmMinutes, pricesFor } from '@/server/seeds/prices'
import { understood, wantOf } from '../ask/want'
import { newJob } from '../job/new'
import { library } from '../loads/library'
import { acceptingSchema } from './acceptance'
import type { Cost } from './cost'
import { costsOf, type Pricing } from './costs'
import { changesBetween, documentText, isFirm, optionOf } from './document'
import { added, centsOf, difference, moneyText, shareOf } from './money'
import { forCustomer, priced } from './priced'
import { lengthText, promiseOf } from './promise'
import { signaturePath } from './signature'
import { type Terms, termsSchema, usualTerms } from './terms'

const prices = pricesFor([alderHollow])
const pricing: Pricing = { prices, minutes: firmMinutes, rates: usualTerms }
const cost = (kind: Cost['kind'], usd: number, more = usd): Cost => ({
  key: `${kind} ${usd}`,
  kind,
  name: `Some ${kind}`,
  amount: '',
  cents: { low: centsOf(usd), high: centsOf(more) },
  from: 'entered',
})
const terms = (facts: Partial<Terms>): Terms => ({
  ...usualTerms,
  markUp: { equipment: 0.2, material: 0.3, labour: 0 },
  permitUsd: 0,
  contingencyFraction: 0,
  taxes: [{ place: 'Coast county', fraction: 0.0725, equipment: true, material: true, labour: false }],
  ...facts,
})

test.each([
  [0.005, 1],
  [1.005, 101],
  [2.675, 268],
  [0.0049, 0],
  [1234.5, 123_450],
])('%d dollars are %i cents: half a cent goes up', (usd, cents) => {
  expect(centsOf(usd)).toBe(cents)
})

test('money reads as a figure, a range, a difference', () => {
  expect(moneyText({ low: 123_450, high: 123_450 })).toBe('$1,234.50')
  expect(moneyText({ low: 100, high: 250 })).toBe('$1.00 to $2.50')
  expect([difference(-100), difference(5)]).toEqual(['−$1.00', '+$0.05'])
})

test('mark-up and tax, worked by hand', () => {
  // 1,000.00 × 1.2 = 1,200.00; 199.99 × 0.3 = 59.997 → 60.00, so 259.99; 8 h of 95 = 760.00, no mark-up
  const costs = [cost('equipment', 1000), cost('material', 199.99), cost('labour', 760)]
  const { lines, subtotal, tax, total } = priced(costs, terms({}), 'Coast county')
  expect(lines.map(l => l.cents.low)).toEqual([120_000, 25_999, 76_000])
  expect(subtotal.low).toBe(221_999)
  // tax of 1,459.99 at 7.25 % = 105.849… → 105.85
  expect(tax).toMatchObject({ name: 'Tax, Coast county', cents: { low: 10_585, high: 10_585 } })
  expect(total.low).toBe(232_584)
})

test('contingency is of equipment, material and labour, and its part of what is taxed is taxed; the permit is neither', () => {
  const costs = [cost('equipment', 1000), cost('labour', 500)]
  const { lines, tax, total } = priced(
    costs,
    terms({ permitUsd: 150, contingencyFraction: 0.1 }),
    'Coast county',
  )
  // 1,200 + 500 = 1,700; a tenth is 170. Taxed: 1,200 + 120 = 1,320 at 7.25 % = 95.70
  expect(lines.map(l => [l.kind, l.cents.low])).toEqual([
    ['equipment', 120_000],
    ['labour', 50_000],
    ['permit', 15_000],
    ['contingency', 17_000],
  ])
  expect([tax?.cents.low, total.low]).toEqual([9570, 211_570])
})

test('a place without a tax has none; nothing costs nothing', () => {
  expect(priced([cost('equipment', 10)], terms({}), 'elsewhere').tax).toBeNull()
  expect(priced([], terms({ permitUsd: 150 }), 'Coast county').total).toEqual({ low: 0, high: 0 })
})

const anyCosts = fc.array(
  fc.record({
    kind: fc.constantFrom('equipment' as const, 'material' as const, 'labour' as const),
    low: fc.integer({ min: 0, max: 5_000_000 }),
    more: fc.integer({ min: 0, max: 1_000_000 }),
  }),
  { maxLength: 30 },
)
const anyTerms = fc.record({
  up: fc.double({ min: 0, max: 3, noNaN: true }),
  tax: fc.double({ min: 0, max: 0.3, noNaN: true }),
  con: fc.double({ min: 0, max: 0.5, noNaN: true }),
  permitUsd: fc.integer({ min: 0, max: 900 }),
})

test('whatever the figures, the lines add up to the cent, and what the customer reads adds up to the same', () => {
  fc.assert(
    fc.property(anyCosts, anyTerms, (all, { up, tax, con, permitUsd }) => {
      const costs = all.map(
        ({ kind, low, more }, n): Cost => ({
          ...cost(kind, 0),
          key: String(n),
          cents: { low, high: low + more },
        }),
      )
      const p = priced(
        costs,
        terms({
          markUp: { equipment: up, material: up, labour: up },
          permitUsd,
          contingencyFraction: con,
          taxes: [{ place: 'here', fraction: tax, equipment: true, material: true, labour: true }],
        }),
        'here',
      )
      const sum = added([...p.lines.map(l => l.cents), ...(p.tax ? [p.tax.cents] : [])])
      expect(sum).toEqual(p.total)
      expect(added([...forCustomer(p).map(l => l.cents), ...(p.tax ? [p.tax.cents] : [])])).toEqual(p.total)
      expect(p.total.low).toBeLessThanOrEqual(p.total.high)
      for (const c of [p.total.low, p.total.high, p.subtotal.low]) expect(Number.isInteger(c)).toBe(true)
    }),
  )
})

test('terms refuse what cannot be, and say where', () => {
  const why = (facts: object) =>
    termsSchema
      .safeParse({ ...usualTerms, ...facts })
      .error?.issues.map(i => `${i.path.join('.')} ${i.message}`)
  const tax = { place: 'Here', fraction: 0.05, equipment: true, material: true, labour: false }
  expect(why({ taxes: [{ ...tax, fraction: 1.2 }] })?.join()).toMatch(/taxes\.0\.fraction .*0 to 0\.3/)
  expect(why({ taxes: [tax, { ...tax, place: 'here' }] })).toEqual(['taxes.1.place stands there twice'])
  expect(why({ validDays: 0 })).toEqual(['validDays must be 1 or more'])
  expect(why({ labourUsdPerHour: 0 })?.[0]).toMatch(/labourUsdPerHour/)
  expect(why({})).toBeUndefined()
})

test('a planned job is priced by its parts and hours; every part is in, none at nothing', () => {
  const { basis, costs, unpriced } = costsOf(alderHollow, pricing)
  expect([basis, unpriced]).toEqual(['wiring plan', []])
  expect(costs.every(c => c.cents.low > 0 && c.cents.low === c.cents.high)).toBe(true)
  expect(costs.find(c => c.name === 'Sluice 22')).toMatchObject({ kind: 'equipment' })
  expect(isFirm(priced(costs, usualTerms, ''))).toBe(true)
})

test('a part without a price is named, and stands in as a range', () => {
  const { costs, unpriced } = costsOf(alderHollow, { ...pricing, prices: [] })
  expect(unpriced.length).toBeGreaterThan(5)
  const one = costs.find(c => c.name === unpriced[0])
  expect(one?.from).toBe('range of the kind')
  expect(one && one.cents.low > 0 && one.cents.high > one.cents.low).toBe(true)
})

const making = {
  library: library.map(typical => ({ typical, firms: false })),
  season: 'winter' as const,
  newId: (
    n => () =>
      `n${++n}`
  )(0),
}
const called = () => {
  const job = newJob({ title: 'Call', place: '', spaces: 30, mainA: 200 })
  return {
    ...job,
    brief: {
      season: 'winter' as const,
      wants: understood('refrigerator, oxygen, internet', library).map(u => wantOf(u, making)),
    },
    source: ospreyPoint.source,
    hookup: { method: 'interlocked-inlet' as const, bondingPlug: false },
    outage: { ...job.outage, hours: 12 },
  }
}

test('before any panel is known the method’s ranges stand in, and it says so', () => {
  const { basis, costs } = costsOf(called(), pricing)
  expect(basis).toBe('method’s ranges')
  expect(costs.some(c => c.name === 'What nobody has seen of the house' && c.cents.low === 0)).toBe(true)
  expect(isFirm(priced(costs, usualTerms, ''))).toBe(false)
})

test('what an option keeps alive is said in plain words, with what it does not feed, and a second way where somebody’s breath hangs on it', () => {
  const day = promiseOf(alderHollow)
  expect(day.sentence).toMatch(
    /^Keeps .* alive for 18 h or more in half of 200 simulated outages like this in winter at -12 °C .*; for all 36 h in none\.$/,
  )
  expect(promiseOf(alderHollow)).toEqual(day)
  const call = promiseOf(called())
  expect(call.keeps).toEqual(['Refrigerator', 'Oxygen concentrator', 'Internet'])
  expect(call.sentence).toMatch(/alive for 1\.5 h or more in half of .*; for all 12 h in none\.$/)
  expect(call.cautions.join()).toMatch(/second way/)
  const { source: _, ...bare } = called()
  expect(promiseOf(bare)).toMatchObject({
    chance: null,
    sentence: expect.stringMatching(/^How long it lasts cannot be said yet/),
  })
})

test.each([
  [4, 'for 4 h'],
  [10, 'through the night (10 h)'],
  [24, 'for a day and a night (24 h)'],
  [36, 'for a day and a half (36 h)'],
  [72, 'for 3 days (72 h)'],
  [60, 'for 2 and a half days (60 h)'],
  [30, 'for 30 h'],
])('%d h read as people say it', (hours, said) => {
  expect(lengthText(hours)).toBe(said)
})

test('a change order names what is dearer, new and gone, and nothing that stayed', () => {
  const price = (costs: Cost[]) => {
    const { costs: _, ...facts } = { costs, basis: 'wiring plan' as const, unpriced: [] }
    return optionOf(
      { id: 'a', name: 'A' },
      facts,
      priced(costs, terms({ taxes: [] }), ''),
      promiseOf(called()),
    )
  }
  const equipment = cost('equipment', 1000)
  const was = price([
    equipment,
    cost('labour', 100),
    { ...cost('equipment', 50), key: 'old', name: 'Old thing' },
  ])
  const now = price([
    equipment,
    cost('labour', 200),
    { ...cost('equipment', 80), key: 'new', name: 'New thing' },
  ])
  expect(changesBetween(was, now).map(c => [c.name, c.was?.low ?? null, c.now?.low ?? null])).toEqual([
    ['Old thing', 6000, null],
    ['Work', 10_000, 20_000],
    ['New thing', null, 9600],
  ])
  expect(changesBetween(was, was)).toEqual([])
  expect(now.total.low - was.total.low).toBe(
    changesBetween(was, now).reduce((s, c) => s + (c.now?.low ?? 0) - (c.was?.low ?? 0), 0),
  )
})

test('the bytes of a document are the same for the same document', () => {
  const o = optionOf(
    { id: 'a', name: 'A' },
    { basis: 'wiring plan', unpriced: [] },
    priced([cost('equipment', 10)], usualTerms, ''),
    promiseOf(called()),
  )
  const make = () =>
    documentText({
      format: 1,
      number: 'E-1',
      version: 1,
      firm: 'F',
      title: 'T',
      place: '',
      on: '2026-11-29',
      validUntil: '2026-12-29',
      intro: '',
      exclusions: '',
      payment: '',
      closing: '',
      options: [o],
    })
  expect(make()).toBe(make())
})

test('a dot is no signature; a line is, and becomes a path', () => {
  const say = (signature: unknown, more = {}) =>
    acceptingSchema.safeParse({ option: 'a', name: 'Somebody', signature, ...more })
  const why = (s: unknown) => say(s).error?.issues[0]?.message
  expect(say([], { typed: true }).success).toBe(true)
  expect(why([[[500, 500]]])).toMatch(/too little to be one/)
  expect(why([])).toMatch(/too little/)
  expect(
    why([
      [
        [0, 0],
        [99_999, 0],
      ],
    ]),
  ).toMatch(/on the field/)
  const drawn = say([
    [
      [0, 0],
      [200, 100],
    ],
    [
      [300, 0],
      [320, 40],
    ],
  ])
  expect(signaturePath(drawn.data?.signature ?? [])).toBe('M0.0 0.0 L200.0 100.0 M300.0 0.0 L320.0 40.0')
  expect(shareOf(1, 0.5)).toBe(1)
})
