import type { Drawn } from './draw'
import type { Load } from './load'

/** Hours that make a load continuous (NEC article 100). */
export const continuousHours = 3
const allTheTime = 0.99

/**
 * Whether a load runs for three hours or more without a pause: all the time, or all of a span that is so long. What cycles
 * pauses; a kettle's minutes are its own. A load that scales with the weather counts by its share under the outage's.
 */
export function lasts(load: Load, drawn: Pick<Drawn, 'dutyFraction'>): boolean {
  const { pattern } = load
  if (drawn.dutyFraction >= allTheTime) return true
  if (pattern?.kind === 'event') return pattern.minutes >= 60 * continuousHours
  if (pattern?.kind !== 'scheduled') return false
  const hours = pattern.spans.map(({ fromH, toH }) => (fromH <= toH ? toH - fromH : 24 - fromH + toH))
  const inUse = hours.reduce((a, b) => a + b, 0) / 24
  return Math.max(...hours) >= continuousHours && drawn.dutyFraction >= allTheTime * Math.min(1, inUse)
}
