import { effortOf, withMethod } from '../assess/compare-methods'
import { evaluate } from '../assess/evaluate'
import { circuitNeeds, named } from '../assess/needs'
import { hookupDevices } from '../hookup/design'
import { methodOf } from '../hookup/method'
import type { Job } from '../job/schema'
import { buffersFor, drawnCourse, ticksPerStep } from '../outage/course'
import { runCourse, runFilled } from '../outage/kernel'
import { isLost } from '../outage/one-store'
import { type Plan, planOf } from '../outage/plan'
import { benchFor } from '../outage/sums'
import { sunSlotMin } from '../outage/sun'
import type { Source } from '../source/design'
import { together } from '../units/format'
import { coursesFor, oneWattArrays, sunOf } from './courses'
import { plannedDesign } from './planned'
import { jobWith, type Space, sourceWith } from './space'
import type { Part } from './stock'

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

export type TaskResult =
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
  /** fixes of the hook-up that are planned with it */
  plans: string[]
  devices: Part[]
}

/** What one draw asks of any design: energy of each load, and what each choice of modules could bring at most. */
export interface DrawBound {
  loadWh: number[]
  sunWh: number[]
  capacityFactor: number[]
}

/** Hands tasks out and gives their answers back in the order of the tasks. */
export type Crew = (tasks: Task[]) => Promise<TaskResult[]>

/** One after another, here. */
export const alone =
  (space: Space): Crew =>
  tasks =>
    Promise.resolve(tasks.map(task => perform(space, task)))

/** Of the search’s own simulations: steps of five minutes, overloads judged apart from energy. */
const stepS = 300

export function perform(space: Space, task: Task): TaskResult {
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

/** Reasons that are no stop of a check. */
const notAtAll = new Set(['hook-up', 'unserved'])

/** Stops that no design can help, such as those of the panel itself, are left out by the caller: it sees them in all. */
const stopsOf = (job: Job): Why[] =>
  evaluate(job, { withCourse: false }).findings.flatMap(f =>
    // how long it lasts is what the search finds out itself
    f.severity === 'stop' && !f.id.startsWith('energy.short') ? [{ id: f.id, sentence: f.sentence }] : [],
  )

function checked(space: Space, kins: readonly number[]): KinChecked[] {
  const sunsBy = new Map<string, Why[][]>()
  return kins.flatMap(kin => {
    const head = space.heads[kin]
    if (!head) return []
    const job = jobWith(space, head.source)
    const planned: Job[] = []
    const methods = space.methods.map((method): MethodChecked => {
      // what leaves circuits dark is not worth planning
      const bare = withMethod(job, method, space.catalogue)
      const picked = circuitNeeds(bare).filter(n => n.circuit.picked && !n.feeds)
      const dark = picked.filter(n => !n.served)
      const about = methodOf(method)
      const beyond = about.most !== undefined && picked.length > about.most
      const { job: here, plans } =
        dark.length || beyond || effortOf(bare, picked.length, space.wishes.labour).missing
          ? { job: bare, plans: [] }
          : plannedDesign(space, head.source, method)
      planned.push(here)
      const { labourHours, price, missing, automatic } = effortOf(here, picked.length, space.wishes.labour)
      const facts = {
        price: price && (price.least + price.most) / 2,
        hours: (labourHours.least + labourHours.most) / 2,
        automatic,
        plans,
        devices: hookupDevices.flatMap(key => {
          const d = here.hookup[key]
          return d && !here.hookup.exists?.includes(key) ? [{ key: d.id, name: d.name, count: 1 }] : []
        }),
      }
      if (missing) return { ...facts, drops: [{ id: 'hook-up', sentence: missing }] }
      if (beyond)
        return {
          ...facts,
          drops: [
            {
              id: 'hook-up',
              sentence: `“${about.short}” takes ${about.most} of ${picked.length} picked circuits.`,
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
      // one that cannot be at all tells nothing of what a generator adds
      if (drops.some(d => notAtAll.has(d.id))) return
      const was = base.get(neutral)
      // the method of its kind with the fewest stops stands for all
      if (!was || drops.length < was.stops.length) base.set(neutral, { method: n, stops: drops })
    })
    const added = (source: Source, method: number, stops: readonly Why[]): Why[] => {
      const base = planned[method]
      if (!base) return []
      const known = new Set(stops.map(s => s.id))
      return stopsOf({ ...base, source }).filter(s => !known.has(s.id))
    }
    const generators = space.generators.map((choice, g) => {
      const by: Record<string, Why[]> = {}
      const before = space.generators.findIndex(c => c?.equipment === choice?.equipment)
      if (!choice || before < g) return by
      const source = sourceWith(head, choice, null)
      if (source) for (const [neutral, { method, stops }] of base) by[neutral] = added(source, method, stops)
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
        if (!source) return [{ id: 'sun', sentence: `The ${first?.equipment.name} has no solar input.` }]
        return added(source, any.method, any.stops)
      })
    // one that no hook-up of this arrangement suits tells nothing of the modules
    if (any) sunsBy.set(key, suns)
    return [{ kin, methods, generators, suns }]
  })
}

/** A design is simulated rung by rung: its plan is made once by whoever meets it again. */
const plans = new WeakMap<Space, Map<string, Plan | null>>()
function keptPlan(space: Space, { head, method, generator, sun }: RaceItem): Plan | null {
  const known = plans.get(space) ?? new Map<string, Plan | null>()
  plans.set(space, known)
  const key = `${head}|${method}|${generator}|${sun}`
  let plan = known.get(key)
  if (plan === undefined) {
    plan = planFor(space, { head, method, generator, sun })
    known.set(key, plan)
  }
  return plan
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
  const [store] = plan.stores
  const room = buffersFor({ ...plan, arrays: oneWattArrays(plan), stores: store ? [store, store] : [] })
  const stepH = plan.stepS / 3600
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
    const perW = course.sky.sunW.map(series => series.reduce((sum, W) => sum + (W * sunSlotMin) / 60, 0))
    const sunWh = space.suns.map(sun =>
      sun ? sun.module.stcW * sun.series * sun.parallel * (perW[sun.module.folding ? 1 : 0] ?? 0) : 0,
    )
    draws.push({ loadWh, sunWh, capacityFactor: [...course.capacityFactor] })
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
  const room = buffersFor(endless)
  const bench = benchFor(endless)
  return Array.from({ length: draws }, (_, d) =>
    Number(runCourse(endless, drawnCourse(room, seed, d), bench).tripEnds),
  )
}

/** By draw: 1 where the energy lasts for every must-run circuit. */
function race(space: Space, item: RaceItem, seed: number): number[] {
  const full = keptPlan(space, item)
  if (!full) return item.draws.map(() => 0)
  const plan: Plan = { ...full, mayTrip: false }
  const courseOf = coursesFor(space, plan, seed)
  return item.draws.map(d => {
    const kept = courseOf(d)
    const course = { ...kept.course, sky: { ...kept.course.sky, sunW: sunOf(plan, kept) } }
    return Number(!isLost(plan, runFilled(plan, course, kept.bench, false, null, null, true)))
  })
}
