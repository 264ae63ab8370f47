import { methodOf } from '../hookup/method'
import { shareOf } from '../outage/share'
import { lossesOf, storeOf } from '../source/store'
import { figure, plural, quantity, sentenceStart } from '../units/format'
import {
  type Design,
  designName,
  generatorCost,
  onePersonLb,
  ownedOf,
  type Space,
  sourceWith,
  sunCost,
  sunWeightLb,
} from './space'
import { missingFrom, type Part, partsOf, partText } from './stock'
import { type Answer, type DrawBound, type KinChecked, perform, planFor, type Task, type Why } from './tasks'
import { labourRate } from './wishes'

/**
 * The cheapest design that lasts: generate, drop what a check forbids, bound in closed form, race what is left under the same
 * chances, and say why for what is left out. Tasks are handed to whoever runs them; the answer is the same whoever does.
 */

export interface Found {
  design: Design
  name: string
  /** what has to be planned with it, as the fixes say */
  plans: string[]
  /** what of it is not in stock */
  toOrder: string[]
  price: number
  weightLb: number
  hours: number
  /** share of the draws that last: energy for every must-run circuit, and no overload that ends it */
  chance: { fraction: number; low: number; high: number }
  /** by which of the three it is on a front */
  bestBy: ('price' | 'weight' | 'hours')[]
}

export interface Dropped extends Why {
  designs: number
}

export interface SearchResult {
  raw: number
  /** designs that no check and no wish forbids */
  allowed: number
  /** decided in closed form; simulated at all; in the finals */
  bounded: number
  simulated: number
  finals: number
  draws: number
  seed: number
  front: Found[]
  /** with the reason counted, the commonest first */
  dropped: Dropped[]
  /** stops that every design has: they are the job’s own */
  always: Why[]
  /** families of designs that are left out, each with the sentence why */
  leftOut: { family: string; sentence: string }[]
}

export interface SearchOptions {
  seed?: number
  draws?: number
  /** told after each part of the work, 0 to 1, with what is being done */
  progress?: (done: number, what: string) => void
}

/** Hands tasks out and gives their answers back in the order of the tasks. */
export type Crew = (tasks: Task[]) => Promise<Answer[]>

/** One after another, here. */
export const alone =
  (space: Space): Crew =>
  tasks =>
    Promise.resolve(tasks.map(task => perform(space, task)))

/** Designs that share source, generator and sun last alike; they differ in hook-up. */
interface Racer {
  head: number
  generator: number
  sun: number
  sheds: boolean
  /** hook-ups of it that no other beats in price and hours */
  options: { method: number; price: number; hours: number }[]
  weightLb: number
  /** by draw: 1 lasts, 0 does not, −1 not known yet */
  known: Int8Array
  /** the first of them that is not */
  firstOpen: number
  /** all that could come in against all that is asked, in closed form, on average; of the worse of two stores */
  plenty: number
  lo: number
  hi: number
}

/** Draws after which it is asked whether a design is still of interest. */
const rungs = [10, 40, 100]
/** Energy in closed form decides only beyond this margin. */
const margin = 0.02
/** Of the intervals while racing: 99 %. */
const z99 = 2.576

export async function search(
  space: Space,
  crew: Crew,
  { seed = 1, draws = 200, progress = () => {} }: SearchOptions = {},
): Promise<SearchResult> {
  progress(0, 'Checks')
  const checks = await runChecks(space, crew)
  const { racers, dropped, always, allowed } = racersOf(space, checks, draws)
  const result = (
    front: Found[],
    counts: Pick<SearchResult, 'bounded' | 'simulated' | 'finals'>,
  ): SearchResult => ({
    raw: space.raw,
    allowed,
    ...counts,
    draws,
    seed,
    front,
    dropped,
    always,
    leftOut: leftOutOf(space, racers, front, dropped, checks),
  })
  if (!racers.length) return result([], { bounded: 0, simulated: 0, finals: 0 })

  progress(0.3, 'Bounds')
  await bound(space, crew, racers, seed, draws)
  let alive = undominated(racers)
  const bounded = racers.length - alive.length
  let simulated = 0
  let finals = 0
  // scouts first, all the way: one that surely lasts beats all that cost more. Then heats for all that are left, and the
  // most promising further, a rung at a time
  const rungOf = (r: Racer) => rungs.find(rung => rung > r.firstOpen && rung < draws) ?? draws
  const began = alive.length
  for (let wave = 0; ; wave++) {
    const open = alive.filter(r => r.firstOpen < draws)
    if (!open.length) break
    const scouts = wave < scoutWaves ? scoutsOf(open) : []
    const fresh = open.filter(r => rungOf(r) === rungs[0])
    const [stage, next] = scouts.length
      ? (['Scouts', scouts] as const)
      : fresh.length
        ? (['Heats', fresh] as const)
        : (['Finals', promising(open)] as const)
    progress(
      stage === 'Finals' ? 0.6 + 0.4 * (1 - open.length / began) : 0.5,
      `${stage}, ${plural(open.length, 'design')} left`,
    )
    if (stage !== 'Finals') simulated += next.length
    finals += next.filter(r => stage === 'Scouts' || rungOf(r) === draws).length
    await simulateOpen(crew, next, seed, r => (stage === 'Scouts' ? draws : rungOf(r)))
    passOn(space, alive)
    for (const racer of alive) interval(racer, draws)
    alive = undominated(alive)
  }
  progress(1, 'Done')
  return result(frontOf(space, alive, draws, checks), { bounded, simulated, finals })
}

const scoutWaves = 3
/** With so much more energy than it asks, by the closed form, a design is worth a look before all others. */
const scoutsAbove = 1.2

/** The first by price, by weight and by hours of those that have plenty. */
function scoutsOf(open: readonly Racer[]): Racer[] {
  const plenty = open.filter(r => r.plenty >= scoutsAbove && r.firstOpen === 0)
  return firstBy(plenty, () => 0, 4)
}

/** The next to be simulated further: the likeliest to last, cheapest, lightest and least work first. */
function promising(open: readonly Racer[]): Racer[] {
  return firstBy(open, r => -Math.round(10 * (r.lo + r.hi)), 12)
}

/** The first few by an order, and among equals by each of price, weight and hours. */
function firstBy(racers: readonly Racer[], order: (r: Racer) => number, most: number): Racer[] {
  const by = (of: (r: Racer) => number) =>
    [...racers].sort((a, b) => order(a) - order(b) || of(a) - of(b)).slice(0, most)
  return [
    ...new Set([
      ...by(cheapest),
      ...by(r => r.weightLb),
      ...by(r => Math.min(...r.options.map(o => o.hours))),
    ]),
  ]
}

/** Pieces of about the same size, for any number of hands. */
function pieces<T>(all: readonly T[], most: number): T[][] {
  const out: T[][] = []
  for (let i = 0; i < all.length; i += most) out.push(all.slice(i, i + most))
  return out
}

async function runChecks(space: Space, crew: Crew): Promise<Map<number, KinChecked>> {
  // by unit: what modules do is asked once for each
  const byUnit = new Map<string, number[]>()
  for (const kin of space.kins) {
    const key = space.heads[kin]?.source.units[0]?.equipment.id ?? ''
    byUnit.set(key, [...(byUnit.get(key) ?? []), kin])
  }
  const answers = await crew([...byUnit.values()].map(kins => ({ kind: 'checks', kins })))
  return new Map(answers.flatMap(a => (a.kind === 'checks' ? a.kins.map(k => [k.kin, k] as const) : [])))
}

/** What is left after checks and wishes, with every reason counted in designs. */
function racersOf(space: Space, checks: Map<number, KinChecked>, draws: number) {
  const { wishes, job } = space
  const counted = new Map<string, Dropped>()
  const drop = (why: Why, designs: number) => {
    const one = counted.get(why.id) ?? { ...why, designs: 0 }
    one.designs += designs
    counted.set(why.id, one)
  }
  const always = alwaysOf(space, checks)
  const ignore = new Set(always.map(a => a.id))
  const mustOwn = wishes.useOwned ? ownedOf(job) : new Set<string>()
  const short = (parts: readonly Part[]): string | null => {
    const [missing] = wishes.fromStock ? missingFrom(space.stock, parts) : []
    return missing ? `${partText(missing)} ${missing.count > 1 ? 'are' : 'is'} not in stock.` : null
  }
  const racers: Racer[] = []
  let allowed = 0
  const sizeOf = space.generators.length * space.suns.length
  for (const [h, head] of space.heads.entries()) {
    const kin = checks.get(head.kin)
    if (!kin) continue
    const all = sizeOf * space.methods.length
    const missed = [...mustOwn].find(
      id =>
        !head.source.units.some(u => u.equipment.id === id) &&
        job.source?.units.some(u => u.equipment.id === id),
    )
    if (missed) {
      const name = job.source?.units.find(u => u.equipment.id === missed)?.equipment.name
      drop({ id: 'wish: owned', sentence: `It does not use the ${name} that they own.` }, all)
      continue
    }
    if (head.unpriced) {
      drop({ id: 'no price', sentence: 'The catalogue has no price for a part of it.' }, all)
      continue
    }
    const missingParts = short(partsOf(head.source))
    if (missingParts) {
      drop({ id: 'wish: stock', sentence: missingParts }, all)
      continue
    }
    if (wishes.onePerson && head.heaviestLb > onePersonLb) {
      drop(
        { id: 'wish: one person', sentence: `A part weighs more than ${quantity(onePersonLb, 'lb')}.` },
        all,
      )
      continue
    }
    const good: { method: number; price: number; hours: number; sheds: boolean }[] = []
    for (const [n, m] of kin.methods.entries()) {
      const [why] = m.drops.filter(d => !ignore.has(d.id))
      if (why) {
        drop(why, sizeOf)
        continue
      }
      const missing = short(m.devices)
      if (missing) {
        drop({ id: 'wish: stock', sentence: missing }, sizeOf)
        continue
      }
      if (wishes.automatic && !m.automatic) {
        drop({ id: 'wish: by itself', sentence: 'It waits for a hand.' }, sizeOf)
        continue
      }
      const method = space.methods[n]
      good.push({
        method: n,
        price: (m.price ?? 0) + m.hours * labourRate,
        hours: m.hours,
        sheds: method ? Boolean(methodOf(method).sheds) : false,
      })
    }
    if (!good.length) continue
    for (const [g, generator] of space.generators.entries()) {
      if (generator && wishes.noGenerator) {
        drop(
          { id: 'wish: no generator', sentence: 'No generator was asked for.' },
          good.length * space.suns.length,
        )
        continue
      }
      const noGenerator =
        generator &&
        !generator.owned &&
        short([{ key: generator.equipment.id, name: generator.equipment.name, count: 1 }])
      if (noGenerator) {
        drop({ id: 'wish: stock', sentence: noGenerator }, good.length * space.suns.length)
        continue
      }
      const equipmentAt = space.generators.findIndex(c => c?.equipment === generator?.equipment)
      const byNeutral = kin.generators[generator ? equipmentAt : g] ?? {}
      const withGenerator = good.filter(o => {
        const method = space.methods[o.method]
        const [why] = method ? (byNeutral[methodOf(method).neutral] ?? []).filter(w => !ignore.has(w.id)) : []
        if (why) drop(why, space.suns.length)
        return !why
      })
      if (!withGenerator.length) continue
      for (const [s, sun] of space.suns.entries()) {
        const [why] = (kin.suns[s] ?? []).filter(w => !ignore.has(w.id))
        if (why) {
          drop(why, withGenerator.length)
          continue
        }
        const fewModules =
          sun &&
          !sun.owned &&
          short([{ key: sun.module.id, name: sun.module.name, count: sun.series * sun.parallel }])
        if (fewModules) {
          drop({ id: 'wish: stock', sentence: fewModules }, withGenerator.length)
          continue
        }
        const parts = head.price + generatorCost(generator) + sunCost(sun)
        const priced = withGenerator
          .map(o => ({ ...o, price: parts + o.price }))
          .filter(o => {
            const dear = wishes.mostPrice !== undefined && o.price > wishes.mostPrice
            if (dear)
              drop(
                {
                  id: 'wish: price',
                  sentence: `It costs more than ${quantity(wishes.mostPrice ?? 0, '$')}.`,
                },
                1,
              )
            return !dear
          })
        allowed += priced.length
        for (const sheds of [false, true]) {
          const options = priced.filter(o => o.sheds === sheds)
          const best = options.filter(
            (o, i) =>
              !options.some(
                (p, j) =>
                  j !== i &&
                  p.price <= o.price &&
                  p.hours <= o.hours &&
                  (p.price < o.price || p.hours < o.hours || j < i),
              ),
          )
          if (best.length)
            racers.push({
              head: h,
              generator: g,
              sun: s,
              sheds,
              options: best.map(({ method, price, hours }) => ({ method, price, hours })),
              weightLb: head.weightLb + (generator?.equipment.weightLb ?? 0) + sunWeightLb(sun),
              known: new Int8Array(draws).fill(-1),
              firstOpen: 0,
              plenty: 0,
              lo: 0,
              hi: 1,
            })
        }
      }
    }
  }
  return {
    racers,
    allowed,
    always,
    dropped: [...counted.values()].sort((a, b) => b.designs - a.designs || a.id.localeCompare(b.id)),
  }
}

/** Stops that stand in the way of every design alike: not the design’s fault, so they drop none. */
function alwaysOf(space: Space, checks: Map<number, KinChecked>): Why[] {
  const [first, ...rest] = space.kins.flatMap(k =>
    (checks.get(k)?.methods ?? [])
      .map(m => m.drops)
      .filter(drops => !drops.some(d => d.id === 'hook-up' || d.id === 'unserved')),
  )
  return (first ?? []).filter(why => rest.every(drops => drops.some(d => d.id === why.id)))
}

/** What closed form knows for sure of each draw: who certainly lasts, who certainly does not. */
async function bound(space: Space, crew: Crew, racers: Racer[], seed: number, draws: number) {
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

/** What is known of its chance: exact where every draw is, else a 99 % interval from those that are. */
function interval(racer: Racer, draws: number) {
  let hits = 0
  let open = 0
  let firstOpen = draws
  for (let d = 0; d < draws; d++) {
    if (racer.known[d] === 1) hits++
    else if ((racer.known[d] ?? -1) < 0) {
      open++
      firstOpen = Math.min(firstOpen, d)
    }
  }
  racer.firstOpen = firstOpen
  racer.lo = hits / draws
  racer.hi = (hits + open) / draws
  if (!open || firstOpen === 0) return
  // the draws before the first open one were all looked at: they tell of the rest
  let before = 0
  for (let d = 0; d < firstOpen; d++) before += racer.known[d] === 1 ? 1 : 0
  const p = before / firstOpen
  const square = z99 * z99
  const middle = (p + square / (2 * firstOpen)) / (1 + square / firstOpen)
  const half =
    (z99 * Math.sqrt((p * (1 - p)) / firstOpen + square / (4 * firstOpen * firstOpen))) /
    (1 + square / firstOpen)
  racer.lo = Math.max(racer.lo, middle - half)
  racer.hi = Math.min(racer.hi, middle + half)
}

type Entry = { method: number; price: number; hours: number; r: Racer }
const fronts: ((e: Entry) => number)[] = [e => e.price, e => e.r.weightLb, e => e.hours]

/**
 * Those that may still stand on a front. One is off all of them when for each of price, weight and hours some other is no
 * worse in it and surely lasts at least as often; among equals the cheaper stands.
 */
function undominated(racers: readonly Racer[]): Racer[] {
  const entries: Entry[] = racers.flatMap(r => r.options.map(o => ({ ...o, r })))
  const off = new Map<Entry, number>()
  for (const of of fronts) {
    const order = [...entries].sort((a, b) => of(a) - of(b) || a.price - b.price)
    // the surest of those that come before: with less of the measure, or as much of it for less money
    let surest = 0
    for (let i = 0; i < order.length; ) {
      const first = order[i]
      if (!first) break
      let next = i
      let sureHere = surest
      for (let e = order[next]; e && of(e) === of(first) && e.price === first.price; e = order[++next]) {
        if (surest >= e.r.hi) off.set(e, (off.get(e) ?? 0) + 1)
        sureHere = Math.max(sureHere, e.r.lo)
      }
      surest = sureHere
      i = next
    }
  }
  const alive = new Map<Racer, Racer['options']>()
  for (const e of entries) {
    // what surely never lasts is on none
    if (e.r.hi <= 0 || off.get(e) === fronts.length) continue
    alive.set(e.r, [...(alive.get(e.r) ?? []), { method: e.method, price: e.price, hours: e.hours }])
  }
  return racers.filter(r => alive.has(r)).map(r => Object.assign(r, { options: alive.get(r) ?? [] }))
}

/**
 * More stored never lasts shorter in the same draw where nothing but the store and the sun gives: what one size does in a
 * draw is known of the sizes above or below it too.
 */
function passOn(space: Space, racers: readonly Racer[]) {
  const ladders = new Map<string, Racer[]>()
  for (const r of racers) {
    if (r.generator || r.sheds) continue
    const key = `${space.heads[r.head]?.kin}|${r.sun}`
    ladders.set(key, [...(ladders.get(key) ?? []), r])
  }
  const holds = (r: Racer) => {
    const head = space.heads[r.head]
    return head ? storeOf(head.source, 1).capacityWh : 0
  }
  for (const ladder of ladders.values()) {
    if (ladder.length < 2) continue
    ladder.sort((a, b) => holds(a) - holds(b))
    for (let d = 0; d < (ladder[0]?.known.length ?? 0); d++) {
      const lasts = ladder.findIndex(r => r.known[d] === 1)
      const fails = ladder.findLastIndex(r => r.known[d] === 0)
      ladder.forEach((r, n) => {
        if (lasts >= 0 && n > lasts) r.known[d] = 1
        else if (n < fails) r.known[d] = 0
      })
    }
  }
}

/** Designs in one task: few enough that two hands share a round of finals evenly. */
const perTask = 4
async function simulateOpen(crew: Crew, open: readonly Racer[], seed: number, upTo: (r: Racer) => number) {
  const items = open.map(r => ({
    head: r.head,
    method: r.options[0]?.method ?? 0,
    generator: r.generator,
    sun: r.sun,
    draws: Array.from({ length: upTo(r) }, (_, d) => d).filter(d => (r.known[d] ?? -1) < 0),
  }))
  const batches = pieces(items, perTask)
  const answers = await crew(batches.map(batch => ({ kind: 'race', items: batch, seed })))
  answers.forEach((answer, b) => {
    if (answer.kind !== 'race') return
    answer.lasted.forEach((lasted, i) => {
      const racer = open[b * perTask + i]
      const item = batches[b]?.[i]
      if (racer && item) for (const [j, d] of item.draws.entries()) racer.known[d] = lasted[j] ?? 0
    })
  })
}

function frontOf(
  space: Space,
  racers: readonly Racer[],
  draws: number,
  checks: Map<number, KinChecked>,
): Found[] {
  const all = racers.flatMap(r =>
    r.options.map(o => {
      const design: Design = { head: r.head, method: o.method, generator: r.generator, sun: r.sun }
      const head = space.heads[r.head]
      const here = checks.get(head?.kin ?? -1)?.methods[o.method]
      const source =
        head && sourceWith(head, space.generators[r.generator] ?? null, space.suns[r.sun] ?? null)
      const hits = r.known.reduce((sum, k) => sum + (k === 1 ? 1 : 0), 0)
      const { fraction, low, high } = shareOf(hits, draws)
      return {
        design,
        name: designName(space, design),
        plans: here?.plans ?? [],
        toOrder: source
          ? missingFrom(space.stock, [...partsOf(source), ...(here?.devices ?? [])]).map(partText)
          : [],
        price: Math.round(o.price),
        weightLb: Math.round(r.weightLb * 10) / 10,
        hours: Math.round(o.hours * 100) / 100,
        chance: { fraction, low, high },
        bestBy: [] as Found['bestBy'],
      }
    }),
  )
  const measures = {
    price: (f: Found) => f.price,
    weight: (f: Found) => f.weightLb,
    hours: (f: Found) => f.hours,
  }
  for (const [by, of] of Object.entries(measures) as ['price' | 'weight' | 'hours', (f: Found) => number][]) {
    let best = -1
    // among the equal the cheapest stands for all
    const order = [...all].sort(
      (a, b) =>
        of(a) - of(b) ||
        b.chance.fraction - a.chance.fraction ||
        a.price - b.price ||
        a.name.localeCompare(b.name),
    )
    for (const found of order) {
      if (found.chance.fraction <= best) continue
      best = found.chance.fraction
      if (best > 0) found.bestBy.push(by)
    }
  }
  return all
    .filter(f => f.bestBy.length)
    .sort((a, b) => a.price - b.price || b.chance.fraction - a.chance.fraction)
}

/** For each unit of the catalogue that is on no front: what keeps it away. */
function leftOutOf(
  space: Space,
  racers: readonly Racer[],
  front: readonly Found[],
  dropped: readonly Dropped[],
  checks: Map<number, KinChecked>,
): SearchResult['leftOut'] {
  const familyOf = (h: number) => space.heads[h]?.source.units[0]?.equipment.name ?? ''
  const onFront = new Set(front.map(f => familyOf(f.design.head)))
  const families = [...new Set(space.heads.map((_, h) => familyOf(h)))].filter(f => !onFront.has(f))
  const best = front.reduce<Found | undefined>(
    (a, b) => (!a || b.chance.fraction > a.chance.fraction ? b : a),
    undefined,
  )
  const out = families.map(family => {
    const own = racers.filter(r => familyOf(r.head) === family)
    if (!own.length) return { family, sentence: stoppedSentence(space, family, familyOf, checks, dropped) }
    const top = own.reduce((a, b) => (b.lo > a.lo || (b.lo === a.lo && cheapest(b) < cheapest(a)) ? b : a))
    const draws = top.known.length
    const hits = top.known.reduce((sum, k) => sum + (k === 1 ? 1 : 0), 0)
    const better = front.find(f => f.price <= cheapest(top) && f.chance.fraction >= hits / draws)
    const price = quantity(cheapest(top), '$')
    if (top.hi <= 0 || (hits === 0 && !top.known.some(k => k < 0)))
      return {
        family,
        sentence: best
          ? `Even its largest store does not last in any draw: the energy is short.`
          : 'It lasts in no draw.',
      }
    return {
      family,
      sentence: better
        ? `${sentenceStart(better.name.split(',')[0] ?? '')} costs no more (${quantity(better.price, '$')} against ${price}) and lasts at least as often.`
        : `It is beaten in price, weight and hours together by others that last as often; its own best costs ${price}.`,
    }
  })
  if (space.wishes.noGenerator)
    out.push({ family: 'Designs with a generator', sentence: 'No generator was asked for.' })
  else if (!front.some(f => f.design.generator > 0) && space.generators.length > 1)
    out.push({
      family: 'Designs with a generator',
      sentence: 'None lasts more often for its price than those without.',
    })
  if (!front.some(f => f.design.sun > 0) && space.suns.length > 1)
    out.push({
      family: 'Designs with solar modules',
      sentence: 'None lasts more often for its price than those without, under this sky.',
    })
  return out
}

const cheapest = (r: Racer) => Math.min(...r.options.map(o => o.price))

function stoppedSentence(
  space: Space,
  family: string,
  familyOf: (h: number) => string,
  checks: Map<number, KinChecked>,
  dropped: readonly Dropped[],
): string {
  const counts = new Map<string, { why: Why; n: number }>()
  for (const kin of space.kins) {
    if (familyOf(kin) !== family) continue
    for (const m of checks.get(kin)?.methods ?? []) {
      const [why] = m.drops
      if (!why) continue
      const one = counts.get(why.id) ?? { why, n: 0 }
      one.n++
      counts.set(why.id, one)
    }
  }
  const order = [...counts.values()].sort((a, b) => b.n - a.n)
  // what a hook-up cannot do is said only where nothing else is
  const most = order.find(o => o.why.id !== 'hook-up') ?? order[0]
  const wish = dropped.find(d => d.id.startsWith('wish'))
  if (!most) return wish?.sentence ?? 'Nothing of it is left.'
  return `${most.why.sentence} (${most.why.id})`
}

/** The search in a sentence. */
export function searchSentence({ raw, allowed, front, draws }: SearchResult): string {
  const sure =
    front.find(f => f.chance.fraction >= 0.9) ??
    front.reduce<Found | undefined>(
      (a, b) => (!a || b.chance.fraction > a.chance.fraction ? b : a),
      undefined,
    )
  const looked = `${raw.toLocaleString('en-US')} designs looked at, ${allowed.toLocaleString('en-US')} of them allowed`
  if (!sure) return `${looked}: none lasts.`
  return `${looked}: the cheapest that lasts in ${figure(sure.chance.fraction * 100)} of 100 is ${sure.name}, about ${quantity(sure.price, '$')} (${plural(draws, 'draw')}).`
}
