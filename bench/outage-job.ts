import { newJob } from '../src/core/job/new'
import type { Job } from '../src/core/job/schema'
import type { Load, Pattern } from '../src/core/loads/load'
import { bare } from '../src/core/panel/schema'
import { spate64 } from '../src/server/seeds/catalogue'

const rhythms: { name: string; W: number; duty: number; pattern?: Pattern; motor?: true; byHand?: true }[] = [
  { name: 'Refrigerator', W: 140, duty: 0.35, pattern: { kind: 'cycling', cycleMinutes: 30 }, motor: true },
  {
    name: 'Lights',
    W: 60,
    duty: 0.25,
    pattern: { kind: 'scheduled', days: 'every day', spans: [{ fromH: 17, toH: 23 }] },
  },
  { name: 'Circulator', W: 85, duty: 0.45, pattern: { kind: 'cycling', cycleMinutes: 25 }, motor: true },
  { name: 'Router', W: 18, duty: 1, pattern: { kind: 'continuous' } },
  {
    name: 'Microwave',
    W: 1100,
    duty: 0.012,
    pattern: { kind: 'event', timesPerDay: 5, minutes: 3.5 },
    byHand: true,
  },
  { name: 'Pump', W: 520, duty: 0.03, pattern: { kind: 'cycling', cycleMinutes: 40 }, motor: true },
]

/** 24 circuits over 72 h: refrigerators, pumps, lights, a kitchen; from a store that lasts in about half of the draws. */
export function outageJob(): Job {
  const base = newJob({ title: 'Outage of the bench', place: 'For the bench', spaces: 24, mainA: 100 })
  return {
    ...base,
    panels: [
      {
        ...bare('main', 'Main panel', 24, 100),
        circuits: Array.from({ length: 24 }, (_, i) => {
          const rhythm = rhythms[i % rhythms.length] ?? { name: 'Load', W: 50, duty: 0.3 }
          const load: Load = {
            id: `load${i}`,
            name: `${rhythm.name} ${i}`,
            runningW: { value: rhythm.W * 0.345 + i * 0.6, from: 'metered' },
            powerFactor: { value: 0.9, from: 'nameplate' },
            dutyFraction: { value: rhythm.duty, from: 'metered' },
            idleW: { value: 1, from: 'metered' },
            nature: rhythm.motor ? 'motor' : 'plain',
            byHand: rhythm.byHand ?? false,
            needsBond: false,
            ...(rhythm.pattern && { pattern: rhythm.pattern }),
          }
          return {
            id: `c${i + 1}`,
            position: i + 1,
            purpose: 'loads' as const,
            poles: 1 as const,
            breakerA: 20,
            label: `Circuit ${i + 1}`,
            neutral: { kind: 'own' as const },
            protection: 'none' as const,
            tier: ([1, 2, 3] as const)[i % 3] ?? 1,
            picked: true,
            loads: [load],
          }
        }),
      },
    ],
    source: {
      units: [{ id: 'u1', equipment: spate64, expansionUnits: 4, owned: false }],
      arrangement: 'split-phase',
      liveLeg: 'L1',
    },
    hookup: { method: 'interlocked-inlet', bondingPlug: false },
    outage: {
      hours: 72,
      startFraction: 1,
      reserveFraction: 0,
      deratingFraction: 1,
      beginsH: 17,
      season: 'winter',
      outdoorC: -5,
    },
  }
}
