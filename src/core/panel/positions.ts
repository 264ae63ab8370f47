import type { Leg } from './leg'

/**
 * The panel as a grid. Spaces are kept odd down the left and even down the right, whatever is printed beside them:
 * a panel numbered in sequence only names them differently (`spaceName`).
 */
export const rowOf = (space: number): number => Math.ceil(space / 2)
export const columnOf = (space: number): 'left' | 'right' => (space % 2 === 1 ? 'left' : 'right')
export const otherLeg = (leg: Leg): Leg => (leg === 'L1' ? 'L2' : 'L1')

/** What of a panel fixes the leg of a space: alternating row by row from one leg, or each row as it was found. */
export interface Bus {
  busLegs: Leg | readonly Leg[]
}
export const alternating: Bus = { busLegs: 'L1' }

export const legOf = ({ busLegs }: Bus, space: number): Leg => {
  const row = rowOf(space)
  if (typeof busLegs !== 'string') return busLegs[row - 1] ?? 'L1'
  return row % 2 === 1 ? busLegs : otherLeg(busLegs)
}

/** What of a panel fixes the number printed beside a space. */
export interface Numbered {
  spaces: number
  numbering: 'odd-even' | 'in sequence'
}

/** The number printed beside a space: its own, or counted down the left side and then down the right. */
export const spaceName = (panel: Numbered, space: number): number =>
  panel.numbering === 'odd-even'
    ? space
    : rowOf(space) + (columnOf(space) === 'right' ? Math.ceil(panel.spaces / 2) : 0)

/** The space that a printed number stands beside; numbers beyond the panel give spaces beyond it. */
export const spaceNamed = (panel: Numbered, name: number): number => {
  const rows = Math.ceil(panel.spaces / 2)
  if (panel.numbering === 'odd-even' || name > panel.spaces) return name
  return name <= rows ? 2 * name - 1 : 2 * (name - rows)
}

/** Half of a space, upper or lower: one circuit of a tandem, or of a quad. */
export type Half = 'a' | 'b'

/**
 * Where a breaker stands. A two-pole also takes the space below its own on the same side. With `half` it takes half
 * spaces: one of a tandem, or of a quad two, the outer pair (`a`) or the inner pair (`b`).
 */
export interface Placed {
  position: number
  poles: 1 | 2
  half?: Half | undefined
}

/** The spaces a breaker takes, whole or in part. */
export const spacesOf = (breaker: Placed): number[] =>
  breaker.poles === 2 ? [breaker.position, breaker.position + 2] : [breaker.position]

/** The half spaces a breaker takes, such as `7a`. */
export const halvesOf = ({ position, poles, half }: Placed): string[] => {
  if (poles === 1) return half ? [position + half] : [`${position}a`, `${position}b`]
  const below = position + 2
  if (half) return half === 'a' ? [`${position}a`, `${below}b`] : [`${position}b`, `${below}a`]
  return [`${position}a`, `${position}b`, `${below}a`, `${below}b`]
}

/** The leg a breaker's circuit is fed from; a two-pole is fed from both. */
export const feedOf = (bus: Bus, breaker: Placed): Leg | 'both' =>
  breaker.poles === 2 ? 'both' : legOf(bus, breaker.position)

/** `7`, `7·9` for a two-pole, `7A` for half of a tandem, `7A·9B` for the outer pair of a quad. */
export const positionText = (panel: Numbered, breaker: Placed): string => {
  const [upper = 0, lower] = spacesOf(breaker).map(space => spaceName(panel, space))
  const { half } = breaker
  if (lower === undefined) return `${upper}${half?.toUpperCase() ?? ''}`
  return half ? (half === 'a' ? `${upper}A·${lower}B` : `${upper}B·${lower}A`) : `${upper}·${lower}`
}

/** Which breakers stand in each space, upper half first; a free space is missing from the map. */
export function occupancy<T extends Placed>(breakers: readonly T[]): Map<number, T[]> {
  const at = new Map<number, T[]>()
  for (const breaker of breakers)
    for (const space of spacesOf(breaker)) at.set(space, [...(at.get(space) ?? []), breaker])
  for (const [space, here] of at)
    if (here.length > 1) here.sort((x, y) => upperFirst(space, x) - upperFirst(space, y))
  return at
}

/** The spaces nothing stands in, without those that cannot be used. */
export function freeSpaces(
  spaces: number,
  breakers: readonly Placed[],
  unusable: readonly number[] = [],
): number[] {
  const taken = occupancy(breakers)
  return Array.from({ length: spaces }, (_, i) => i + 1).filter(
    space => !taken.has(space) && !unusable.includes(space),
  )
}

const upperFirst = (space: number, breaker: Placed) => (halvesOf(breaker).includes(`${space}a`) ? 0 : 1)
