import { bodyOf } from '../panel/body'
import { halvesOf } from '../panel/positions'
import type { Circuit, Panel } from '../panel/schema'
import type { Place, PlannedChange } from './change'

export type Move = Extract<PlannedChange, { kind: 'move' }>
export const isMove = (change: PlannedChange): change is Move => change.kind === 'move'

interface Stands {
  panel: Panel
  circuit: Circuit
}

const standing = (panels: readonly Panel[]): Map<string, Stands> =>
  new Map(panels.flatMap(panel => panel.circuits.map(circuit => [circuit.id, { panel, circuit }] as const)))

const halves = (panelId: string, placed: Parameters<typeof halvesOf>[0]) =>
  halvesOf(placed).map(half => `${panelId} ${half}`)

/** Whose place each circuit takes: those that stand there as found, and move away. */
function waitsFor(
  panels: readonly Panel[],
  places: ReadonlyMap<string, Place>,
  tied: ReadonlyMap<string, string>,
): Map<string, Set<string>> {
  const found = standing(panels)
  const holders = new Map<string, string>()
  for (const id of places.keys()) {
    const at = found.get(id)
    if (at) for (const half of halves(at.panel.id, at.circuit)) holders.set(half, id)
  }
  const waits = new Map<string, Set<string>>()
  for (const [id, place] of places) {
    const at = found.get(id)
    const { poles } = at?.circuit ?? { poles: 1 as const }
    const ahead = halves(place.panelId, { position: place.position, poles, half: place.half })
      .map(half => holders.get(half))
      .filter(other => other !== undefined && other !== id)
    waits.set(id, new Set(ahead.filter(other => other !== undefined)))
  }
  // what comes out in one piece goes in one piece, and the two hots of a neutral never part
  for (const [id, { panel, circuit }] of found)
    if (places.has(id)) {
      const along = bodyOf(panel.circuits, circuit).map(c => c.id)
      if (circuit.neutral.kind === 'shared') along.push(circuit.neutral.with)
      const partner = tied.get(id)
      if (partner !== undefined) along.push(partner)
      for (const other of along) if (other !== id && places.has(other)) waits.get(id)?.add(other)
    }
  return waits
}

/** Everything that is reached from one along the arrows. */
function reachedFrom(id: string, arrows: ReadonlyMap<string, ReadonlySet<string>>): Set<string> {
  const reached = new Set<string>()
  const open = [id]
  for (let at = open.pop(); at !== undefined; at = open.pop())
    for (const next of arrows.get(at) ?? [])
      if (!reached.has(next)) {
        reached.add(next)
        open.push(next)
      }
  return reached
}

/** Where every moved circuit ends, by its id. */
export const placesOf = (changes: readonly PlannedChange[]): Map<string, Place> =>
  new Map(changes.filter(isMove).flatMap(m => m.places.map(p => [p.circuitId, p] as const)))

/** The circuits that the plan ties, each with its partner. */
const tiedBy = (changes: readonly PlannedChange[]) =>
  new Map(
    changes.flatMap(c =>
      c.kind === 'tie'
        ? [
            [c.circuitId, c.with],
            [c.with, c.circuitId],
          ]
        : [],
    ),
  )

/**
 * The list with its moves as small as they can be: circuits that trade places, round a ring too, come out in one piece, share a
 * neutral or are tied, are one move; what stands where it was found is none. The same whatever steps it was planned in; the
 * reasons of earlier moves stay with those that are made of them. `places`: where circuits end, where that is other than the
 * list says.
 */
export function withSmallestMoves(
  panels: readonly Panel[],
  changes: readonly PlannedChange[],
  places: readonly Place[] = [],
): PlannedChange[] {
  const was = changes.filter(isMove)
  const ends = placesOf(was)
  for (const place of places) ends.set(place.circuitId, place)
  if (!ends.size) return [...changes]
  const moves = movesTo(panels, ends, was, tiedBy(changes))
  const put = new Set<Move>()
  const kept = changes.flatMap((change): PlannedChange[] => {
    if (!isMove(change)) return [change]
    const mine = moves.filter(
      m => !put.has(m) && m.places.some(p => change.places.some(c => c.circuitId === p.circuitId)),
    )
    for (const m of mine) put.add(m)
    return mine
  })
  return [...kept, ...moves.filter(m => !put.has(m))]
}

function movesTo(
  panels: readonly Panel[],
  places: ReadonlyMap<string, Place>,
  was: readonly Move[],
  tied: ReadonlyMap<string, string>,
): Move[] {
  const found = standing(panels)
  const left = new Map(
    [...places].filter(([id, p]) => {
      const at = found.get(id)
      return !(
        at &&
        at.panel.id === p.panelId &&
        at.circuit.position === p.position &&
        at.circuit.half === p.half
      )
    }),
  )
  const waits = waitsFor(panels, left, tied)
  const reached = new Map([...left.keys()].map(id => [id, reachedFrom(id, waits)]))
  const taken = new Set<string>()
  return [...left.keys()].sort().flatMap((id): Move[] => {
    if (taken.has(id)) return []
    const ring = [id, ...[...(reached.get(id) ?? [])].filter(o => o !== id && reached.get(o)?.has(id))].sort()
    for (const member of ring) taken.add(member)
    const before = was.find(m => m.places.some(p => ring.includes(p.circuitId)))
    const now = ring.flatMap(member => left.get(member) ?? [])
    if (!before) return [{ kind: 'move', origin: 'person', places: now }]
    return [JSON.stringify(before.places) === JSON.stringify(now) ? before : { ...before, places: now }]
  })
}

/** The moves that have to be done before this one: they free the places that it takes. */
export function movesAhead(panels: readonly Panel[], move: Move, moves: readonly Move[]): Move[] {
  const waits = waitsFor(panels, placesOf(moves), new Map())
  const ahead = new Set(move.places.flatMap(p => [...(waits.get(p.circuitId) ?? [])]))
  return moves.filter(m => m !== move && m.places.some(p => ahead.has(p.circuitId)))
}
