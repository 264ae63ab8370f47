import fc from 'fast-check'
import { arrangementWays } from '../assess/arrangement-ways'
import { evaluate } from '../assess/evaluate'
import { freshet18, ripple410, tailrace5k, weirgateCombiner } from '../equipment/fixtures/parts'
import type { Bank, Inverter, Station } from '../equipment/source-kinds'
import { applied, circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import { applyOperation, type Operation } from '../job/operations'
import { type Job, jobSchema } from '../job/schema'
import { busesUnder, jobArrangements, voltsSeen } from './arrangement'
import type { Source } from './design'
import { outputOf } from './output'
import { coldFraction } from './store'

const unit = (id: string, equipment: Station = station()) => ({
  id,
  equipment,
  expansionUnits: 0,
  owned: false,
})
const pair = (facts: Partial<Source> = {}): Partial<Source> => ({
  units: [unit('u1'), unit('u2')],
  arrangement: 'combined',
  combiner: { ...weirgateCombiner, outlets: [{ type: '14-50', count: 1 }] },
  ...facts,
})
const inverter: Inverter = {
  kind: 'inverter',
  id: 'inv',
  name: 'Inverter',
  version: 1,
  continuousW: 8000,
  legW: 4500,
  surgeW: 15_000,
  batteryV: 48,
  idleW: 60,
  efficiencyFraction: 0.9,
  ownTransfer: true,
}
const bank: Bank = {
  kind: 'bank',
  id: 'b',
  name: 'Bank',
  version: 1,
  unitV: 50,
  unitAh: 100,
  chemistry: 'lfp',
  mostParallel: 6,
}

test('what each breaker sees, for every arrangement: 120, 240, nothing, a bridge, or nothing that can be said', () => {
  const seen = jobArrangements.map(a => {
    const buses = busesUnder(a, 'L1')
    return [a, voltsSeen(buses, 'L1').volts, voltsSeen(buses, 'L2').volts, voltsSeen(buses, 'both')]
  })
  expect(seen).toEqual([
    ['one-leg', 120, 0, { volts: 0, bridges: true }],
    ['tied', 120, 120, { volts: 0, bridges: false }],
    ['split-phase', 120, 120, { volts: 240, bridges: false }],
    ['combined', 120, 120, { volts: 240, bridges: false }],
    ['autotransformer', 120, 120, { volts: 240, bridges: false }],
    ['independent', 120, 120, { volts: null, bridges: false }],
  ])
})

test('the law of cosines holds for any angle between the legs', () => {
  fc.assert(
    fc.property(fc.integer({ min: -360, max: 360 }), phase => {
      const { volts } = voltsSeen({ L1: { volts: 120, phase: 0 }, L2: { volts: 120, phase } }, 'both')
      expect(volts).toBe(Math.round(240 * Math.abs(Math.sin((phase * Math.PI) / 360))))
    }),
  )
})

test('two combined give a unit a leg; an autotransformer gives half its rating on the leg that it makes', () => {
  const both = { ...pair(), liveLeg: 'L1' as const } as Source
  expect(outputOf(both)).toMatchObject({
    totalW: 4000,
    legW: { L1: 2000, L2: 2000 },
    surgeW: 8000,
    legSurgeW: 4000,
  })
  const through: Source = {
    units: [unit('u1', station({ continuousW: 4000 }))],
    arrangement: 'autotransformer',
    liveLeg: 'L2',
    autotransformer: { ...tailrace5k, continuousW: 3000 },
  }
  // the TT-30 outlet gives 2,880 W for hours: × 0.94 through the transformer; 3,000 ÷ 2 on the leg it makes
  expect(outputOf(through).lasting).toMatchObject({
    totalW: 2880 * 0.94,
    legW: { L1: 1500, L2: 2880 },
    limitedBy: 'outlet',
  })
})

test('apart, the fuller leg ends the run and strands the rest; shared, both last as long as their sum', () => {
  const circuits = [circuit(1, { loads: [load(270)] }), circuit(3, { loads: [load(90)] })]
  const outage = { hours: 4, startFraction: 1, reserveFraction: 0, deratingFraction: 1 }
  const apart = evaluate(job(circuits, { outage, source: pair() }))
  // 10 + 270 ÷ 0.9 = 310 W on one, 110 W on the other, 2,000 Wh each
  expect(apart.headline.hoursHad).toBeCloseTo(2000 / 310, 9)
  expect(apart.balance.find(l => l.id === 'energy')?.sentence).toContain('1,290 Wh stranded')
  const shared = evaluate(
    job(circuits, { outage, source: pair({ combiner: { ...weirgateCombiner, batteries: 'shared' } }) }),
  )
  expect(shared.headline.hoursHad).toBeCloseTo(4000 / 420, 9)
})

test('more battery never lasts shorter, cold never longer, whatever the mix', () => {
  const hours = (source: Partial<Source> & { expansionUnits?: number }) =>
    evaluate(job([circuit(1, { loads: [load(200)] }), circuit(3, { loads: [load(150)] })], { source }))
      .headline.hoursHad ?? 0
  fc.assert(
    fc.property(
      fc.constantFrom('tied' as const, 'combined' as const),
      fc.integer({ min: -30, max: 30 }),
      (arrangement, coldestC) => {
        const stands = { exposure: 'indoors' as const, coldestC }
        const made = (n: number): Partial<Source> =>
          arrangement === 'combined'
            ? pair({
                stands,
                units: [
                  { ...unit('u1'), expansionUnits: n },
                  { ...unit('u2'), expansionUnits: n },
                ],
              })
            : { stands, units: [{ ...unit('u1'), expansionUnits: n }] }
        expect(hours(made(1))).toBeGreaterThanOrEqual(hours(made(0)))
        expect(coldFraction('lfp', coldestC - 1)).toBeLessThanOrEqual(coldFraction('lfp', coldestC))
        expect(hours({ ...made(0), stands: { ...stands, coldestC: coldestC - 5 } })).toBeLessThanOrEqual(
          hours(made(0)),
        )
      },
    ),
    { numRuns: 30 },
  )
})

test('an inverter runs from its bank at its depth; a generator alone stores nothing', () => {
  const source = {
    units: [
      {
        id: 'u1',
        equipment: inverter,
        bank: { equipment: bank, series: 1, parallel: 2 },
        expansionUnits: 0,
        owned: false,
      },
    ],
    arrangement: 'split-phase' as const,
  }
  const { delivers, headline } = evaluate(job([circuit(1, { loads: [load(270)] })], { source }))
  // 50 V × 100 Ah × 2 × 0.9 = 9,000 Wh, less a tenth of reserve; 60 + 270 ÷ 0.9 = 360 W
  expect(headline.hoursHad).toBeCloseTo((9000 * 0.9) / 360, 9)
  expect(delivers?.energy[0]?.value).toBe('9,000 Wh')
  const alone = evaluate(
    job([circuit(1, { loads: [load(270)] })], {
      source: { units: [{ id: 'u1', equipment: freshet18, expansionUnits: 0, owned: true }] },
    }),
  )
  expect([alone.headline.hoursHad, alone.store]).toEqual([null, null])
})

const wrong = (facts: unknown) =>
  jobSchema
    .safeParse({ ...job([]), ...(facts as object) })
    .error?.issues.map(i => `${i.path.join('.')} ${i.message}`)
    .join('\n') ?? ''
const withSource = (source: object) => wrong({ source: { ...job([]).source, ...source } })
const onInverter = (facts: object) =>
  withSource({ units: [{ id: 'u1', equipment: inverter, expansionUnits: 0, owned: false, ...facts }] })
const link = { id: 'a', kind: 'adapter', ratingA: 30, from: 'TT-30', to: '5-20' }
const refused: [string, string, RegExp][] = [
  [
    '40 units in parallel',
    onInverter({ bank: { equipment: bank, series: 1, parallel: 40 } }),
    /bank.parallel must be at most 6/,
  ],
  [
    'a bank of the wrong volts',
    onInverter({ bank: { equipment: bank, series: 2, parallel: 1 } }),
    /bank.series gives 100 V, but a Inverter takes a 48 V/,
  ],
  ['an inverter without a bank', onInverter({}), /bank is missing/],
  [
    'an expansion that does not belong',
    withSource({ units: [{ ...unit('u1', station({ expansion: undefined })), expansionUnits: 1 }] }),
    /expansionUnits must be 0: a Test station takes none/,
  ],
  ['three units', withSource({ units: ['1', '2', '3'].map(i => unit(i)) }), /units must hold at most 2/],
  [
    'a combiner made for others',
    withSource(pair({ combiner: { ...weirgateCombiner, pairs: ['other'] } })),
    /combiner is made for other, not for a Test station/,
  ],
  [
    'two that do not match',
    withSource(
      pair({
        units: [unit('u1'), unit('u2', station({ id: 'x' }))],
        combiner: { ...weirgateCombiner, pairs: [] },
      }),
    ),
    /units.1.equipment must match/,
  ],
  [
    'an array on a unit without input',
    withSource({
      arrays: [{ id: 'a', unitId: 'u1', module: ripple410, series: 1, parallel: 1, owned: false }],
    }),
    /arrays.0.unitId must name a unit with a solar input/,
  ],
  [
    'a loop of adapters',
    wrong({ hookup: { ...job([]).hookup, path: [link, { ...link, id: 'b', from: '5-20', to: 'TT-30' }] } }),
    /path.1.to goes round in a circle: TT-30/,
  ],
  [
    'a cord without length',
    wrong({ hookup: { ...job([]).hookup, path: [{ id: 'a', kind: 'cord', ratingA: 30 }] } }),
    /path.0.lengthFt is missing: give the cord’s length/,
  ],
]

test.each(refused)('%s is refused at its field', (_, said, why) => {
  expect(said).toMatch(why)
})

test('every arrangement that can be is reached in one operation, brings its parts, and gives other buses', () => {
  const catalogue = [{ ...weirgateCombiner, pairs: ['test'] }, tailrace5k]
  const start = job([circuit(1), circuit(3), circuit(5, { poles: 2 })])
  const ways = arrangementWays(start.source as Source, catalogue)
  expect(ways.filter(w => !w.operation).map(w => [w.arrangement, w.hinders])).toEqual([
    ['split-phase', 'a Test station puts out 120 V only'],
  ])
  for (const way of ways)
    if (way.operation) expect(jobSchema.safeParse(applied(start, way.operation)).success).toBe(true)
  expect(ways.find(w => w.arrangement === 'combined')?.brings).toEqual([
    'a second Test station',
    'the combiner',
  ])
})

test('what a source no longer can goes with what made it possible: a unit, its arrays, its arrangement', () => {
  const start = job([], {
    source: pair({ units: [unit('u1'), unit('u2', station({ solar: { count: 1, minV: 10, maxV: 60 } }))] }),
  })
  const sunny: Operation = {
    op: 'putArray',
    array: { id: 'a', unitId: 'u2', module: ripple410, series: 1, parallel: 1, owned: true },
  }
  const one = applied(start, sunny, { op: 'removeUnit', unitId: 'u2' })
  expect(one.source).toMatchObject({ arrangement: 'tied', arrays: [] })
  expect(applied(one, { op: 'removeUnit', unitId: 'u1' }).source).toBeUndefined()
  const swapped = applied(start, { op: 'chooseUnit', equipment: splitStation() })
  expect(swapped.source).toMatchObject({ arrangement: 'split-phase', units: [{ id: 'u1' }] })
  const bad = applyOperation(start as Job, { op: 'editUnit', unitId: 'gone', facts: { owned: true } })
  expect(bad.ok).toBe(false)
})
