import { proofOf } from '@/core/commission/scene'
import type { Asked, Test } from '@/core/commission/tests'
import type { State } from '@/core/isolation/live'
import type { Job } from '@/core/job/schema'
import { faultsLeft } from '@/core/job/test-log'
import { instrumentsOf, questionOf } from '@/simulators/house/instruments'
import { truthOf } from '@/simulators/house/truth'

/** How the made-up house stands: its handles, and what runs. */
export interface Stands {
  state: State
  on: readonly string[]
}

/** What a hand may do wrong with an instrument. */
export interface Held {
  /** the meter’s dial, where it stands elsewhere than it should */
  dial?: 'mV' | 'Ω'
  /** other points than those asked */
  points?: readonly [string, string]
}

/** Simulated instruments held to the made-up house of a job. Null where there is none. */
export function instrumentsFor(job: Job) {
  const house = job.tests?.simulated
  if (!job.tests || !house) return null
  const p = proofOf(job)
  const { read } = instrumentsOf(p, truthOf(p, house.seed, faultsLeft(job.tests)))
  return {
    handles: p.house.handles,
    places: p.states,
    read: (test: Test, asked: Asked, stands: Stands, { dial, points }: Held = {}): number | string => {
      const q = questionOf(test, asked, stands)
      const held = points ? { ...q, points } : q
      if (dial === undefined) return read(held)
      const V = Number(read({ ...held, instrument: 'volts' }))
      // on the wrong range it shows no more than that it is over it
      if (dial === 'mV') return V > 0.6 ? 'OL' : Math.round(V * 1000)
      return V > 2 ? 'OL' : read({ ...held, instrument: 'ohms' })
    },
  }
}
export type SimulatedInstruments = NonNullable<ReturnType<typeof instrumentsFor>>
