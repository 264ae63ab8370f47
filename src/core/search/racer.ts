import { storeOf } from '../source/store'
import type { Space } from './space'

/** Designs that share source, generator and sun last alike; they differ in hook-up. */
export interface Racer {
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

export const cheapest = (r: Racer) => Math.min(...r.options.map(o => o.price))

/** Of the intervals while racing: 99 %. */
const z99 = 2.576

/** What is known of its chance: exact where every draw is, else a 99 % interval from those that are. */
export function interval(racer: Racer, draws: number) {
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
export function undominated(racers: readonly Racer[]): Racer[] {
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
export function passOn(space: Space, racers: readonly Racer[]) {
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
