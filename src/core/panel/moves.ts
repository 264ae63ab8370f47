import { munkres } from 'munkres'
import type { Leg } from '../source/legs'
import { columnOf, freeSpaces, legOf, rowOf } from './positions'

/** A breaker as the plan sees it. */
export interface Movable {
  id: string
  position: number
  poles: 1 | 2
  picked: boolean
  /** the other hot of a shared neutral */
  sharesWith?: string
}

/** One step of a plan, in the order it is done: to a free space, or in trade with the breaker that stands there. */
export interface Move {
  id: string
  from: number
  to: number
  tradesWith?: string
}

export interface MovePlan {
  steps: Move[]
  /** breakers that end elsewhere than they stood */
  moved: number
}

/** One breaker more to move outweighs any distance inside a panel. */
const perMove = 1_000
const never = 1e9

const distance = (a: number, b: number) =>
  Math.abs(rowOf(a) - rowOf(b)) + (columnOf(a) === columnOf(b) ? 0 : 1)

/**
 * The fewest breakers to move, and of those the shortest ways, that bring every picked one-pole breaker onto the live
 * leg: exact, as an assignment of breakers to spaces (Munkres). Two-poles stay: they take a space of either leg wherever
 * they stand, so moving one gains nothing. The hots of a shared neutral stay together on opposite legs (NEC 210.4): the
 * two trade places, or stay. Null when it cannot be done: both of a pair are picked, or the live leg is too small.
 */
export function planMoves(spaces: number, breakers: readonly Movable[], live: Leg): MovePlan | null {
  const end = new Map<string, number>()
  for (const b of breakers) {
    const partner = b.sharesWith === undefined ? undefined : breakers.find(o => o.id === b.sharesWith)
    if (b.poles === 2) end.set(b.id, b.position)
    else if (partner) {
      const apart = legOf(b.position) !== legOf(partner.position)
      const dead = [b, partner].find(o => o.picked && legOf(o.position) !== live)
      if (dead && (!apart || (b.picked && partner.picked))) return null
      end.set(b.id, dead ? partner.position : b.position)
    }
  }
  const loose = breakers.filter(b => !end.has(b.id))
  const places = [...freeSpaces(spaces, breakers), ...loose.map(b => b.position)].sort((a, b) => a - b)
  const cost = loose.map(b =>
    places.map(place => {
      if (b.picked && legOf(place) !== live) return never
      return place === b.position ? 0 : perMove + distance(b.position, place)
    }),
  )
  for (const [row, column] of loose.length ? munkres(cost) : []) {
    const breaker = loose[row]
    const place = places[column]
    if (!breaker || place === undefined || (cost[row]?.[column] ?? never) >= never) return null
    end.set(breaker.id, place)
  }
  return { steps: stepsTo(end, breakers), moved: breakers.filter(b => end.get(b.id) !== b.position).length }
}

/** The plan in an order that can be done: free spaces first, then trades of places, each of which settles one at least. */
function stepsTo(end: ReadonlyMap<string, number>, breakers: readonly Movable[]): Move[] {
  const now = new Map(breakers.map(b => [b.id, b.position]))
  const at = (place: number) => [...now].find(([, position]) => position === place)?.[0]
  const away = () => breakers.filter(b => now.get(b.id) !== end.get(b.id))
  const steps: Move[] = []
  for (let left = away(); left.length; left = away()) {
    // told from the breaker that is wanted: it trades places with one that is not
    const next = left.find(b => at(end.get(b.id) ?? 0) === undefined) ?? left.find(b => b.picked) ?? left[0]
    const to = next && end.get(next.id)
    const from = next && now.get(next.id)
    if (!next || to === undefined || from === undefined) break
    const other = at(to)
    steps.push({ id: next.id, from, to, ...(other !== undefined && { tradesWith: other }) })
    now.set(next.id, to)
    if (other !== undefined) now.set(other, from)
  }
  return steps
}
