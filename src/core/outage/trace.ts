import { type Desk, residualOf } from './chance'
import { type Course, drawnCourse, meanCourse, ticksPerStep } from './course'
import type { Account, CourseOutcome, CourseRecord, OutageEvent } from './course-outcome'
import { runCourse } from './kernel'
import type { Plan } from './plan'
import { sunDayOf } from './sky'
import { addOver, groupOf } from './sums'

/** One course looked at closely: the mean one, or a single draw. Plain data for the screen, the CSV and the command line. */
export interface CourseTrace {
  /** −1: the mean */
  draw: number
  beginsH: number
  hours: number
  stepS: number
  capacityWh: number
  reserveWh: number
  /** some points of the course, at most `mostPoints`; flows are means of the stretch that begins there, W */
  points: {
    hour: Float64Array
    levelWh: Float64Array
    storesWh: Float64Array[]
    sunW: Float64Array
    generatorW: Float64Array
    batteryW: Float64Array
    /** to the loads, by tier */
    tierW: Float64Array[]
    lostW: Float64Array
  }
  marks: OutageEvent[]
  account: Account & { byCircuitWh: number[]; residualWh: number; residualFraction: number }
  outcome: Pick<
    CourseOutcome,
    | 'firstDarkH'
    | 'cause'
    | 'causeAt'
    | 'emptyH'
    | 'emptyStore'
    | 'trips'
    | 'leftOff'
    | 'generatorH'
    | 'gallons'
    | 'endWh'
  >
  /** what runs when: for the panel at any minute */
  runs: { load: Int16Array; startH: Float64Array; endH: Float64Array; W: Float64Array }
  idleW: Float64Array
  hourlyW: Float64Array[] | null
  /** by tier × 2 + leg: the hours at which serving ends and begins again, in turn */
  darkFromTo: [number, number][][]
}

const mostPoints = 289

const recordFor = (plan: Plan): CourseRecord => ({
  levelWh: new Float64Array(plan.steps + 1),
  storesWh: plan.stores.map(() => new Float64Array(plan.steps + 1)),
  sunW: new Float64Array(plan.steps),
  generatorW: new Float64Array(plan.steps),
  loadsW: new Float64Array(plan.steps),
  lostW: new Float64Array(plan.steps),
  served: Array.from({ length: 6 }, () => new Float64Array(plan.steps)),
  marks: [],
})

/** The mean course, or the draw with that number, in full. */
export function traceOf(plan: Plan, desk: Desk, seed: number, draw = -1): CourseTrace {
  const course = draw < 0 ? meanCourse(desk.room) : drawnCourse(desk.room, seed, draw)
  const record = recordFor(plan)
  const outcome = runCourse(plan, course, desk.bench, record)
  const stepH = plan.stepS / 3600
  const byCircuitWh = circuitWh(plan, course, record)
  const { fraction, Wh } = residualOf(outcome.account)
  const factor = (k: number) => course.capacityFactor[k] ?? 1
  const { runs } = course
  const perHour = (3600 / plan.stepS) * ticksPerStep
  return {
    draw,
    beginsH: course.beginsH,
    hours: plan.hours,
    stepS: plan.stepS,
    capacityWh: plan.stores.reduce((sum, s, k) => sum + s.capacityWh * factor(k), 0),
    reserveWh: plan.stores.reduce((sum, s, k) => sum + s.reserveWh * factor(k), 0),
    points: pointsOf(plan, course, record),
    marks: [...record.marks, ...sunMarks(plan, desk, course)].sort((a, b) => a.hour - b.hour),
    account: { ...outcome.account, byCircuitWh, residualWh: Wh, residualFraction: fraction },
    outcome: {
      firstDarkH: outcome.firstDarkH,
      cause: outcome.cause,
      causeAt: outcome.causeAt,
      emptyH: outcome.emptyH,
      emptyStore: outcome.emptyStore,
      trips: outcome.trips,
      leftOff: outcome.leftOff,
      generatorH: outcome.generatorH,
      gallons: outcome.gallons,
      endWh: outcome.endWh,
    },
    runs: {
      load: runs.load.slice(0, runs.count),
      startH: Float64Array.from({ length: runs.count }, (_, i) => (runs.start[i] ?? 0) / perHour),
      endH: Float64Array.from({ length: runs.count }, (_, i) => (runs.end[i] ?? 0) / perHour),
      W: runs.W.slice(0, runs.count),
    },
    idleW: course.idleW.slice(),
    hourlyW: course.hourlyW,
    darkFromTo: record.served.map(served => darkSpans(served, stepH)),
  }
}

function darkSpans(served: Float64Array, stepH: number): [number, number][] {
  const spans: [number, number][] = []
  let from = -1
  served.forEach((part, m) => {
    if (part < 1 && from < 0) from = m + part
    if (part >= 1 && from >= 0) {
      spans.push([from * stepH, m * stepH])
      from = -1
    }
  })
  if (from >= 0) spans.push([from * stepH, served.length * stepH])
  return spans
}

/** Energy that each circuit was served, Wh: each run by the served part of the steps it covers, summed apart from the kernel. */
function circuitWh(plan: Plan, course: Course, record: CourseRecord): number[] {
  const stepH = plan.stepS / 3600
  const totals = plan.circuits.map(() => 0)
  const sums = record.served.map(served => {
    const running = new Float64Array(plan.steps + 1)
    for (let m = 0; m < plan.steps; m++) running[m + 1] = (running[m] ?? 0) + (served[m] ?? 0)
    return running
  })
  const servedSteps = (group: number, from: number, to: number): number => {
    const a = Math.floor(from / ticksPerStep)
    const b = Math.floor(to / ticksPerStep)
    const running = sums[group]
    const served = record.served[group]
    if (!running || !served) return 0
    const ends = (to / ticksPerStep - b) * (served[b] ?? 0) - (from / ticksPerStep - a) * (served[a] ?? 0)
    return (running[b] ?? 0) - (running[a] ?? 0) + ends
  }
  const end = plan.steps * ticksPerStep
  plan.loads.forEach((load, l) => {
    const add = (from: number, to: number, W: number) => {
      for (const leg of [0, 1] as const) {
        if (!load.share[leg]) continue
        const steps = servedSteps(groupOf(plan, load.tier, leg), from, to)
        totals[load.circuit] = (totals[load.circuit] ?? 0) + W * load.share[leg] * steps * stepH
      }
    }
    const hourly = course.hourlyW?.[l]
    if (hourly) {
      const perHour = (3600 / plan.stepS) * ticksPerStep
      const begins = Math.round((course.beginsH - Math.floor(course.beginsH)) * perHour)
      for (let h = 0, at = -begins; at < end; h++, at += perHour)
        add(Math.max(0, Math.round(at)), Math.min(end, Math.round(at + perHour)), hourly[h] ?? 0)
      return
    }
    add(0, end, course.idleW[l] ?? 0)
    const { runs } = course
    for (let i = runs.first[l] ?? 0; i < (runs.first[l + 1] ?? 0); i++)
      if ((runs.end[i] ?? 0) > (runs.start[i] ?? 0)) add(runs.start[i] ?? 0, runs.end[i] ?? 0, runs.W[i] ?? 0)
  })
  return totals
}

function pointsOf(plan: Plan, course: Course, record: CourseRecord): CourseTrace['points'] {
  const every = Math.max(1, Math.ceil(plan.steps / (mostPoints - 1)))
  const count = Math.ceil(plan.steps / every) + 1
  const of = () => new Float64Array(count)
  const points = {
    hour: of(),
    levelWh: of(),
    storesWh: plan.stores.map(of),
    sunW: of(),
    generatorW: of(),
    batteryW: of(),
    tierW: [of(), of(), of()],
    lostW: of(),
  }
  const tiers = tierWatts(plan, course, record)
  for (let p = 0; p < count; p++) {
    const from = Math.min(plan.steps, p * every)
    const to = Math.min(plan.steps, from + every)
    points.hour[p] = (from * plan.stepS) / 3600
    points.levelWh[p] = record.levelWh[from] ?? 0
    points.storesWh.forEach((series, k) => {
      series[p] = record.storesWh[k]?.[from] ?? 0
    })
    const length = Math.max(1, to - from)
    for (let m = from; m < to; m++) {
      points.sunW[p] = (points.sunW[p] ?? 0) + (record.sunW[m] ?? 0) / length
      points.generatorW[p] = (points.generatorW[p] ?? 0) + (record.generatorW[m] ?? 0) / length
      points.lostW[p] = (points.lostW[p] ?? 0) + (record.lostW[m] ?? 0) / length
      points.tierW.forEach((series, t) => {
        series[p] = (series[p] ?? 0) + (tiers[t]?.[m] ?? 0) / length
      })
    }
    points.batteryW[p] =
      length && to > from
        ? (((record.levelWh[from] ?? 0) - (record.levelWh[to] ?? 0)) * 3600) / plan.stepS / length
        : 0
  }
  return points
}

/** What the loads of each tier were served, step by step, W: changes by tier and leg, added up, × the served part. */
function tierWatts(plan: Plan, course: Course, record: CourseRecord): Float64Array[] {
  const end = plan.steps * ticksPerStep
  const changes = Array.from({ length: 6 }, () => new Float64Array(plan.steps + 3))
  plan.loads.forEach((load, l) => {
    const add = (from: number, to: number, W: number) => {
      for (const leg of [0, 1] as const) {
        const of = changes[(load.tier - 1) * 2 + leg]
        if (of && load.share[leg]) addOver(of, from, to, W * load.share[leg])
      }
    }
    const hourly = course.hourlyW?.[l]
    if (hourly) {
      const perHour = (3600 / plan.stepS) * ticksPerStep
      const begins = Math.round((course.beginsH - Math.floor(course.beginsH)) * perHour)
      for (let h = 0, at = -begins; at < end; h++, at += perHour)
        add(Math.max(0, Math.round(at)), Math.min(end, Math.round(at + perHour)), hourly[h] ?? 0)
      return
    }
    add(0, end, course.idleW[l] ?? 0)
    const { runs } = course
    for (let i = runs.first[l] ?? 0; i < (runs.first[l + 1] ?? 0); i++)
      if ((runs.end[i] ?? 0) > (runs.start[i] ?? 0)) add(runs.start[i] ?? 0, runs.end[i] ?? 0, runs.W[i] ?? 0)
  })
  return [0, 1, 2].map(tier => {
    const series = new Float64Array(plan.steps)
    for (const leg of [0, 1] as const) {
      const of = changes[tier * 2 + leg]
      const served = record.served[groupOf(plan, tier + 1, leg)]
      if (!of || !served) continue
      let W = 0
      for (let m = 0; m < plan.steps; m++) {
        W += of[m] ?? 0
        series[m] = (series[m] ?? 0) + W * (served[m] ?? 0)
      }
    }
    return series
  })
}

function sunMarks(plan: Plan, desk: Desk, course: Course): OutageEvent[] {
  if (!plan.arrays.length) return []
  const { sunriseH, sunsetH } = sunDayOf(plan, desk.room.sky, course.sky.month)
  const marks: OutageEvent[] = []
  for (let day = 0; day * 24 < plan.hours + 24; day++)
    for (const [kind, at] of [
      ['sunrise', sunriseH],
      ['sunset', sunsetH],
    ] as const) {
      if (at === null) continue
      const hour = day * 24 + at - course.beginsH
      if (hour >= 0 && hour <= plan.hours) marks.push({ hour, kind, about: -1 })
    }
  return marks
}
