import type { Course } from './course'
import type { Plan } from './plan'
import type { Bench } from './sums'
import { sunSlotMin } from './sun'

/** Where the level of all stores together is put down, every so many steps. */
export interface Levels {
  every: number
  into: Float64Array
  offset: number
}

/** What the quiet steps need at hand: nothing is let go, no generator runs, no store is near empty or full. */
export interface Lane {
  two: boolean
  stepH: number
  stepsPerSlot: number
  watts: [Float64Array, Float64Array]
  VA: [Float64Array, Float64Array] | null
  starts: [Float64Array, Float64Array, Float64Array]
  limits: Plan['limits']
  sun: [Float64Array | null, Float64Array | null]
  level: Float64Array
  cur: Float64Array
  va: Float64Array
  idleW: [number, number]
  perW: [number, number]
  floorWh: Float64Array
  ceilingWh: Float64Array
  /** what charging can put in within a step */
  mostWh: Float64Array
  /** the bend of the efficiency, per W² */
  perW2: [number, number]
  /** sums of what went through, W × steps; and of its squares */
  loadW: Float64Array
  loadW2: Float64Array
  sunW: Float64Array
  steps: number
  levels: Levels | null
}

/** The lane of a course; `wake` sets where the quiet ends: above the reserve, and above the generator's start while it has fuel. */
export function laneFor(
  plan: Plan,
  course: Course,
  bench: Bench,
  state: {
    level: Float64Array
    cur: Float64Array
    va: Float64Array
    capacity: Float64Array
    reserve: Float64Array
  },
  watches: boolean,
  levels: Levels | null,
): Lane & { wake: (fuel: boolean) => void } {
  const { stores, generator } = plan
  const { capacity, reserve } = state
  const [a, b] = stores
  const [w0, w1] = bench.watts
  const floorWh = new Float64Array(2)
  const ceilingWh = Float64Array.from(stores, (s, k) =>
    s.charges ? s.taperFromFraction * (capacity[k] ?? 0) : 0,
  )
  return {
    two: stores.length > 1,
    stepH: plan.stepS / 3600,
    stepsPerSlot: (sunSlotMin * 60) / plan.stepS,
    watts: [w0 ?? new Float64Array(0), w1 ?? new Float64Array(0)],
    VA: watches ? bench.VA : null,
    starts: bench.starts,
    limits: plan.limits,
    sun: [course.sky.sunW[0] ?? null, course.sky.sunW[1] ?? null],
    level: state.level,
    cur: state.cur,
    va: state.va,
    idleW: [a?.idleW ?? 0, b?.idleW ?? 0],
    perW: [1 / (a?.efficiencyFraction ?? 1), 1 / (b?.efficiencyFraction ?? 1)],
    floorWh,
    ceilingWh,
    mostWh: Float64Array.from(stores, s => (s.acceptsW * plan.stepS) / 3600),
    perW2: [a?.lossPerW2 ?? 0, b?.lossPerW2 ?? 0],
    loadW: new Float64Array(2),
    loadW2: new Float64Array(2),
    sunW: new Float64Array(2),
    steps: 0,
    levels,
    wake: fuel => {
      for (let k = 0; k < stores.length; k++)
        floorWh[k] = Math.max(
          reserve[k] ?? 0,
          fuel && generator ? generator.startAtFraction * (capacity[k] ?? 0) + 1e-6 : 0,
        )
    },
  }
}

/**
 * Runs on from a step while all is quiet, and returns the first step that is not: one that could trip the source, empty a
 * store, come near its top, bring more than it accepts or wake the generator. That one is the whole kernel's.
 */
export function quietSteps(lane: Lane, from: number, to: number): number {
  const { two, stepH, stepsPerSlot, limits, level, cur, va, VA, levels } = lane
  const [watts0, watts1] = lane.watts
  const [sun0, sun1] = lane.sun
  const [idle0, idle1] = lane.idleW
  const [perW0, perW1] = lane.perW
  const [bend0, bend1] = lane.perW2
  const floor0 = lane.floorWh[0] ?? 0
  const floor1 = lane.floorWh[1] ?? 0
  const ceiling0 = lane.ceilingWh[0] ?? 0
  const ceiling1 = lane.ceilingWh[1] ?? 0
  const most0 = lane.mostWh[0] ?? 0
  const most1 = lane.mostWh[1] ?? 0
  const [starts0, starts1, startsAll] = lane.starts
  const { totalVA, surgeVA, legSurgeVA, split } = limits
  const [legVA0, legVA1] = limits.legVA
  const va0s = VA ? VA[0] : watts0
  const va1s = VA ? VA[1] : watts0
  let l0 = level[0] ?? 0
  let l1 = level[1] ?? 0
  let c0 = cur[0] ?? 0
  let c1 = cur[1] ?? 0
  let v0 = va[0] ?? 0
  let v1 = va[1] ?? 0
  let load0 = lane.loadW[0] ?? 0
  let load1 = lane.loadW[1] ?? 0
  let square0 = lane.loadW2[0] ?? 0
  let square1 = lane.loadW2[1] ?? 0
  let sunSum0 = lane.sunW[0] ?? 0
  let sunSum1 = lane.sunW[1] ?? 0
  const every = levels ? levels.every : to + 1
  let sample = Math.ceil(from / every) * every
  // the sun may lift it over the line in this very step: the generator has looked at it before
  if (l0 < floor0 || (two && l1 < floor1)) return from
  let m = from
  for (; m < to; m++) {
    const w0 = c0 + (watts0[m] ?? 0)
    let x0 = v0
    let x1 = v1
    if (VA) {
      x0 += va0s[m] ?? 0
      x1 += va1s[m] ?? 0
      const sum = x0 + x1
      if (sum > totalVA || sum + (startsAll[m] ?? 0) > surgeVA) break
      if (
        split &&
        (x0 > legVA0 ||
          x1 > legVA1 ||
          x0 + (starts0[m] ?? 0) > legSurgeVA ||
          x1 + (starts1[m] ?? 0) > legSurgeVA)
      )
        break
    }
    let s0 = 0
    let s1 = 0
    if (sun0) {
      const slot = Math.floor(m / stepsPerSlot)
      s0 = sun0[slot] ?? 0
      if (two && sun1) s1 = sun1[slot] ?? 0
    }
    const n0 = l0 + (s0 - (idle0 + w0 * (perW0 + bend0 * w0))) * stepH
    if (n0 < floor0 || (n0 > l0 && (n0 > ceiling0 || n0 - l0 > most0))) break
    if (two) {
      const w1 = c1 + (watts1[m] ?? 0)
      const n1 = l1 + (s1 - (idle1 + w1 * (perW1 + bend1 * w1))) * stepH
      if (n1 < floor1 || (n1 > l1 && (n1 > ceiling1 || n1 - l1 > most1))) break
      if (m === sample) {
        if (levels) levels.into[levels.offset + m / every] = l0 + l1
        sample += every
      }
      l1 = n1
      c1 = w1
      load1 += w1
      square1 += w1 * w1
      sunSum1 += s1
    } else if (m === sample) {
      if (levels) levels.into[levels.offset + m / every] = l0
      sample += every
    }
    l0 = n0
    c0 = w0
    load0 += w0
    square0 += w0 * w0
    sunSum0 += s0
    v0 = x0
    v1 = x1
  }
  level[0] = l0
  cur[0] = c0
  va[0] = v0
  va[1] = v1
  lane.loadW[0] = load0
  lane.loadW2[0] = square0
  lane.sunW[0] = sunSum0
  if (two) {
    level[1] = l1
    cur[1] = c1
    lane.loadW[1] = load1
    lane.loadW2[1] = square1
    lane.sunW[1] = sunSum1
  }
  lane.steps += m - from
  return m
}

/** The level stays as it is to the end. */
export function rest(levels: Levels, from: number, steps: number, level: Float64Array) {
  let sum = 0
  for (const Wh of level) sum += Wh
  for (let m = Math.ceil(from / levels.every) * levels.every; m < steps; m += levels.every)
    levels.into[levels.offset + m / levels.every] = sum
}
