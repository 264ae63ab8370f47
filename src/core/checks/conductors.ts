import type { Link, Run } from '../hookup/design'
import { pathLoadA, pathOutlet, pathWorked } from '../hookup/path'
import { opensBy, wayOf } from '../hookup/way'
import type { Evaluated } from '../job/evaluated'
import { named } from '../job/needs'
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

/** The breaker that may protect a conductor at ordinary terminations (NEC 240.4, next size up where it may). */
const largestBreakerA = (material: 'cu' | 'al', size: string): number | null =>
  ampacity.compute({
    material,
    size,
    insulationC: 60,
    ambientC: 30,
    currentCarrying: 3,
    nipple: false,
    roundUp: true,
  }).result.maxBreakerA

export function wireSmallCircuits({ needs }: Evaluated): Said[] {
  return needs.flatMap((n): Said[] => {
    const { wire, breakerA } = n.circuit
    if (!n.circuit.picked || !wire) return []
    const most = largestBreakerA(wire.material, wire.size)
    if (most === null || breakerA <= most) return []
    return [
      {
        id: 'wire.small',
        severity: 'stop',
        sentence: `${named(n)} stands on a ${breakerA} A breaker with ${conductorName(wire.size, wire.material)}, good for ${most} A.`,
        why: 'The wire overheats inside the wall before its breaker opens.',
        remedy: `A breaker of at most ${most} A, or thicker wire all the way. A motor or welder circuit may differ by its own article.`,
        target: { view: 'panel', circuitIds: [n.circuit.id] },
        fixes: [
          {
            label: `Plan a ${most} A breaker`,
            operations: [{ op: 'editCircuit', circuitId: n.circuit.id, facts: { breakerA: most } }],
          },
        ],
      },
    ]
  })
}

export function runChecks({ job }: Evaluated): Said[] {
  return (job.hookup.runs ?? []).flatMap(run => [
    ...wireOf(run),
    ...derateOf(run),
    ...groundOf(run),
    ...conduitOf(run),
    ...boxOf(run, job.edition),
  ])
}

function ampacityOf(run: Run) {
  return ampacity.compute({
    material: run.material,
    size: run.size,
    insulationC: run.insulationC,
    ambientC: run.ambientC ?? 30,
    currentCarrying: run.currentCarrying,
    nipple: run.lengthFt <= 2,
    roundUp: true,
  })
}

function wireOf(run: Run): Said[] {
  const { result, working } = ampacityOf(run)
  if (result.maxBreakerA !== null && run.breakerA <= result.maxBreakerA) return []
  const thicker = conductorSizes.slice(conductorSizes.indexOf(run.size) + 1).find(size => {
    const most = ampacityOf({ ...run, size }).result.maxBreakerA
    return most !== null && most >= run.breakerA
  })
  return [
    {
      id: 'wire.small',
      severity: 'stop',
      sentence: `${run.name}: ${conductorName(run.size, run.material)}, ${run.currentCarrying} current-carrying together, is good for ${quantity(result.usableA, 'A')}; its breaker is ${run.breakerA} A.`,
      why: 'The conductors overheat before the breaker opens.',
      remedy: thicker
        ? `Take ${conductorName(thicker, run.material)}, fewer in one conduit, or a smaller breaker.`
        : 'Split the run, or take smaller breakers.',
      target: at(run),
      working,
      fixes: thicker
        ? [
            {
              label: `Plan ${conductorName(thicker, run.material)}`,
              operations: [{ op: 'putRun', run: { ...run, size: thicker } }],
            },
          ]
        : [],
    },
  ]
}

function derateOf(run: Run): Said[] {
  if (run.currentCarrying <= 3 || run.deratingKnown || run.lengthFt <= 2) return []
  const { result, working } = ampacityOf(run)
  return [
    {
      id: 'wire.derate',
      severity: 'fix',
      sentence: `${run.name}: ${run.currentCarrying} current-carrying conductors together, and nobody derated them; they keep ${quantity(result.adjustmentFactor, 'fraction')} of their ampacity.`,
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

function groundOf(run: Run): Said[] {
  if (!run.groundSize) return []
  const { result, working } = equipmentGround.compute({ material: run.material, breakerA: run.breakerA })
  const need = sizesInOrder.indexOf(result.size)
  if (conductorSizes.indexOf(run.groundSize) >= need) return []
  const size = conductorSizes[need]
  return [
    {
      id: 'ground.small',
      severity: 'fix',
      sentence: `${run.name}: the equipment ground is ${run.groundSize} AWG; behind ${run.breakerA} A it takes ${result.size} AWG.`,
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

function boxOf(run: Run, edition: 2017 | 2020 | 2023): Said[] {
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

/** A listed cord set that its rule protects, whatever the arithmetic says: 16 AWG or heavier on a 15 or 20 A outlet. */
const protectedByRule = (link: Link, outletA: number) =>
  link.kind === 'cord' &&
  link.listed === true &&
  link.size !== undefined &&
  cordSetSizes.has(link.size) &&
  outletA <= 20
const cordSetSizes: ReadonlySet<string> = new Set(['16', '14', '12', '10', '8', '6'])

/** Each link must carry what the breaker ahead of it lets through: the outlet’s, or one on the way. */
export function cordWeakLink({ job }: Evaluated): Said[] {
  const outlet = pathOutlet(job)
  const path = job.hookup.path ?? []
  if (!outlet || !path.length) return []
  const outletA = Math.min(outlet.limitA ?? Infinity, receptacles[outlet.type].amps)
  let aheadA = outletA
  let ahead = `the ${outlet.type} outlet`
  return path.flatMap((link, n): Said[] => {
    if (link.kind === 'breaker') {
      if (link.ratingA < aheadA) {
        aheadA = link.ratingA
        ahead = link.name || 'the breaker ahead'
      }
      return []
    }
    // an adapter from a larger to a smaller configuration brings a breaker of its own
    const steps = link.kind === 'adapter' && link.listed && link.ratingA < aheadA
    if (steps) {
      aheadA = link.ratingA
      ahead = `the breaker of ${link.name || 'the adapter'}`
      return []
    }
    if (link.ratingA >= aheadA || protectedByRule(link, outletA)) return []
    return [
      {
        id: 'cord.weak-link',
        severity: 'stop',
        sentence: `${link.name || sentenceStart(link.kind)} (link ${n + 1}) is rated ${quantity(link.ratingA, 'A')}, and ${ahead} lets ${quantity(aheadA, 'A')} through.`,
        why: 'The weakest part carries what the breaker allows, and burns first.',
        remedy: `Take a ${link.kind} for ${quantity(aheadA, 'A')}, or put a breaker of ${quantity(link.ratingA, 'A')} ahead of it.`,
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

export function dropHigh(evaluated: Evaluated): Said[] {
  const worked = pathWorked(evaluated)
  if (!worked) return []
  const { dropFraction } = worked.result
  const endV = 120 * (1 - dropFraction)
  if (dropFraction <= 0.03) return []
  return [
    {
      id: 'drop.high',
      severity: endV < 104 ? 'stop' : 'mind',
      sentence: `The path loses ${quantity(dropFraction, 'fraction')} at ${quantity(pathLoadA(evaluated), 'A')}: ${quantity(endV, 'V')} are left of 120 V at its end.`,
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
