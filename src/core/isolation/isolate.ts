import type { Handle, House, Place, Supply } from './house'
import { liveWith, type State, withOpen } from './live'

/** How one supply is kept from a place: by which handle, how that is locked, how it is proven. */
export interface Cut {
  supply: Supply
  handle: Handle
  setting: string
}

/** What makes a place dead, and what stays live beside it. */
export interface Isolation {
  place: Place
  cuts: Cut[]
  /** supplies that no handle keeps away: the place cannot be made dead here */
  uncut: Supply[]
  /** live metal in the same enclosure even then */
  staysLive: Place[]
  state: State
}

/** What is better in the hand: a plug that is seen, then what takes a lock. */
const rank: Record<Handle['kind'], number | null> = {
  plug: 0,
  disconnect: 1,
  main: 2,
  breaker: 2,
  position: null,
  unit: null,
}

/**
 * A way by which a supply reaches a place with these handles open, however the others stand: the handles on it, from the supply on. A handle stands one way at a time, so no
 * way goes through two settings of one. Null where there is none.
 */
export function wayTo(
  house: House,
  supply: Supply,
  placeId: string,
  open: ReadonlySet<string>,
): string[] | null {
  const seen = new Set<string>()
  const walk = (at: string, set: ReadonlyMap<string, string>): string[] | null => {
    if (at === placeId) return [...set.keys()]
    seen.add(at)
    for (const { from, to, by, oneWay } of house.joints) {
      if (by && (open.has(by.handle) || (set.get(by.handle) ?? by.at) !== by.at)) continue
      const next = from === at ? to : to === at && !oneWay ? from : null
      if (next === null || seen.has(next)) continue
      const way = walk(next, by ? new Map([...set, [by.handle, by.at]]) : set)
      if (way) return way
    }
    seen.delete(at)
    return null
  }
  return walk(supply.at, new Map())
}

/**
 * What has to be opened, locked and proven so that no supply of the house reaches a place, whatever anybody does to the other handles meanwhile. Of the handles on a way that
 * is still open one is taken that parts most supplies, then one that is better in the hand; until no way is left.
 */
export function isolationOf(house: House, placeId: string): Isolation {
  const place = house.places.find(p => p.id === placeId)
  if (!place) throw new Error(`the house has no place ${placeId}`)
  const open = new Set<string>()
  const cuts: Cut[] = []
  const uncut: Supply[] = []
  const could = house.supplies.filter(s => wayTo(house, s, placeId, open))
  const partsOf = (id: string) => could.filter(s => !wayTo(house, s, placeId, new Set([...open, id]))).length
  const handleOf = (id: string) => house.handles.find(h => h.id === id)
  for (const supply of could) {
    const own: Handle[] = []
    for (let way = wayTo(house, supply, placeId, open); way; way = wayTo(house, supply, placeId, open)) {
      const [best] = way
        .flatMap(id => handleOf(id) ?? [])
        .filter(h => rank[h.kind] !== null)
        // of equals the one nearest to the hands: no more goes dark than must
        .reverse()
        .sort((a, b) => partsOf(b.id) - partsOf(a.id) || (rank[a.kind] ?? 9) - (rank[b.kind] ?? 9))
      if (!best) {
        uncut.push(supply)
        break
      }
      open.add(best.id)
      own.push(best)
    }
    if (uncut.includes(supply)) continue
    // one that was parted before by a handle of another supply is told with that handle
    const by = own.length
      ? own
      : [...open].flatMap(id =>
          wayTo(house, supply, placeId, without(open, id)) ? (handleOf(id) ?? []) : [],
        )
    cuts.push(...by.map(handle => ({ supply, handle, setting: handle.open })))
  }
  const cut = new Set(cuts.map(c => c.handle.id))
  const live = liveWith(house, cut)
  return {
    place,
    cuts,
    uncut,
    staysLive: house.places.filter(p => p.within === place.within && p.id !== placeId && live.has(p.id)),
    state: withOpen(house, cut),
  }
}

const without = (set: ReadonlySet<string>, id: string) => new Set([...set].filter(s => s !== id))

/** The answer to “it is off, so it is dead”: by what a place is live, or could be, although these handles stand open. */
export function stillLive(
  house: House,
  placeId: string,
  off: readonly string[],
): { now: Supply[]; could: Supply[] } {
  const now = liveWith(house, new Set(off)).get(placeId) ?? new Set()
  return {
    now: house.supplies.filter(s => now.has(s.id)),
    could: house.supplies.filter(s => !now.has(s.id) && wayTo(house, s, placeId, new Set(off))),
  }
}
