import { newJob } from '../src/core/job/new'
import type { Job } from '../src/core/job/schema'
import type { Load } from '../src/core/loads/load'
import { bare } from '../src/core/panel/schema'
import { sluice22 } from '../src/server/seeds/catalogue'

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
