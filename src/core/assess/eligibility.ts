import type { Leg } from '../panel/leg'
import { protections } from '../panel/protection'
import type { Circuit } from '../panel/schema'
import { type CircuitNeed, feedUnder, named } from './needs'

export const arrangementsJudged = [
  { key: 'one-leg L1', label: 'One leg, L1', arrangement: 'one-leg', liveLeg: 'L1' },
  { key: 'one-leg L2', label: 'One leg, L2', arrangement: 'one-leg', liveLeg: 'L2' },
  { key: 'tied', label: 'Both legs tied', arrangement: 'tied', liveLeg: 'L1' },
  { key: 'split-phase', label: 'Split phase', arrangement: 'split-phase', liveLeg: 'L1' },
] as const satisfies readonly { key: string; label: string; arrangement: string; liveLeg: Leg }[]

export interface Eligibility {
  key: (typeof arrangementsJudged)[number]['key']
  label: string
  /** `yes`; `with care`: works on a condition; `no` */
  answer: 'yes' | 'with care' | 'no'
  reasons: string[]
}

/** Whether a circuit can be carried under each arrangement of voltage, and why not, or on which condition. */
export function eligibilityOf(need: CircuitNeed, needs: readonly CircuitNeed[]): Eligibility[] {
  return arrangementsJudged.map(({ key, label, ...supply }) => {
    const feed = feedUnder(supply, need.leg)
    const no: string[] = []
    const care: string[] = []
    if (feed === 'dead') no.push(`it is on ${need.leg}, which stays dead; moving its breaker cures it`)
    if (feed === 'no-240') no.push('it needs 240 V, and both legs are the same 120 V')
    if (feed === 'no-phase') no.push('nothing synchronises the two legs, so there is no 240 V')
    if (feed === 'bridge') no.push('it is a two-pole: left on, its load links the dead leg to the live one')
    if (!no.length) care.push(...neutralCare(need, needs, supply.arrangement), ...otherCare(need.circuit))
    return {
      key,
      label,
      answer: no.length ? 'no' : care.length ? 'with care' : 'yes',
      reasons: no.length ? no : care,
    }
  })
}

/** Under each arrangement: how many of the picked circuits it carries, and which not. */
export function carriedBy(
  needs: readonly CircuitNeed[],
): { key: Eligibility['key']; label: string; carried: number; of: number; not: string[] }[] {
  const picked = needs.filter(n => n.circuit.picked)
  return arrangementsJudged.map(({ key, label, ...supply }) => {
    const not = picked.filter(n => feedUnder(supply, n.leg) !== 'live')
    return { key, label, carried: picked.length - not.length, of: picked.length, not: not.map(named) }
  })
}

function neutralCare(need: CircuitNeed, needs: readonly CircuitNeed[], arrangement: string): string[] {
  const { neutral } = need.circuit
  if (neutral.kind === 'own') return []
  if (neutral.kind === 'unknown')
    return need.leg === 'both' ? [] : ['whether its neutral is its own is not known']
  const partner = needs.find(n => n.circuit.id === neutral.with)
  if (!partner) return []
  const together = `half of a shared neutral with ${named(partner)}`
  if (arrangement === 'tied') return [`${together}: tied legs make the two currents add`]
  if (arrangement === 'one-leg')
    return [`${together}, which stays dark: move both hots or neither to a switch`]
  return partner.leg === need.leg
    ? [`${together} on the same leg: their currents add`]
    : [`${together}: keep both together`]
}

function otherCare({ tie, protection, purpose, traced }: Circuit): string[] {
  return [
    ...(tie?.kind === 'common trip' ? ['one trip opens it and its neighbour'] : []),
    ...(protections[protection].comparesNeutral
      ? [`its ${protections[protection].mark} breaker weighs hot against neutral: both must follow`]
      : []),
    ...(purpose === 'solar' ? ['it feeds in: it has to stay off on a source that cannot take it'] : []),
    ...(traced?.found === 'known' ? [] : ['no one has seen it die for certain']),
  ]
}
