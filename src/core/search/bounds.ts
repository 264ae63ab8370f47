import { lossesOf, storeOf } from '../source/store'
import { interval, type Racer } from './racer'
import type { Space } from './space'
import { type Crew, type DrawBound, planFor, type Task } from './tasks'

/** Energy in closed form decides only beyond this margin. */
const margin = 0.02

/** What closed form knows for sure of each draw: who certainly lasts, who certainly does not. */
export async function bound(space: Space, crew: Crew, racers: Racer[], seed: number, draws: number) {
  const [any] = racers
  if (!any) return
  const method = any.options[0]?.method ?? 0
  const size = Math.max(10, Math.ceil(draws / 8))
  const kinMethod = new Map<number, { head: number; method: number }>()
  for (const r of racers) {
    const kin = space.heads[r.head]?.kin ?? 0
    if (!kinMethod.has(kin)) kinMethod.set(kin, { head: r.head, method: r.options[0]?.method ?? 0 })
  }
  // sources of the same limits trip alike
  const plans = new Map(
    [...kinMethod].map(([kin, at]) => [kin, planFor(space, { ...at, generator: 0, sun: 0 })]),
  )
  const limitsOf = new Map<number, string>()
  const asked = new Map<string, { head: number; method: number }>()
  for (const [kin, at] of kinMethod) {
    const plan = plans.get(kin)
    const key = plan?.mayTrip ? JSON.stringify([plan.limits, plan.loads.map(l => l.share)]) : 'never'
    limitsOf.set(kin, key)
    if (plan?.mayTrip && !asked.has(key)) asked.set(key, at)
  }
  const tasks: Task[] = []
  for (let from = 0; from < draws; from += size)
    tasks.push({ kind: 'bounds', head: any.head, method, seed, from, to: Math.min(draws, from + size) })
  const boundTasks = tasks.length
  for (const at of asked.values()) tasks.push({ kind: 'trips', ...at, seed, draws })
  const answers = await crew(tasks)
  const bounds = answers.slice(0, boundTasks).flatMap(a => (a.kind === 'bounds' ? a.draws : []))
  const tripsBy = new Map(
    [...asked.keys()].map((key, i) => {
      const answer = answers[boundTasks + i]
      return [key, answer?.kind === 'trips' ? answer.trips : []] as const
    }),
  )
  for (const racer of racers) {
    const kin = space.heads[racer.head]?.kin ?? 0
    const plan = plans.get(kin)
    const trips = tripsBy.get(limitsOf.get(kin) ?? '')
    if (plan) boundOne(space, racer, plan, bounds, trips)
    interval(racer, draws)
  }
}

function boundOne(
  space: Space,
  racer: Racer,
  kinPlan: NonNullable<ReturnType<typeof planFor>>,
  bounds: readonly DrawBound[],
  trips: readonly number[] | undefined,
) {
  const head = space.heads[racer.head]
  if (!head) return
  const { outage } = space.job
  const store = storeOf(head.source, outage.deratingFraction)
  const usable = store.deratingFraction * Math.max(0, outage.startFraction - outage.reserveFraction)
  const generator = space.generators[racer.generator] ?? null
  const fuelWh = generator ? generator.gallons * generator.equipment.WhPerGallon : 0
  const two = kinPlan.stores.length > 1
  const cells = two ? store.unitsWh : [store.capacityWh]
  const first = head.source.units[0]?.equipment
  if (!first) return
  const idleOf = (k: number) =>
    two ? lossesOf(head.source.units[k]?.equipment ?? first).idleW : store.idleW + store.transformerIdleW
  bounds.forEach((b, d) => {
    // what does not work in that cold lasts in no draw
    if (trips?.[d] || kinPlan.stores.some(s => !s.works)) {
      racer.known[d] = 0
      return
    }
    const sunWh = b.sunWh[racer.sun] ?? 0
    let surely = !racer.sheds
    let possible = true
    let plenty = Number.POSITIVE_INFINITY
    cells.forEach((Wh, k) => {
      const has = Wh * usable * (b.capacityFactor[k] ?? 1)
      let asks = 0
      let mustAsk = 0
      kinPlan.loads.forEach((l, n) => {
        const part = (b.loadWh[n] ?? 0) * (two ? l.share[k as 0 | 1] : 1)
        asks += part
        if (l.tier === 1) mustAsk += part
      })
      const { efficiencyFraction } = store
      const idle = idleOf(k) * kinPlan.hours
      // the bend of the efficiency at its worst
      const bend = (kinPlan.stores[k]?.lossPerW2 ?? 0) * kinPlan.limits.totalVA
      const need = idle + asks * (1 / efficiencyFraction + bend)
      if (has < need * (1 + margin)) surely = false
      // the best that could be: all sun used, all fuel straight to the loads, the own draw only while nothing else carries
      const least =
        (generator ? 0 : idle) + Math.max(0, (racer.sheds ? mustAsk : asks) - fuelWh) / efficiencyFraction
      if (has + sunWh < least * (1 - margin)) possible = false
      const wanted = idle + (racer.sheds ? mustAsk : asks) / efficiencyFraction
      plenty = Math.min(plenty, (has + (sunWh + fuelWh) / cells.length) / Math.max(1, wanted))
    })
    racer.plenty += plenty / bounds.length
    if (surely) racer.known[d] = 1
    else if (!possible) racer.known[d] = 0
  })
}
