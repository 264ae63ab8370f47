import { buffersFor, type Course, type CourseBuffers, drawnCourse } from '../outage/course'
import type { Plan } from '../outage/plan'
import { type Bench, benchFor, fill } from '../outage/sums'
import type { Space } from './space'

/**
 * Under common chances the courses of a search are the same for every design: what the loads do in a draw, and what a watt
 * of modules brings under its sky. They are drawn once by whoever works on the search, and met by design after design.
 */
export interface KeptCourse {
  course: Course
  bench: Bench
  /** W for each W of a fixed array and of a folding one, by slot of the sky */
  sunPerW: [Float64Array, Float64Array]
}

const none = new Float64Array(0)
const noRuns: Course['runs'] = {
  count: 0,
  load: new Int16Array(0),
  start: new Int32Array(0),
  end: new Int32Array(0),
  W: none,
  VA: none,
  startVA: none,
  first: new Int32Array(0),
}

interface Kin {
  plan: Plan
  room: CourseBuffers
  bench: Bench
  drawn: Map<number, KeptCourse>
}

/** Kinds of plans whose courses are kept at a time: a dozen are some 30 MB for three days. */
const mostKinds = 12
const kept = new WeakMap<Space, Map<string, Kin>>()

/** A watt of modules, fixed and folding, as designs of a search have them: leaning by the latitude, facing the noon sun. */
export const oneWattArrays = ({ weather }: Plan): Plan['arrays'] =>
  [false, true].map((folding, store) => ({
    name: '',
    store,
    stcW: 1,
    inputW: Number.POSITIVE_INFINITY,
    tiltDeg: Math.min(60, Math.abs(weather.latitudeDeg)),
    azimuthDeg: weather.latitudeDeg >= 0 ? 180 : 0,
    folding,
    works: true,
  }))

/** What of a plan its courses depend on, beside the job. */
const kindOf = ({ stepS, limits, stores, shedding, loads }: Plan, seed: number): string =>
  [
    seed,
    stepS,
    limits.totalVA,
    stores.length,
    shedding.policy === 'none',
    ...loads.map(l => `${l.id} ${l.share}`),
  ].join('|')

/** The courses for a plan, drawn as they are asked for. Overloads are not looked at in them. */
export function coursesFor(space: Space, plan: Plan, seed: number): (draw: number) => KeptCourse {
  const kinds = kept.get(space) ?? new Map<string, Kin>()
  kept.set(space, kinds)
  const key = kindOf(plan, seed)
  let kin = kinds.get(key)
  if (!kin) {
    if (kinds.size >= mostKinds) kinds.clear()
    const [store] = plan.stores
    const own: Plan = {
      ...plan,
      arrays: oneWattArrays(plan),
      stores: store ? [store, plan.stores[1] ?? store] : [],
    }
    kin = { plan, room: buffersFor(own), bench: benchFor(plan), drawn: new Map() }
    kinds.set(key, kin)
  }
  const { room, bench, drawn } = kin
  const like = kin.plan
  return draw => {
    const known = drawn.get(draw)
    if (known) return known
    const course = drawnCourse(room, seed, draw)
    fill(like, course, bench, false)
    const made: KeptCourse = {
      course: { ...course, idleW: course.idleW.slice(), runs: noRuns, sky: { ...course.sky, sunW: [] } },
      bench: {
        watts: bench.watts.map((W, g) => (bench.active.includes(g) ? W.slice() : none)),
        VA: [none, none],
        starts: [none, none, none],
        active: bench.active,
      },
      sunPerW: [course.sky.sunW[0] ?? none, course.sky.sunW[1] ?? none],
    }
    drawn.set(draw, made)
    return made
  }
}

/** What each store gets of the sun in a kept course, limited as its inputs limit it. */
export function sunOf(plan: Plan, { sunPerW }: KeptCourse): Float64Array[] {
  if (!plan.arrays.length) return []
  const sunW = plan.stores.map(() => new Float64Array(sunPerW[0].length))
  for (const { works, folding, stcW, inputW, store } of plan.arrays) {
    const into = sunW[store]
    if (!works || !into) continue
    const perW = sunPerW[folding ? 1 : 0]
    for (let s = 0; s < into.length; s++) into[s] = (into[s] ?? 0) + Math.min(inputW, stcW * (perW[s] ?? 0))
  }
  return sunW
}
