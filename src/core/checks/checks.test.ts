import { requestsOf } from '../ask/requests'
import { evaluate } from '../job/evaluate'
import { applied, circuit, job, load, splitStation, station, utilityYear } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { bare } from '../panel/schema'

const findings = (j: Job) => evaluate(j).findings
const ids = (j: Job) => findings(j).map(f => f.id)

const fridge = load(100, {
  nature: 'compressor',
  start: { method: 'inrush', inrushA: { value: 10, from: 'metered' } },
})
const shared = (a: number, b: number) => [
  circuit(a, { neutral: { kind: 'shared', with: `c${b}` }, loads: [load(100)] }),
  circuit(b, { neutral: { kind: 'shared', with: `c${a}` }, loads: [load(100)] }),
]
const motor = (lockedRotorA: number, facts = {}) =>
  load(500, {
    nature: 'motor',
    start: { method: 'locked-rotor', lockedRotorA: { value: lockedRotorA, from: 'nameplate' } },
    ...facts,
  })
const short = { outage: { hours: 10, startFraction: 1, reserveFraction: 0, deratingFraction: 1 } }
const oneLeg = { source: { arrangement: 'one-leg' as const } }
const split = { source: { station: splitStation(), arrangement: 'split-phase' as const } }
const method = (id: Job['hookup']['method'], bondingPlug = false) => ({ hookup: { method: id, bondingPlug } })

/** Each check once where it speaks; the clean job beside it must keep it silent. */
const tiedPair = (kind: 'handle' | 'common trip') =>
  shared(1, 3).map((c, i) => ({ ...c, tie: { with: i ? 'c1' : 'c3', kind } }))
const halfPicked = (kind: 'handle' | 'common trip') =>
  tiedPair(kind).map((c, i) => ({ ...c, picked: i === 0 }))
const tandem = [circuit(1, { id: 'up', half: 'a' }), circuit(1, { id: 'down', half: 'b' })]
const inlet = method('interlocked-inlet')
const full = Array.from({ length: 12 }, (_, i) => circuit(i + 1))
// 1.25 × 20,000 ÷ 240 + 1,800 ÷ 240 = 111.7 A on a main of 100 A
const charging = (peakW: number) => ({
  source: { station: station({ acInputW: 1800 }) },
  panel: { demandW: { value: peakW, from: 'utility data' as const } },
})
const solar = (breakerA: number) => circuit(2, { poles: 2, breakerA, purpose: 'solar' })
const twoPanels = (feederId?: string) => {
  const main = job([circuit(1, { poles: 2, picked: false })], split)
  const sub = { ...bare('sub', 'Sub-panel', 4), mark: 'S', supply: 'fed from another panel' as const }
  return {
    ...main,
    panels: [...main.panels, { ...sub, ...(feederId && { feederId }), circuits: [circuit(1, { id: 's1' })] }],
  }
}
// row 6 of 6, entering at the top on its own side: 4 in to the first row, five rows of 1 in
const whip = (leadIn: number) => ({
  hookup: {
    method: 'multi-circuit-switch' as const,
    bondingPlug: false,
    whip: { leadIn, entersAt: 'top left' as const },
  },
})
const all = (state: 'received' | 'good enough') => requestsOf(job([]), []).map(r => ({ key: r.key, state }))

const heater = (duty: { value?: number; atC: number }) =>
  load(400, {
    dutyFraction: { value: 0.3, from: 'metered', ...duty },
    weather: { mode: 'heating', balanceC: 16 },
  })
const cold = {
  outage: { hours: 4, startFraction: 1, reserveFraction: 0, deratingFraction: 1, outdoorC: -16 },
}
const utility = utilityYear()

const speaks: [string, Job, Job][] = [
  [
    'transfer.missing',
    job([circuit(1)], method('backfeed-unprotected')),
    job([circuit(1)], method('interlocked-inlet')),
  ],
  ['inlet.live', job([circuit(1)], method('backfeed-unprotected')), job([circuit(1)])],
  ['appliance-cord.jurisdiction', job([circuit(1)], method('cord-and-plug')), job([circuit(1)])],
  ['utility-return.blind', job([circuit(1)], method('interlocked-inlet')), job([circuit(1)])],
  ['bond.two', job([circuit(1)], { source: { station: station({ neutral: 'bonded' }) } }), job([circuit(1)])],
  [
    'bond.two',
    job([circuit(1)], method('multi-circuit-switch', true)),
    job([circuit(1)], method('single-circuit-switch', true)),
  ],
  [
    'bond.none',
    job([circuit(1)], method('single-circuit-switch')),
    job([circuit(1)], method('single-circuit-switch', true)),
  ],
  [
    'bond.none',
    job([circuit(1, { loads: [load(90, { needsBond: true })] })], method('cord-and-plug')),
    job([circuit(1, { loads: [load(90, { needsBond: true })] })], method('cord-and-plug', true)),
  ],
  [
    'bond.gfci-trip',
    job([circuit(1)], { source: { station: station({ groundFaultOutlets: true }) } }),
    job([circuit(1)]),
  ],
  ['phantom.expected', job([circuit(1)], method('extension-cords')), job([circuit(1)])],
  [
    'source-bond.unknown',
    job([circuit(1)], { source: { station: station({ neutral: 'not stated' }) } }),
    job([circuit(1)]),
  ],
  ['switch-neutral.unknown', job([circuit(1)], method('undecided')), job([circuit(1)])],
  ['neutral.shared-overload', job(shared(1, 3)), job(shared(1, 3), split)],
  // 1 and 2 stand in one row, so on one leg: the currents add under split phase too
  ['neutral.shared-overload', job(shared(1, 2), split), job(shared(1, 3), split)],
  [
    'neutral.shared-split',
    job(shared(1, 3).map((c, i) => ({ ...c, picked: i === 0 }))),
    job(shared(1, 3), split),
  ],
  ['neutral.unknown', job([circuit(1, { neutral: { kind: 'unknown' } })]), job([circuit(1)])],
  ['neutral.no-tie', job(shared(1, 3)), job(tiedPair('handle'))],
  ['breaker.common-trip', job(halfPicked('common trip')), job(halfPicked('handle'))],
  [
    'breaker.brand',
    job([circuit(1, { type: 'QX' })], { panel: { breakerTypes: ['HQ'] } }),
    job([circuit(1, { type: 'HQ' })], { panel: { breakerTypes: ['HQ'] } }),
  ],
  ['tandem.same-leg', job(tandem, split), job(tandem)],
  [
    'tandem.not-listed',
    job(tandem, { panel: { tandemSpaces: [3] } }),
    job(tandem, { panel: { tandemSpaces: [1] } }),
  ],
  // 1 to 4 taken: nothing beside the main, but two free spaces farther down
  [
    'panel.no-space',
    job(
      [1, 2, 3, 4].map(p => circuit(p)),
      inlet,
    ),
    job([circuit(1), circuit(3)], inlet),
  ],
  ['panel.no-space', job(full, inlet), job(full)],
  ['panel.capacity', job([], charging(20_000)), job([], charging(12_000))],
  ['panel.bus', job([solar(40)], { panel: { busA: 100 } }), job([solar(20)], { panel: { busA: 100 } })],
  ['pv.on-island', job([solar(20)]), job([{ ...solar(20), picked: false }])],
  ['panel.not-fed', twoPanels(), twoPanels('c1')],
  [
    'subpanel.bonded',
    job([], { panel: { supply: 'fed from another panel', neutralBonded: true } }),
    job([], { panel: { neutralBonded: true } }),
  ],
  ['whip.reach', job([circuit(11)], whip(8)), job([circuit(11)], whip(9))],
  ['working-space', job([], { panel: { clearDepthIn: 30 } }), job([], { panel: { clearDepthIn: 36 } })],
  [
    'circuit.double-labelled',
    job([circuit(1, { label: 'Bedroom', traced: undefined }), circuit(2, { label: 'bedroom ' })]),
    job([circuit(1, { label: 'Bedroom' }), circuit(2, { label: 'Bedroom' })]),
  ],
  [
    'circuit.no-load-found',
    job([circuit(1, { traced: { by: 'tester', on: '2026-01-01', found: 'nothing' } })]),
    job([circuit(1)]),
  ],
  ['photo.missing', job([]), job([], { requests: all('good enough') })],
  ['interval-data.missing', job([]), job([], { requests: all('received') })],
  ['v240.unserved', job([circuit(1, { poles: 2 })]), job([circuit(1, { poles: 2 })], split)],
  [
    'v240.bridge',
    job([circuit(1, { poles: 2 })], oneLeg),
    job([circuit(1, { poles: 2, picked: false })], oneLeg),
  ],
  ['leg.dead', job([circuit(3)], oneLeg), job([circuit(5)], oneLeg)],
  [
    'leg.overload',
    job([circuit(1, { loads: [load(3100)] })], split),
    job([circuit(1, { loads: [load(2900)] })], split),
  ],
  [
    'leg.imbalance',
    job([circuit(1, { loads: [load(900)] })], split),
    job([circuit(1, { loads: [load(900)] }), circuit(3, { loads: [load(800)] })], split),
  ],
  ['power.over', job([circuit(1, { loads: [load(2100)] })]), job([circuit(1, { loads: [load(1900)] })])],
  [
    'va.over',
    job([circuit(1, { loads: [load(1900, { powerFactor: { value: 0.8, from: 'nameplate' } })] })]),
    job([circuit(1, { loads: [load(1900)] })]),
  ],
  ['start.over', job([circuit(1, { loads: [motor(40)] })]), job([circuit(1, { loads: [motor(20)] })])],
  [
    'start.over',
    job([circuit(1, { loads: [motor(30)] })], { source: { station: station({ startsLockedRotorA: 25 }) } }),
    job([circuit(1, { loads: [motor(20)] })], { source: { station: station({ startsLockedRotorA: 25 }) } }),
  ],
  [
    'start.together',
    job([circuit(1, { loads: [motor(20)] }), circuit(3, { loads: [motor(20)] })]),
    job([circuit(1, { loads: [motor(20)] }), circuit(3, { loads: [motor(8)] })]),
  ],
  [
    'pair.avoid',
    job([
      circuit(1, { loads: [load(1200, { byHand: true })] }),
      circuit(3, { loads: [load(1100, { byHand: true })] }),
    ]),
    job([
      circuit(1, { loads: [load(1200, { byHand: true })] }),
      circuit(3, { loads: [load(700, { byHand: true })] }),
    ]),
  ],
  ['compressor.wait', job([circuit(1, { loads: [fridge] })]), job([circuit(1, { loads: [load(100)] })])],
  ['idle.dominates', job([circuit(1, { loads: [load(20)] })]), job([circuit(1, { loads: [load(200)] })])],
  [
    'energy.short',
    job([circuit(1, { loads: [load(200)] })], short),
    job([circuit(1, { loads: [load(100)] })], short),
  ],
  [
    'energy.reserve',
    job([circuit(1, { loads: [load(150)] })], {
      outage: { hours: 10.5, startFraction: 1, reserveFraction: 0.2, deratingFraction: 1 },
    }),
    job([circuit(1, { loads: [load(300)] })], {
      outage: { hours: 10.5, startFraction: 1, reserveFraction: 0.2, deratingFraction: 1 },
    }),
  ],
  [
    'circuit.unverified',
    job([circuit(1, { traced: undefined })]),
    job([circuit(1, { traced: undefined, picked: false })]),
  ],
  ['load.missing', job([circuit(1)]), job([circuit(1, { loads: [load(10)] })])],
  [
    'load.unmeasured',
    job([circuit(1, { loads: [load(100, { dutyFraction: { value: 1, from: 'assumed' } })] })]),
    job([circuit(1, { loads: [load(100)] })]),
  ],
  [
    'load.weather',
    job([circuit(1, { loads: [heater({ atC: 0 })] })]),
    job([circuit(1, { loads: [heater({ atC: 0 })] })], cold),
  ],
  [
    'load.saturated',
    job([circuit(1, { loads: [heater({ value: 0.9, atC: 0 })] })], cold),
    job([circuit(1, { loads: [heater({ value: 0.3, atC: 0 })] })], cold),
  ],
  [
    'nameplate.impossible',
    job([
      circuit(1, { loads: [load(100, { plate: { volts: 120, amps: 1, watts: 900, on: '2026-01-01' } })] }),
    ]),
    job([
      circuit(1, { loads: [load(100, { plate: { volts: 120, amps: 8, watts: 900, on: '2026-01-01' } })] }),
    ]),
  ],
  [
    'breaker.above-plate',
    job([circuit(1, { loads: [load(100, { plate: { maxBreakerA: 15, on: '2026-01-01' } })] })]),
    job([circuit(1, { loads: [load(100, { plate: { maxBreakerA: 20, on: '2026-01-01' } })] })]),
  ],
  [
    'utility.doubt',
    job([circuit(1, { loads: [load(500)] })], { utility }),
    job([circuit(1, { loads: [load(300)] })], { utility }),
  ],
  [
    'pair.avoid',
    job([
      circuit(1, { loads: [load(50, { id: 'a', notWith: ['b'] })] }),
      circuit(3, { loads: [load(60, { id: 'b' })] }),
    ]),
    job([circuit(1, { loads: [load(50, { id: 'a' })] }), circuit(3, { loads: [load(60, { id: 'b' })] })]),
  ],
  [
    'nameplate.missing',
    job([circuit(1, { loads: [load(100, { nature: 'motor' })] })]),
    job([circuit(1, { loads: [load(100)] })]),
  ],
]

test.each(speaks)('%s speaks where it should and is silent where not', (id, wrong, right) => {
  expect(ids(wrong)).toContain(id)
  expect(ids(right)).not.toContain(id)
})

test('every fix that the tool offers settles its finding', () => {
  const offered = speaks.flatMap(([, wrong]) =>
    findings(wrong).flatMap(f => f.fixes.map(fix => ({ wrong, f, fix }))),
  )
  expect(offered.length).toBeGreaterThan(15)
  for (const { wrong, f, fix } of offered) {
    const mended = applied(wrong, { op: 'applyFix', label: fix.label, operations: fix.operations })
    expect({ fix: fix.label, left: findings(mended).map(x => x.sentence) }).not.toMatchObject({
      left: expect.arrayContaining([f.sentence]),
    })
  }
})

test('no finding, caution or verdict ever says safe or approved, and every stop says what to do', () => {
  for (const [, wrong, right] of speaks) {
    expect(JSON.stringify([evaluate(wrong), evaluate(right)])).not.toMatch(/\bsafe\b|\bapproved\b/i)
    for (const f of findings(wrong)) expect(f.remedy.length).toBeGreaterThan(10)
  }
})

test('energy short is a stop with a must-run circuit, a fix without, and offers the fewest units', () => {
  const at = (tier: 1 | 2) =>
    findings(job([circuit(1, { tier, loads: [load(300)] })], short)).find(f => f.id === 'energy.short')
  expect(at(1)?.severity).toBe('stop')
  expect(at(2)?.severity).toBe('fix')
  // 10 h × (10 + 300 ÷ 0.9) = 3,433 Wh: one unit more makes 4,000 Wh
  expect(at(2)?.fixes.map(f => f.operations)).toEqual([[{ op: 'setExpansionUnits', count: 1 }]])
})

test('dead circuits move to free spaces of the live leg first, one move each', () => {
  const dead = job([circuit(3), circuit(4), circuit(1)], oneLeg)
  const fix = findings(dead).find(f => f.id === 'leg.dead')?.fixes[0]
  expect(fix?.operations).toEqual([
    { op: 'moveBreaker', circuitId: 'c3', toPosition: 5 },
    { op: 'moveBreaker', circuitId: 'c4', toPosition: 2 },
  ])
  expect(fix?.steps).toEqual([
    'circuit 3: from 3 to 5, which is free',
    'circuit 4: from 4 to 2, which is free',
  ])
})

test('a shared neutral is judged by the smaller of the two wires recorded', () => {
  const [a, b] = shared(1, 3).map((c, i) => ({
    ...c,
    wire: { material: 'cu' as const, size: i ? ('14' as const) : ('10' as const) },
  }))
  if (!a || !b) throw new Error('no pair')
  const [finding] = findings(job([a, b])).filter(f => f.id === 'neutral.shared-overload')
  expect(finding?.sentence).toMatch(/neutral of 14 AWG, good for 15 A/)
})
