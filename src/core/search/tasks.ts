import { effortOf, withMethod } from '../hookup/compare'
import { methodOf } from '../hookup/method'
import { evaluate } from '../job/evaluate'
import { circuitNeeds, named } from '../job/needs'
import type { Job } from '../job/schema'
import { drawnCourse, roomFor, ticksPerStep } from '../outage/course'
import { runCourse } from '../outage/kernel'
import { type Plan, planOf } from '../outage/plan'
import { benchFor } from '../outage/sums'
import { together } from '../units/format'
import { jobWith, type Space, sourceWith } from './space'

/** The pieces of work that a search hands out. Each is pure: the space and the task say all, and the answer is plain data. */
export type Task =
  | { kind: 'checks'; kins: number[] }
  | { kind: 'bounds'; head: number; method: number; seed: number; from: number; to: number }
  | { kind: 'trips'; head: number; method: number; seed: number; draws: number }
  | { kind: 'race'; items: RaceItem[]; seed: number }

export interface RaceItem {
  head: number
  method: number
  generator: number
  sun: number
  draws: number[]
}

export type Answer =
  | { kind: 'checks'; kins: KinChecked[] }
  | { kind: 'bounds'; from: number; draws: DrawBound[] }
  | { kind: 'trips'; trips: number[] }
  | { kind: 'race'; lasted: number[][] }

/** Why something may not be: a check of severity stop, or what it leaves dark; with a sentence. */
export interface Why {
  id: string
  sentence: string
}

export interface KinChecked {
  kin: number
  methods: MethodChecked[]
  /** by generator, by neutral of the method: what a generator adds */
  generators: Record<string, Why[]>[]
  suns: Why[][]
}
export interface MethodChecked {
  drops: Why[]
  price: number | null
  hours: number
  automatic: boolean
}

/** What one draw asks of any design: energy of each load, and what each choice of modules could bring at most. */
export interface DrawBound {
  loadWh: number[]
  sunWh: number[]
  capacityFactor: number[]
}

/** Of the search’s own simulations: steps of five minutes, overloads judged apart from energy. */
const stepS = 300

export function perform(space: Space, task: Task): Answer {
  switch (task.kind) {
    case 'checks':
      return { kind: 'checks', kins: checked(space, task.kins) }
    case 'bounds':
      return { kind: 'bounds', from: task.from, draws: bounds(space, task) }
    case 'trips':
      return { kind: 'trips', trips: tripsOf(space, task) }
    case 'race':
      return { kind: 'race', lasted: task.items.map(item => race(space, item, task.seed)) }
  }
}

/** Stops that no design can help, such as those of the panel itself, are left out by the caller: it sees them in all. */
const stopsOf = (job: Job): Why[] =>
  evaluate(job).findings.flatMap(f =>
    // how long it lasts is what the search finds out itself
    f.severity === 'stop' && !f.id.startsWith('energy.short') ? [{ id: f.id, sentence: f.sentence }] : [],
  )

function checked(space: Space, kins: readonly number[]): KinChecked[] {
  const sunsBy = new Map<string, Why[][]>()
  return kins.flatMap(kin => {
    const head = space.heads[kin]
    if (!head) return []
    const job = jobWith(space, head.source)
    const methods = space.methods.map((method): MethodChecked => {
      const here = withMethod(job, method, space.catalogue)
      const picked = circuitNeeds(here).filter(n => n.circuit.picked && !n.feeds)
      const { labourHours, price, missing, automatic } = effortOf(here, picked.length)
      const facts = {
        price: price && (price.least + price.most) / 2,
        hours: (labourHours.least + labourHours.most) / 2,
        automatic,
      }
      const dark = picked.filter(n => !n.served)
      const about = methodOf(method)
      const beyond = about.most !== undefined && picked.length > about.most
      if (missing) return { ...facts, drops: [{ id: 'hook-up', sentence: missing }] }
      if (beyond)
        return {
          ...facts,
          drops: [
            {
              id: 'hook-up',
              sentence: `The ${about.short.toLowerCase()} takes ${about.most} of ${picked.length} picked circuits.`,
            },
          ],
        }
      if (dark.length)
        return {
          ...facts,
          drops: [
            {
              id: 'unserved',
              sentence: `It leaves ${together(dark.slice(0, 3).map(named))}${dark.length > 3 ? ' and more' : ''} dark.`,
            },
          ],
        }
      return { ...facts, drops: stopsOf(here) }
    })
    const base = new Map<string, { method: number; stops: Why[] }>()
    space.methods.forEach((id, n) => {
      const { neutral } = methodOf(id)
      const drops = methods[n]?.drops ?? []
      const was = base.get(neutral)
      // the method of its kind with the fewest stops stands for all
      if (!was || drops.length < was.stops.length) base.set(neutral, { method: n, stops: drops })
    })
    const added = (with_: Job, method: number, stops: readonly Why[]): Why[] => {
      const id = space.methods[method]
      if (!id) return []
      const known = new Set(stops.map(s => s.id))
      return stopsOf(withMethod(with_, id, space.catalogue)).filter(s => !known.has(s.id))
    }
    const generators = space.generators.map((choice, g) => {
      const by: Record<string, Why[]> = {}
      const before = space.generators.findIndex(c => c?.equipment === choice?.equipment)
      if (!choice || before < g) return by
      const source = sourceWith(head, choice, null)
      if (source)
        for (const [neutral, { method, stops }] of base)
          by[neutral] = added(jobWith(space, source), method, stops)
      return by
    })
    const [first] = head.source.units
    const key = `${first?.equipment.id}|${first?.bank?.equipment.id ?? ''}`
    const [any] = base.values()
    const suns =
      sunsBy.get(key) ??
      space.suns.map(choice => {
        if (!choice || !any) return []
        const source = sourceWith(head, null, choice)
        if (!source) return [{ id: 'sun', sentence: `A ${first?.equipment.name} has no solar input.` }]
        return added(jobWith(space, source), any.method, any.stops)
      })
    sunsBy.set(key, suns)
    return [{ kin, methods, generators, suns }]
  })
}

/** The plan of a design under the search; null where it cannot be simulated. */
export function planFor(space: Space, item: Omit<RaceItem, 'draws'>, step = stepS): Plan | null {
  const head = space.heads[item.head]
  const method = space.methods[item.method]
  if (!head || !method) return null
  const source = sourceWith(head, space.generators[item.generator] ?? null, space.suns[item.sun] ?? null)
  if (!source) return null
  const plan = planOf(withMethod(jobWith(space, source), method, space.catalogue), { stepS: step })
  return plan.ok ? plan.value : null
}

function bounds(
  space: Space,
  { head, method, seed, from, to }: Extract<Task, { kind: 'bounds' }>,
): DrawBound[] {
  const plan = planFor(space, { head, method, generator: 0, sun: 0 })
  if (!plan) return []
  // every choice of modules on one plan, as if its input took all of them
  const tilt = Math.min(60, Math.abs(plan.weather.latitudeDeg))
  const withSuns: Plan = {
    ...plan,
    stores: space.suns.map(() => plan.stores[0]).filter(s => s !== undefined),
    arrays: space.suns.flatMap((sun, store) =>
      sun
        ? [
            {
              name: '',
              store,
              stcW: sun.module.stcW * sun.series * sun.parallel,
              inputW: Number.POSITIVE_INFINITY,
              tiltDeg: tilt,
              azimuthDeg: plan.weather.latitudeDeg >= 0 ? 180 : 0,
              folding: sun.module.folding,
              works: true,
            },
          ]
        : [],
    ),
  }
  const two: Plan = { ...plan, stores: [...plan.stores, ...plan.stores].slice(0, 2) }
  const room = roomFor(withSuns)
  const factors = roomFor({ ...two, arrays: [] })
  const stepH = stepS / 3600
  const draws: DrawBound[] = []
  for (let d = from; d < to; d++) {
    const course = drawnCourse(room, seed, d)
    const loadWh = plan.loads.map((_, l) => {
      let Wh = (course.idleW[l] ?? 0) * plan.hours
      for (let i = course.runs.first[l] ?? 0; i < (course.runs.first[l + 1] ?? 0); i++)
        Wh +=
          ((course.runs.W[i] ?? 0) * ((course.runs.end[i] ?? 0) - (course.runs.start[i] ?? 0)) * stepH) /
          ticksPerStep
      return Wh
    })
    const sunWh = space.suns.map((_, s) => {
      let Wh = 0
      for (const W of course.sky.sunW[s] ?? []) Wh += W / 6
      return Wh
    })
    draws.push({ loadWh, sunWh, capacityFactor: [...drawnCourse(factors, seed, d).capacityFactor] })
  }
  return draws
}

/** By draw: 1 where overloads end it for a source of this kin that never runs empty. Minute by minute. */
function tripsOf(space: Space, { head, method, seed, draws }: Extract<Task, { kind: 'trips' }>): number[] {
  const plan = planFor(space, { head, method, generator: 0, sun: 0 }, 60)
  if (!plan?.mayTrip) return new Array(draws).fill(0)
  const endless: Plan = {
    ...plan,
    stores: plan.stores.map(s => ({ ...s, capacityWh: 1e9, startWh: 1e9, reserveWh: 0 })),
  }
  const room = roomFor(endless)
  const bench = benchFor(endless)
  return Array.from({ length: draws }, (_, d) =>
    Number(runCourse(endless, drawnCourse(room, seed, d), bench).tripEnds),
  )
}

/** By draw: 1 where the energy lasts for every must-run circuit. */
function race(space: Space, item: RaceItem, seed: number): number[] {
  const full = planFor(space, item)
  if (!full) return item.draws.map(() => 0)
  const plan: Plan = { ...full, mayTrip: false }
  const room = roomFor(plan)
  const bench = benchFor(plan)
  return item.draws.map(d => {
    const got = runCourse(plan, drawnCourse(room, seed, d), bench)
    return plan.shedding.policy === 'none'
      ? Number(got.emptyH === Number.POSITIVE_INFINITY)
      : Number(got.firstDarkH[0] === Number.POSITIVE_INFINITY)
  })
}
