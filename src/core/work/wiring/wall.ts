import type { WallBox } from '../../hookup/wiring-choices'

/** A way between two boxes of an elevation. */
export interface WallWay {
  lengthFt: number
  bendsDeg: number
  /** its corners, ft: from the left, and above the floor */
  points: { leftFt: number; upFt: number }[]
}

const leastShared = 0.2

interface Span {
  low: number
  high: number
}
const across = (b: WallBox): Span => ({ low: b.leftFt, high: b.leftFt + b.widthFt })
const up = (b: WallBox): Span => ({ low: b.bottomFt, high: b.bottomFt + b.heightFt })
const middle = ({ low, high }: Span) => (low + high) / 2

/** The middle of what two spans share; null where they share too little to lead a straight raceway. */
function sharedAt(a: Span, b: Span): number | null {
  const [low, high] = [Math.max(a.low, b.low), Math.min(a.high, b.high)]
  return high - low >= leastShared ? (low + high) / 2 : null
}

/** The facing edges of two spans that lie apart; their own order where they overlap. */
const gap = (a: Span, b: Span): [number, number] =>
  a.high <= b.low ? [a.high, b.low] : b.high <= a.low ? [a.low, b.high] : [middle(a), middle(b)]

/**
 * The shortest way along the wall: straight where two boxes stand beside or above each other, else out of the side of one and
 * round one corner of 90° into the top or bottom of the other. Rise plus run, ft.
 */
export function wayOnWall(a: WallBox, b: WallBox): WallWay {
  const [ax, bx, ay, by] = [across(a), across(b), up(a), up(b)]
  const level = sharedAt(ay, by)
  const plumb = sharedAt(ax, bx)
  const [x1, x2] = gap(ax, bx)
  const [y1, y2] = gap(ay, by)
  const apartX = ax.high <= bx.low || bx.high <= ax.low
  const way = (points: WallWay['points']): WallWay => ({
    points,
    bendsDeg: 90 * Math.max(0, points.length - 2),
    lengthFt: points.slice(1).reduce((sum, p, n) => {
      const q = points[n] ?? p
      return sum + Math.abs(p.leftFt - q.leftFt) + Math.abs(p.upFt - q.upFt)
    }, 0),
  })
  if (level !== null && (apartX || plumb === null))
    return way([
      { leftFt: x1, upFt: level },
      { leftFt: x2, upFt: level },
    ])
  if (plumb !== null)
    return way([
      { leftFt: plumb, upFt: y1 },
      { leftFt: plumb, upFt: y2 },
    ])
  // out of the side of the one into the other from above or below, or the other way about: what is shorter
  const corner = (fromX: number, of: Span, at: Span, toY: number) =>
    way([
      { leftFt: fromX, upFt: middle(of) },
      { leftFt: middle(at), upFt: middle(of) },
      { leftFt: middle(at), upFt: toY },
    ])
  const one = corner(x1, ay, bx, y2)
  const other = corner(x2, by, ax, y1)
  return one.lengthFt <= other.lengthFt ? one : { ...other, points: [...other.points].reverse() }
}
