import { evaluate } from '@/core/assess/evaluate'
import { applied } from '@/core/job/fixtures/jobs'
import type { Operation } from '@/core/job/operations'
import { circuitOf } from '@/core/job/panels'
import type { Job } from '@/core/job/schema'
import { sluice22, spate64 } from './catalogue'
import { alderHollow } from './jobs/alder-hollow'
import { fernbrook } from './jobs/fernbrook'
import { millStreet } from './jobs/mill-street'
import { ospreyPoint } from './jobs/osprey-point'
import { quarryRidge } from './jobs/quarry-ridge'
import { saltmarshLane } from './jobs/saltmarsh-lane'

const has = (job: Job, id: string) => evaluate(job).findings.some(f => f.id === id)
const after = (job: Job, operations: readonly Operation[]) => applied(job, ...operations)
/** The first fix that the finding offers. */
const byFix = (job: Job, id: string): Operation[] => {
  const fix = evaluate(job).findings.find(f => f.id === id)?.fixes[0]
  return fix ? [{ op: 'applyFix', label: fix.label, operations: fix.operations }] : []
}
const pick = (circuitId: string, picked = true): Operation => ({ op: 'selectCircuit', circuitId, picked })
const known = { by: 'tester', on: '2026-03-01', found: 'known' as const }
const demand = (value: number, panelId?: string): Operation => ({
  op: 'setPanel',
  ...(panelId && { panelId }),
  facts: { demandW: { value, from: 'utility data' } },
})
const metered = (job: Job, circuitId: string): Operation[] =>
  (circuitOf(job, circuitId)?.circuit.loads ?? []).map(load => ({
    op: 'putLoad',
    circuitId,
    load: {
      ...load,
      runningW: { ...load.runningW, from: 'metered' },
      dutyFraction: { ...load.dutyFraction, from: 'metered' },
    },
  }))

type Cure = Operation[] | 'its fix'
/** Each finding of the survey on a demo job: what brings it about, where it is not there already, and what cures it. */
const provoked: [id: string, job: Job, provoke: Operation[], cure: Cure][] = [
  ['circuit.unverified', alderHollow, [], [{ op: 'traceCircuit', circuitId: 'c15', traced: known }]],
  [
    'load.weather',
    alderHollow,
    [{ op: 'setOutage', facts: {}, clear: ['outdoorC'] }],
    [{ op: 'setOutage', facts: { outdoorC: -12 } }],
  ],
  ['load.unmeasured', millStreet, [], metered(millStreet, 'c5')],
  [
    'nameplate.missing',
    saltmarshLane,
    [],
    [
      {
        op: 'takePlate',
        circuitId: 'c10',
        loadId: 'well',
        newLoadId: 'well',
        name: 'Well pump',
        plate: { lockedRotorA: 34 },
        on: '2026-03-01',
      },
    ],
  ],
  [
    'photo.missing',
    saltmarshLane,
    [],
    ['photo:wall', 'photo:generator'].map(key => ({
      op: 'putRequest',
      request: { key, state: 'good enough' },
    })),
  ],
  [
    'interval-data.missing',
    alderHollow,
    [{ op: 'putRequest', request: { key: 'interval-data', state: 'asked' } }],
    [demand(9000)],
  ],
  [
    'neutral.unknown',
    alderHollow,
    [pick('c13')],
    [{ op: 'editCircuit', circuitId: 'c13', facts: { neutral: { kind: 'own' } } }],
  ],
  ['source-bond.unknown', millStreet, [], [{ op: 'chooseUnit', equipment: sluice22 }]],
  [
    'switch-neutral.unknown',
    ospreyPoint,
    [{ op: 'setHookup', facts: { method: 'undecided' } }],
    [{ op: 'setHookup', facts: { method: 'interlocked-inlet' } }],
  ],
  ['compressor.wait', alderHollow, [], [pick('c5', false), pick('c11', false)]],
  [
    'utility-return.blind',
    saltmarshLane,
    [],
    [{ op: 'setHookup', facts: { method: 'multi-circuit-switch' } }],
  ],
  ['breaker.brand', saltmarshLane, [], 'its fix'],
  ['breaker.common-trip', saltmarshLane, [pick('c6')], 'its fix'],
  ['panel.no-space', saltmarshLane, [], 'its fix'],
  [
    'panel.capacity',
    quarryRidge,
    [
      { op: 'chooseUnit', equipment: sluice22 },
      { op: 'setHookup', facts: { panelId: 'house' } },
      demand(40_000, 'house'),
    ],
    [demand(12_000, 'house')],
  ],
  [
    'panel.bus',
    quarryRidge,
    [{ op: 'editCircuit', circuitId: 'h2', facts: { breakerA: 60 } }],
    [{ op: 'editCircuit', circuitId: 'h2', facts: { breakerA: 40 } }],
  ],
  ['leg.imbalance', saltmarshLane, [], 'its fix'],
  ['position.protects', alderHollow, [], 'its fix'],
  ['neutral.shared-split', quarryRidge, [], 'its fix'],
  ['pv.on-island', saltmarshLane, [], 'its fix'],
  ['solar.over-voltage', quarryRidge, [], 'its fix'],
  ['neutral.left-behind', quarryRidge, [], 'its fix'],
  ['wire.small', quarryRidge, [], 'its fix'],
  ['wire.derate', quarryRidge, [], 'its fix'],
  ['bond.none', fernbrook, [], 'its fix'],
  ['start.over', ospreyPoint, [], 'its fix'],
  ['autotransformer.idle', ospreyPoint, [], [{ op: 'chooseUnit', equipment: spate64 }]],
  ['neutral.shared-overload', alderHollow, [], 'its fix'],
  ['utility-return.blind', ospreyPoint, [], 'its fix'],
  ['leg.dead', millStreet, [], 'its fix'],
  ['v240.bridge', millStreet, [], 'its fix'],
  ['tandem.same-leg', millStreet, [pick('c13'), pick('c13b')], [pick('c13b', false)]],
  [
    'tandem.not-listed',
    millStreet,
    [{ op: 'setPanel', facts: { tandemSpaces: [19, 20] } }],
    [{ op: 'setPanel', facts: { tandemSpaces: [13, 14] } }],
  ],
  [
    'whip.reach',
    alderHollow,
    [{ op: 'setHookup', facts: { whip: { leadIn: 8, entersAt: 'top left' } } }],
    [{ op: 'setHookup', facts: { whip: { leadIn: 30, entersAt: 'top left' } } }],
  ],
  ['subpanel.bonded', quarryRidge, [], 'its fix'],
  [
    'circuit.double-labelled',
    saltmarshLane,
    [],
    [{ op: 'editCircuit', circuitId: 'c17', facts: { label: 'Guest room' } }],
  ],
  [
    'circuit.no-load-found',
    saltmarshLane,
    [],
    [{ op: 'traceCircuit', circuitId: 'c22', traced: { ...known, died: 'porch lamp' } }],
  ],
  ['working-space', saltmarshLane, [], [{ op: 'setPanel', facts: { clearDepthIn: 40 } }]],
]

test.each(provoked)('%s can be provoked and cured on a demo job', (id, job, provoke, cure) => {
  const wrong = after(job, provoke)
  expect(has(wrong, id)).toBe(true)
  if (provoke.length) expect(has(job, id)).toBe(false)
  expect(has(after(wrong, cure === 'its fix' ? byFix(wrong, id) : cure), id)).toBe(false)
})
