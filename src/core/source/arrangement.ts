import type { Leg, arrangements as solved } from '../panel/leg'

/** How the source's volts come to the panel's two legs. */
export const jobArrangements = [
  'one-leg',
  'tied',
  'split-phase',
  'combined',
  'autotransformer',
  'independent',
] as const
export type Arrangement = (typeof jobArrangements)[number]

export const arrangementNames: Record<Arrangement, string> = {
  'one-leg': 'one leg',
  tied: 'both legs tied',
  'split-phase': 'split phase',
  combined: 'two units combined',
  autotransformer: 'autotransformer',
  independent: 'two units, not synchronised',
}

/** What the panel then sees, in a sentence. */
export const arrangementSees: Record<Arrangement, string> = {
  'one-leg': 'Half of the panel is dead. Every two-pole breaker stays off.',
  tied: 'All 120 V circuits work, nothing at 240 V. Shared neutrals add instead of cancelling.',
  'split-phase': 'Everything works, within each leg’s share.',
  combined:
    'Split phase from two matched units; where their batteries stay apart, the fuller leg ends the run.',
  autotransformer:
    'One 120 V unit stepped to 120/240 V: losses, idle draw, and a limit on the leg that it makes.',
  independent: 'One leg each, with no fixed phase: never 240 V, never a shared neutral.',
}

/** One bus leg as the source feeds it: null is dead; `phase` in degrees, null where nothing fixes it. */
export type Bus = { volts: number; phase: number | null } | null

/** What both legs carry under an arrangement. The live leg is the only one, or the one that the unit feeds directly. */
export function busesUnder(arrangement: Arrangement, liveLeg: Leg): Record<Leg, Bus> {
  const live = (phase: number | null): Bus => ({ volts: 120, phase })
  switch (arrangement) {
    case 'one-leg':
      return { L1: liveLeg === 'L1' ? live(0) : null, L2: liveLeg === 'L2' ? live(0) : null }
    case 'tied':
      return { L1: live(0), L2: live(0) }
    case 'independent':
      return { L1: live(0), L2: live(null) }
    default:
      return { L1: live(0), L2: live(180) }
  }
}

/** What a breaker sees: volts of its leg to neutral, or between the legs; null where nothing fixes it. */
export type Seen = { volts: number | null; bridges: boolean }

/** Volts at a breaker: of its leg, or between the legs for a two-pole. A two-pole from a live to a dead leg bridges them. */
export function voltsSeen(buses: Record<Leg, Bus>, leg: Leg | 'both'): Seen {
  if (leg !== 'both') return { volts: buses[leg]?.volts ?? 0, bridges: false }
  const { L1, L2 } = buses
  if (!L1 || !L2) return { volts: 0, bridges: Boolean(L1 || L2) }
  if (L1.phase === null || L2.phase === null) return { volts: null, bridges: false }
  const apart = ((L1.phase - L2.phase) * Math.PI) / 180
  // the law of cosines on the two phasors
  const square = L1.volts ** 2 + L2.volts ** 2 - 2 * L1.volts * L2.volts * Math.cos(apart)
  return { volts: Math.round(Math.sqrt(Math.max(0, square))), bridges: false }
}

/** Whether the two legs oppose each other, so that 240 V circuits run and shared neutrals cancel. */
export const opposed = (arrangement: Arrangement): boolean =>
  arrangement === 'split-phase' || arrangement === 'combined' || arrangement === 'autotransformer'

/** The arrangement as the `legs` and `shared-neutral` calculators know it. */
export function asCalculated(arrangement: Arrangement): (typeof solved)[number] {
  if (opposed(arrangement)) return 'split-phase'
  return arrangement === 'one-leg' || arrangement === 'tied' ? arrangement : 'independent'
}
