import type { UnitOfMeasure } from './working'

export interface Point {
  /** a number along the axis, or the name of a bar */
  x: number | string
  y: number
}

/** What a result does when one input moves, or how its parts compare: plain data for a chart and the table behind it. */
export interface Curve {
  title: string
  kind: 'line' | 'bars' | 'stacked'
  x: { label: string; unit: UnitOfMeasure }
  y: { label: string; unit: UnitOfMeasure }
  series: { name: string; points: Point[] }[]
  /** lines across: what must not be passed, or aimed at */
  limits?: { label: string; y: number }[]
  /** where the present input stands */
  here?: { x: number; y: number }
}

/** `count` + 1 values from `low` to `high`, evenly. */
export const spread = (low: number, high: number, count = 40): number[] =>
  Array.from({ length: count + 1 }, (_, i) => low + ((high - low) * i) / count)

/** Points of a function over the values of x; values that have no finite answer are left out. */
export const along = (xs: readonly number[], y: (x: number) => number): Point[] =>
  xs.map(x => ({ x, y: y(x) })).filter(p => Number.isFinite(p.y))
