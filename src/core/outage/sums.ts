import { type Course, tickBits, ticksPerStep } from './course'
import type { Plan } from './plan'

/** Sums by step that the kernel walks through; used again from course to course. */
export interface Bench {
  /** changes of watts, by tier × 2 + leg */
  watts: Float64Array[]
  /** changes of volt-amps that touch a step, by leg */
  VA: [Float64Array, Float64Array]
  /** starts in a step, by leg; and all */
  starts: [Float64Array, Float64Array, Float64Array]
  /** the groups that any load is in */
  active: number[]
}

export const benchFor = (plan: Plan): Bench => {
  const sums = () => new Float64Array(plan.steps + 3)
  return {
    watts: Array.from({ length: 6 }, sums),
    VA: [sums(), sums()],
    starts: [sums(), sums(), sums()],
    active: [],
  }
}

/**
 * Loads are summed by what can part them: by tier only where tiers are let go, by leg only where each drains its own
 * store. Groups are tier × 2 + store, both from 0.
 */
export const groupOf = (plan: Plan, tier: number, leg: number): number =>
  (plan.shedding.policy === 'none' ? 0 : tier - 1) * 2 + (plan.stores.length > 1 ? leg : 0)

/** Adds watts over ticks to the changes of the steps they cover, exactly in part for the first and the last. */
export function addOver(changes: Float64Array, from: number, to: number, W: number) {
  const a = from >> tickBits
  const b = to >> tickBits
  const inA = (from - (a << tickBits)) / ticksPerStep
  const inB = (to - (b << tickBits)) / ticksPerStep
  // average of step a: W × (1 − inA); of those between: W; of step b: W × inB
  changes[a] = (changes[a] ?? 0) + W * (1 - inA)
  changes[a + 1] = (changes[a + 1] ?? 0) + W * inA
  changes[b] = (changes[b] ?? 0) - W * (1 - inB)
  changes[b + 1] = (changes[b + 1] ?? 0) - W * inB
}

/** The changes of watts and volt-amps that the course's loads make. */
export function fill(plan: Plan, course: Course, bench: Bench, watches: boolean) {
  for (let g = 0; g < 6; g++) bench.watts[g]?.fill(0)
  const used = new Set<number>()
  const { loads, steps } = plan
  const end = steps * ticksPerStep
  const { runs } = course
  if (watches) for (const sums of [...bench.VA, ...bench.starts]) sums.fill(0)
  for (let l = 0; l < loads.length; l++) {
    const load = loads[l]
    if (!load) continue
    const one = load.share[0] > 0 ? bench.watts[groupOf(plan, load.tier, 0)] : undefined
    const other = load.share[1] > 0 ? bench.watts[groupOf(plan, load.tier, 1)] : undefined
    if (one) used.add(groupOf(plan, load.tier, 0))
    if (other) used.add(groupOf(plan, load.tier, 1))
    const [share0, share1] = load.share
    const hourly = course.hourlyW?.[l]
    if (hourly) {
      const perHour = (3600 / plan.stepS) * ticksPerStep
      const begins = Math.round((course.beginsH - Math.floor(course.beginsH)) * perHour)
      for (let h = 0, at = -begins; at < end; h++, at += perHour) {
        const from = Math.max(0, Math.round(at))
        const to = Math.min(end, Math.round(at + perHour))
        if (one) addOver(one, from, to, (hourly[h] ?? 0) * share0)
        if (other) addOver(other, from, to, (hourly[h] ?? 0) * share1)
      }
      continue
    }
    const idle = course.idleW[l] ?? 0
    if (idle && one) addOver(one, 0, end, idle * share0)
    if (idle && other) addOver(other, 0, end, idle * share1)
    const last = runs.first[l + 1] ?? 0
    for (let i = runs.first[l] ?? 0; i < last; i++) {
      const from = runs.start[i] ?? 0
      const to = runs.end[i] ?? 0
      if (to <= from) continue
      const W = runs.W[i] ?? 0
      if (one) addOver(one, from, to, W * share0)
      if (other) addOver(other, from, to, W * share1)
      if (!watches) continue
      const a = from >> tickBits
      const b = (to + ticksPerStep - 1) >> tickBits
      const VA = runs.VA[i] ?? 0
      const [VA0, VA1] = bench.VA
      if (share0) {
        VA0[a] = (VA0[a] ?? 0) + VA * share0
        VA0[b] = (VA0[b] ?? 0) - VA * share0
      }
      if (share1) {
        VA1[a] = (VA1[a] ?? 0) + VA * share1
        VA1[b] = (VA1[b] ?? 0) - VA * share1
      }
      const startVA = runs.startVA[i] ?? 0
      if (startVA) {
        const [s0, s1, sAll] = bench.starts
        // of a 240 V motor half on each leg
        s0[a] = (s0[a] ?? 0) + startVA * share0
        s1[a] = (s1[a] ?? 0) + startVA * share1
        sAll[a] = (sAll[a] ?? 0) + startVA
      }
    }
  }
  bench.active = [...used].sort()
}

/** Takes a load's runs away from a step on: the one that is on, or all that follow too. */
export function leaveOff(plan: Plan, { runs }: Course, bench: Bench, l: number, step: number, all: boolean) {
  const load = plan.loads[l]
  if (!load) return
  const from = step * ticksPerStep
  const [share0, share1] = load.share
  const one = bench.watts[groupOf(plan, load.tier, 0)]
  const other = bench.watts[groupOf(plan, load.tier, 1)]
  const last = runs.first[l + 1] ?? 0
  for (let i = runs.first[l] ?? 0; i < last; i++) {
    const end = runs.end[i] ?? 0
    if (end <= from) continue
    const start = Math.max(from, runs.start[i] ?? 0)
    if ((runs.start[i] ?? 0) >= from && !all) break
    const W = runs.W[i] ?? 0
    if (share0 && one) addOver(one, start, end, -W * share0)
    if (share1 && other) addOver(other, start, end, -W * share1)
    const a = start / ticksPerStep
    const first = Math.floor(a)
    const b = Math.ceil(end / ticksPerStep)
    const VA = runs.VA[i] ?? 0
    const [VA0, VA1] = bench.VA
    if (first < b) {
      VA0[first] = (VA0[first] ?? 0) - VA * share0
      VA0[b] = (VA0[b] ?? 0) + VA * share0
      VA1[first] = (VA1[first] ?? 0) - VA * share1
      VA1[b] = (VA1[b] ?? 0) + VA * share1
    }
    runs.end[i] = start
    if (runs.start[i] !== undefined && (runs.start[i] ?? 0) > start) runs.start[i] = start
  }
}
