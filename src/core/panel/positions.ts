import type { Leg } from '../source/legs'

/** The panel as a grid: odd positions down the left, even down the right; legs alternate row by row. */
export const rowOf = (position: number): number => Math.ceil(position / 2)
export const columnOf = (position: number): 'left' | 'right' => (position % 2 === 1 ? 'left' : 'right')
export const legOf = (position: number): Leg => (rowOf(position) % 2 === 1 ? 'L1' : 'L2')
export const otherLeg = (leg: Leg): Leg => (leg === 'L1' ? 'L2' : 'L1')

interface Placed {
  position: number
  poles: 1 | 2
}

/** The spaces a breaker takes: a two-pole also takes the one below it on the same side, which is on the other leg. */
export const spacesOf = (breaker: Placed): number[] =>
  breaker.poles === 2 ? [breaker.position, breaker.position + 2] : [breaker.position]

/** The leg a breaker's circuit is fed from; a two-pole is fed from both. */
export const feedOf = (breaker: Placed): Leg | 'both' =>
  breaker.poles === 2 ? 'both' : legOf(breaker.position)

/** `7`, or `7·9` for a two-pole. */
export const positionText = (breaker: Placed): string => spacesOf(breaker).join('·')

/** Which breaker stands in each space, 1 to `spaces`; a free space is missing from the map. */
export function occupancy<T extends Placed>(breakers: readonly T[]): Map<number, T> {
  return new Map(breakers.flatMap(b => spacesOf(b).map(space => [space, b] as const)))
}

export function freeSpaces(spaces: number, breakers: readonly Placed[]): number[] {
  const taken = occupancy(breakers)
  return Array.from({ length: spaces }, (_, i) => i + 1).filter(space => !taken.has(space))
}
