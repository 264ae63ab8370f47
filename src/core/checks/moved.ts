import type { Evaluated } from '../assess/evaluated'
import { groundingOf } from '../assess/grounding'
import { type CircuitNeed, named } from '../assess/needs'
import { methodOf } from '../hookup/method'
import { neutralOf } from '../hookup/neutral-of'
import { movesCircuits } from '../job/panels'
import { protections } from '../panel/protection'
import { toPlan } from '../plan/change'
import { modeOf } from '../source/inputs'
import { shortName } from '../source/short-name'
import { quantity, together } from '../units/format'
import type { Said } from './finding'

/** Neutrals of circuits that move, and charging while feeding. */

/** Circuits whose hot leaves its breaker: to a switch, or to another panel. */
export function movedCircuits({ job, needs }: Evaluated): CircuitNeed[] {
  const { transfer, serves, neutral } = methodOf(job.hookup.method)
  const moves = transfer === 'switch' || movesCircuits(job) || serves === 'positions'
  return moves && neutral !== 'stand-alone' ? needs.filter(n => n.circuit.picked && !n.feeds) : []
}

export function neutralLeftBehind(evaluated: Evaluated): Said[] {
  const { job } = evaluated
  const { neutrals } = job.hookup
  const moved = movedCircuits(evaluated)
  if (neutrals === 'follow their hots' || !moved.length) return []
  const guarded = moved.filter(n => protections[n.circuit.protection].comparesNeutral)
  // through the leads of a switch the neutral of a plain breaker stays in its panel: that is how they are listed
  const left = neutrals === 'stay behind' && movesCircuits(job) ? moved : guarded
  if (!left.length) return []
  const some = left.map(
    n =>
      `${named(n)}${n.circuit.protection === 'none' ? '' : ` (${protections[n.circuit.protection].mark})`}`,
  )
  return [
    {
      id: 'neutral.left-behind',
      severity: 'stop',
      sentence: `The ${left.length > 1 ? 'hots' : 'hot'} of ${together(some)} ${left.length > 1 ? 'are' : 'is'} led away, and ${neutrals ? 'the neutrals stay behind' : 'nothing says that the neutrals follow'}.`,
      why: guarded.length
        ? 'An AFCI or GFCI breaker compares hot and neutral: with the neutral elsewhere it trips at once, or guards nothing. A hot without its neutral in the same raceway also heats metal around it.'
        : 'A hot without its neutral in the same raceway heats the metal around it, and a wire is left that looks dead.',
      remedy:
        'Move each neutral with its hot, through the same raceway, to the neutral bar or breaker that now guards it.',
      target: { view: 'hook-up', field: 'neutrals' },
      fixes: [
        {
          label: 'Plan: each neutral follows its hot',
          operations: [{ op: 'setHookup', facts: { neutrals: 'follow their hots' } }],
        },
      ],
    },
  ]
}

/** On the source a breaker of the panel is out of the way, and with it what it guards against. */
export function protectionLost(evaluated: Evaluated): Said[] {
  const { job } = evaluated
  if (methodOf(job.hookup.method).transfer !== 'switch') return []
  const lost = movedCircuits(evaluated).filter(
    n => n.circuit.protection !== 'none' && !n.circuit.outletProtection,
  )
  if (!lost.length) return []
  const some = lost.map(n => `${named(n)} (${protections[n.circuit.protection].mark})`)
  return [
    {
      id: 'protection.lost',
      severity: 'fix',
      sentence: `${together(some)}: the breaker that guards ${lost.length > 1 ? 'them' : 'it'} stays in the panel, and on the source nothing takes its place.`,
      why: 'A kitchen, a bathroom, a bedroom have that protection because people were shocked or burnt without it.',
      remedy:
        'A device of that kind at the first outlet, or a position of the switch that takes such a breaker. Then say so at the circuit.',
      article: 'NEC 210.8, 210.12',
      target: { view: 'panel', circuitIds: lost.map(n => n.circuit.id) },
      fixes: [
        {
          label: 'Plan a device at the first outlet of each',
          operations: lost.map(n => toPlan({ kind: 'guard', circuitId: n.circuit.id })),
        },
      ],
    },
  ]
}

export function chargeLoop({ job }: Evaluated): Said[] {
  const { source } = job
  if (source?.charging?.from !== 'a circuit of the panel it feeds') return []
  if (neutralOf(job) === 'stand-alone') return []
  // an inverter with its own transfer charges ahead of what it feeds
  if (source.units.every(u => u.equipment.kind === 'inverter' && u.equipment.ownTransfer)) return []
  return [
    {
      id: 'charge.loop',
      severity: 'stop',
      sentence: `The ${shortName(source)} is charged from a circuit of the very panel that it feeds.`,
      why: 'It may feed itself in a circle, and its two neutral paths make protective breakers trip.',
      remedy: 'Charge it from a generator of its own, or from the panel only while it is disconnected.',
      target: { view: 'source', field: 'charging' },
      fixes: [
        {
          label: 'Plan: from the panel, only when disconnected',
          operations: [
            {
              op: 'setSource',
              facts: { charging: { ...source.charging, from: 'the panel, only when disconnected' } },
            },
          ],
        },
      ],
    },
  ]
}

export function passthroughForbidden({ job }: Evaluated): Said[] {
  const { source } = job
  if (!source) return []
  const unit = source.units.find(
    u => u.equipment.kind === 'station' && u.equipment.passThrough === 'forbidden on a bonded neutral',
  )
  const { neutral, bonds } = groundingOf(job)
  const tied = neutral === 'hots-only' && bonds.some(b => b.at === 'house')
  const byPanel = source.charging?.from === 'a circuit of the panel it feeds'
  const { generator } = source
  const byGenerator = generator !== undefined && generator.through !== 'an isolating charger'
  const input = byPanel ? 'a circuit of the panel' : byGenerator ? `the ${generator.equipment.name}` : null
  if (unit?.equipment.kind !== 'station' || !tied || !input) return []
  const scope = unit.equipment.passThroughScope ?? 'not stated'
  if (!byPanel && scope === 'from the utility') return []
  if (!byPanel && scope === 'not stated' && generator?.equipment.neutral === 'floating')
    return [
      {
        id: 'passthrough.forbidden',
        severity: 'ask',
        sentence: `The ${unit.equipment.name}’s instructions forbid AC input while its output is tied to the house; whether that means the utility alone, or the floating ${generator.equipment.name} too, is not stated.`,
        why: 'A generator whose neutral floats makes no second bond; the unit’s own protection may refuse it all the same.',
        remedy: 'Read the instructions, or ask the maker, and enter the scope of the ban with the unit.',
        article: 'NEC 110.3(B)',
        target: { view: 'source', field: 'charging' },
        fixes: [],
      },
    ]
  const mode = modeOf(job, unit)
  return [
    {
      id: 'passthrough.forbidden',
      severity: 'stop',
      sentence: `The ${unit.equipment.name} takes AC from ${input}${mode ? ` (${mode.name}, ${quantity(mode.acW, 'W')})` : ''} while its output is tied to the house’s bonded neutral, which its instructions forbid.`,
      why: 'In pass-through its neutral is tied to the input: two sources then share one bond, and its protection trips or fails.',
      remedy:
        'Charge only while its output is disconnected, by solar, or take a unit whose instructions allow it.',
      target: { view: 'source', field: 'charging' },
      fixes: [
        ...(source.generator
          ? [
              {
                label: 'Take the generator out',
                operations: [{ op: 'setSource' as const, facts: {}, clear: ['generator' as const] }],
              },
            ]
          : [
              {
                label: 'Plan: from the panel, only when disconnected',
                operations: [
                  {
                    op: 'setSource' as const,
                    facts: {
                      charging: { ...source.charging, from: 'the panel, only when disconnected' as const },
                    },
                  },
                ],
              },
            ]),
      ],
    },
  ]
}
