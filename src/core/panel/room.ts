import { bodyOf, bodySpaces } from './body'
import { freeSpaces, legOf } from './positions'
import type { Circuit, Panel } from './schema'

/** Whether spaces one above the other can be had for a new breaker, and at the cost of which moves. */
export type FreeSpaces = { free: number; tandems: number } & (
  | { kind: 'there'; spaces: number[] }
  | { kind: 'by moving'; spaces: number[]; moves: { circuit: Circuit; to: number }[] }
  | { kind: 'none' }
)

/**
 * Room for a breaker of one or two spaces. Of all places it could stand, the one that costs the fewest breakers moved to
 * free spaces elsewhere. `where`: the end of the panel where the main stands, at which an interlock acts, or anywhere.
 */
export function roomFor(panel: Panel, wanted: 1 | 2, where: 'anywhere' | 'beside the main'): FreeSpaces {
  const free = freeSpaces(panel.spaces, panel.circuits, panel.unusable)
  const about = { free: free.length, tandems: freedByTandems(panel) }
  const rows = panel.spaces / 2
  const ends = panel.feedsFrom === 'top' ? [1, 2] : [2 * (rows - wanted) + 1, 2 * (rows - wanted) + 2]
  const starts =
    where === 'beside the main'
      ? ends
      : Array.from({ length: panel.spaces - 2 * (wanted - 1) }, (_, i) => i + 1)
  let best: { spaces: number[]; moves: { circuit: Circuit; to: number }[] } | null = null
  for (const start of starts) {
    const spaces = wanted === 1 ? [start] : [start, start + 2]
    const [upper = 0, lower = 0] = spaces
    if (spaces.some(s => panel.unusable.includes(s))) continue
    if (wanted === 2 && legOf(panel, upper) === legOf(panel, lower)) continue
    const moves = clear(panel, spaces, free)
    if (moves && (!best || moves.length < best.moves.length)) best = { spaces, moves }
  }
  if (!best) return { ...about, kind: 'none' }
  return best.moves.length
    ? { ...about, kind: 'by moving', ...best }
    : { ...about, kind: 'there', spaces: best.spaces }
}

/** The moves that empty these spaces, one-space breakers first to where they stay on their leg; null when none do. */
function clear(panel: Panel, spaces: readonly number[], free: readonly number[]) {
  const open = free.filter(s => !spaces.includes(s))
  const moves: { circuit: Circuit; to: number }[] = []
  const done = new Set<Circuit>()
  for (const circuit of panel.circuits) {
    if (done.has(circuit) || !bodySpaces([circuit]).some(s => spaces.includes(s))) continue
    const body = bodyOf(panel.circuits, circuit)
    const [lead] = body
    if (!lead) continue
    for (const c of body) done.add(c)
    const takes = bodySpaces(body)
    const to = open
      .filter(s => takes.every((t, i) => open.includes(s + t - (takes[0] ?? t)) && i < 3))
      .filter(s => takes.length === 1 || legOf(panel, s) !== legOf(panel, s + 2))
      .filter(s => !lead.half || panel.tandemSpaces?.includes(s) !== false)
      .sort((a, b) => score(panel, lead, a) - score(panel, lead, b))[0]
    if (to === undefined) return null
    for (const t of takes) open.splice(open.indexOf(to + t - (takes[0] ?? t)), 1)
    moves.push({ circuit: lead, to })
  }
  return moves
}

/** Staying on the leg matters more than the way. */
const score = (panel: Panel, circuit: Circuit, to: number) =>
  Math.abs(to - circuit.position) + (legOf(panel, to) === legOf(panel, circuit.position) ? 0 : 1000)

/** Spaces that would come free if one-poles of 15 and 20 A moved two by two into tandems, where the sticker lists them. */
function freedByTandems(panel: Panel): number {
  const singles = panel.circuits.filter(
    c => c.poles === 1 && !c.half && !c.tie && c.breakerA <= 20 && c.protection === 'none',
  )
  const listed = panel.tandemSpaces?.filter(
    s => !panel.circuits.some(c => c.half && bodySpaces([c]).includes(s)) && !panel.unusable.includes(s),
  )
  return Math.min(Math.floor(singles.length / 2), listed?.length ?? 0)
}

/** The upper spaces of a two-pole that stands at the end of the panel where the main is. */
export const besideMain = (panel: Pick<Panel, 'feedsFrom' | 'spaces'>): number[] => {
  const rows = panel.spaces / 2
  return panel.feedsFrom === 'top' ? [1, 2] : [2 * (rows - 2) + 1, 2 * (rows - 2) + 2]
}
