import type { ConductorSize } from './conductors'

/**
 * Flexible cord, copper, amps: NEC 400.5(A)(1), column B (two current-carrying) and column A (three).
 * A 120/240 V cord's neutral that carries only the difference is not counted.
 */
export const cords: readonly { size: ConductorSize; twoA: number; threeA: number }[] = [
  { size: '14', twoA: 18, threeA: 15 },
  { size: '12', twoA: 25, threeA: 20 },
  { size: '10', twoA: 30, threeA: 25 },
  { size: '8', twoA: 40, threeA: 35 },
  { size: '6', twoA: 55, threeA: 45 },
  { size: '4', twoA: 70, threeA: 60 },
]

/** Amps of a copper cord with two current-carrying conductors; null where the table has no such size. */
export const cordAmpacityA = (size: string): number | null => cords.find(c => c.size === size)?.twoA ?? null
