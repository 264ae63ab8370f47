import { plural } from '../units/format'
import { cheapest, interval, passOn, type Racer, undominated } from './racer'
import type { Space } from './space'
import type { Crew } from './tasks'

/** Draws after which it is asked whether a design is still of interest. */
const rungs = [10, 40, 100]

/** How far a race went: what was decided in closed form, simulated at all, and in the finals. */
export interface Raced {
  alive: Racer[]
  bounded: number
  simulated: number
  finals: number
}

/**
 * Scouts first, all the way: one that surely lasts beats all that cost more. Then heats for all that are left, and the most
 * promising further, a rung at a time.
 */
export async function race(
  space: Space,
  crew: Crew,
  racers: readonly Racer[],
  { seed, draws, progress }: { seed: number; draws: number; progress: (done: number, what: string) => void },
): Promise<Raced> {
  const rungOf = (r: Racer) => rungs.find(rung => rung > r.firstOpen && rung < draws) ?? draws
  let alive = undominated(racers)
  const began = alive.length
  const raced = { bounded: racers.length - began, simulated: 0, finals: 0 }
  for (let wave = 0; ; wave++) {
    const open = alive.filter(r => r.firstOpen < draws)
    if (!open.length) return { alive, ...raced }
    const { stage, next } = stageOf(open, wave, r => rungOf(r) === rungs[0])
    progress(
      stage === 'Finals' ? 0.6 + 0.4 * (1 - open.length / began) : 0.5,
      `${stage}, ${plural(open.length, 'design')} left`,
    )
    const upTo = (r: Racer) => (stage === 'Scouts' ? draws : rungOf(r))
    if (stage !== 'Finals') raced.simulated += next.length
    raced.finals += next.filter(r => upTo(r) === draws).length
    await simulateOpen(crew, next, seed, upTo)
    passOn(space, alive)
    for (const racer of alive) interval(racer, draws)
    alive = undominated(alive)
  }
}

function stageOf(open: readonly Racer[], wave: number, isFresh: (r: Racer) => boolean) {
  const scouts = wave < scoutWaves ? scoutsOf(open) : []
  if (scouts.length) return { stage: 'Scouts', next: scouts } as const
  const fresh = open.filter(isFresh)
  if (fresh.length) return { stage: 'Heats', next: fresh } as const
  return { stage: 'Finals', next: promising(open) } as const
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
