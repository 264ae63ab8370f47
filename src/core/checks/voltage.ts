import { decisive } from '../assess/balance'
import type { Evaluated } from '../assess/evaluated'
import { type CircuitNeed, named, positionsOf } from '../assess/needs'
import { methodOf } from '../hookup/method'
import type { SimpleOperation } from '../job/operations'
import { movesCircuits, placeText, tiedPanel } from '../job/panels'
import type { Leg } from '../panel/leg'
import { planMoves } from '../panel/moves'
import { freeSpaces, legOf, otherLeg } from '../panel/positions'
import { reaches } from '../panel/reach'
import { arrangementNames, opposed } from '../source/arrangement'
import { hindersArrangement, legsArrangement } from '../source/design'
import { limitWords } from '../source/output'
import { plural, quantity, together } from '../units/format'
import type { Fix, Said } from './finding'

/** Voltage and legs. */

const drop = (need: CircuitNeed): Fix => ({
  label: `Drop ${named(need)}`,
  operations: [{ op: 'selectCircuit', circuitId: need.circuit.id, picked: false }],
})

export function v240({ job, needs }: Evaluated): Said[] {
  const { source } = job
  if (!source) return []
  const canSplit = hindersArrangement(source, 'split-phase') === null
  const split: Fix = {
    label: 'Arrange as split phase',
    operations: [{ op: 'setArrangement', arrangement: 'split-phase' }],
  }
  return needs
    .filter(
      n =>
        n.circuit.picked &&
        n.volts === 240 &&
        (n.feed === 'bridge' || n.feed === 'no-240' || n.feed === 'no-phase'),
    )
    .map(n =>
      n.feed === 'bridge'
        ? {
            id: 'v240.bridge',
            severity: 'stop',
            sentence: `${named(n)} is picked while only ${source.liveLeg} is live: its load links the dead leg to the live one.`,
            why: 'Circuits believed dead come alive at odd voltage through the load, and their equipment can be damaged.',
            remedy: 'Leave it off; every two-pole breaker must be off under this arrangement.',
            article: 'NEC 110.3(B)',
            target: { view: 'panel', circuitIds: [n.circuit.id] },
            fixes: [drop(n), ...(canSplit ? [split] : [])],
          }
        : {
            id: 'v240.unserved',
            severity: n.circuit.tier === 1 ? 'stop' : 'fix',
            sentence: `${named(n)} needs 240 V, and ${arrangementNames[source.arrangement]} has none.`,
            why: 'The load will not run.',
            remedy: canSplit
              ? 'Arrange the source as split phase, or leave the circuit out.'
              : 'Choose a 120/240 V source, or leave the circuit out.',
            target: { view: 'panel', circuitIds: [n.circuit.id] },
            fixes: [...(canSplit ? [split] : []), drop(n)],
          },
    )
}

/** The plan that brings the dead picked circuits to the live leg, as operations and in words; null when none does. */
function movesToLiveLeg(
  { job, needs }: Evaluated,
  live: Leg,
): { operations: SimpleOperation[]; steps: string[] } | null {
  const panel = tiedPanel(job)
  const { whip } = job.hookup
  const plan = planMoves(
    {
      ...panel,
      ...(whip &&
        methodOf(job.hookup.method).transfer === 'switch' && {
          reaches: space => reaches(whip, panel.spaces, space),
        }),
    },
    panel.circuits.map(c => ({ ...c, ...(c.neutral.kind === 'shared' && { sharesWith: c.neutral.with }) })),
    live,
  )
  // through a switch the position decides, not the breaker's place
  if (positionsOf(job)) return null
  if (!plan || needs.some(n => n.circuit.picked && n.feed === 'dead' && n.panel.id !== panel.id)) return null
  const label = (id: string) => needs.find(n => n.circuit.id === id)?.circuit.label || 'unlabelled'
  const at = (position: number) => placeText(job, panel, { position, poles: 1 })
  return {
    operations: plan.steps.map(m => ({ op: 'planMove', circuitId: m.id, toPosition: m.to })),
    steps: plan.steps.map(m =>
      m.tradesWith === undefined
        ? `${label(m.id)}: from ${at(m.from)} to ${at(m.to)}, which is free`
        : `${label(m.id)} and ${label(m.tradesWith)} trade places: ${at(m.from)} and ${at(m.to)}`,
    ),
  }
}

export function legDead(evaluated: Evaluated): Said[] {
  const { job, needs } = evaluated
  const { source } = job
  if (!source) return []
  const dead = needs.filter(n => n.circuit.picked && n.feed === 'dead')
  if (!dead.length) return []
  const other = otherLeg(source.liveLeg)
  const moves = movesToLiveLeg(evaluated, source.liveLeg)
  const stay = needs.filter(n => n.circuit.picked && n.leg === source.liveLeg).length
  return [
    {
      id: 'leg.dead',
      severity: 'fix',
      sentence: `${together(dead.map(named))} ${dead.length > 1 ? 'sit' : 'sits'} on ${other}, which is dead with one leg live.`,
      why: 'Half of the panel has no supply under this arrangement.',
      remedy: moves
        ? 'Move the breakers to the live leg with their wires, tie both legs, or feed the other leg.'
        : 'Moving breakers alone does not cure it: the live leg has too few places, or both hots of a shared neutral are picked. Tie both legs, feed the other leg, or leave one out.',
      target: { view: 'panel', circuitIds: dead.map(n => n.circuit.id) },
      fixes: [
        ...(moves
          ? [
              {
                label: `Move to ${source.liveLeg} in ${plural(moves.steps.length, 'step')}`,
                operations: moves.operations,
                steps: moves.steps,
              },
            ]
          : []),
        ...(movesCircuits(job)
          ? [
              {
                label: `Place them on ${source.liveLeg} in the new panel`,
                operations: [{ op: 'setHookup', facts: { movedPlaces: 'placed anew' } } as const],
              },
            ]
          : []),
        { label: 'Tie both legs', operations: [{ op: 'setArrangement', arrangement: 'tied' }] },
        ...(dead.length > stay
          ? [
              {
                label: `Feed ${other} instead`,
                operations: [{ op: 'setArrangement', arrangement: 'one-leg', liveLeg: other } as const],
              },
            ]
          : []),
      ],
    },
  ]
}

export function legOverload({ job, figures }: Evaluated): Said[] {
  const { output, together: sums } = figures
  if (!output || !job.source || !opposed(legsArrangement(job.source))) return []
  const { source } = job
  if (source.arrangement === 'autotransformer') return []
  return (['L1', 'L2'] as const)
    .map(leg => ({ leg, ...decisive(sums[leg], output.legW[leg], output.lasting.legW[leg]) }))
    .filter(({ needVA, haveVA }) => needVA > haveVA)
    .map(({ leg, needVA, haveVA, lasting }) => ({
      id: 'leg.overload',
      severity: 'stop',
      sentence: `${leg} carries ${quantity(needVA, 'VA')} ${lasting ? 'for three hours or more' : 'together'}; ${limitWords(output, source, lasting ? output.lasting.limitedBy : output.limitedBy)} gives it ${quantity(haveVA, 'VA')}.`,
      why: 'The unit trips and the whole house goes dark.',
      remedy: 'Move a breaker to the other leg, or drop a circuit of this leg.',
      article: 'NEC 210.20(A)',
      target: { view: 'panel', circuitIds: largestOn(leg, figures) },
      fixes: [],
    }))
}

function largestOn(leg: 'L1' | 'L2', figures: Evaluated['figures']): string[] {
  const [largest] = figures.loads.filter(l => l.need.leg === leg).sort((a, b) => b.VA - a.VA)
  return largest ? [largest.need.circuit.id] : []
}

const imbalanceLimit = 0.35

export function legImbalance({ job, needs, figures, legs }: Evaluated): Said[] {
  const { together: sums, output } = figures
  if (!legs || !output || !job.source || !opposed(legsArrangement(job.source))) return []
  const { mean, run } = figures
  // with batteries apart it is the energy of the legs that must agree, not only what runs together
  const drained = (run?.strandedWh ?? 0) > 1
  const byMean = Math.abs(mean.legW.L1 - mean.legW.L2) / Math.max(mean.legW.L1, mean.legW.L2, 1)
  const fraction = drained ? Math.max(byMean, legs.imbalanceFraction) : legs.imbalanceFraction
  if (fraction <= imbalanceLimit) return []
  const stranded = figures.run?.strandedWh ?? 0
  const move = betterMove({ job, needs, figures })
  const [heavy, light] = sums.L1.VA > sums.L2.VA ? (['L1', 'L2'] as const) : (['L2', 'L1'] as const)
  return [
    {
      id: 'leg.imbalance',
      severity: 'mind',
      sentence: `${heavy} carries ${quantity(sums[heavy].VA, 'VA')} and ${light} ${quantity(sums[light].VA, 'VA')}: ${quantity(fraction, 'fraction')} out of balance${drained && byMean > legs.imbalanceFraction ? ' in energy' : ''}.${stranded > 1 ? ` Each leg drains its own battery: ${quantity(stranded, 'Wh')} stay stranded when the first is empty.` : ''}`,
      why:
        stranded > 1
          ? 'The run ends with the first empty battery, however much the other still holds.'
          : 'The fuller leg reaches its limit while the other idles.',
      remedy: `Move a breaker from ${heavy} to ${light}.`,
      target: { view: 'panel', circuitIds: largestOn(heavy, figures) },
      fixes: move ? [move] : [],
    },
  ]
}

/** A breaker more to move must win at least this share of the difference. */
const worthAMove = 0.04
const mostMovable = 12

/**
 * The breakers whose moves to free spaces of the other leg bring the legs' means nearest, few before many: every choice of
 * up to twelve movable circuits is tried. Null where none helps.
 */
function betterMove({ job, needs, figures }: Pick<Evaluated, 'job' | 'needs' | 'figures'>): Fix | null {
  if (positionsOf(job)) return null
  const { L1, L2 } = figures.mean.legW
  const apart = L1 - L2
  const movable = needs
    .filter(n => n.served && n.leg !== 'both' && n.circuit.poles === 1 && !n.circuit.half && n.meanW > 0)
    .filter(n => n.circuit.neutral.kind !== 'shared' && !n.circuit.tie)
    .sort((a, b) => b.meanW - a.meanW)
    .slice(0, mostMovable)
  let best = { left: Math.abs(apart), cost: Math.abs(apart), chosen: [] as CircuitNeed[] }
  for (let bits = 1; bits < 2 ** movable.length; bits++) {
    const chosen = movable.filter((_, i) => bits & (1 << i))
    const left = Math.abs(chosen.reduce((sum, n) => sum + (n.leg === 'L1' ? -2 : 2) * n.meanW, apart))
    const cost = left + chosen.length * worthAMove * Math.abs(apart)
    if (cost < best.cost) best = { left, cost, chosen }
  }
  const moves = best.chosen.length ? placesFor(best.chosen) : null
  if (!moves) return null
  const text = (n: CircuitNeed, to: number) => placeText(job, n.panel, { position: to, poles: 1 })
  return {
    label: `Balance the legs in ${plural(moves.length, 'move')}`,
    operations: moves.map(({ n, to }) => ({ op: 'planMove', circuitId: n.circuit.id, toPosition: to })),
    steps: moves.map(({ n, to }) => `${named(n)}: to ${text(n, to)}, which is free, with its wire`),
  }
}

/** The nearest free space of the other leg for each; null when one finds none. */
function placesFor(chosen: readonly CircuitNeed[]): { n: CircuitNeed; to: number }[] | null {
  const taken = new Set<string>()
  const moves = chosen.map(n => {
    const to = freeSpaces(n.panel.spaces, n.panel.circuits, n.panel.unusable)
      .filter(space => legOf(n.panel, space) !== n.leg && !taken.has(`${n.panel.id} ${space}`))
      .sort((a, b) => Math.abs(a - n.circuit.position) - Math.abs(b - n.circuit.position))[0]
    if (to !== undefined) taken.add(`${n.panel.id} ${to}`)
    return { n, to }
  })
  return moves.every((m): m is { n: CircuitNeed; to: number } => m.to !== undefined) ? moves : null
}
