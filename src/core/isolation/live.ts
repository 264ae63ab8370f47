import type { House } from './house'

/** How every handle stands. */
export type State = Readonly<Record<string, string>>

/** As on an ordinary day: on the utility, the source put away. */
export const ordinaryDay = ({ handles }: House): State =>
  Object.fromEntries(handles.map(h => [h.id, h.settings[0]]))

/** By place: which supplies make it live as things stand. A place that is missing is dead. */
export function liveIn(house: House, state: State): Map<string, Set<string>> {
  const live = new Map<string, Set<string>>()
  const flood = (supply: House['supplies'][number]) => {
    const seen = new Set([supply.at])
    const queue = [supply.at]
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      const here = live.get(at) ?? new Set()
      here.add(supply.id)
      live.set(at, here)
      for (const { from, to, by, oneWay } of house.joints) {
        if (by && state[by.handle] !== by.at) continue
        const next = from === at ? to : to === at && !oneWay ? from : null
        if (next === null || seen.has(next)) continue
        seen.add(next)
        queue.push(next)
      }
    }
  }
  for (const supply of house.supplies) if (!supply.follows) flood(supply)
  // what follows feeds where something else holds it up
  for (const supply of house.supplies) if (supply.follows && live.has(supply.at)) flood(supply)
  return live
}

/** How every handle stands with these open and all others as on an ordinary day. */
export const withOpen = (house: House, open: ReadonlySet<string>): State => ({
  ...ordinaryDay(house),
  ...Object.fromEntries(house.handles.filter(h => open.has(h.id)).map(h => [h.id, h.open])),
})

/** What is live with these handles open, and with these supplies cut off by who owns them. */
export const liveWith = (house: House, open: ReadonlySet<string>): Map<string, Set<string>> =>
  liveIn({ ...house, supplies: house.supplies.filter(s => !open.has(s.id)) }, withOpen(house, open))

/** What came of setting a handle: the house then, or why it cannot be set so. */
export type Acted = { state: State; made: string[]; lost: string[] } | { blocked: string }

/** Sets a handle: what an interlock forbids moves nothing; else what became live and what went dead by it. */
export function act(house: House, state: State, handle: string, setting: string): Acted {
  const found = house.handles.find(h => h.id === handle)
  if (!found?.settings.includes(setting))
    return { blocked: `there is no setting “${setting}” of ${found?.name ?? handle}` }
  const next = { ...state, [handle]: setting }
  const never = house.nevers.find(n => n.both.every(([id, at]) => next[id] === at))
  if (never) return { blocked: never.why }
  const [before, after] = [liveIn(house, state), liveIn(house, next)]
  const names = (a: Map<string, unknown>, b: Map<string, unknown>) =>
    house.places.filter(p => a.has(p.id) && !b.has(p.id)).map(p => p.name)
  return { state: next, made: names(after, before), lost: names(before, after) }
}
