import { halvesOf, occupancy, type Placed, spacesOf } from './positions'

/** What of a circuit says with which others it stands in one breaker. */
export interface Bodied extends Placed {
  id: string
  tie?: { with: string } | undefined
}

/**
 * The circuits that come out of the panel in one piece with this one, itself included: both halves of a tandem, all of
 * a quad, and one-poles joined by a handle tie or a common trip.
 */
export function bodyOf<T extends Bodied>(circuits: readonly T[], of: T): T[] {
  if (!of.half && !of.tie) return [of]
  const at = occupancy(circuits)
  const body = new Set<T>([of])
  for (const member of body) {
    if (member.half)
      for (const space of spacesOf(member)) for (const other of at.get(space) ?? []) body.add(other)
    const tied = member.tie && circuits.find(c => c.id === member.tie?.with)
    if (tied) body.add(tied)
  }
  return circuits.filter(c => body.has(c))
}

/** The spaces a body takes, from the top. */
export const bodySpaces = (body: readonly Placed[]): number[] =>
  [...new Set(body.flatMap(spacesOf))].sort((a, b) => a - b)

/**
 * The one-pole of the same body whose wire can trade places with this one's so that it ends in `space`; undefined when
 * none stands there. The same half is preferred, so that the drawing stays as it was.
 */
export const mateAt = <T extends Bodied>(body: readonly T[], of: T, space: number): T | undefined => {
  const there = body.filter(c => c !== of && c.poles === 1 && c.position === space)
  return there.find(c => c.half === of.half) ?? there[0]
}

/** Whether any half space is taken twice. */
export function overlaps(breakers: readonly Placed[]): boolean {
  const halves = breakers.flatMap(halvesOf)
  return new Set(halves).size < halves.length
}
