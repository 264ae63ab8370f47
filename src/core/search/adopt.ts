import { withMethod } from '../hookup/compare'
import type { SimpleOperation } from '../job/operations'
import { type Design, designName, jobWith, type Space, sourceWith } from './space'

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
  const { hookup } = withMethod(jobWith(space, source), method, space.catalogue)
  return { op: 'adoptDesign', name: designName(space, design).slice(0, 200), source, hookup }
}
