import { enablePatches, type Patch, produceWithPatches } from 'immer'
import type { Job } from '@/core/job/schema'

enablePatches()

const isObject = (value: unknown): value is object => value !== null && typeof value === 'object'

/** Lists are gone into where they have as many entries, all of them things; other lists are replaced whole. */
const alike = (before: object, next: object) =>
  Array.isArray(before) === Array.isArray(next) &&
  (!Array.isArray(before) ||
    !Array.isArray(next) ||
    (before.length === next.length && next.every(isObject) && before.every(isObject)))

/** Makes a draft of `base` into `next`, touching only what differs: an operation leaves what it does not change the same object. */
function become(draft: object, base: object, next: object): void {
  for (const key of Object.keys(base)) if (!(key in next)) Reflect.deleteProperty(draft, key)
  for (const [key, value] of Object.entries(next)) {
    const before: unknown = Reflect.get(base, key)
    if (before === value) continue
    if (isObject(before) && isObject(value) && alike(before, value))
      become(Reflect.get(draft, key), before, value)
    else Reflect.set(draft, key, value)
  }
}

/** The patches from one job to another and back, as small as the change: a year of weather is not kept again with each edit beside it. */
export function differences(job: Job, next: Job): { forward: Patch[]; backward: Patch[] } {
  const [, forward, backward] = produceWithPatches(job, draft => become(draft, job, next))
  return { forward, backward }
}
