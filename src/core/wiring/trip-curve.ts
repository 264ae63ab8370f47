/**
 * When a thermal-magnetic breaker opens. It holds its rating without end; UL 489 says within what time it must open at 135 %
 * and at 200 % of it. Through these two points we lay a power of how far the current is above the rating:
 * t = t₂ × (m − 1)^−p, m the multiple of the rating, t₂ the time at 200 %.
 */

/** The times within which a breaker must open, s. */
export interface MustOpen {
  at135S: number
  at200S: number
}

/** UL 489: up to this rating (A), within these times. */
const table: readonly (MustOpen & { upToA: number })[] = [
  { upToA: 30, at135S: 3600, at200S: 120 },
  { upToA: 50, at135S: 3600, at200S: 240 },
  { upToA: 100, at135S: 7200, at200S: 360 },
  { upToA: 150, at135S: 7200, at200S: 480 },
  { upToA: 225, at135S: 7200, at200S: 600 },
]
const beyond: MustOpen = { at135S: 7200, at200S: 720 }

export function mustOpen(ratedA: number): MustOpen {
  const { at135S, at200S } = table.find(row => ratedA <= row.upToA) ?? beyond
  return { at135S, at200S }
}

/** Seconds within which it must open at a multiple of its rating; Infinity up to the rating itself. */
export function opensWithinS(multiple: number, { at135S, at200S }: MustOpen): number {
  if (multiple <= 1) return Infinity
  const power = Math.log(at135S / at200S) / Math.log(1 / 0.35)
  return at200S * (multiple - 1) ** -power
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
