import type { SimpleOperation } from '../job/operations'
import { changeId } from '../plan/change'
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
  const before = new Set(space.job.planned.map(changeId))
  const changes = planned.planned.filter(c => c.origin === 'person' && !before.has(changeId(c)))
  return {
    op: 'adoptDesign',
    name: designName(space, design).slice(0, 200),
    source,
    hookup: planned.hookup,
    ...(changes.length && { changes: changes.map(c => ({ ...c, origin: 'design' as const })) }),
  }
}
