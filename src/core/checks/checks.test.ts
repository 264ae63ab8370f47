import { evaluate } from '../assess/evaluate'
import { requestsOf } from '../assess/requests'
import {
  freshet18,
  inletL1430,
  interlockW,
  riffle1n,
  riffle6,
  ripple410,
  tailrace5k,
  weirgateCombiner,
} from '../equipment/fixtures/parts'
import type { Station } from '../equipment/source-kinds'
import type { Link } from '../hookup/design'
import { applied, circuit, job, load, run, splitStation, station, utilityYear } from '../job/fixtures/jobs'
import { type Job, jobSchema } from '../job/schema'
import { bare } from '../panel/schema'
import type { Source } from '../source/design'
import { checkCatalogue } from './catalogue'
import { judged } from './fixtures/judged'
import { proven } from './fixtures/proven'

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

// a breaker was found where another was to go
const hinderedMove = applied(
  job([circuit(1)]),
  { op: 'planMove', circuitId: 'c1', toPosition: 5 },
  { op: 'addCircuit', circuit: circuit(5) },
)

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
const busOf = (breakerA: number) =>
  job([...[1, 3, 5, 7].map(p => circuit(p)), { ...solar(breakerA), position: 10 }], { panel: { busA: 100 } })
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
  // at the far end, with more breakers than the bus: 100 + 40 is above 120
  ['panel.bus', busOf(40), busOf(20)],
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

const planned = (facts: Partial<Job['hookup']>) => ({
  hookup: { method: 'interlocked-inlet' as const, bondingPlug: false, ...facts },
})
const switched = (facts: Partial<Job['hookup']> = {}) => ({
  hookup: { method: 'multi-circuit-switch' as const, bondingPlug: false, switch: riffle6, ...facts },
})
const critical = (facts: Partial<Job['hookup']> = {}) => ({
  hookup: { method: 'critical-subpanel' as const, bondingPlug: false, ...facts },
})
const units = (equipment: Station, second: Station = equipment) => [
  { id: 'u1', equipment, expansionUnits: 0, owned: false },
  { id: 'u2', equipment: second, expansionUnits: 0, owned: false },
]
const solarStation = station({ solar: { count: 1, minV: 30, maxV: 100, maxA: 15, maxW: 900 } })
const array = (series: number, parallel = 1) => ({
  source: {
    station: solarStation,
    arrays: [{ id: 'a', unitId: 'u1', module: ripple410, series, parallel, owned: false }],
  },
  brief: { wants: [], recordLowC: -10 },
})
const fuelled = (facts: Partial<NonNullable<Source['generator']>> = {}, unit: Partial<Station> = {}) => ({
  source: {
    station: station({ acInputW: 900, ...unit }),
    generator: {
      equipment: freshet18,
      gallons: 5,
      where: 'outdoors' as const,
      owned: true,
      fromH: 9,
      toH: 17,
      ...facts,
    },
  },
})
const stands = (coldestC: number, charged = true) => ({
  source: {
    station: station({ chemistry: 'lfp' }),
    stands: { exposure: 'indoors' as const, coldestC },
    ...(charged && { charging: { from: 'not from the panel' as const } }),
  },
})
const cord: Link = {
  id: 'c',
  kind: 'cord',
  from: 'TT-30',
  to: 'TT-30',
  ratingA: 30,
  size: '10',
  lengthFt: 25,
  listed: true,
}
const inletLink: Link = { id: 'i', kind: 'inlet', from: 'TT-30', ratingA: 30 }
const lit = [circuit(1, { loads: [load(1800)] })]
const transformed = (loadW: number, idleW = 38) => ({
  circuits: [circuit(1, { poles: 2, loads: [load(loadW)] })],
  facts: {
    source: {
      arrangement: 'autotransformer' as const,
      autotransformer: { ...tailrace5k, idleW },
    },
  },
})
const over = transformed(1900)
const under = transformed(900)
const placedOn = (...places: [string, number][]) => ({
  positions: places.map(([circuitId, position]) => ({ circuitId, position, pinned: false })),
})
const afci = [circuit(1, { protection: 'arc-fault' })]
const two = [circuit(1, { loads: [load(900)] }), circuit(3, { loads: [load(900)] })]

/** The checks of source, hook-up and path: what is wrong, and the same job cured. */
const cordSet: Link = {
  id: 'set',
  kind: 'cord',
  from: '5-15',
  to: '5-15',
  ratingA: 15,
  size: '12',
  lengthFt: 12,
  listed: true,
}
const onSmallOutlet = { source: { station: station({ outlets: [{ type: '5-20', count: 2 }] }) } }
const thinWire: Link = { id: 'thin', kind: 'wire', ratingA: 15, size: '14', lengthFt: 10 }

const connected: [string, Job, Job][] = [
  [
    'interlock.wrong-space',
    job([], planned({ backfed: { space: 9, breakerA: 30, heldDown: true } })),
    job([], planned({ backfed: { space: 1, breakerA: 30, heldDown: true } })),
  ],
  [
    'interlock.not-listed',
    job([], { ...planned({ interlock: interlockW }), panel: { series: 'Gauge G-8' } }),
    job([], { ...planned({ interlock: interlockW }), panel: { series: 'Weirline W-30' } }),
  ],
  [
    'interlock.not-listed',
    job([], planned({ interlock: { ...interlockW, listed: false } })),
    job([], planned({ interlock: interlockW })),
  ],
  [
    'backfeed.no-hold-down',
    job([], planned({ backfed: { breakerA: 30, heldDown: false } })),
    job([], planned({ backfed: { breakerA: 30, heldDown: true } })),
  ],
  ['cord.permanent', job([], planned({ fixedCord: true })), job([], planned({ fixedCord: false }))],
  ['utility-return.blind', job([], planned({})), job([], planned({ utilityTold: true }))],
  ...proven,
  ['plan.hindered', hinderedMove, job([circuit(1)])],
  [
    'ground.interrupted',
    job([], planned({ ground: 'interrupted' })),
    job([], planned({ ground: 'continuous' })),
  ],
  ['neutral.left-behind', job(afci, switched()), job(afci, switched({ neutrals: 'follow their hots' }))],
  [
    'neutral.left-behind',
    job([circuit(1)], critical({ neutrals: 'stay behind' })),
    job([circuit(1)], critical({ neutrals: 'follow their hots' })),
  ],
  [
    'bond.two',
    job([], {
      hookup: { method: 'extension-cords', bondingPlug: true },
      source: { station: station({ neutral: 'bonded' }) },
    }),
    job([], {
      hookup: { method: 'extension-cords', bondingPlug: false },
      source: { station: station({ neutral: 'bonded' }) },
    }),
  ],
  // the device decides over the method's habit: this single-circuit switch leaves the neutral
  [
    'bond.none',
    job([circuit(1)], { hookup: { method: 'single-circuit-switch', bondingPlug: false, switch: riffle1n } }),
    job([circuit(1)], {
      hookup: {
        method: 'single-circuit-switch',
        bondingPlug: false,
        switch: { ...riffle1n, switchesNeutral: false },
      },
    }),
  ],
  [
    'charge.loop',
    job([], { source: { charging: { from: 'a circuit of the panel it feeds' } } }),
    job([], { source: { charging: { from: 'the panel, only when disconnected' } } }),
  ],
  [
    'passthrough.forbidden',
    job([], fuelled({}, { passThrough: 'forbidden on a bonded neutral' })),
    job([], fuelled({}, { passThrough: 'allowed' })),
  ],
  [
    'y-adapter',
    job([circuit(1, { poles: 2 })], { source: { units: units(station()), arrangement: 'independent' } }),
    job([circuit(1)], { source: { units: units(station()), arrangement: 'independent' } }),
  ],
  [
    'y-adapter',
    job([circuit(1)], {
      source: {
        units: units(station()),
        arrangement: 'combined',
        combiner: { ...weirgateCombiner, pairs: [], synchronises: false },
      },
    }),
    job([circuit(1)], {
      source: {
        units: units(station()),
        arrangement: 'combined',
        combiner: { ...weirgateCombiner, pairs: [] },
      },
    }),
  ],
  [
    'neutral.shared-overload',
    job(shared(1, 3), { source: { units: units(station()), arrangement: 'independent' } }),
    job(shared(1, 3), {
      source: {
        units: units(station()),
        arrangement: 'combined',
        combiner: { ...weirgateCombiner, pairs: [] },
      },
    }),
  ],
  ['autotransformer.limit', job(over.circuits, over.facts), job(under.circuits, under.facts)],
  ['autotransformer.idle', job(under.circuits, under.facts), job(under.circuits, split)],
  [
    'auto.full-load',
    job(
      [circuit(1, { loads: [load(1500, { id: 'a', byHand: true }), load(1500, { id: 'b', byHand: true })] })],
      critical(),
    ),
    job([circuit(1, { loads: [load(1500, { byHand: true })] })], critical()),
  ],
  ['energy.cold', job([], stands(-5)), job([], stands(5))],
  [
    'store.none',
    job([circuit(1)], {
      source: { units: [{ id: 'u1', equipment: freshet18, expansionUnits: 0, owned: true }] },
    }),
    job([circuit(1)]),
  ],
  ['solar.over-voltage', job([], array(3)), job([], array(2))],
  ['solar.under-voltage', job([], array(1)), job([], array(2))],
  ['solar.clipped', job([], array(2, 3)), job([], array(2))],
  [
    'generator.too-small',
    job(lit, fuelled({}, { acInputW: 1500 })),
    job([circuit(1, { loads: [load(200)] })], fuelled({}, { acInputW: 1500 })),
  ],
  ['generator.indoors', job([], fuelled({ where: 'indoors' })), job([], fuelled())],
  [
    'generator.quiet',
    job([], fuelled({ quietFromH: 16, quietToH: 8 })),
    job([], fuelled({ quietFromH: 22, quietToH: 7 })),
  ],
  ['wire.small', job([circuit(1, { breakerA: 30 })]), job([circuit(1, { breakerA: 20 })])],
  ['wire.small', job([], planned({ runs: [run({ size: '12' })] })), job([], planned({ runs: [run()] }))],
  [
    'wire.derate',
    job([], planned({ runs: [run({ conductors: 8, currentCarrying: 6, breakerA: 20, tradeSize: '1' })] })),
    job(
      [],
      planned({
        runs: [run({ conductors: 8, currentCarrying: 6, breakerA: 20, tradeSize: '1', deratingKnown: true })],
      }),
    ),
  ],
  [
    'conduit.overfull',
    job([], planned({ runs: [run({ conductors: 9, tradeSize: '1/2' })] })),
    job([], planned({ runs: [run({ conductors: 3, tradeSize: '1/2' })] })),
  ],
  [
    'box.overfull',
    job([], planned({ runs: [run({ boxIn3: 18, spliced: 8 })] })),
    job([], planned({ runs: [run({ boxIn3: 42, spliced: 8 })] })),
  ],
  [
    'ground.small',
    job([], planned({ runs: [run({ groundSize: '14' })] })),
    job([], planned({ runs: [run()] })),
  ],
  [
    'drop.high',
    job(lit, planned({ path: [{ ...cord, lengthFt: 150 }, inletLink] })),
    job(lit, planned({ path: [cord, inletLink] })),
  ],
  // a listed cord set of 12 AWG on a 20 A outlet is protected by rule, an unlisted one is not
  [
    'cord.weak-link',
    job(lit, { ...planned({ path: [{ ...cordSet, listed: false }] }), ...onSmallOutlet }),
    job(lit, { ...planned({ path: [cordSet] }), ...onSmallOutlet }),
  ],
  [
    'path.overload',
    job([circuit(1, { loads: [load(2100)] })], {
      ...planned({ path: [cord, inletLink, thinWire] }),
      ...split,
    }),
    job([circuit(1, { loads: [load(1700)] })], {
      ...planned({ path: [cord, inletLink, thinWire] }),
      ...split,
    }),
  ],
  [
    'path.overload',
    job([circuit(1, { loads: [load(2100)] })], {
      ...planned({ path: [cord, inletLink, thinWire] }),
      ...split,
    }),
    // a breaker ahead opens first: that is power.over
    job([circuit(1, { loads: [load(2100)] })], {
      ...planned({ path: [cord, inletLink, { id: 'b', kind: 'breaker', ratingA: 15 }, thinWire] }),
      ...split,
    }),
  ],
  [
    'power.over',
    job(
      [circuit(1, { loads: [load(1700)] })],
      planned({ path: [{ id: 'b', kind: 'breaker', ratingA: 15 }] }),
    ),
    job(
      [circuit(1, { loads: [load(1700)] })],
      planned({ path: [{ id: 'b', kind: 'breaker', ratingA: 30 }] }),
    ),
  ],
  [
    'interlock.no-main',
    job([], { ...planned({ interlock: interlockW }), panel: { mainA: undefined } }),
    job([], planned({ interlock: interlockW })),
  ],
  ['interlock.missing', job([], planned({})), job([], planned({ interlock: interlockW }))],
  [
    'interlock.missing',
    job([], planned({ method: 'sub-panel-interlock' })),
    job([], planned({ method: 'sub-panel-interlock', interlock: interlockW })),
  ],
  [
    'interlock.limit',
    job([], planned({ inlet: inletL1430, backfed: { breakerA: 50, heldDown: true } })),
    job([], planned({ inlet: inletL1430, backfed: { breakerA: 30, heldDown: true } })),
  ],
  [
    'branch.overload',
    job([circuit(1, { breakerA: 15, loads: [load(1000, { id: 'a' }), load(1000, { id: 'b' })] })]),
    job([circuit(1, { breakerA: 15, loads: [load(1000, { id: 'a' }), load(300, { id: 'b' })] })]),
  ],
  // 1,500 W without a pause is more than four fifths of 15 A; a kettle of as much is not
  [
    'branch.overload',
    job([circuit(1, { breakerA: 15, loads: [load(1500)] })]),
    job([
      circuit(1, { breakerA: 15, loads: [load(1500, { dutyFraction: { value: 0.05, from: 'metered' } })] }),
    ]),
  ],
  [
    'pv.not-found',
    job([circuit(1)], { brief: { wants: [], solar: 'yes' } }),
    job([{ ...solar(20), picked: false }], { brief: { wants: [], solar: 'yes' } }),
  ],
  [
    'neutral.shared-split',
    job(
      shared(1, 3).map((c, i) => ({ ...c, picked: i === 0 })),
      { ...critical(), ...split },
    ),
    job(shared(1, 3), { ...critical(), ...split }),
  ],
  [
    'cord.weak-link',
    job(lit, planned({ path: [{ ...cord, ratingA: 20 }, inletLink] })),
    job(lit, planned({ path: [cord, inletLink] })),
  ],
  [
    'cord.no-mate',
    job(lit, planned({ path: [{ ...cord, from: 'L5-30' }, inletLink] })),
    job(lit, planned({ path: [cord, inletLink] })),
  ],
  [
    'cord.unlisted',
    job(lit, planned({ path: [{ ...cord, listed: false }, inletLink] })),
    job(lit, planned({ path: [cord, inletLink] })),
  ],
  [
    'position.limit',
    job([circuit(1)], switched(placedOn(['c1', 5]))),
    job([circuit(1)], switched(placedOn(['c1', 1]))),
  ],
  [
    'position.none',
    job(
      two,
      switched({ ...placedOn(['c1', 1]), switch: { ...riffle6, positions: 1, positionLimitsA: [30] } }),
    ),
    job(two, switched(placedOn(['c1', 1], ['c3', 2]))),
  ],
  [
    'input.limit',
    job([circuit(1, { loads: [load(2600)] })], {
      ...switched({ ...placedOn(['c1', 1]), switch: { ...riffle6, inputA: 20 } }),
      ...split,
    }),
    job([circuit(1, { loads: [load(2300)] })], {
      ...switched({ ...placedOn(['c1', 1]), switch: { ...riffle6, inputA: 20 } }),
      ...split,
    }),
  ],
  [
    'neutral.shared-split',
    job(shared(1, 3), { ...switched(placedOn(['c1', 1], ['c3', 4])), ...split }),
    job(shared(1, 3), { ...switched(placedOn(['c1', 1], ['c3', 2])), ...split }),
  ],
  [
    'mount.wet',
    job([], { ...switched(), panel: { exposure: 'wet' } }),
    job([], { ...switched(), panel: { exposure: 'indoors' } }),
  ],
]

test.each(connected)('%s speaks of a bad connection and is silent once it is cured', (id, wrong, right) => {
  expect(jobSchema.safeParse(wrong).error?.issues ?? []).toEqual([])
  expect(ids(wrong)).toContain(id)
  expect(ids(right)).not.toContain(id)
})

test('every check of the catalogue is provoked here, and nothing speaks that is not in it', () => {
  const provoked = new Set([...[...speaks, ...connected].map(([id]) => id), ...judged.map(([, id]) => id)])
  expect(checkCatalogue.map(c => c.id).filter(id => !provoked.has(id))).toEqual([])
  const known = new Set(checkCatalogue.map(c => c.id))
  for (const [, wrong] of [...speaks, ...connected])
    for (const f of findings(wrong)) expect(known).toContain(f.id)
})

test('a sound job, surveyed and designed to the end, has nothing to stop or fix', () => {
  const sound = job(
    [
      circuit(5, { loads: [load(300)], tier: 1 }),
      circuit(6, { loads: [load(250)] }),
      circuit(7, { poles: 2, loads: [motor(8)] }),
    ],
    {
      source: {
        station: splitStation({ energyWh: 40_000, acInputW: 1500, passThrough: 'allowed' }),
        arrangement: 'split-phase',
        generator: { equipment: freshet18, gallons: 5, where: 'outdoors', fromH: 9, toH: 17, owned: true },
        stands: { exposure: 'indoors', coldestC: 12 },
        charging: { from: 'the panel, only when disconnected' },
      },
      hookup: {
        method: 'interlocked-inlet',
        bondingPlug: false,
        interlock: interlockW,
        inlet: inletL1430,
        backfed: { space: 1, breakerA: 30, heldDown: true },
        ground: 'continuous',
        utilityTold: true,
        path: [
          {
            ...cord,
            from: '14-50',
            to: 'L14-30',
            id: 'a',
            kind: 'adapter',
            ownBreakerA: 30,
            lengthFt: undefined,
            size: undefined,
          },
          { ...cord, from: 'L14-30', to: 'L14-30' },
          { ...inletLink, from: 'L14-30' },
          { id: 'w', kind: 'wire', ratingA: 30, size: '10', lengthFt: 15 },
          { id: 'b', kind: 'breaker', ratingA: 30 },
        ],
        runs: [run()],
      },
      panel: { series: 'Weirline W-30', exposure: 'indoors', clearDepthIn: 40, breakerTypes: [] },
    },
  )
  expect(findings(sound).filter(f => f.severity === 'stop' || f.severity === 'fix')).toEqual([])
})

test('an accepted finding stays listed with name and reason; a stop is never taken as accepted', () => {
  const wrong = job(
    [circuit(1)],
    planned({ backfed: { breakerA: 30, heldDown: false }, fixedCord: true, ground: 'interrupted' }),
  )
  const accept = (key: string) => ({
    key,
    by: 'Designer',
    on: '2026-03-01',
    reason: 'Listed bolt-on breaker',
  })
  const found = findings(wrong)
  const fix = found.find(f => f.id === 'backfeed.no-hold-down')
  const stop = found.find(f => f.id === 'ground.interrupted')
  const after = findings({ ...wrong, accepted: [accept(fix?.key ?? ''), accept(stop?.key ?? '')] })
  expect(after.find(f => f.key === fix?.key)?.accepted?.by).toBe('Designer')
  expect(after.find(f => f.key === stop?.key)?.accepted).toBeUndefined()
  expect(after).toHaveLength(found.length)
})

test('articles follow the edition of the job', () => {
  const wrong = job([circuit(1, { breakerA: 30 })])
  const article = (edition: Job['edition']) =>
    findings({ ...wrong, edition }).find(f => f.id === 'wire.small')?.article
  expect([article(2017), article(2023)]).toEqual([
    'NEC 240.4, table 310.15(B)(16)',
    'NEC 240.4, table 310.16',
  ])
})

test('every fix that the tool offers settles its finding', () => {
  const offered = [...speaks, ...connected].flatMap(([, wrong]) =>
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
  for (const [, wrong, right] of [...speaks, ...connected]) {
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
    { op: 'planMove', circuitId: 'c3', toPosition: 5 },
    { op: 'planMove', circuitId: 'c4', toPosition: 2 },
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
