/**
 * When a thermal-magnetic breaker opens. It holds its rating without end; it must open within an hour at 135 %, and at
 * 200 % within two minutes up to 30 A, within four up to 50 A (UL 489). Through these two points we lay a power of how far
 * the current is above the rating: t = t₂ × (m − 1)^−p, m the multiple of the rating, t₂ the time at 200 %.
 */

const hourS = 3600
const slowMultiple = 1.35

/** The time within which it must open at twice its rating, s. */
export const atTwiceS = (ratedA: number): number => (ratedA <= 30 ? 120 : 240)

/** Seconds within which it must open at a multiple of its rating; Infinity up to the rating itself. */
export function opensWithinS(multiple: number, twiceS: number): number {
  if (multiple <= 1) return Infinity
  const power = Math.log(hourS / twiceS) / Math.log(1 / (slowMultiple - 1))
  return twiceS * (multiple - 1) ** -power
}

/**
 * A real one opens sooner than it must: by this share of the time, even in its logarithm. A course draws it; our estimate
 * from the bands of published curves.
 */
export const soonestShare = 0.2
export const shareOf = (uniform: number): number => soonestShare ** uniform

/** A breaker below its rating forgets its heat with this time constant, s: our assumption. */
export const coolsS = 600

/** What a source's own electronics hold above their rating before they open, s: our assumption where a sheet is silent. */
export const electronicHoldsS = 10
