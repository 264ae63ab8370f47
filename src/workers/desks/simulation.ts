import { transfer } from 'comlink'
import type { Job } from '@/core/job/schema'
import { answerOf, type OutageAnswer } from '@/core/outage/answer'
import { type Chance, chanceOf, type Desk, type Draws, deskFor, joined, runDraws } from '@/core/outage/chance'
import type { Plan } from '@/core/outage/plan'
import { planWhatIf } from '@/core/outage/plan-what-if'
import { type CourseTrace, traceOf } from '@/core/outage/trace'
import type { WhatIf } from '@/core/outage/what-if'
import { type Outcome, ok } from '@/core/outcome'

const quickStepS = 300

interface Begun {
  plan: Plan
  quick: CourseTrace | null
}

export interface Summed {
  mean: CourseTrace
  chance: Chance
  answer: OutageAnswer
}

/** One design at a time; every question carries its number, a new design replaces the one before. */
export function simulation() {
  let now: { id: number; plan: Plan; desk: Desk; mean: CourseTrace | null; draws: Draws | null } | null = null

  /** The design that is spoken of; asking about one that is gone is an error. */
  function design(id: number) {
    if (now?.id !== id) throw new Error(`design ${id} is not the one at hand`)
    return now
  }

  const answers = {
    /** Takes a design up. */
    take(id: number, job: Job, whatIf: WhatIf): Outcome<Plan> {
      const plan = planWhatIf(job, whatIf)
      now = plan.ok ? { id, plan: plan.value, desk: deskFor(plan.value), mean: null, draws: null } : null
      return plan
    },
    /** Takes a design up, and answers its mean course in coarse steps: for the eye while something is dragged. */
    begin(id: number, job: Job, whatIf: WhatIf): Outcome<Begun> {
      const plan = answers.take(id, job, whatIf)
      if (!plan.ok) return plan
      const coarse = planWhatIf(job, whatIf, quickStepS)
      return ok({
        plan: plan.value,
        quick: coarse.ok ? traceOf(coarse.value, deskFor(coarse.value), 0) : null,
      })
    },
    draws(id: number, seed: number, from: number, count: number): Draws {
      const { plan, desk } = design(id)
      const draws = runDraws(plan, seed, from, count, desk)
      return transfer(
        draws,
        Object.values(draws).flatMap(v => (typeof v === 'number' ? [] : [v.buffer])),
      )
    },
    /** Adds draws, in the order of their numbers, to those that were added before. */
    sum(id: number, seed: number, parts: Draws[]): Summed {
      const at = design(id)
      at.mean ??= traceOf(at.plan, at.desk, 0)
      at.draws = joined([...(at.draws ? [at.draws] : []), ...parts])
      const chance = chanceOf(at.plan, seed, at.draws)
      return { mean: at.mean, chance, answer: answerOf(at.plan, chance, at.mean) }
    },
    trace(id: number, seed: number, draw: number): CourseTrace {
      const { plan, desk } = design(id)
      return traceOf(plan, desk, seed, draw)
    },
  }
  return answers
}
export type Simulation = ReturnType<typeof simulation>
