import { munkres } from 'munkres'
import { type Bodied, bodyOf, bodySpaces, mateAt } from './body'
import type { Leg } from './leg'
import { type Bus, columnOf, freeSpaces, legOf, rowOf } from './positions'

/** A circuit as the plan sees it. */
export interface Movable extends Bodied {
  picked: boolean
  /** the other hot of a shared neutral */
  sharesWith?: string | undefined
}

/** What of the panel the plan depends on. */
export interface Grid extends Bus {
  spaces: number
  unusable: readonly number[]
  /** the spaces that take a tandem; missing: any */
  tandemSpaces?: readonly number[] | undefined
  /** whether the leads of a transfer switch reach a space; missing: all */
  reaches?: ((space: number) => boolean) | undefined
}

/** One step of a plan, in the order it is done: to a free space, or in trade with the circuit that stands there. */
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
 * The fewest breakers to move, and of those the shortest ways, that bring every picked one-pole circuit onto the live
 * leg and within reach of the whip: exact, as an assignment of breakers to spaces (Munkres). What spans both legs stays,
 * a two-pole, a quad, a tied pair: moving it gains nothing, but two wires inside it may trade places. The hots of a
 * shared neutral stay together on opposite legs (NEC 210.4): the two trade places, or stay. A tandem moves whole.
 * Null when it cannot be done: both of a pair are picked, or the live leg has too few places.
 */
export function planMoves(grid: Grid, circuits: readonly Movable[], live: Leg): MovePlan | null {
  const good = (space: number): boolean => legOf(grid, space) === live && (grid.reaches?.(space) ?? true)
  const end = new Map<string, number>()
  const loose: Movable[][] = []
  for (const c of circuits) {
    const body = bodyOf(circuits, c)
    const [first] = body
    if (end.has(c.id) || c !== first) continue
    const stays = bodySpaces(body).length > 1 || body.some(m => m.sharesWith !== undefined)
    if (!stays) loose.push(body)
    else if (!settle(circuits, body, end, grid, live)) return null
  }
  const places = [
    ...freeSpaces(grid.spaces, circuits, grid.unusable),
    ...loose.map(([first]) => first?.position ?? 0),
  ].sort((a, b) => a - b)
  const cost = loose.map(body =>
    places.map(place => {
      const from = body[0]?.position ?? 0
      if (body.some(wants) && !good(place)) return never
      if (place !== from && body[0]?.half && grid.tandemSpaces?.includes(place) === false) return never
      return place === from ? 0 : perMove + distance(from, place)
    }),
  )
  const columns: number[] = []
  for (const [row, column] of loose.length ? munkres(cost) : []) {
    if ((cost[row]?.[column] ?? never) >= never) return null
    columns[row] = column
  }
  const stood = loose.map(([first]) => places.indexOf(first?.position ?? 0))
  pairTrades(columns, stood, (row, column) => (cost[row]?.[column] ?? never) < never)
  loose.forEach((body, row) => {
    for (const c of body) end.set(c.id, places[columns[row] ?? -1] ?? c.position)
  })
  const changed = circuits.filter(c => end.get(c.id) !== c.position)
  const moved = new Set(changed.map(c => (loose.some(l => l.includes(c)) ? bodyOf(circuits, c)[0] : c)))
  return { steps: stepsTo(end, circuits), moved: moved.size }
}

const wants = (c: Movable) => c.picked && c.poles === 1

/**
 * Turns rings of three and more, each moving to where the next stood, into pairs that trade places where each may go
 * there: the same breakers move, in fewer steps. `columns` says where each goes, `stood` where it stands.
 */
function pairTrades(
  columns: number[],
  stood: readonly number[],
  may: (row: number, column: number) => boolean,
) {
  stood.forEach((home, row) => {
    const to = columns[row] ?? home
    const other = stood.indexOf(to)
    const onward = columns[other]
    const comer = columns.indexOf(home)
    if (to === home || other < 0 || onward === undefined || onward === home || comer < 0) return
    if (!may(other, home) || !may(comer, onward) || stood[comer] === onward) return
    columns[other] = home
    columns[comer] = onward
  })
}

/** Where the circuits of a body that stays end up: in place, or each in trade with its mate; false when that cures nothing. */
function settle(
  circuits: readonly Movable[],
  body: readonly Movable[],
  end: Map<string, number>,
  grid: Grid,
  live: Leg,
): boolean {
  for (const c of body) end.set(c.id, c.position)
  return body
    .filter(c => wants(c) && legOf(grid, c.position) !== live)
    .every(c => {
      const partner = circuits.find(o => o.id === c.sharesWith)
      const other = bodySpaces(body).find(space => legOf(grid, space) === live)
      const mate = partner ?? (other === undefined ? undefined : mateAt(body, c, other))
      if (!mate || mate.poles === 2 || wants(mate) || legOf(grid, mate.position) !== live) return false
      if ((mate.sharesWith ?? c.id) !== c.id) return false
      // one that comes out with others cannot be lifted alone
      if (!body.includes(mate) && (body.length > 1 || bodyOf(circuits, mate).length > 1)) return false
      end.set(c.id, mate.position)
      end.set(mate.id, c.position)
      return true
    })
}

/** The plan in an order that can be done: free spaces first, then trades of places, each of which settles one at least. */
function stepsTo(end: ReadonlyMap<string, number>, circuits: readonly Movable[]): Move[] {
  const now = new Map(circuits.map(c => [c.id, c.position]))
  const at = (place: number) => circuits.filter(c => now.get(c.id) === place)
  const target = (c: Movable) => end.get(c.id) ?? c.position
  const away = () => circuits.filter(c => now.get(c.id) !== target(c))
  const steps: Move[] = []
  for (let left = away(); left.length; left = away()) {
    // told from the breaker that is wanted: it trades places with one that is not
    const next = left.find(c => !at(target(c)).length) ?? left.find(c => c.picked) ?? left[0]
    if (!next) break
    const from = now.get(next.id) ?? next.position
    const to = target(next)
    const body = bodyOf(circuits, next)
    const mate = bodySpaces(body).includes(to) ? mateAt(body, next, to) : undefined
    const other = mate ?? at(to)[0]
    steps.push({ id: next.id, from, to, ...(other && { tradesWith: other.id }) })
    const coming = mate ? [mate] : at(to)
    for (const c of mate ? [next] : body) now.set(c.id, to)
    for (const c of coming) now.set(c.id, from)
  }
  return steps
}
