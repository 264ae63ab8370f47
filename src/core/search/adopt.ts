import type { SimpleOperation } from '../job/operations'
import { circuitsOf } from '../job/panels'
import { plannedDesign } from './planned'
import { type Design, designName, type Space, sourceWith } from './space'

/** The change that takes a found design up: source and hook-up at once. Null where the space no longer has it. */
export function adopted(
  space: Space,
  design: Design,
): Extract<SimpleOperation, { op: 'adoptDesign' }> | null {
  const head = space.heads[design.head]
  const method = space.methods[design.method]
  const source =
    head && sourceWith(head, space.generators[design.generator] ?? null, space.suns[design.sun] ?? null)
  if (!source || !method) return null
  const planned = plannedDesign(space, source, method).job
  const before = new Map(circuitsOf(space.job).map(c => [c.id, c]))
  const circuits = circuitsOf(planned).flatMap(({ id, lockedOff, outletProtection }) => {
    const was = before.get(id)
    return was?.lockedOff === lockedOff && was?.outletProtection === outletProtection
      ? []
      : [
          {
            circuitId: id,
            facts: { ...(lockedOff && { lockedOff }), ...(outletProtection && { outletProtection }) },
          },
        ]
  })
  return {
    op: 'adoptDesign',
    name: designName(space, design).slice(0, 200),
    source,
    hookup: planned.hookup,
    ...(circuits.length && { circuits }),
  }
}
