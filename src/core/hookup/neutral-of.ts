import type { Hookup } from './design'
import { methodOf } from './method'

/** What the hook-up does to the neutral: leaves it tied to the house, switches it too, or never meets the house. */
export type NeutralWay = 'unknown' | 'hots-only' | 'switched' | 'stand-alone'

/** What the hook-up does to the neutral: the device chosen says it, else the method’s nature. */
export function neutralOf(job: { hookup: Pick<Hookup, 'method' | 'switch'> }): NeutralWay {
  const { method, switch: device } = job.hookup
  const usual = methodOf(method).neutral
  return methodOf(method).transfer === 'switch' && device
    ? device.switchesNeutral
      ? 'switched'
      : 'hots-only'
    : usual
}
