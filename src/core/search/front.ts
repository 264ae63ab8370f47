import { shareOf } from '../outage/share'
import { figure, plural, quantity, sentenceStart } from '../units/format'
import { cheapest, type Racer } from './racer'
import type { Dropped } from './rules'
import { type Design, designName, type Space, sourceWith } from './space'
import { missingFrom, partsOf, partText } from './stock'
import type { KinChecked, Why } from './tasks'

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

export function frontOf(
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
export function leftOutOf(
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
