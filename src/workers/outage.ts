import type { Job } from '@/core/job/schema'
import { type Answer, answerOf } from '@/core/outage/answer'
import { type Chance, chanceOf, type Desk, type Draws, deskFor, joined, runDraws } from '@/core/outage/chance'
import type { Plan } from '@/core/outage/plan'
import { type Trace, traceOf } from '@/core/outage/trace'
import { planWhatIf, type WhatIf } from '@/core/outage/what-if'
import type { Fault } from '@/core/outcome'

/** Asked of a worker. Every question carries the number of the design it is about; a new design replaces the one before. */
export type OutageAsk =
  | { kind: 'design'; id: number; job: Job; whatIf: WhatIf; mean: boolean }
  | { kind: 'draws'; id: number; seed: number; from: number; count: number }
  | { kind: 'sum'; id: number; seed: number; parts: Draws[] }
  | { kind: 'trace'; id: number; seed: number; draw: number }

export type OutageSay =
  /** `quick`: in coarse steps, for the eye while something is dragged; the whole one follows with the first sum */
  | { kind: 'mean'; id: number; plan: Plan; trace: Trace; quick: boolean }
  | { kind: 'cannot'; id: number; faults: Fault[] }
  | { kind: 'draws'; id: number; draws: Draws }
  /** the question was about a design that is gone */
  | { kind: 'idle'; id: number }
  | { kind: 'sum'; id: number; chance: Chance; answer: Answer }
  | { kind: 'trace'; id: number; trace: Trace }

const quickStepS = 300
let now: { id: number; plan: Plan; desk: Desk | null; mean: Trace | null } | null = null
const parts: { id: number; draws: Draws | null } = { id: -1, draws: null }
const say = (message: OutageSay, transfer: Transferable[] = []) => postMessage(message, { transfer })

addEventListener('message', ({ data }: MessageEvent<OutageAsk>) => {
  if (data.kind === 'design') {
    const plan = planWhatIf(data.job, data.whatIf)
    if (!plan.ok) {
      now = null
      if (data.mean) say({ kind: 'cannot', id: data.id, faults: plan.faults })
      return
    }
    now = { id: data.id, plan: plan.value, desk: null, mean: null }
    const quick = data.mean ? planWhatIf(data.job, data.whatIf, quickStepS) : null
    if (quick?.ok) {
      const trace = traceOf(quick.value, deskFor(quick.value), 0)
      say({ kind: 'mean', id: data.id, plan: plan.value, trace, quick: true })
    }
    return
  }
  if (!now || now.id !== data.id) return say({ kind: 'idle', id: data.id })
  const { plan } = now
  now.desk ??= deskFor(plan)
  const { desk } = now
  if (data.kind === 'draws') {
    const draws = runDraws(plan, data.seed, data.from, data.count, desk)
    const buffers = Object.values(draws).flatMap(v => (typeof v === 'number' ? [] : [v.buffer]))
    say({ kind: 'draws', id: data.id, draws }, buffers)
  } else if (data.kind === 'sum') {
    if (!now.mean) {
      now.mean = traceOf(plan, desk, 0)
      say({ kind: 'mean', id: data.id, plan, trace: now.mean, quick: false })
    }
    const before = parts.id === data.id && parts.draws ? [parts.draws] : []
    parts.id = data.id
    parts.draws = joined([...before, ...data.parts])
    const chance = chanceOf(plan, data.seed, parts.draws)
    say({ kind: 'sum', id: data.id, chance, answer: answerOf(plan, chance, now.mean) })
  } else if (data.kind === 'trace')
    say({ kind: 'trace', id: data.id, trace: traceOf(plan, desk, data.seed, data.draw) })
})
