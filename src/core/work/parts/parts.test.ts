import * as fc from 'fast-check'
import { circuit, job } from '../../job/fixtures/jobs'
import { partsOfJob } from '.'
import { choicesOf } from './alternatives'
import { isKnownPart } from './keys'
import { type PartLine, summed } from './line'
import { cheapest, orderOf } from './order'
import { type Price, pricesCsv, readPrices } from './prices'
import { usualMinutes, workOfJob } from './tasks'

/** Parts, orders, prices and hours by themselves; the demo jobs’ lists are in server/seeds. */

const price = (
  part: string,
  quantity: number,
  priceUsd: number | null,
  more: Partial<Price> = {},
): Price => ({
  part,
  name: part,
  quantity,
  priceUsd,
  supplier: '',
  substitutes: [],
  on: '2026-01-01',
  ...more,
})
const asked = (key: string, quantity: number, kind: PartLine['kind'] = 'fitting') =>
  summed([{ key, kind, name: key, quantity, why: key, at: { view: 'plan' } }])
const anInlet = (facts = {}) =>
  job([circuit(1)], {
    hookup: {
      method: 'interlocked-inlet',
      bondingPlug: false,
      inlet: { kind: 'inlet', id: 'i', name: 'Inlet', version: 1, type: 'L14-30', ratingA: 30, price: 60 },
      backfed: { breakerA: 30, heldDown: true, space: 2 },
    },
    ...facts,
  })

test('put-ups: never less than needed, never dearer than any other mix of them', () => {
  const sizes = fc.array(
    fc.record({ quantity: fc.integer({ min: 1, max: 12 }), usd: fc.integer({ min: 1, max: 40 }) }),
    { minLength: 1, maxLength: 3 },
  )
  fc.assert(
    fc.property(sizes, fc.integer({ min: 1, max: 40 }), (list, need) => {
      const book = list.map(p => price('x', p.quantity, p.usd))
      const bought = cheapest(need, book)
      expect(bought.reduce((sum, b) => sum + b.count * b.quantity, 0)).toBeGreaterThanOrEqual(need)
      // the least cost of at least so much, by going up one at a time
      const least = [0]
      for (let n = 1; n <= need; n++)
        least[n] = Math.min(...list.map(p => p.usd + (least[Math.max(0, n - p.quantity)] ?? 0)))
      expect(bought.reduce((sum, b) => sum + b.count * b.priceUsd, 0)).toBeCloseTo(least[need] ?? 0, 9)
      expect(cheapest(need, [...book].reverse())).toEqual(bought)
    }),
  )
})

test('a roll or by the foot: what is cheaper; nothing where no price is known, and nothing for nothing', () => {
  const book = [price('w', 1, 0.9), price('w', 500, 210), price('w', 250, null)]
  expect(cheapest(16, book)).toMatchObject([{ quantity: 1, count: 16 }])
  expect(cheapest(480, book)).toMatchObject([{ quantity: 500, count: 1 }])
  expect(cheapest(520, book)).toMatchObject([
    { quantity: 500, count: 1 },
    { quantity: 1, count: 20 },
  ])
  expect([cheapest(5, [price('w', 1, null)]), cheapest(0, book)]).toEqual([[], []])
})

test('the order of two jobs is the sum of theirs, less what is in stock; prices in any order', () => {
  const line = fc.record({
    key: fc.constantFrom('a', 'b', 'c'),
    quantity: fc.integer({ min: 1, max: 30 }),
  })
  const list = fc.array(line, { maxLength: 6 }).map(ls =>
    summed(
      ls
        .flatMap(l => asked(l.key, l.quantity))
        .map(l => ({
          ...l,
          why: 'x',
          at: { view: 'plan' as const },
          unit: undefined,
          catalogueUsd: undefined,
        })),
    ),
  )
  fc.assert(
    fc.property(
      list,
      list,
      fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.integer({ min: 0, max: 40 })),
      (one, two, stock) => {
        const book = [price('a', 1, 2), price('a', 10, 15), price('b', 5, 3)]
        const both = orderOf([one, two], book, stock)
        for (const { key, needed, fromStock, toOrder } of both.lines) {
          const of = (l: PartLine[]) => l.find(p => p.key === key)?.needed ?? 0
          expect(needed).toBe(of(one) + of(two))
          expect(fromStock + toOrder).toBe(needed)
          expect(toOrder).toBe(Math.max(0, needed - (stock[key] ?? 0)))
        }
        expect(orderOf([two, one], [...book].reverse(), stock).knownUsd).toBeCloseTo(both.knownUsd, 9)
      },
    ),
  )
})

test('a part without a price is counted as such; the catalogue’s own price counts where the book has none', () => {
  const order = orderOf(
    [[...asked('a', 2), ...partsOfJob(anInlet()).filter(p => p.key === 'i')]],
    [price('a', 1, null)],
  )
  expect(order).toMatchObject({ unpriced: 1, knownUsd: 60, oldestOn: null })
  const swap = orderOf([asked('a', 2)], [price('a', 1, 3, { substitutes: ['b'] })], { b: 7 })
  expect(swap.lines[0]?.substitutes).toEqual([{ key: 'b', inStock: 7 }])
})

test('a price book goes out as CSV and comes back the same', () => {
  const book = [
    price('wire', 500, 210.5, { supplier: '=Yard, east', substitutes: ['x', 'y'] }),
    price('b', 1, null),
  ]
  expect(readPrices(pricesCsv(book), '2026-06-01')).toEqual({ prices: book, faults: [], doubled: 0 })
})

test('what a book cannot mean is told by row and column, and the rest is taken', () => {
  const read = readPrices(
    [
      'Part;Quantity;Price;Date;Name',
      'good;1;2.50;2026-01-01;fine',
      'zero;1;0;2026-01-01;',
      'ask;1;ask;2026-01-01;',
      'huge;1;1e9;2026-01-01;',
      'large;1;1000000000;2026-01-01;',
      'euro;1;€ 12;2026-01-01;',
      'sum;1;=A1*2;2026-01-01;',
      'none;;3;2026-01-01;',
      'soon;1;3;2031-01-01;',
      'when;1;3;1/2/26;',
      ';1;3;2026-01-01;',
      'good;1;$ 2.75;2026-02-01;newer',
    ].join('\n'),
    '2026-06-01',
  )
  expect(read.prices.map(p => [p.part, p.priceUsd])).toEqual([
    ['good', 2.75],
    ['ask', null],
  ])
  expect(read.doubled).toBe(1)
  expect(read.faults.map(f => [f.row, f.column])).toEqual([
    [3, 'price'],
    [5, 'price'],
    [6, 'price'],
    [7, 'price'],
    [8, 'price'],
    [9, 'quantity'],
    [10, 'date'],
    [11, 'date'],
    [12, 'part'],
  ])
  expect(readPrices('a,b\n1,2', '2026-06-01').faults[0]).toMatchObject({
    row: 1,
    message: expect.stringMatching(/^is missing: .* the file’s are a, b/),
  })
})

test('20,000 prices are read, one more is refused', () => {
  const rows = (n: number) =>
    `part,quantity,price,date\n${Array.from({ length: n }, (_, i) => `p${i},1,2,2026-01-01`).join('\n')}`
  expect(readPrices(rows(20_000), '2026-06-01').prices).toHaveLength(20_000)
  expect(readPrices(rows(20_001), '2026-06-01').faults[0]?.message).toMatch(
    /at most 20,000 prices, this has 20,001/,
  )
})

test('an inlet’s parts: its wire by colour with waste, raceway with connectors and straps, breaker with its hold-down', () => {
  const parts = new Map(partsOfJob(anInlet()).map(p => [p.key, p]))
  // 10 ft and 3 ft at each end, and a tenth for waste
  expect(parts.get('wire-cu-10-red')).toMatchObject({ quantity: 16, unit: 'ft' })
  expect(parts.get('wire-cu-10-red')?.needed).toBeCloseTo(17.6, 9)
  expect([parts.get('raceway-EMT-1-2')?.quantity, parts.get('connector-EMT-1-2')?.quantity]).toEqual([10, 2])
  expect(parts.get('strap-EMT-1-2')?.quantity).toBe(2)
  for (const key of ['i', 'hold-down', 'notice', 'wire-markers', 'directory-card'])
    expect([key, parts.has(key)]).toEqual([key, true])
  expect([...parts.keys()].filter(k => k.startsWith('breaker-2p-30'))).toHaveLength(1)
})

test('what a person decides of a way shows in what is bought: pull points, elbows, bushings, fire stop, raintight', () => {
  const keys = (facts: object, wires = {}) =>
    partsOfJob(anInlet({ wiring: { routes: [{ id: 'inlet', ...facts }], ...wires } })).map(p => p.key)
  expect(keys({ bendsDeg: 720 })).toContain('body-EMT-1-2')
  expect(keys({ conduit: 'PVC40', bendsDeg: 180 })).toContain('elbow-PVC40-1-2')
  expect(keys({ wet: true, through: 'fire-rated' })).toEqual(
    expect.arrayContaining(['connector-raintight-EMT-1-2', 'fire-stop']),
  )
  const thick = keys({}, { wires: [{ route: 'inlet', mark: 'IN N', size: '4', material: 'al' }] })
  expect(thick).toEqual(expect.arrayContaining(['wire-al-4-black', 'tape-white', 'anti-oxidant']))
  expect(thick.some(k => k.startsWith('bushing-'))).toBe(true)
})

test('each habit’s other ways with what they cost more; unknown where a part that differs has no price', () => {
  const j = anInlet()
  const everything = partsOfJob({ ...j, wiring: { habits: { oneSizeUp: true } } }).concat(partsOfJob(j))
  const book = [...new Set(everything.map(p => p.key))].map(key => price(key, 1, key.includes('-8-') ? 3 : 1))
  const thickness = choicesOf(j, book).find(c => c.habit === 'oneSizeUp')
  expect(thickness?.alternatives.map(a => a.chosen)).toEqual([true, false])
  expect(thickness?.alternatives[1]?.moreUsd).toBeGreaterThan(0)
  const raceway = choicesOf(j, book).find(c => c.habit === 'raceway')
  expect(raceway?.alternatives.find(a => a.facts.raceway === 'RMC')?.moreUsd).toBeNull()
})

test('hours by the firm’s minutes: the first and each more; tools, heavy lifts, and what stays live', () => {
  const work = workOfJob(anInlet())
  expect(work.tasks.find(t => t.work === 'pull')).toMatchObject({ count: 4, minutes: 6 + 3 * 5 })
  expect(work.hours * 60).toBeCloseTo(
    work.tasks.reduce((sum, t) => sum + t.minutes, 0),
    9,
  )
  expect(work.protection.join()).toMatch(/stays live/)
  expect(work.tools.map(t => t.name)).toEqual(
    expect.arrayContaining(['torque screwdriver', 'bender for trade size 1/2']),
  )
  const own = usualMinutes.map(m => (m.work === 'pull' ? { ...m, firstMin: 100, eachMin: 0 } : m))
  expect(workOfJob(anInlet(), own).hours - work.hours).toBeCloseTo((100 - 21) / 60, 9)
  const nothing = job([circuit(1)], { hookup: { method: 'undecided', bondingPlug: false } })
  expect(workOfJob(nothing)).toMatchObject({ tasks: [], hours: 0, protection: [] })
})

test('the key of every part that a list asks for is known again, short enough for the stock, and others are not', () => {
  const devices = new Set(['i', 'test'])
  for (const { key } of partsOfJob(
    anInlet({ wiring: { routes: [{ id: 'inlet', bendsDeg: 720, wet: true }] } }),
  )) {
    expect([key, isKnownPart(key, devices)]).toEqual([key, true])
    expect(key.length).toBeLessThanOrEqual(60)
  }
  expect(['elbow grease', 'wire', 'i2', ''].map(k => isKnownPart(k, devices))).toEqual([
    false,
    false,
    false,
    false,
  ])
  expect(isKnownPart('i/expansion', devices)).toBe(true)
})

test('growth buys a 50 A inlet once, with an adapter for today’s plug, and says what the same would cost later', () => {
  const j = anInlet()
  const grown = partsOfJob({ ...j, wiring: { habits: { growth: true } } })
  const keys = grown.map(p => p.key)
  expect(keys).toEqual(expect.arrayContaining(['inlet-50', 'adapter-l14-30-50', 'wire-cu-6-red']))
  expect(keys).not.toContain('i')
  const book = [...new Set([...grown, ...partsOfJob(j)].map(p => p.key))].map(key => price(key, 1, 2))
  const growth = choicesOf(j, book).find(c => c.habit === 'growth')?.alternatives[1]
  // the inlet, its adapter, 17.6 ft of four wires, raceway, two connectors and straps at $2 each: about what the run takes
  expect(growth?.laterUsd).toBeGreaterThan(100)
  expect(growth?.laterUsd).toBeGreaterThan(growth?.moreUsd ?? 0)
})
