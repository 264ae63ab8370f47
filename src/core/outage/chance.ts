import { buffersFor, type CourseBuffers, drawnCourse } from './course'
import { type Account, type Cause, causes } from './course-outcome'
import { runCourse } from './kernel'
import type { Plan } from './plan'
import { batchDraws, enough, type Share, shareOf } from './share'
import { type Bench, benchFor } from './sums'

/** Many courses, each by its own number: how likely it lasts, and how sure that is. */

/** What each of some draws came to, in the order of their numbers. Typed arrays: they travel between workers as they are. */
export interface Draws {
  from: number
  count: number
  /** 3 a draw: h until the first circuit of the tier was dark; Infinity */
  firstDarkH: Float64Array
  /** 3 a draw: in `causes` */
  cause: Uint8Array
  causeAt: Int16Array
  emptyH: Float64Array
  emptyStore: Int8Array
  /** how many overloads; the first one’s trigger, and what was on beside it */
  trips: Uint16Array
  tripEnds: Uint8Array
  firstTripH: Float64Array
  trigger: Int16Array
  beside: Int16Array
  /** 6 a draw: served hours by tier × 2 + leg */
  servedH: Float64Array
  generatorH: Float64Array
  gallons: Float64Array
  endWh: Float64Array
  /** of what the stores of the draw hold */
  endFraction: Float64Array
  sunWh: Float64Array
  /** what is not accounted for, of all that went through */
  residual: Float64Array
  /** `points` a draw: level of all stores, Wh */
  levelWh: Float64Array
}

/** At most so many points of a level are kept of each draw. */
const mostPoints = 145
/** Every so many steps a level is put down. */
export const levelEvery = (plan: Pick<Plan, 'steps'>): number =>
  Math.max(1, Math.ceil(plan.steps / (mostPoints - 1)))
export const levelPoints = (plan: Pick<Plan, 'steps'>): number =>
  Math.floor((plan.steps - 1) / levelEvery(plan)) + 1

/** A worker's room and bench for one plan. */
export interface Desk {
  room: CourseBuffers
  bench: Bench
}
export const deskFor = (plan: Plan): Desk => ({ room: buffersFor(plan), bench: benchFor(plan) })

const emptyDraws = (plan: Plan, from: number, count: number): Draws => ({
  from,
  count,
  firstDarkH: new Float64Array(3 * count),
  cause: new Uint8Array(3 * count),
  causeAt: new Int16Array(count),
  emptyH: new Float64Array(count),
  emptyStore: new Int8Array(count),
  trips: new Uint16Array(count),
  tripEnds: new Uint8Array(count),
  firstTripH: new Float64Array(count),
  trigger: new Int16Array(count),
  beside: new Int16Array(count),
  servedH: new Float64Array(6 * count),
  generatorH: new Float64Array(count),
  gallons: new Float64Array(count),
  endWh: new Float64Array(count),
  endFraction: new Float64Array(count),
  sunWh: new Float64Array(count),
  residual: new Float64Array(count),
  levelWh: new Float64Array(levelPoints(plan) * count),
})

/** Runs the draws with these numbers. What comes out depends on the plan, the seed and the numbers alone. */
export function runDraws(plan: Plan, seed: number, from: number, count: number, desk = deskFor(plan)): Draws {
  const draws = emptyDraws(plan, from, count)
  const every = levelEvery(plan)
  const points = levelPoints(plan)
  for (let d = 0; d < count; d++) {
    const course = drawnCourse(desk.room, seed, from + d)
    const got = runCourse(plan, course, desk.bench, null, {
      every,
      into: draws.levelWh,
      offset: d * points,
    })
    for (let t = 0; t < 3; t++) {
      draws.firstDarkH[3 * d + t] = got.firstDarkH[t] ?? 0
      draws.cause[3 * d + t] = causes.indexOf(got.cause[t] ?? 'lasted')
    }
    draws.causeAt[d] = got.causeAt
    draws.emptyH[d] = got.emptyH
    draws.emptyStore[d] = got.emptyStore
    draws.trips[d] = got.trips.length
    draws.tripEnds[d] = got.tripEnds ? 1 : 0
    draws.firstTripH[d] = got.trips[0]?.hour ?? Number.POSITIVE_INFINITY
    draws.trigger[d] = got.trips[0]?.trigger ?? -1
    draws.beside[d] = got.trips[0]?.beside ?? -1
    draws.servedH.set(got.servedH, 6 * d)
    draws.generatorH[d] = got.generatorH
    draws.gallons[d] = got.gallons
    draws.endWh[d] = got.endWh
    const holdsWh = plan.stores.reduce((sum, s, k) => sum + s.capacityWh * (course.capacityFactor[k] ?? 1), 0)
    draws.endFraction[d] = holdsWh > 0 ? got.endWh / holdsWh : 0
    draws.sunWh[d] = got.account.sunWh
    draws.residual[d] = residualOf(got.account).fraction
  }
  return draws
}

/** What an account leaves unexplained: Wh, and as a share of all that went through. */
export function residualOf(account: Account): { Wh: number; fraction: number } {
  const { startWh, sunWh, generatorHouseWh, generatorChargeWh, loadsWh, endWh } = account
  const { idleWh, inverterWh, transformerWh, chargerWh } = account
  const inWh = startWh + sunWh + generatorHouseWh + generatorChargeWh
  const outWh = loadsWh + idleWh + inverterWh + transformerWh + chargerWh + endWh
  const Wh = inWh - outWh
  return { Wh, fraction: Math.abs(Wh) / Math.max(1, inWh + outWh) }
}

/** Some draws of one plan put together, by their numbers. */
export function joined(parts: readonly Draws[]): Draws {
  const sorted = [...parts].sort((a, b) => a.from - b.from)
  const join = <T extends Float64Array | Int16Array | Uint16Array | Uint8Array | Int8Array>(
    pick: (d: Draws) => T,
    make: (length: number) => T,
  ): T => {
    const all = make(sorted.reduce((sum, d) => sum + pick(d).length, 0))
    let at = 0
    for (const part of sorted) {
      all.set(pick(part), at)
      at += pick(part).length
    }
    return all
  }
  const floats = (n: number) => new Float64Array(n)
  const shorts = (n: number) => new Int16Array(n)
  return {
    from: sorted[0]?.from ?? 0,
    count: sorted.reduce((sum, d) => sum + d.count, 0),
    firstDarkH: join(d => d.firstDarkH, floats),
    cause: join(
      d => d.cause,
      n => new Uint8Array(n),
    ),
    causeAt: join(d => d.causeAt, shorts),
    emptyH: join(d => d.emptyH, floats),
    emptyStore: join(
      d => d.emptyStore,
      n => new Int8Array(n),
    ),
    trips: join(
      d => d.trips,
      n => new Uint16Array(n),
    ),
    tripEnds: join(
      d => d.tripEnds,
      n => new Uint8Array(n),
    ),
    firstTripH: join(d => d.firstTripH, floats),
    trigger: join(d => d.trigger, shorts),
    beside: join(d => d.beside, shorts),
    servedH: join(d => d.servedH, floats),
    generatorH: join(d => d.generatorH, floats),
    gallons: join(d => d.gallons, floats),
    endWh: join(d => d.endWh, floats),
    endFraction: join(d => d.endFraction, floats),
    sunWh: join(d => d.sunWh, floats),
    residual: join(d => d.residual, floats),
    levelWh: join(d => d.levelWh, floats),
  }
}

export interface Spread {
  low: number
  middle: number
  high: number
}

/** 5, 50 and 95 % of sorted figures. */
const spreadOf = (sorted: Float64Array): Spread => ({
  low: at(sorted, 0.05),
  middle: at(sorted, 0.5),
  high: at(sorted, 0.95),
})
const at = (sorted: Float64Array, p: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? 0
const sorted = (values: Float64Array) => Float64Array.from(values).sort()
const meanOf = (values: Float64Array) => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)

export interface TripKind {
  trigger: number
  beside: number
  draws: number
}

/**
 * Whether a draw lasts: no must-run circuit goes dark for want of energy, is let go, or is lost to an overload. One that
 * is reset within the hour is borne, and told beside it.
 */
const lasted = (draws: Draws, d: number): boolean =>
  draws.emptyH[d] === Number.POSITIVE_INFINITY &&
  !draws.tripEnds[d] &&
  !['let go', 'cannot carry', 'too cold'].includes(causes[draws.cause[3 * d] ?? 0] ?? '')

/** How likely it lasts, from many draws. */
export interface Chance {
  draws: number
  seed: number
  /** no must-run circuit went dark for want of energy, was let go, or was lost to an overload */
  lasts: Share
  /** every picked circuit of the tier served throughout, trips and all; null without any */
  served: (Share | null)[]
  trips: Share
  /** which overloads, the commonest first */
  tripKinds: TripKind[]
  /** h until the first must-run circuit is dark, at most the hours simulated */
  hours: Spread
  /** among the draws that do not last: why, the commonest first */
  causes: { cause: Cause; store: number; draws: number; atH: number }[]
  /** by circuit: mean dark hours, and in one of twenty at least */
  darkH: { mean: number; high: number }[]
  generatorH: Spread
  gallons: Spread
  fuelGone: Share
  endFraction: Spread
  sunWh: Spread
  bands: {
    hours: Float64Array
    p5: Float64Array
    p25: Float64Array
    p50: Float64Array
    p75: Float64Array
    p95: Float64Array
  }
  /** the greatest share that no account explains */
  residual: number
}

export function chanceOf(plan: Plan, seed: number, draws: Draws): Chance {
  const { count } = draws
  let lasts = 0
  const served = [0, 0, 0]
  let tripped = 0
  const firstH = new Float64Array(count)
  const tripKinds = new Map<string, TripKind>()
  const why = new Map<string, { cause: Cause; store: number; draws: number; atH: number }>()
  for (let d = 0; d < count; d++) {
    const first = draws.firstDarkH[3 * d] ?? 0
    firstH[d] = Math.min(plan.hours, first)
    for (let t = 0; t < 3; t++)
      if (draws.firstDarkH[3 * d + t] === Number.POSITIVE_INFINITY) served[t] = (served[t] ?? 0) + 1
    if (draws.trips[d]) {
      tripped++
      const trigger = draws.trigger[d] ?? -1
      const beside = draws.beside[d] ?? -1
      const key = `${trigger}:${beside}`
      const kind = tripKinds.get(key) ?? { trigger, beside, draws: 0 }
      kind.draws++
      tripKinds.set(key, kind)
    }
    if (lasted(draws, d)) lasts++
    else {
      const tripH = draws.tripEnds[d] ? (draws.firstTripH[d] ?? 0) : Number.POSITIVE_INFINITY
      const tripFirst = tripH < (draws.emptyH[d] ?? 0)
      const empty = !tripFirst && draws.emptyH[d] !== Number.POSITIVE_INFINITY
      const cause: Cause = tripFirst
        ? 'trip'
        : empty
          ? 'store empty'
          : (causes[draws.cause[3 * d] ?? 0] ?? 'lasted')
      const store = empty ? (draws.emptyStore[d] ?? -1) : -1
      const key = `${cause}:${store}`
      const one = why.get(key) ?? { cause, store, draws: 0, atH: 0 }
      one.draws++
      one.atH += tripFirst ? tripH : empty ? (draws.emptyH[d] ?? 0) : first
      why.set(key, one)
    }
  }
  const points = levelPoints(plan)
  const every = levelEvery(plan)
  const band = () => new Float64Array(points)
  const bands = { hours: band(), p5: band(), p25: band(), p50: band(), p75: band(), p95: band() }
  const column = new Float64Array(count)
  for (let p = 0; p < points; p++) {
    for (let d = 0; d < count; d++) column[d] = draws.levelWh[d * points + p] ?? 0
    column.sort()
    bands.hours[p] = (p * every * plan.stepS) / 3600
    bands.p5[p] = at(column, 0.05)
    bands.p25[p] = at(column, 0.25)
    bands.p50[p] = at(column, 0.5)
    bands.p75[p] = at(column, 0.75)
    bands.p95[p] = at(column, 0.95)
  }
  const has = (tier: number) =>
    plan.circuits.some(c => c.tier === tier) || plan.unserved.some(u => u.tier === tier)
  const unfed = (tier: number) => plan.unserved.some(u => u.tier === tier)
  const fuel = plan.generator?.gallons ?? 0
  let fuelGone = 0
  for (const g of draws.gallons) if (fuel > 0 && g >= fuel - 1e-6) fuelGone++
  return {
    draws: count,
    seed,
    lasts: shareOf(lasts, count),
    served: [1, 2, 3].map((tier, t) =>
      has(tier) ? shareOf(unfed(tier) ? 0 : (served[t] ?? 0), count) : null,
    ),
    trips: shareOf(tripped, count),
    tripKinds: [...tripKinds.values()].sort(
      (a, b) => b.draws - a.draws || a.trigger - b.trigger || a.beside - b.beside,
    ),
    hours: spreadOf(sorted(firstH)),
    causes: [...why.values()].map(w => ({ ...w, atH: w.atH / w.draws })).sort((a, b) => b.draws - a.draws),
    darkH: plan.circuits.map(c => {
      const dark = new Float64Array(count)
      for (let d = 0; d < count; d++) {
        const legs = [0, 1].flatMap(leg =>
          (c.share[leg] ?? 0) > 0 ? [draws.servedH[6 * d + (c.tier - 1) * 2 + leg] ?? 0] : [],
        )
        dark[d] = Math.max(0, plan.hours - Math.min(...legs))
      }
      return { mean: meanOf(dark), high: at(sorted(dark), 0.95) }
    }),
    generatorH: spreadOf(sorted(draws.generatorH)),
    gallons: spreadOf(sorted(draws.gallons)),
    fuelGone: shareOf(fuelGone, count),
    endFraction: spreadOf(sorted(draws.endFraction)),
    sunWh: spreadOf(sorted(draws.sunWh)),
    bands,
    residual: draws.residual.reduce((a, b) => Math.max(a, b), 0),
  }
}

/** Batch after batch in one place until it is known well enough. `stop` is asked between batches. */
export function simulate(
  plan: Plan,
  { seed = 1, most = 1000, exactly }: { seed?: number; most?: number; exactly?: number } = {},
  stop: () => boolean = () => false,
): { chance: Chance; draws: Draws } {
  const desk = deskFor(plan)
  const parts: Draws[] = []
  let done = 0
  let lasts = 0
  const limit = exactly ?? most
  do {
    const part = runDraws(plan, seed, done, Math.min(batchDraws, limit - done), desk)
    parts.push(part)
    done += part.count
    for (let d = 0; d < part.count; d++) if (lasted(part, d)) lasts++
  } while (done < limit && !(exactly === undefined && enough(shareOf(lasts, done), done, most)) && !stop())
  const draws = joined(parts)
  return { chance: chanceOf(plan, seed, draws), draws }
}
