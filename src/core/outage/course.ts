import { shareOf } from '../wiring/trip-curve'
import { dutyAt, type Plan, type PlanLoad, weatherDuty } from './plan'
import { type Sky, type SkyTables, skyOf, skyTables } from './sky'
import { keyOf, type Stream, streamOf } from './stream'

/**
 * One course that an outage may take: when each load runs, what the sky does, what the stores really hold. Made before the
 * kernel runs and independent of it, so that the same chances meet every design.
 *
 * Times are ticks, 64 to a step; watts are kept in 64ths. Every sum of them is then exact in a double, in any order.
 */
export const tickBits = 6
export const ticksPerStep = 1 << tickBits
const grain = 64
const kept = (W: number) => Math.round(W * grain) / grain

/** Runs of loads, load after load, in the order of time within each. Grows as needed, and is used again. */
export interface Runs {
  count: number
  load: Int16Array
  start: Int32Array
  end: Int32Array
  /** watts above the load's idle ones */
  W: Float64Array
  VA: Float64Array
  /** of a motor that starts with this run; 0 for none */
  startVA: Float64Array
  /** by load: where its runs begin; one more than there are loads */
  first: Int32Array
}

export interface Course {
  draw: number
  beginsH: number
  sky: Sky
  runs: Runs
  /** each load's idle watts in this course */
  idleW: Float64Array
  /** by load: watts that never change over the course, in a course of means by the hour */
  hourlyW: Float64Array[] | null
  /** × the capacity of each store */
  capacityFactor: Float64Array
  /** of the time within which the breaker of the way must open, the part that this one takes */
  breakerShare: number
}

/** What a worker keeps between courses of one plan. */
export interface CourseBuffers {
  plan: Plan
  sky: SkyTables
  runs: Runs
  idleW: Float64Array
}

const firstRoom = 2048
export const buffersFor = (plan: Plan): CourseBuffers => ({
  plan,
  sky: skyTables(plan),
  runs: {
    count: 0,
    load: new Int16Array(firstRoom),
    start: new Int32Array(firstRoom),
    end: new Int32Array(firstRoom),
    W: new Float64Array(firstRoom),
    VA: new Float64Array(firstRoom),
    startVA: new Float64Array(firstRoom),
    first: new Int32Array(plan.loads.length + 1),
  },
  idleW: new Float64Array(plan.loads.length),
})

function grow(runs: Runs) {
  const twice = <T extends Int16Array | Int32Array | Float64Array>(from: T, to: T): T => {
    to.set(from)
    return to
  }
  const size = runs.load.length * 2
  runs.load = twice(runs.load, new Int16Array(size))
  runs.start = twice(runs.start, new Int32Array(size))
  runs.end = twice(runs.end, new Int32Array(size))
  runs.W = twice(runs.W, new Float64Array(size))
  runs.VA = twice(runs.VA, new Float64Array(size))
  runs.startVA = twice(runs.startVA, new Float64Array(size))
}

function put(runs: Runs, load: number, from: number, to: number, W: number, VA: number, startVA: number) {
  const n = runs.count
  if (n === runs.load.length) grow(runs)
  runs.load[n] = load
  runs.start[n] = from
  runs.end[n] = to
  runs.W[n] = W
  runs.VA[n] = VA
  runs.startVA[n] = startVA
  runs.count = n + 1
}

/** The mean course: every load at its average of the hour, no chance. Without an hour of beginning loads are flat. */
export function meanCourse(room: CourseBuffers): Course {
  const { plan } = room
  const beginsH = plan.beginsH ?? assumedBeginsH
  const sky = skyOf(plan, room.sky, beginsH, null)
  const hours = Math.ceil(plan.hours) + 1
  room.runs.count = 0
  room.runs.first.fill(0)
  return {
    draw: -1,
    beginsH,
    sky,
    runs: room.runs,
    idleW: room.idleW.fill(0),
    hourlyW: plan.loads.map(load =>
      Float64Array.from({ length: hours }, (_, h) => {
        const clock = plan.beginsH === null ? null : Math.floor(beginsH) + h
        const duty = dutyAt(load, clock, sky.outdoorC?.[h] ?? null)
        return kept(duty * load.meanRunningW + (1 - duty) * load.idleW)
      }),
    ),
    capacityFactor: new Float64Array(plan.stores.length).fill(1),
    breakerShare: 1,
  }
}
/** The sun of a mean course without an hour of beginning: evening. */
export const assumedBeginsH = 18

/** What a store really holds, and what is drawn for the whole course: keys of their streams. */
const keys = {
  course: keyOf('course'),
  store: keyOf('store'),
  people: keyOf('people'),
  breaker: keyOf('breaker'),
}
/** Spread of a labelled capacity, as the standard deviation of its logarithm: ours. */
const capacitySpread = 0.04

/** The course of one draw: the same for the same seed and number, whatever was drawn before. */
export function drawnCourse(room: CourseBuffers, seed: number, draw: number): Course {
  const { plan, runs } = room
  const chance = streamOf(seed, draw, keys.course)
  const anyH = chance.uniform() * 24
  const beginsH = plan.beginsH ?? anyH
  const sky = skyOf(plan, room.sky, beginsH, chance)
  runs.count = 0
  plan.loads.forEach((load, n) => {
    runs.first[n] = runs.count
    room.idleW[n] = kept(load.idleW)
    runsOf(plan, load, n, runs, beginsH, sky.outdoorC, streamOf(seed, draw, load.key))
  })
  runs.first[plan.loads.length] = runs.count
  takeTurns(plan, runs, streamOf(seed, draw, keys.people))
  const held = streamOf(seed, draw, keys.store)
  return {
    draw,
    beginsH,
    sky,
    runs,
    idleW: room.idleW,
    hourlyW: null,
    capacityFactor: Float64Array.from(plan.stores, () => unsure(capacitySpread, held)),
    breakerShare: shareOf(streamOf(seed, draw, keys.breaker).uniform()),
  }
}

/** A factor of mean 1: lognormal. */
const unsure = (spread: number, chance: Stream): number =>
  spread > 0 ? Math.exp(spread * chance.normal() - (spread * spread) / 2) : 1

/** When one load runs in one course. */
function runsOf(
  plan: Plan,
  load: PlanLoad,
  n: number,
  runs: Runs,
  beginsH: number,
  outdoorC: Float64Array | null,
  chance: Stream,
) {
  const ticksPerMinute = (60 / plan.stepS) * ticksPerStep
  const ticksPerHour = 60 * ticksPerMinute
  const end = plan.steps * ticksPerStep
  const watts = unsure(load.wattsSpread, chance)
  const dutyFactor = unsure(load.dutySpread, chance)
  const first = runs.count
  const offset = (beginsH - Math.floor(beginsH)) * ticksPerHour
  const flat = load.weather === null || outdoorC === null
  const steady = load.hourFactors.every(f => f === 1)
  const always = flat ? weatherDuty(load, null) : 0

  /** the share of the hour that holds the tick */
  const dutyOf = (tick: number): number => {
    const h = Math.floor((Math.max(0, tick) + offset) / ticksPerHour)
    const duty = flat ? always : weatherDuty(load, outdoorC?.[Math.min(h, outdoorC.length - 1)] ?? null)
    const factor = steady ? 1 : (load.hourFactors[(Math.floor(beginsH) + h) % 24] ?? 1)
    // what never stops is not unsure of that
    return duty >= 0.999 ? Math.min(1, duty * factor) : Math.min(1, duty * factor * dutyFactor)
  }
  const run = (from: number, to: number) => {
    let a = Math.max(0, Math.round(from))
    const b = Math.min(end, Math.round(to))
    if (b <= a) return
    const before = runs.count - 1
    if (before >= first && runs.end[before] === a && !load.sequence.length) {
      runs.end[before] = b
      return
    }
    let level = load.runningW
    if (load.stages.length) {
      let u = chance.uniform()
      for (const stage of load.stages) {
        u -= stage.shareFraction
        if (u < 0) {
          level = stage.W
          break
        }
      }
    }
    if (from >= 0)
      for (const step of load.sequence) {
        const to = Math.min(b, a + Math.round((step.seconds / plan.stepS) * ticksPerStep))
        if (to > a)
          put(runs, n, a, to, kept(step.W * watts - load.idleW), kept(step.W * watts * load.VAperW), 0)
        a = to
      }
    if (b > a)
      put(
        runs,
        n,
        a,
        b,
        kept(level * watts - load.idleW),
        kept(level * watts * load.VAperW),
        from >= 0 ? kept(load.startVA) : 0,
      )
  }

  const length = load.minutes * ticksPerMinute
  if (load.runs === 'always') return run(0, end)
  if (load.runs === 'cycles') {
    for (let t = -chance.uniform() * length; t < end; ) {
      const period = length * (0.75 + 0.5 * chance.uniform())
      const on = dutyOf(t) * period
      run(t, t + on)
      t += period
    }
    return
  }
  if (load.runs === 'hours') {
    // by the clock: some part of every hour of use, at any time within it
    for (let t = -offset; t < end; t += ticksPerHour) {
      const duty = dutyOf(t)
      const on = duty * ticksPerHour
      const from = t + (duty > 0.999 ? 0 : chance.uniform() * (ticksPerHour - on))
      if (on > 0) run(from, from + on)
    }
    return
  }
  // events: pauses of any length, short where it runs much
  for (let t = 0; t < end; ) {
    const duty = dutyOf(t)
    const hourEnd = (Math.floor((t + offset) / ticksPerHour) + 1) * ticksPerHour - offset
    if (duty <= 0) {
      t = hourEnd
      continue
    }
    const pause = duty >= 0.999 ? 0 : (chance.exponential() * length * (1 - duty)) / duty
    // nothing began in what is left of the hour: the next hour has its own share
    if (t + pause > hourEnd) {
      t = hourEnd
      continue
    }
    run(t + pause, t + pause + length)
    t += pause + Math.max(length, 1)
  }
}

/**
 * People let a load switched by hand wait where another one runs that it cannot run with; as often as they heed the card.
 */
function takeTurns(plan: Plan, runs: Runs, chance: Stream) {
  const byHand: number[] = []
  for (let i = 0; i < runs.count; i++) if (plan.loads[runs.load[i] ?? 0]?.byHand) byHand.push(i)
  if (byHand.length < 2) return
  byHand.sort((a, b) => (runs.start[a] ?? 0) - (runs.start[b] ?? 0) || a - b)
  const { totalVA } = plan.limits
  const end = plan.steps * ticksPerStep
  let active: number[] = []
  for (const i of byHand) {
    const load = runs.load[i] ?? 0
    let start = runs.start[i] ?? 0
    const lasts = (runs.end[i] ?? 0) - start
    const heeds = chance.uniform() < plan.heedFraction
    active = active.filter(a => (runs.end[a] ?? 0) > start)
    for (const a of active) {
      const other = runs.load[a] ?? 0
      const tooMuch =
        (runs.VA[a] ?? 0) + (runs.VA[i] ?? 0) > 0.8 * totalVA || plan.loads[load]?.notWith.includes(other)
      if (other === load || (heeds && tooMuch)) start = Math.max(start, runs.end[a] ?? 0)
    }
    runs.start[i] = Math.min(end, start)
    runs.end[i] = Math.min(end, start + lasts)
    active.push(i)
  }
}
