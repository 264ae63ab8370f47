/** A share of draws with what chance leaves open of it: Wilson's 95 % interval. */
export interface Share {
  fraction: number
  low: number
  high: number
  /** half of the interval */
  error: number
}

const z95 = 1.96
export function shareOf(hits: number, of: number): Share {
  if (of === 0) return { fraction: 0, low: 0, high: 1, error: 0.5 }
  const p = hits / of
  const square = z95 * z95
  const middle = (p + square / (2 * of)) / (1 + square / of)
  const error = (z95 * Math.sqrt((p * (1 - p)) / of + square / (4 * of * of))) / (1 + square / of)
  // of none and of all the bound is exact: rounding would leave a trace of 1e-19
  return {
    fraction: p,
    low: p === 0 ? 0 : Math.max(0, middle - error),
    high: p === 1 ? 1 : Math.min(1, middle + error),
    error,
  }
}

/** Draws come in batches of this many, and whether they are enough is asked after each: the same on any number of workers. */
export const batchDraws = 100
const fewestDraws = 200
/** Enough when the chance is known to within two of a hundred. */
const enoughError = 0.02

export const enough = (share: Share, draws: number, most: number): boolean =>
  draws >= most || (draws >= fewestDraws && share.error <= enoughError)
