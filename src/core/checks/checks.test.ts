import { evaluate } from '../job/evaluate'
import { applied, circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'

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
