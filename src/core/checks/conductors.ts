import type { Evaluated } from '../assess/evaluated'
import { type CircuitNeed, coincidence, named, supplyOf } from '../assess/needs'
import { pathLoadA, pathOutlet, pathSide, pathWorked } from '../assess/path'
import type { Edition } from '../editions'
import type { Link, Run } from '../hookup/design'
import { opensBy, wayOf } from '../hookup/way'
import type { Load } from '../loads/load'
import { breakerRatings, type Circuit } from '../panel/schema'
import { toPlan } from '../plan/change'
import { ratingOf } from '../source/output'
import { quantity, sentenceStart } from '../units/format'
import { conductorName, conductorSizes } from '../units/tables/conductors'
import { receptacles } from '../units/tables/receptacles'
import { ampacity } from '../wiring/ampacity'
import { boxFill } from '../wiring/box-fill'
import { conduitFill } from '../wiring/conduit-fill'
import { equipmentGround } from '../wiring/equipment-ground'
import type { Said } from './finding'

/** Conductors, conduit, boxes, and the way from the source’s outlet to the breaker. */

const sizesInOrder: readonly string[] = conductorSizes
const at = (run: Run) => ({ view: 'hook-up', field: `run-${run.id}` }) as const

/** What a circuit's own wire carries, and the breaker that may protect it: at 60 °C terminals, or 75 °C where they are marked. */
const wireFacts = ({ wire, loads }: Circuit) =>
  wire &&
  ampacity.compute({
    material: wire.material,
    size: wire.size,
    insulationC: wire.use === 'raceway' ? (wire.terminalC ?? 60) : 60,
    ambientC: 30,
    currentCarrying: 3,
    nipple: false,
    // not for circuits with several receptacles for cord-and-plug loads (NEC 240.4(B)(1))
    roundUp: loads.filter(l => l.connection === 'plug').length < 2,
  }).result

export function wireSmallCircuits({ needs }: Evaluated): Said[] {
  return needs.flatMap((n): Said[] => {
    const { wire, breakerA } = n.circuit
    const facts = wireFacts(n.circuit)
    if (!n.circuit.picked || !wire || !facts) return []
    const most = facts.maxBreakerA
    if (most !== null && breakerA <= most) return []
    const motor = motorCircuit(n.circuit)
    if (motor) return motorWire(n, motor, facts.usableA)
    return [
      {
        id: 'wire.small',
        severity: 'stop',
        sentence: `${named(n)} stands on a ${breakerA} A breaker with ${conductorName(wire.size, wire.material)}, good for ${most ?? 0} A.`,
        why: 'The wire overheats inside the wall before its breaker opens.',
        remedy: `A breaker of at most ${most ?? 0} A, or thicker wire all the way. Of a motor or air conditioner enter the plate: its MCA sizes the wire, its MOP the breaker.`,
        target: { view: 'panel', circuitIds: [n.circuit.id] },
        fixes: isRating(most)
          ? [
              {
                label: `Plan a ${most} A breaker`,
                operations: [toPlan({ kind: 'exchange', circuitId: n.circuit.id, breakerA: most })],
              },
            ]
          : [],
      },
    ]
  })
}

const isRating = (A: number | null): A is Circuit['breakerA'] =>
  A !== null && (breakerRatings as readonly number[]).includes(A)

/** A circuit of one motor or air conditioner, whose overload protection is its own (NEC 240.4(G), 430.52, 440.22). */
function motorCircuit({ loads }: Circuit): Load | null {
  const [only] = loads
  return only && loads.length === 1 && only.nature !== 'plain' ? only : null
}

function motorWire(n: CircuitNeed, load: Load, usableA: number): Said[] {
  const { minCircuitA, maxBreakerA } = load.plate ?? {}
  const { breakerA, wire } = n.circuit
  const target: Said['target'] = { view: 'panel', circuitIds: [n.circuit.id] }
  const wireName = wire ? conductorName(wire.size, wire.material) : ''
  if (minCircuitA === undefined || maxBreakerA === undefined)
    return [
      {
        id: 'wire.small',
        severity: 'ask',
        sentence: `${named(n)} has ${wireName} behind ${breakerA} A, which only the plate of its motor allows: MCA for the wire, MOP for the breaker.`,
        why: 'A motor guards its wire by its own overload device; the breaker only clears faults. Without the plate nobody knows.',
        remedy: 'Read MCA and MOP off the plate of the motor or air conditioner, and enter them.',
        article: 'NEC 240.4(G), 430.22, 430.52, 440.22',
        target: { view: 'loads', field: load.id },
        fixes: [],
      },
    ]
  if (usableA >= minCircuitA) return []
  return [
    {
      id: 'wire.small',
      severity: 'stop',
      sentence: `${named(n)}: the plate of ${load.name} asks wire for ${quantity(minCircuitA, 'A')}; ${wireName} carries ${quantity(usableA, 'A')}.`,
      why: 'The wire overheats while the motor runs as it should.',
      remedy: 'Thicker wire all the way.',
      article: 'NEC 440.33, 430.22',
      target,
      fixes: [],
    },
  ]
}

export function runChecks({ job }: Evaluated): Said[] {
  const tied = supplyOf(job)?.arrangement === 'tied'
  return (job.hookup.runs ?? []).flatMap(run => [
    ...wireOf(run, tied),
    ...derateOf(run, tied),
    ...groundMissing(run),
    ...groundOf(run),
    ...conduitOf(run),
    ...boxOf(run, job.edition),
  ])
}

/**
 * Conductors of a run that warm each other: those said to carry, of every size in it. With both legs tied the neutrals of
 * multiwire circuits carry the sum of their hots, and count (NEC 310.15(E)).
 */
const carryingIn = (run: Run, tied: boolean): number =>
  [run, ...(run.others ?? [])].reduce((sum, r) => sum + (tied ? r.conductors : r.currentCarrying), 0)

type Sized = Pick<Run, 'material' | 'size' | 'breakerA'>

function ampacityOf(run: Run, tied: boolean, own: Sized = run) {
  // NM-B is derated from its 90 °C column and never above 60 °C (NEC 334.80)
  const cable = run.insulationC === 60
  const insulationC = cable ? 90 : run.insulationC
  return ampacity.compute({
    material: own.material,
    size: own.size,
    insulationC,
    ...(cable
      ? { terminationC: 60 as const }
      : run.terminalC !== undefined && { terminationC: run.terminalC }),
    ambientC: run.ambientC ?? 30,
    currentCarrying: Math.max(1, carryingIn(run, tied)),
    nipple: run.lengthFt <= 2,
    roundUp: !run.feedsReceptacles,
  })
}

const wireOf = (run: Run, tied: boolean): Said[] => [
  ...sizeOf(run, tied, run, size => ({ ...run, size })),
  ...(run.others ?? []).flatMap((other, n) =>
    sizeOf(run, tied, other, size => ({
      ...run,
      others: run.others?.map((o, i) => (i === n ? { ...o, size } : o)),
    })),
  ),
]

/** The smallest standard rating of any edition, A: what is derated below it has no breaker, rounded up or not. */
const smallestRatingA = 10

function sizeOf(run: Run, tied: boolean, own: Sized, thickened: (size: Run['size']) => Run): Said[] {
  const { result, working } = ampacityOf(run, tied, own)
  const nothing = result.usableA < smallestRatingA
  if (!nothing && result.maxBreakerA !== null && own.breakerA <= result.maxBreakerA) return []
  const thicker = conductorSizes.slice(conductorSizes.indexOf(own.size) + 1).find(size => {
    const { maxBreakerA: most, usableA } = ampacityOf(run, tied, { ...own, size }).result
    return usableA >= smallestRatingA && most !== null && most >= own.breakerA
  })
  return [
    {
      id: 'wire.small',
      severity: 'stop',
      sentence: `${run.name}: ${conductorName(own.size, own.material)}, ${carryingIn(run, tied)} current-carrying together${tied && carryingIn(run, false) < carryingIn(run, true) ? ' with both legs tied' : ''}, is good for ${quantity(result.usableA, 'A')}${nothing ? ', less than any breaker protects' : ''}; its breaker is ${own.breakerA} A.`,
      why: 'The conductors overheat before the breaker opens.',
      remedy: thicker
        ? `Take ${conductorName(thicker, own.material)}, fewer in one conduit, or a smaller breaker.`
        : 'Split the run, or take smaller breakers.',
      target: at(run),
      working,
      fixes: thicker
        ? [
            {
              label: `Plan ${conductorName(thicker, own.material)}`,
              operations: [{ op: 'putRun', run: thickened(thicker) }],
            },
          ]
        : [],
    },
  ]
}

function derateOf(run: Run, tied: boolean): Said[] {
  const carrying = carryingIn(run, tied)
  if (carrying <= 3 || run.deratingKnown || run.lengthFt <= 2) return []
  const { result, working } = ampacityOf(run, tied)
  return [
    {
      id: 'wire.derate',
      severity: 'fix',
      sentence: `${run.name}: ${carrying} current-carrying conductors together, and nobody derated them; they keep ${quantity(result.adjustmentFactor, 'fraction')} of their ampacity.`,
      why: 'Conductors that lie together warm each other: the table’s amps hold for three.',
      remedy: 'Check the run with the factor, write it down, or use two conduits.',
      target: at(run),
      working,
      fixes: [
        { label: 'Plan it derated', operations: [{ op: 'putRun', run: { ...run, deratingKnown: true } }] },
      ],
    },
  ]
}

/** Raceways of metal that may serve as the equipment ground themselves (NEC 250.118); of plastic none does. */
const metalRaceways: ReadonlySet<string> = new Set(['EMT', 'RMC'])

function groundMissing(run: Run): Said[] {
  if (run.groundSize || run.ground === 'wire') return []
  const metal = run.conduit !== undefined && metalRaceways.has(run.conduit)
  if (metal && run.ground !== 'none' && run.ground !== 'unknown') return []
  const none = run.ground === 'none' || (run.ground === 'raceway' && run.conduit !== undefined && !metal)
  return [
    {
      id: none ? 'ground.missing' : 'ground.unknown',
      severity: none ? 'stop' : 'ask',
      sentence: none
        ? `${run.name}: no equipment ground runs with it${run.conduit ? `, and ${run.conduit} is none` : ''}.`
        : `${run.name}: whether an equipment ground runs with it is not said.`,
      why: 'A fault to metal then finds no way back, and no breaker opens.',
      remedy: 'Pull an equipment grounding conductor with the hots, or use a raceway of metal that is one.',
      article: 'NEC 250.118, 300.3(B)',
      target: at(run),
      fixes: [],
    },
  ]
}

/** Conductors that were enlarged for voltage drop enlarge their ground in step (NEC 250.122(B)). */
function groundOf(run: Run): Said[] {
  const { groundSize, enlargedFrom } = run
  if (!groundSize) return []
  const breakerA = [run, ...(run.others ?? [])].reduce((most, r) => Math.max(most, r.breakerA), 0)
  const { result, working } = equipmentGround.compute({
    material: run.material,
    breakerA,
    ...(enlargedFrom && { requiredSize: enlargedFrom, installedSize: run.size, circuitSize: run.size }),
  })
  const need = sizesInOrder.indexOf(result.size)
  if (conductorSizes.indexOf(groundSize) >= need) return []
  const size = conductorSizes[need]
  return [
    {
      id: 'ground.small',
      severity: 'fix',
      sentence: `${run.name}: the equipment ground is ${groundSize} AWG; behind ${breakerA} A it takes ${result.size} AWG${result.size === result.baseSize ? '' : `, enlarged with its hots from ${enlargedFrom} to ${run.size}`}.`,
      why: 'Too thin, it burns open before the breaker clears a fault.',
      remedy: `Pull ${result.size} AWG with the run.`,
      target: at(run),
      working,
      fixes: size
        ? [{ label: `Plan ${size} AWG`, operations: [{ op: 'putRun', run: { ...run, groundSize: size } }] }]
        : [],
    },
  ]
}

function conduitOf(run: Run): Said[] {
  const { conduit, tradeSize } = run
  if (!conduit || !tradeSize) return []
  const { result, working } = conduitFill.compute({
    conduit,
    conductors: [
      { size: run.size, count: run.conductors },
      ...(run.others ?? []).map(o => ({ size: o.size, count: o.conductors })),
      ...(run.groundSize ? [{ size: run.groundSize, count: 1 }] : []),
    ],
    nipple: run.lengthFt <= 2,
  })
  const mine = result.sizes.find(s => s.tradeSize === tradeSize)
  if (!mine || mine.fits) return []
  const larger = result.smallest
  return [
    {
      id: 'conduit.overfull',
      severity: 'fix',
      sentence: `${run.name}: ${run.conductors} conductors of ${run.size} AWG fill ${quantity(mine.fillFraction, 'fraction')} of a ${tradeSize} in ${conduit}; ${quantity(result.limitFraction, 'fraction')} is the limit.`,
      why: 'Insulation tears while it is pulled, and heat stays in.',
      remedy: larger ? `Take trade size ${larger}.` : 'Split it over two conduits.',
      target: at(run),
      working,
      fixes:
        larger && isTradeSize(larger)
          ? [
              {
                label: `Plan trade size ${larger}`,
                operations: [{ op: 'putRun', run: { ...run, tradeSize: larger } }],
              },
            ]
          : [],
    },
  ]
}

const isTradeSize = (size: string): size is NonNullable<Run['tradeSize']> =>
  ['1/2', '3/4', '1', '1-1/4', '1-1/2', '2'].includes(size)

const boxSizes: readonly string[] = ['14', '12', '10', '8', '6']

function boxOf(run: Run, edition: Edition): Said[] {
  const { boxIn3, spliced } = run
  if (!boxIn3 || !spliced || !boxSizes.includes(run.size)) return []
  const { result, working } = boxFill.compute({
    boxIn3,
    conductors: [{ size: run.size, count: spliced }],
    ...(run.groundSize &&
      boxSizes.includes(run.groundSize) && { grounds: { size: run.groundSize, count: 2 } }),
    devices: [],
    clamps: false,
    edition,
  })
  if (result.fits) return []
  return [
    {
      id: 'box.overfull',
      severity: 'fix',
      sentence: `${run.name}: ${spliced} conductors need ${quantity(result.requiredIn3, 'in3')} of box; there are ${quantity(boxIn3, 'in3')}.`,
      why: 'Splices are crushed into the cover and work loose.',
      remedy: 'A deeper box, an extension ring, or splices elsewhere.',
      target: at(run),
      working,
      fixes: [],
    },
  ]
}

const onPath = { view: 'hook-up', field: 'path' } as const

export function pathFaults(evaluated: Evaluated): Said[] {
  const worked = pathWorked(evaluated)
  const path = evaluated.job.hookup.path ?? []
  if (!worked) return []
  const place = (n: number) => (n < 0 ? 'the outlet' : `${path[n]?.name || path[n]?.kind} (link ${n + 1})`)
  return worked.result.faults
    .filter(f => f.code !== 'overload')
    .map(f => {
      const wire = f.code === 'undersized' && path[f.at]?.kind === 'wire'
      const cord = f.code === 'undersized' && !wire
      return {
        id: wire ? 'wire.small' : cord ? 'cord.weak-link' : 'cord.no-mate',
        severity: 'stop',
        sentence: `${sentenceStart(place(f.at))}: ${f.message}.`,
        why:
          wire || cord
            ? 'It overheats before anything opens.'
            : 'It does not go together, and what is made up on site to force it is how people are hurt.',
        remedy:
          wire || cord
            ? 'Thicker wire, or a smaller breaker ahead of it.'
            : 'Put the missing adapter in, where one may exist, or choose a cord and inlet that fit.',
        target: onPath,
        working: worked.working,
        fixes: [],
      } satisfies Said
    })
}

/**
 * What really flows through a link, with everything on it together, against its rating, where nothing ahead of it opens first.
 * On tied or unsynchronised legs the currents of both come back through one neutral: they add.
 */
export function pathOverload(evaluated: Evaluated): Said[] {
  const loadA = pathLoadA(evaluated)
  const steps = wayOf(evaluated.job)
  const outletA = pathOutlet(evaluated.job)
  const guardA = outletA ? Math.min(outletA.limitA ?? Infinity, receptacles[outletA.type].amps) : Infinity
  return steps.flatMap((step, n): Said[] => {
    if (
      step.opens ||
      loadA <= step.ratedA ||
      guardA <= step.ratedA ||
      opensBy(steps.slice(0, n), step.ratedA)
    )
      return []
    return [
      {
        id: 'path.overload',
        severity: 'stop',
        sentence: `${quantity(loadA, 'A')} can flow through the ${step.name} with everything on that runs together, and nothing ahead of it opens at that.`,
        why: 'It carries more than it is made for, for as long as nobody notices, and burns.',
        remedy: `Thicker, up to ${quantity(Math.ceil(loadA / 5) * 5, 'A')}; or a breaker of ${quantity(step.ratedA, 'A')} ahead of it, which then limits the whole.`,
        target: onPath,
        fixes: [],
      },
    ]
  })
}

/**
 * A listed cord that its rule protects, whatever the arithmetic says: a cord set of 16 AWG or heavier on a 15 or 20 A outlet
 * (NEC 240.5(B)(3) and (4)), or the supply cord of a listed appliance (240.5(B)(1)). What may be drawn is another matter.
 */
const protectedByRule = (link: Link, outletA: number, ofAppliance: boolean) =>
  link.kind === 'cord' &&
  link.listed === true &&
  (ofAppliance || (link.size !== undefined && cordSetSizes.has(link.size) && outletA <= 20))
const cordSetSizes: ReadonlySet<string> = new Set(['16', '14', '12', '10', '8', '6'])

/** Each link must carry what the breaker ahead of it lets through: the outlet’s, or one on the way. */
export function cordWeakLink({ job }: Evaluated): Said[] {
  const outlet = pathOutlet(job)
  const path = job.hookup.path ?? []
  const unit = job.source?.units[0]?.equipment
  if (!path.length || !unit || (!outlet && unit.kind !== 'inverter')) return []
  // of an inverter that is wired on, what a leg of it gives
  const outletA = outlet
    ? Math.min(outlet.limitA ?? Infinity, receptacles[outlet.type].amps)
    : ratingOf(unit).legW / 120
  let aheadA = outletA
  let ahead = outlet ? `the ${outlet.type} outlet` : `the ${unit.name}`
  return path.flatMap((link, n): Said[] => {
    if (link.kind === 'breaker') {
      if (link.ratingA < aheadA) {
        aheadA = link.ratingA
        ahead = link.name || 'the breaker ahead'
      }
      return []
    }
    // only a breaker of its own protects what stands behind an adapter to a smaller configuration
    if (link.ownBreakerA !== undefined && link.ownBreakerA < aheadA) {
      aheadA = link.ownBreakerA
      ahead = `the breaker of ${link.name || `the ${link.kind}`}`
    }
    const ofAppliance = job.hookup.method === 'cord-and-plug' && n === path.length - 1
    if (link.ratingA >= aheadA || protectedByRule(link, outletA, ofAppliance)) return []
    return [
      {
        id: 'cord.weak-link',
        severity: 'stop',
        sentence: `${link.name || sentenceStart(link.kind)} (link ${n + 1}) is rated ${quantity(link.ratingA, 'A')}, and ${ahead} lets ${quantity(aheadA, 'A')} through.`,
        why: 'The weakest part carries what the breaker allows, and burns first.',
        remedy:
          link.kind === 'adapter'
            ? `Take an adapter with a breaker of its own of ${quantity(link.ratingA, 'A')}; that it is listed is no breaker. If it has one, say so at the link.`
            : `Take a ${link.kind} for ${quantity(aheadA, 'A')}, or put a breaker of ${quantity(link.ratingA, 'A')} ahead of it.`,
        target: onPath,
        fixes: [],
      },
    ]
  })
}

export function cordUnlisted({ job }: Evaluated): Said[] {
  const bare = (job.hookup.path ?? []).filter(l => l.listed === false)
  return bare.map(link => ({
    id: 'cord.unlisted',
    severity: 'fix',
    sentence: `${link.name || sentenceStart(link.kind)} is not listed for this use.`,
    why: 'Home-made cords and adapters end in bare blades that are live, or in joints that nobody tested.',
    remedy: 'Take a listed one.',
    target: onPath,
    fixes: [],
  }))
}

/** Of what the fuller leg carries, the part of its 120 V loads: only that comes back by the neutral. */
function oneLegShare({ figures }: Evaluated): number {
  const { together: sums, loads } = figures
  const leg = sums.L1.VA >= sums.L2.VA ? 'L1' : 'L2'
  const own = coincidence(
    loads.filter(l => l.need.leg === leg),
    leg,
  ).VA
  return sums[leg].VA > 0 ? Math.min(1, own / sums[leg].VA) : 1
}

export function dropHigh(evaluated: Evaluated): Said[] {
  const worked = pathWorked(evaluated)
  if (!worked) return []
  const { source } = evaluated.job
  const { dropFraction: balanced } = worked.result
  // of split phase all 120 V loads may hang on one leg: out by its hot and back by the neutral; those of 240 V use none
  const apart = source !== undefined && pathSide(source).apart
  const byNeutral = apart ? oneLegShare(evaluated) : 0
  const dropFraction = balanced * (1 + byNeutral)
  const endV = 120 * (1 - dropFraction)
  if (dropFraction <= 0.03) return []
  return [
    {
      id: 'drop.high',
      severity: endV < 104 ? 'stop' : 'mind',
      sentence: `The path loses ${quantity(dropFraction, 'fraction')} at ${quantity(pathLoadA(evaluated), 'A')}${byNeutral > 0 ? ` with the other leg idle (${quantity(balanced, 'fraction')} with the legs alike)` : ''}: ${quantity(endV, 'V')} are left of 120 V at its end.`,
      why:
        endV < 104
          ? 'Motors stall and electronics drop out below 104 V.'
          : 'Motors run hot and lights dim; the branch circuits lose more behind it.',
      remedy: 'Thicker wire, a shorter cord, or less on it at once.',
      target: onPath,
      working: worked.working,
      fixes: [],
    },
  ]
}
