/** Ampacity adjustment for more than three current-carrying conductors together, NEC 310.15(C)(1). */
export const adjustments: readonly { upTo: number; factor: number }[] = [
  { upTo: 3, factor: 1 },
  { upTo: 6, factor: 0.8 },
  { upTo: 9, factor: 0.7 },
  { upTo: 20, factor: 0.5 },
  { upTo: 30, factor: 0.45 },
  { upTo: 40, factor: 0.4 },
  { upTo: Infinity, factor: 0.35 },
]

/** The factor for a number of current-carrying conductors. */
export const adjustmentFactorOf = (currentCarrying: number): number =>
  adjustments.find(a => currentCarrying <= a.upTo)?.factor ?? 0.35
