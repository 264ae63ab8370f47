import { continuousShare } from '../source/output'
import { figure } from '../units/format'
import { connectorOf } from '../units/tables/receptacles'
import { electronicHoldsS, type MustOpen, mustOpen } from '../wiring/trip-curve'
import { type Hookup, type Link, linkName } from './design'
import { methodOf } from './method'

/** What of a job the way is read from. */
interface Connected {
  hookup: Hookup
}

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

const ampsOf = (type: string | undefined) =>
  (type === undefined ? undefined : connectorOf(type)?.amps) ?? Infinity

/** A link as what it lets through: no more than its connectors carry; a breaker of its own stands ahead of it. */
function stepsOf(link: Link, n: number): WayStep[] {
  const what = link.name || linkName[link.kind]
  const ratedA = Math.min(link.ratingA, ampsOf(link.from), ampsOf(link.to))
  const own = link.ownBreakerA
  return [
    ...(own !== undefined
      ? [
          {
            link: n + 1,
            name: `${figure(own)} A breaker of the ${what} at ${n + 1}`,
            ratedA: own,
            opens: true,
          },
        ]
      : []),
    { link: n + 1, name: `${figure(ratedA)} A ${what} at ${n + 1}`, ratedA, opens: link.kind === 'breaker' },
  ]
}

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
export function wayOf({ hookup }: Connected): WayStep[] {
  const method = methodOf(hookup.method)
  const path = hookup.path ?? []
  const shows = (kind: Link['kind']) => path.some(l => l.kind === kind)
  const wired = method.transfer === 'interlock' || method.transfer === 'switch'
  // two switches on one source share it: what both inputs take together is no limit of one
  const input =
    method.serves === 'positions' && !hookup.secondSwitch ? (hookup.switch ?? hookup.managed) : undefined
  return [
    ...path.flatMap(stepsOf),
    ...(wired && hookup.inlet && !shows('inlet')
      ? [device(`inlet ${hookup.inlet.type}`, hookup.inlet.ratingA, false)]
      : []),
    ...(method.transfer === 'interlock' && hookup.backfed && !shows('breaker')
      ? [device('backfed breaker', hookup.backfed.breakerA, true)]
      : []),
    ...(input ? [device(`input of the ${input.name}`, input.inputA, false)] : []),
  ]
}

const least = (steps: readonly WayStep[]): WayStep | null =>
  steps.reduce<WayStep | null>((least, s) => (least && least.ratedA <= s.ratedA ? least : s), null)

/** What carries least of the way, nearest the source on a tie; null where nothing stands in it. */
export const wayLimit = (job: Connected): WayStep | null => least(wayOf(job))

/** The same apart: what does not open by itself, and the smallest breaker. */
export function wayLimits(job: Connected): { bare: WayStep | null; breaker: WayStep | null } {
  const all = wayOf(job)
  return { bare: least(all.filter(s => !s.opens)), breaker: least(all.filter(s => s.opens)) }
}

/** One thing of the way as a person reads it. */
export interface WayTold extends WayStep {
  continuousA: number
  /** what opens first for an overload through it, of itself and what stands ahead; null where nothing does */
  openedBy: string | null
  /** seconds within which that opens at 135 % and at 200 % of its rating; of electronics at anything above */
  within: MustOpen | null
}

/**
 * The way as it is drawn: each thing rated, for hours, and what opens first and after how long. The outlet itself opens by its
 * electronics, or is behind a breaker where it is a generator's.
 */
export function wayTold(
  job: Connected,
  outlet: { name: string; ratedA: number; electronic: boolean } | null,
): WayTold[] {
  let guard = outlet && { name: outlet.name, A: outlet.ratedA, electronic: outlet.electronic }
  return wayOf(job).map(step => {
    if (step.opens && (!guard || step.ratedA <= guard.A))
      guard = { name: step.name, A: step.ratedA, electronic: false }
    return {
      ...step,
      continuousA: continuousShare * step.ratedA,
      openedBy: guard?.name ?? null,
      within:
        guard &&
        (guard.electronic ? { at135S: electronicHoldsS, at200S: electronicHoldsS } : mustOpen(guard.A)),
    }
  })
}

/** The first device of the way that opens at so few amps or fewer; undefined where none does. */
export const opensBy = (steps: readonly WayStep[], ratedA: number): WayStep | undefined =>
  steps.find(s => s.opens && s.ratedA <= ratedA)
