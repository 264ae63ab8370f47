import fc from 'fast-check'
import { capacityAsRead, loopAsRead, readOf } from '../assess/measured'
import { job } from '../job/fixtures/jobs'
import type { TestEntry } from '../job/test-log'
import { sharedOut, wattsExpected } from '../loads/as-read'
import { ageingOf, type CapacityPoint } from './ageing'
import { readingsIn } from './file'
import { testList } from './index'
import { discharged } from './series'
import { isSettled } from './stand'
import type { TestUnit } from './tests'
import { typedRead } from './typed'

type ReadEntry = Extract<TestEntry, { kind: 'read' }>
const entry = (test: string, figures: Record<string, number | string>, facts: Partial<ReadEntry> = {}) => ({
  kind: 'read' as const,
  id: `${test} ${JSON.stringify(figures)}`,
  test,
  by: 'Ann',
  at: '2026-03-01T09:00:00Z',
  on: '2026-03-01',
  readings: Object.entries(figures).map(([key, value]) => ({ key, value })),
  basis: 'b',
  judged: 'passed' as const,
  ...facts,
})

describe('watts of several that ran', () => {
  const loads = fc.uniqueArray(
    fc.record({
      id: fc.string({ minLength: 1, maxLength: 4 }),
      name: fc.constant('a load'),
      W: fc.integer({ min: 0, max: 5000 }),
      idleW: fc.integer({ min: 0, max: 50 }),
    }),
    { selector: l => l.id, minLength: 1, maxLength: 8 },
  )
  test('what is shared out comes to the reading, less what idles', () => {
    fc.assert(
      fc.property(loads, fc.integer({ min: 0, max: 9000 }), fc.integer({ min: 1, max: 8 }), (all, W, n) => {
        const ran = all.slice(0, n).map(l => l.id)
        const idle = all.slice(n).reduce((sum, l) => sum + l.idleW, 0)
        const shares = sharedOut(W, all, ran)
        expect(shares.map(s => s.id)).toEqual(ran)
        expect(shares.reduce((sum, s) => sum + s.W, 0)).toBeCloseTo(Math.max(0, W - idle), 6)
        for (const { W: share } of shares) expect(share).toBeGreaterThanOrEqual(0)
      }),
    )
  })
  test('a reading as the plan has it agrees, and gives the plan back', () => {
    fc.assert(
      fc.property(loads, all => {
        const { W, from, to } = wattsExpected(all)
        expect(from <= W && W <= to).toBe(true)
        if (W > 0)
          for (const [i, s] of sharedOut(W, all).entries()) expect(s.W).toBeCloseTo(all[i]?.W ?? 0, 6)
      }),
    )
  })
  test('nothing that ran: nothing to share, and only what idles is expected', () => {
    const one = [{ id: 'a', name: 'A', W: 400, idleW: 3 }]
    expect(sharedOut(400, one, [])).toEqual([])
    expect(wattsExpected(one, [])).toEqual({ W: 3, from: 0, to: 13 })
  })
})

describe('what a reading comes to', () => {
  test.each<[string, Record<string, number | string>, number | null]>([
    ['three volts at ten amperes', { 'H–N': 120, loaded: 117, amps: 10 }, 0.3],
    ['between the hots', { 'H–H': 240, loaded: 234, amps: 20 }, 0.3],
    ['too little current to tell', { 'H–N': 120, loaded: 118, amps: 0.4 }, null],
    ['less than a volt, which a meter does not tell', { 'H–N': 120, loaded: 119.5, amps: 10 }, null],
    ['volts that rise under load', { 'H–N': 118, loaded: 120, amps: 10 }, null],
    ['nothing read under load', { 'H–N': 120, amps: 10 }, null],
    ['a meter out of its range', { 'H–N': 120, loaded: 'OL', amps: 10 }, null],
  ])('ohms of the way: %s', (_, figures, ohms) => {
    const got = loopAsRead(entry('far:c1', figures))
    if (ohms === null) expect(got).toBeNull()
    else expect(got?.ohms).toBeCloseTo(ohms, 9)
  })

  const [unit] = job([]).source?.units ?? []
  const whole = { loadW: 800, from: 100, to: 0, 'Wh out': 1500 }
  test.each<[string, Record<string, number | string>]>([
    ['no load', { ...whole, loadW: 0 }],
    ['ends fuller than it began', { ...whole, from: 20, to: 60 }],
    ['ends as it began', { ...whole, from: 50, to: 50 }],
    ['no watt-hours', { loadW: 800, from: 100, to: 0 }],
    ['no state of charge', { loadW: 800, 'Wh out': 1500 }],
  ])('no whole capacity test: %s', (_, figures) => {
    expect(unit && capacityAsRead(entry('capacity:u1', figures), unit)).toBeNull()
  })
  test('half of a charge is judged as half: the same battery either way', () => {
    const of = (figures: Record<string, number>) =>
      unit ? (capacityAsRead(entry('capacity:u1', figures), unit)?.fraction ?? 0) : 0
    expect(of({ ...whole, to: 50, 'Wh out': 750 })).toBeCloseTo(of(whole), 6)
  })
  test('of a kind, by what it is of; the last that was kept', () => {
    const log = [
      entry('watts:c1', { W: 1 }),
      entry('watts:c1', { W: 2 }),
      entry('watts:c2', { W: 3 }),
      entry('wattsful', { W: 4 }),
      entry('far:c1', { amps: 5 }),
    ]
    expect([...readOf({ tests: { log } }, 'watts')].map(([id, e]) => [id, e.readings[0]?.value])).toEqual([
      ['c1', 2],
      ['c2', 3],
    ])
    expect(readOf({}, 'watts').size).toBe(0)
  })
})

describe('what is typed', () => {
  const units: TestUnit[] = ['V', 'A', 'W', 'Ω', 'MΩ', 's', 'min', 'Hz', 'Wh', '%', 'gal/h', 'in·lb']
  test('any figure that an instrument can show reads as itself, with its unit behind it or without; below nothing is refused', () => {
    fc.assert(
      fc.property(fc.constantFrom(...units), fc.integer({ min: 0, max: 200 }), (unit, tenths) => {
        const value = tenths / 10
        for (const text of [`${value}`, ` ${value} `, `${value} ${unit}`]) {
          if (unit === 'MΩ' && text.endsWith(unit)) continue
          expect(typedRead(text, { unit })).toEqual({ value })
        }
        if (unit !== 'W') expect(typedRead(`-${value + 1}`, { unit })).toHaveProperty('problem')
      }),
    )
  })
  test('megohms and kilohms come to the unit that is asked', () => {
    for (const [text, value] of [
      ['2 MΩ', 2],
      ['500 k', 0.5],
      ['500 kΩ', 0.5],
      ['ol', 'OL'],
    ] as const)
      expect(typedRead(text, { unit: 'MΩ' })).toEqual({ value })
  })
  test.each(['bright', ''])('what is seen is one of its words, not %p', said => {
    expect(typedRead(said, { unit: null, choices: ['dark', 'lit'] })).toEqual({
      problem: 'must be one of: dark; lit',
    })
  })
})

test('a file by a spreadsheet of another country, with a mark before it and what ran: one entry a test, the last figure of a key', () => {
  const tests = testList(job([])).tests
  const [first] = tests.filter(t => t.asks.some(a => a.unit === 'V'))
  const key = first?.asks.find(a => a.unit === 'V')?.key
  if (!first || !key) throw new Error('nothing asks for volts')
  const got = readingsIn(
    `\uFEFFtest;key;value;ran\n${first.id};${key};119,5;a b\n${first.id};${key};120,5;\n`,
    tests,
  )
  expect(got.ok && got.value).toEqual([{ test: first, readings: [{ key, value: 120.5 }], ran: ['a', 'b'] }])
})

test('a series that speaks for the time before each reading, and one of nothing', () => {
  const tS = Float64Array.from([0, 3600, 7200])
  expect(discharged({ tS, W: Float32Array.from([0, 500, 700]), backward: true })).toEqual({
    loadW: 600,
    deliveredWh: 1200,
    hours: 2,
  })
  expect(discharged({ tS: new Float64Array(), W: new Float32Array(), backward: false })).toEqual({
    loadW: 0,
    deliveredWh: 0,
    hours: 0,
  })
})

test('a forecast keeps its order, never falls under nothing, and widens', () => {
  const point = (years: number, fraction: number): CapacityPoint => ({
    on: '',
    years,
    fraction,
    deliveredWh: 0,
    roundTripFraction: null,
    by: '',
    simulated: false,
  })
  const points = fc
    .array(
      fc.tuple(fc.double({ min: 0, max: 10, noNaN: true }), fc.double({ min: 0.3, max: 1.1, noNaN: true })),
      {
        minLength: 1,
        maxLength: 8,
      },
    )
    .map(all => all.sort(([a], [b]) => a - b).map(([y, f]) => point(y, f)))
  fc.assert(
    fc.property(points, all => {
      const { forecast } = ageingOf(all)
      let width = 0
      for (const { low, likely, high } of forecast) {
        expect(0 <= low && low <= likely && likely <= high).toBe(true)
        if (low > 0) {
          expect(high - low).toBeGreaterThanOrEqual(width - 1e-9)
          width = high - low
        }
      }
    }),
  )
})

test('only what passed, or was left out by a person, is settled', () => {
  const states = ['open', 'passed', 'doubtful', 'failed', 'left out', 'again'] as const
  expect(states.filter(state => isSettled({ state }))).toEqual(['passed', 'left out'])
})
