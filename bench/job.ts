import { newJob } from '../src/core/job/new'
import { applyOperation, type Operation } from '../src/core/job/operations'
import type { Job } from '../src/core/job/schema'
import type { Load } from '../src/core/loads/load'
import { bare } from '../src/core/panel/schema'
import { toPlan } from '../src/core/plan/change'
import { sluice22 } from '../src/server/seeds/catalogue'
import { quarryRidge } from '../src/server/seeds/jobs'

/** The largest panel of the format: 42 positions, 60 loads, long labels. */
export function largestJob(): Job {
  const base = newJob({ title: 'Largest panel', place: 'For the bench', spaces: 42, mainA: 200 })
  let loads = 0
  const load = (): Load => ({
    id: `load${loads++}`,
    name: `Load number ${loads}`,
    runningW: { value: 20 + (loads % 9), from: 'metered' },
    powerFactor: { value: 0.9, from: 'nameplate' },
    dutyFraction: { value: 0.3, from: 'metered' },
    idleW: { value: 1, from: 'metered' },
    nature: loads % 3 ? 'plain' : 'motor',
    byHand: loads % 7 === 0,
    needsBond: false,
  })
  return {
    ...base,
    panels: [
      {
        ...bare('main', 'Main panel', 42, 200),
        circuits: Array.from({ length: 42 }, (_, i) => ({
          id: `c${i + 1}`,
          position: i + 1,
          purpose: 'loads' as const,
          poles: 1 as const,
          breakerA: 20,
          label:
            `Circuit ${i + 1} with a label of the length that directories run to, and then some more`.slice(
              0,
              80,
            ),
          neutral: { kind: 'own' as const },
          protection: 'none' as const,
          tier: 2 as const,
          picked: i % 2 === 0,
          loads: i < 18 ? [load(), load()] : i < 42 ? [load()] : [],
        })),
      },
    ],
    source: {
      units: [{ id: 'u1', equipment: sluice22, expansionUnits: 1, owned: false }],
      arrangement: 'tied',
      liveLeg: 'L1',
    },
    hookup: { method: 'interlocked-inlet', bondingPlug: false },
  }
}

const after = (job: Job, operations: readonly Operation[]): Job =>
  operations.reduce((now, operation) => {
    const outcome = applyOperation(now, operation)
    if (!outcome.ok) throw new Error(outcome.faults.map(f => f.message).join('; '))
    return outcome.value
  }, job)

/** The same with twenty changes planned: trades of places, other breakers, locks. */
export const plannedJob = (): Job =>
  after(largestJob(), [
    ...[1, 5, 9, 13, 17, 21, 25, 29].map(
      (at): Operation => ({ op: 'planMove', circuitId: `c${at}`, toPosition: at + 2 }),
    ),
    ...[2, 4, 6, 8, 10, 12].map(
      (at): Operation => toPlan({ kind: 'exchange', circuitId: `c${at}`, breakerA: 15 }),
    ),
    ...[14, 16, 18, 20, 22, 24].map((at): Operation => toPlan({ kind: 'lock', circuitId: `c${at}` })),
  ])

/** A panel of 30 with twelve circuits that move to a new one, two of them on one neutral, and one pinned. */
export function landingJob(): Job {
  const [panel] = largestJob().panels
  const circuits = (panel?.circuits ?? []).slice(0, 24).map((c, i) => ({ ...c, picked: i < 12 }))
  const shared = circuits.map(c =>
    c.id === 'c1' || c.id === 'c3'
      ? { ...c, neutral: { kind: 'shared' as const, with: c.id === 'c1' ? 'c3' : 'c1' } }
      : c,
  )
  const job: Job = {
    ...largestJob(),
    panels: [{ ...bare('main', 'Main panel', 30, 200), circuits: shared }],
    source: quarryRidge.source,
  }
  return after(job, [
    { op: 'setHookup', facts: { method: 'critical-subpanel' } },
    { op: 'planMove', circuitId: 'c5', toPosition: 7 },
  ])
}

/** Twenty-four circuits led over to a new panel behind an inverter: more than 150 conductors. */
export function wiredJob(): Job {
  const base = largestJob()
  const [panel] = base.panels
  if (!panel) throw new Error('no panel')
  const circuits = panel.circuits.map((c, i) => ({ ...c, picked: i < 38, label: `Circuit ${i + 1}` }))
  const { runs: _, ...hookup } = quarryRidge.hookup
  const set = applyOperation(
    {
      ...base,
      panels: [{ ...panel, circuits: circuits.filter(c => c.position < 40) }],
      source: quarryRidge.source,
    },
    {
      op: 'setHookup',
      facts: { ...hookup, panelId: 'main', neutrals: 'follow their hots', newPanel: { spaces: 42 } },
    },
  )
  if (!set.ok) throw new Error(JSON.stringify(set.faults))
  return set.value
}
