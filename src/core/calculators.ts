import { distance } from 'fastest-levenshtein'
import type { Calculator } from './calculator'
import { start } from './loads/start'
import { legs } from './source/legs'
import { runtime } from './source/runtime'
import { sharedNeutral } from './wiring/shared-neutral'

/** Every calculator of the bench, in the order of the work. */
// biome-ignore lint/suspicious/noExplicitAny: each keeps its own input and output types; the registry only runs them from raw input
export const calculators: readonly Calculator<any, any>[] = [start, runtime, legs, sharedNeutral]

/** The calculators whose names come nearest, for a mistyped one. */
export function nearestNames(name: string, most = 3): string[] {
  return calculators
    .map(c => ({ name: c.name, steps: distance(name, c.name) }))
    .sort((a, b) => a.steps - b.steps)
    .slice(0, most)
    .map(c => c.name)
}
