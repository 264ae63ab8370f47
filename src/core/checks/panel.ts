import type { Evaluated } from '../assess/evaluated'
import { type CircuitNeed, named, supplyOf } from '../assess/needs'
import { busShare } from '../assess/panel-takes'
import { methodOf } from '../hookup/method'
import type { SimpleOperation } from '../job/operations'
import { feederOf, intercepts, placeText, reachedPanels, servesWhole, tiedPanel } from '../job/panels'
import { continuousHours } from '../loads/lasting'
import { demandOn } from '../loads/panel-demand'
import { bodyOf } from '../panel/body'
import { rowOf, spacesOf } from '../panel/positions'
import { leadNeededIn, reaches } from '../panel/reach'
import { roomFor } from '../panel/room'
import type { Circuit, Panel } from '../panel/schema'
import { doubledLabels } from '../panel/tracing'
import { toPlan } from '../plan/change'
import { chargeOf, chargerEfficiencyFraction } from '../source/inputs'
import { shortName } from '../source/short-name'
import { capacityOf } from '../source/store'
import { plural, quantity, together } from '../units/format'
import type { Said, Target } from './finding'

/** The panel itself: its breakers, its spaces, what its bus and main can take. */

const at = (...circuits: readonly Circuit[]): Target => ({
  view: 'panel',
  circuitIds: circuits.map(c => c.id),
})
const onPanel = (panel: Panel, field: string): Target => ({
  view: 'panel',
  circuitIds: [],
  panelId: panel.id,
  field,
})

export function breakerBrand({ needs }: Evaluated): Said[] {
  return needs
    .filter(
      n => n.panel.breakerTypes.length && n.circuit.type && !n.panel.breakerTypes.includes(n.circuit.type),
    )
    .map(n => ({
      id: 'breaker.brand',
      severity: 'fix',
      sentence: `${named(n)} stands on a ${n.circuit.type}, which the sticker of ${n.panel.name} does not list (${n.panel.breakerTypes.join(', ')}).`,
      why: 'A breaker that fits is not a breaker that is listed: the stab, the clip and the trip were not tested together.',
      remedy: 'Replace it by a listed type, or correct the type or the sticker’s list if one was misread.',
      article: 'NEC 110.3(B)',
      target: at(n.circuit),
      fixes: n.panel.breakerTypes.slice(0, 2).map(type => ({
        label: `Plan a ${type} instead`,
        operations: [toPlan({ kind: 'exchange', circuitId: n.circuit.id, type })],
      })),
    }))
}

/** Each pair that one trip opens, upper first. */
const commonTrips = (needs: readonly CircuitNeed[]): [CircuitNeed, CircuitNeed][] =>
  needs.flatMap(a => {
    const { tie, id } = a.circuit
    const b = tie?.kind === 'common trip' ? needs.find(n => n.circuit.id === tie.with) : undefined
    return b && id < b.circuit.id ? [[a, b] as [CircuitNeed, CircuitNeed]] : []
  })

const pick = (n: CircuitNeed, picked: boolean): SimpleOperation => ({
  op: 'selectCircuit',
  circuitId: n.circuit.id,
  picked,
})

export function breakerCommonTrip({ needs }: Evaluated): Said[] {
  return commonTrips(needs)
    .filter(([a, b]) => a.circuit.picked !== b.circuit.picked)
    .map(([a, b]) => {
      const [taken, left] = a.circuit.picked ? [a, b] : [b, a]
      return {
        id: 'breaker.common-trip',
        severity: 'mind',
        sentence: `${named(taken)} is picked alone, but it and ${named(left)} are one breaker with a common trip.`,
        why: 'A fault on either opens both, and the two cannot be taken apart as if they were single breakers.',
        remedy:
          'Pick both, or replace it by two one-poles of a listed type with a handle tie if they share a neutral.',
        article: 'NEC 240.15(B)',
        target: at(taken.circuit, left.circuit),
        fixes: [
          { label: `Pick ${named(left)} too`, operations: [pick(left, true)] },
          { label: `Drop ${named(taken)}`, operations: [pick(taken, false)] },
        ],
      } satisfies Said
    })
}

export function neutralNoTie({ needs }: Evaluated): Said[] {
  return needs.flatMap(a => {
    const { neutral, id, tie } = a.circuit
    const b = neutral.kind === 'shared' ? needs.find(n => n.circuit.id === neutral.with) : undefined
    if (!b || id > b.circuit.id || tie || !(a.circuit.picked || b.circuit.picked)) return []
    const beside = Math.abs(a.circuit.position - b.circuit.position) === 2
    return [
      {
        id: 'neutral.no-tie',
        severity: 'fix',
        sentence: `${named(a)} and ${named(b)} share a neutral, and nothing opens both at once.`,
        why: 'Whoever works on one finds the neutral carrying the other’s current.',
        remedy: beside
          ? 'Fit a listed handle tie, or a common-trip two-pole.'
          : 'Bring them one above the other and fit a listed handle tie, or a common-trip two-pole.',
        article: 'NEC 210.4(B)',
        target: at(a.circuit, b.circuit),
        fixes: beside
          ? [
              {
                label: 'Plan a handle tie',
                operations: [toPlan({ kind: 'tie', circuitId: id, with: b.circuit.id, tie: 'handle' })],
              },
            ]
          : [],
      } satisfies Said,
    ]
  })
}

export function tandemSameLeg({ job, needs }: Evaluated): Said[] {
  const supply = supplyOf(job)
  const halves = needs.filter(n => n.circuit.half === 'a' && n.circuit.poles === 1)
  return halves.flatMap(a => {
    const b = needs.find(
      n =>
        n.panel === a.panel &&
        n.circuit.half === 'b' &&
        n.circuit.poles === 1 &&
        n.circuit.position === a.circuit.position,
    )
    if (!b || !a.circuit.picked || !b.circuit.picked || supply?.arrangement === 'tied') return []
    return [
      {
        id: 'tandem.same-leg',
        severity: 'mind',
        sentence: `${named(a)} and ${named(b)} are the two halves of one tandem: both load ${a.leg}.`,
        why: 'Two circuits in one space look like two legs in a list, and are one.',
        remedy: 'Count both on that leg; a shared neutral between them would add, not cancel.',
        target: at(a.circuit, b.circuit),
        fixes: [],
      } satisfies Said,
    ]
  })
}

export function tandemNotListed({ needs }: Evaluated): Said[] {
  return needs
    .filter(n => n.circuit.half && n.panel.tandemSpaces?.includes(n.circuit.position) === false)
    .filter(n => bodyOf(n.panel.circuits, n.circuit)[0] === n.circuit)
    .map(n => ({
      id: 'tandem.not-listed',
      severity: 'fix',
      sentence: `${named(n)} is half of a tandem in a space where the sticker of ${n.panel.name} lists none.`,
      why: 'The bus is rated for the number of circuits it was tested with.',
      remedy: 'Move it to a listed space, or give its circuits full-size breakers or a sub-panel.',
      article: 'NEC 408.54, 110.3(B)',
      target: at(n.circuit),
      fixes: [],
    }))
}

export function panelNoSpace({ job }: Evaluated): Said[] {
  const method = methodOf(job.hookup.method)
  const wanted = method.spaces
  // in the feeder of a full panel nothing of it is needed
  if (!wanted || intercepts(job.hookup)) return []
  const panel = tiedPanel(job)
  const room = roomFor(panel, wanted, method.besideMain ? 'beside the main' : 'anywhere')
  if (room.kind === 'there') return []
  const place = (c: Circuit) => placeText(job, panel, c)
  const what = `${method.name.charAt(0).toUpperCase()}${method.name.slice(1)}: it needs ${wanted} spaces one above the other${method.besideMain ? ' beside the main' : ''}`
  const free = `${plural(room.free, 'space')} ${room.free === 1 ? 'is' : 'are'} free in ${panel.name}`
  const tandems = room.tandems
    ? `Tandems in listed spaces would free ${room.tandems}. `
    : panel.tandemSpaces
      ? ''
      : 'Whether tandems may be used is not known: read the sticker. '
  return [
    {
      id: 'panel.no-space',
      severity: 'fix',
      sentence: room.kind === 'by moving' ? `${what}; ${free}, but not there.` : `${what}; ${free}.`,
      why: 'An order placed before anyone counted spaces comes back.',
      remedy:
        room.kind === 'by moving'
          ? `Move ${together(room.moves.map(m => `${place(m.circuit)} ${m.circuit.label || 'unlabelled'}`))} with ${room.moves.length > 1 ? 'their wires' : 'its wire'}.`
          : `${tandems}Otherwise a sub-panel takes circuits over, or another hook-up.`,
      article: 'NEC 408.36, 408.54',
      target: onPanel(panel, 'spaces'),
      fixes:
        room.kind === 'by moving'
          ? [
              {
                label: `Free ${room.spaces.map(s => placeText(job, panel, { position: s, poles: 1 })).join(' and ')} in ${plural(room.moves.length, 'move')}`,
                operations: room.moves.map(m => ({
                  op: 'planMove',
                  circuitId: m.circuit.id,
                  toPosition: m.to,
                })),
                steps: room.moves.map(
                  m =>
                    `${m.circuit.label || 'unlabelled'}: from ${place(m.circuit)} to ${placeText(job, panel, { ...m.circuit, position: m.to })}, which is free`,
                ),
              },
            ]
          : [],
    },
  ]
}

/**
 * What charging from the house adds to the panel: nothing where it is not charged from it; else what the mode that is set, or
 * the AC input, takes; for three hours or more at 125 % (NEC 210.20(A), 215.3).
 */
function chargingAdds(job: Evaluated['job']): { W: number; lasts: boolean } {
  const { source } = job
  if (!source || source.charging?.from === 'not from the panel') return { W: 0, lasts: false }
  const takesW = source.units.reduce((sum, u) => sum + (chargeOf(job, u) ?? 0), 0)
  const storesWh = source.units.reduce((sum, u) => sum + capacityOf(u), 0)
  const lasts = takesW > 0 && storesWh / (takesW * chargerEfficiencyFraction) >= continuousHours
  return { W: takesW * (lasts ? 1.25 : 1), lasts }
}

/** Whether what charges in one of these panels draws through this one. */
function feedsOneOf(job: Evaluated['job'], panel: Panel, reached: ReadonlySet<string>): boolean {
  return job.panels.some(p => {
    let at: Panel | undefined = reached.has(p.id) ? p : undefined
    for (let n = 0; at && n <= job.panels.length; n++) {
      at = feederOf(job, at)?.panel
      if (at?.id === panel.id) return true
    }
    return false
  })
}

export function panelCapacity({ job }: Evaluated): Said[] {
  const { W: added, lasts } = chargingAdds(job)
  if (!added) return []
  const reached = reachedPanels(job)
  return job.panels.flatMap(panel => {
    const { demandW, mainA } = panel
    if (!demandW || mainA === undefined || !(reached.has(panel.id) || feedsOneOf(job, panel, reached)))
      return []
    const worked = demandOn(demandW, mainA, added)
    if (worked.result.ok) return []
    return [
      {
        id: 'panel.capacity',
        severity: 'stop',
        sentence: `${panel.name}: ${quantity(worked.result.totalA, 'A')} with the ${job.source ? shortName(job.source) : 'source'} charging at ${quantity(added, 'W')}${lasts ? ', three hours or more, so at 125 %' : ''}, on a main of ${quantity(mainA, 'A')}.`,
        why: 'The year’s highest demand with a quarter on top already fills the main: charging on top of it trips the whole house. 220.87 takes a year of demand, or 30 days where no solar and no load shedding hide a part of it.',
        remedy: 'Charge at a lower rate or at night, or have the service looked at.',
        article: 'NEC 220.87',
        target: onPanel(panel, 'demandW'),
        working: worked.working,
        fixes: [],
      } satisfies Said,
    ]
  })
}

/** Whether a breaker stands in the last row, at the end of the bus away from the main. */
function atFarEnd(panel: Panel, circuit: Circuit): boolean {
  const rows = panel.spaces / 2
  const own = spacesOf(circuit).map(rowOf)
  return panel.feedsFrom === 'top' ? Math.max(...own) >= rows : Math.min(...own) <= 1
}

export function panelBus({ job }: Evaluated): Said[] {
  return job.panels.flatMap(panel => {
    const { busA } = panel
    const mainA =
      panel.mainA ?? job.panels.flatMap(p => p.circuits).find(c => c.id === panel.feederId)?.breakerA
    const feeding = panel.circuits.filter(c => c.purpose === 'solar')
    if (busA === undefined || mainA === undefined || !feeding.length) return []
    const inA = feeding.reduce((sum, c) => sum + c.breakerA, 0)
    const opposite = feeding.every(c => atFarEnd(panel, c))
    if (opposite && mainA + inA <= busShare * busA) return []
    // not at the far end: main and feed within the bus, or all breakers but the main within it
    const allA = panel.circuits.reduce((sum, c) => sum + c.breakerA, 0)
    if (!opposite && (mainA + inA <= busA || allA <= busA)) return []
    if (!opposite)
      return [
        {
          id: 'panel.bus',
          severity: 'fix',
          sentence: `${panel.name}: ${together(feeding.map(c => `${placeText(job, panel, c)} ${c.label || 'solar'}`))} of ${quantity(inA, 'A')} ${feeding.length > 1 ? 'are' : 'is'} not at the end opposite the main, so 120 % of the bus does not apply: main and feed make ${quantity(mainA + inA, 'A')}, all breakers but the main ${quantity(allA, 'A')}, on a ${quantity(busA, 'A')} bus.`,
          why: 'Between the two feeds the bus can carry the sum of both, and no breaker sees it.',
          remedy: `Move the feed to the end opposite the main, where ${quantity(busShare * busA, 'A')} are allowed, or keep the sum of all breakers within the bus.`,
          article: 'NEC 705.12(B)(3)',
          target: at(...feeding),
          fixes: [],
        } satisfies Said,
      ]
    return [
      {
        id: 'panel.bus',
        severity: 'fix',
        sentence: `${panel.name}: the main of ${quantity(mainA, 'A')} and ${together(feeding.map(c => `${placeText(job, panel, c)} ${c.label || 'solar'}`))} of ${quantity(inA, 'A')} are above 120 % of the ${quantity(busA, 'A')} bus (${quantity(busShare * busA, 'A')}).`,
        why: 'Both ends feed the bus, and no breaker sees their sum.',
        remedy:
          'A smaller main or solar breaker where the load calculation allows it, another rule of 705.12(B)(3), or a connection ahead of the main.',
        article: 'NEC 705.12(B)(3)(2)',
        target: at(...feeding),
        fixes: [],
      } satisfies Said,
    ]
  })
}

export function panelNotFed({ job, needs }: Evaluated): Said[] {
  const lost = needs.filter(n => n.circuit.picked && n.feed === 'not-fed')
  if (!lost.length) return []
  const tied = tiedPanel(job)
  const [other] = lost.map(n => n.panel)
  return [
    {
      id: 'panel.not-fed',
      severity: 'stop',
      sentence: `${together(lost.map(named))} ${lost.length > 1 ? 'stand' : 'stands'} in a panel that the source, tied to ${tied.name}, does not reach.`,
      why: 'What is not downstream of the source stays dark.',
      remedy: `Tie the source to ${other?.name ?? 'that panel'}, move the circuits over, or say which circuit of ${tied.name} feeds it.`,
      target: at(...lost.map(n => n.circuit)),
      fixes: other
        ? [
            {
              label: `Tie the source to ${other.name}`,
              operations: [{ op: 'setHookup', facts: { panelId: other.id } }],
            },
          ]
        : [],
    },
  ]
}

export function subpanelBonded({ job }: Evaluated): Said[] {
  return job.panels
    .filter(p => p.supply === 'fed from another panel' && p.neutralBonded)
    .map(panel => ({
      id: 'subpanel.bonded',
      severity: 'stop',
      sentence: `Neutral and ground are joined in ${panel.name}, which is fed from another panel.`,
      why: 'Neutral current returns over ground wires and metal; ground-fault devices misjudge it.',
      remedy:
        'Take the bonding screw or strap out, keep neutrals and grounds on bars of their own, and check the four-wire feeder. Then say so here.',
      article: 'NEC 250.24(A)(5), 408.40',
      target: onPanel(panel, 'neutralBonded'),
      fixes: [
        {
          label: 'Plan: neutral and ground apart',
          operations: [toPlan({ kind: 'bond', panelId: panel.id, joined: false })],
        },
      ],
    }))
}

/** Solar that the brief tells of has to be found before it can be kept off. */
export function solarNotFound({ job }: Evaluated): Said[] {
  if (job.brief.solar !== 'yes' || job.brief.solarKind === 'with a battery') return []
  if (job.panels.some(p => p.circuits.some(c => c.purpose === 'solar'))) return []
  if (job.source?.arrays?.some(a => a.owned)) return []
  return [
    {
      id: 'pv.not-found',
      severity: 'ask',
      sentence: 'The house has solar, and no breaker of the panel is known to be its.',
      why: 'Left on in a panel that a source feeds, it pushes power back into what cannot take it.',
      remedy: 'Find the breaker, or the tap ahead of the main, that the solar inverter feeds, and enter it.',
      article: 'NEC 705.40, 408.4(A)',
      target: { view: 'panel', circuitIds: [] },
      fixes: [],
    },
  ]
}

export function solarOnIsland({ job, needs }: Evaluated): Said[] {
  const supply = supplyOf(job)
  if (!supply?.throughPanel) return []
  const reached = reachedPanels(job)
  // of a panel that is fed whole, every breaker is live whether anybody picked it or not
  const whole = servesWhole(job)
  const solar = needs.filter(
    n =>
      n.circuit.purpose === 'solar' &&
      (n.circuit.picked || (whole && !n.circuit.lockedOff)) &&
      reached.has(n.panel.id),
  )
  const source = job.source ? shortName(job.source) : 'source'
  return solar.map(n => ({
    id: 'pv.on-island',
    severity: 'stop',
    sentence: n.circuit.picked
      ? `${named(n)} would stay on while the ${source} feeds the panel.`
      : `${named(n)} hangs on a panel that is fed whole by the ${source}, and nothing keeps its breaker off.`,
    why: 'A grid-tied inverter that finds a live panel pushes power back into a source that cannot take it.',
    remedy: 'Lock its breaker off while the source feeds the panel, and say so on the switch-over card.',
    article: 'NEC 705.40, and both inverters’ instructions',
    target: at(n.circuit),
    fixes: [
      {
        label: `Plan a lock on ${named(n)}`,
        operations: [
          ...(n.circuit.picked ? [pick(n, false)] : []),
          toPlan({ kind: 'lock', circuitId: n.circuit.id }),
        ],
      },
    ],
  }))
}

export function whipReach({ job, needs }: Evaluated): Said[] {
  const { whip } = job.hookup
  if (!whip || methodOf(job.hookup.method).transfer !== 'switch') return []
  const far = needs.filter(n => n.circuit.picked && !reaches(whip, n.panel.spaces, n.circuit.position))
  if (!far.length) return []
  const need = Math.max(...far.map(n => leadNeededIn(whip, n.panel.spaces, n.circuit.position)))
  return [
    {
      id: 'whip.reach',
      severity: 'mind',
      sentence: `The leads end before ${together(far.map(named))}: about ${Math.round(need)} in needed from the ${whip.entersAt}, ${Math.round(whip.leadIn)} in there.`,
      why: 'Found with the cover off, it costs a splice for each lead or a second visit.',
      remedy:
        'Bring the whip in nearer, move those breakers, or plan splices. The lengths are those of a common panel: measure yours.',
      article: 'NEC 312.8',
      target: at(...far.map(n => n.circuit)),
      fixes: [],
    },
  ]
}

/** Depth for up to 150 V to ground, all conditions, in. */
const clearDepthIn = 36

export function workingSpace({ job }: Evaluated): Said[] {
  return job.panels
    .filter(p => p.clearDepthIn !== undefined && p.clearDepthIn < clearDepthIn)
    .map(panel => ({
      id: 'working-space',
      severity: 'fix',
      sentence: `${panel.name} has ${panel.clearDepthIn} in clear in front of it; ${clearDepthIn} in are asked.`,
      why: 'Whoever works there has nowhere to fall back to.',
      remedy: 'Clear the space for good, or put new equipment where there is room.',
      article: 'NEC 110.26(A)(1)',
      target: onPanel(panel, 'clearDepthIn'),
      fixes: [],
    }))
}

export function doubleLabelled({ job }: Evaluated): Said[] {
  return job.panels.flatMap(panel =>
    doubledLabels(panel).map(same => ({
      id: 'circuit.double-labelled',
      severity: 'ask',
      sentence: `${together(same.map(c => placeText(job, panel, c)))} of ${panel.name} all say “${same[0]?.label}”.`,
      why: 'One of them usually feeds something else.',
      remedy: 'Trace each, and write down what dies.',
      article: 'NEC 408.4(A)',
      target: at(...same),
      fixes: [],
    })),
  )
}

export function nothingDied({ needs }: Evaluated): Said[] {
  const empty = needs.filter(n => n.circuit.traced?.found === 'nothing')
  if (!empty.length) return []
  return [
    {
      id: 'circuit.no-load-found',
      severity: 'ask',
      sentence: `Nothing was seen to die with ${together(empty.map(named))}.`,
      why: 'A breaker whose load nobody found may feed a pump that was idle, an outside outlet, or nothing: then it is a space.',
      remedy:
        'Trace it again with a tone tracer, or with everything switched on; if it feeds nothing, it can make room.',
      target: at(...empty.map(n => n.circuit)),
      fixes: [],
    },
  ]
}
