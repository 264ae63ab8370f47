import type { Job } from '../job/schema'
import { figure } from '../units/format'
import { type Link, linkName } from './design'
import { methodOf } from './method'

/** One thing that all the current of a leg goes through between the source's outlet and the panel. */
export interface WayStep {
  /** of the path, counted from 1; null for a device of the hook-up that is no link */
  link: number | null
  /** `15 A breaker at 2`, as it stands in a sentence */
  name: string
  ratedA: number
  /** whether it opens by itself above its rating */
  opens: boolean
}

const stepOf = (link: Link, n: number): WayStep => ({
  link: n + 1,
  name: `${figure(link.ratingA)} A ${link.name || linkName[link.kind]} at ${n + 1}`,
  ratedA: link.ratingA,
  opens: link.kind === 'breaker',
})

const device = (what: string, ratedA: number, opens: boolean): WayStep => ({
  link: null,
  name: `${figure(ratedA)} A ${what}`,
  ratedA,
  opens,
})

/**
 * Everything between the source's outlet and the panel that the current of a leg goes through: the links of the path, then
 * what the method brings and the path does not show (inlet, backfed breaker, the switch's input). Amps, per hot conductor.
 */
export function wayOf({ hookup }: Pick<Job, 'hookup'>): WayStep[] {
  const method = methodOf(hookup.method)
  const path = hookup.path ?? []
  const shows = (kind: Link['kind']) => path.some(l => l.kind === kind)
  const wired = method.transfer === 'interlock' || method.transfer === 'switch'
  const input = method.serves === 'positions' ? (hookup.switch ?? hookup.managed) : undefined
  return [
    ...path.map(stepOf),
    ...(wired && hookup.inlet && !shows('inlet')
      ? [device(`inlet ${hookup.inlet.type}`, hookup.inlet.ratingA, false)]
      : []),
    ...(method.transfer === 'interlock' && hookup.backfed && !shows('breaker')
      ? [device('backfed breaker', hookup.backfed.breakerA, true)]
      : []),
    ...(input ? [device(`input of the ${input.name}`, input.inputA, false)] : []),
  ]
}

/** What carries least of the way, nearest the source on a tie; null where nothing stands in it. */
export const wayLimit = (job: Pick<Job, 'hookup'>): WayStep | null =>
  wayOf(job).reduce<WayStep | null>((least, s) => (least && least.ratedA <= s.ratedA ? least : s), null)

/** The first device of the way that opens at so few amps or fewer; undefined where none does. */
export const opensBy = (steps: readonly WayStep[], ratedA: number): WayStep | undefined =>
  steps.find(s => s.opens && s.ratedA <= ratedA)
