import type { Habits } from '../../hookup/wiring-choices'
import { circuitOf, placeText } from '../../job/panels'
import type { Job } from '../../job/schema'
import type { Leg } from '../../panel/leg'
import { legOf } from '../../panel/positions'
import type { Circuit, Panel } from '../../panel/schema'
import { figure } from '../../units/format'
import { type Draft, draw, end, put, tell } from './draft'
import type { End } from './parts'
import { breakerFacts, terminal } from './terminals'

/** The house that a plan is drawn for: as planned, with what stands in it already, and the plan itself. */
export interface Site {
  job: Job
  found: Job
  draft: Draft
  habits: Habits
}

/** A circuit and its panel, as planned. */
export interface Fed {
  panel: Panel
  circuit: Circuit
}

/** The hot of one pole of a circuit: 0 the upper. */
const poleLeg = ({ panel, circuit }: Fed, pole: number): Leg => legOf(panel, circuit.position + 2 * pole)

/** Each pole of a circuit with the leg it stands on. */
export const polesOf = (fed: Fed): { pole: number; leg: Leg }[] =>
  Array.from({ length: fed.circuit.poles }, (_, pole) => ({ pole, leg: poleLeg(fed, pole) }))

export const nameOf = ({ job }: Site, { panel, circuit }: Fed): string =>
  `${placeText(job, panel, circuit)} ${circuit.label || 'unlabelled'}`

/** The terminal of a breaker’s pole. */
export function atBreaker(site: Site, fed: Fed, pole: number): End {
  const { panel, circuit } = fed
  const device = put(site.draft, {
    id: `breaker-${circuit.id}`,
    kind: 'breaker',
    name: `${nameOf(site, fed)}, ${figure(circuit.breakerA)} A breaker`,
    within: panel.name,
    terminals: polesOf(fed).map(p => ({
      id: `pole ${p.pole + 1}`,
      name: `${p.leg} pole`,
      ...breakerFacts(circuit.breakerA),
    })),
  })
  return end(device.id, `pole ${pole + 1}`)
}

/** A hole of its own on a bar of a panel: what stood there was lifted, or it is free. */
export function atBar(site: Site, panel: Pick<Panel, 'id' | 'name'>, which: 'neutral' | 'ground'): End {
  const bar = put(site.draft, {
    id: `${which}-bar-${panel.id}`,
    kind: `${which} bar`,
    name: `${which === 'neutral' ? 'Neutral' : 'Ground'} bar of ${panel.name}`,
    within: panel.name,
    terminals: [],
  })
  const hole = terminal(
    `hole ${bar.terminals.length + 1}`,
    `hole ${bar.terminals.length + 1}`,
    `${which} hole`,
  )
  bar.terminals.push(hole)
  return end(bar.id, hole)
}

/** Main or lugs that a panel is fed at. */
export function atMain(site: Site, panel: Pick<Panel, 'id' | 'name' | 'mainA' | 'busA'>, leg: Leg): End {
  const ratedA = panel.mainA ?? panel.busA ?? 100
  const device = put(site.draft, {
    id: `main-${panel.id}`,
    kind: panel.mainA === undefined ? 'lugs' : 'breaker',
    name:
      panel.mainA === undefined ? `Lugs of ${panel.name}` : `${figure(panel.mainA)} A main of ${panel.name}`,
    within: panel.name,
    terminals: (['L1', 'L2'] as const).map(l => ({ id: l, name: l, ...breakerFacts(ratedA) })),
  })
  return end(device.id, leg)
}

type WallWire = 'hot 1' | 'hot 2' | 'neutral' | 'ground'

/** The wire of a branch circuit as it comes out of the wall. */
function atWall(site: Site, fed: Fed, wire: WallWire): End {
  const device = put(site.draft, {
    id: `circuit-${fed.circuit.id}`,
    kind: 'circuit',
    name: nameOf(site, fed),
    within: 'the house',
    terminals: [terminal(wire, wire, 'wall')],
  })
  return end(device.id, wire)
}

/**
 * A splice on a wire of a circuit that was lifted from where it ended, and the wire itself as its other end; whatever is led on
 * begins here. It lies where the wire came out: `within` that panel or box.
 */
export function spliced(site: Site, fed: Fed, wire: WallWire, leg: Leg | null, within: string): End {
  const { circuit } = fed
  const device = put(site.draft, {
    id: `splice-${circuit.id}-${wire}`,
    kind: 'splice',
    name: `Splice of ${nameOf(site, fed)}, ${wire}`,
    within,
    terminals: [terminal('joint', 'joint', 'splice')],
  })
  const metal = circuit.wire?.material
  if (metal === 'al')
    tell(site.draft, `${device.name}: aluminum to copper, with a connector listed for both (NEC 110.14).`)
  const neutral = wire === 'neutral'
  draw(site.draft, {
    function: neutral ? 'neutral' : wire === 'ground' ? 'ground' : 'hot',
    ...(leg && { leg }),
    circuitId: circuit.id,
    mark: `${nameOf(site, fed)} ${wire}`,
    from: end(device.id, 'joint'),
    to: atWall(site, fed, wire),
    route: inside(site, within),
    breakerA: circuit.breakerA,
    ...(circuit.wire && { size: circuit.wire.size, material: circuit.wire.material }),
    comes: 'there already',
  })
  return end(device.id, 'joint')
}

/** Within one enclosure, without a raceway. */
export function inside({ draft }: Site, within: string): string {
  const id = `inside ${within}`
  if (!draft.routes.has(id))
    draft.routes.set(id, {
      id,
      name: `Inside ${within}`,
      from: within,
      to: within,
      conduit: null,
      lengthFt: 0,
      lengthFrom: 'device',
    })
  return id
}

/** The circuit of that id as planned, with its panel. */
export const fedBy = ({ job }: Site, circuitId: string): Fed | undefined => circuitOf(job, circuitId)

/** The other circuit that shares a neutral. */
export const sharesWith = (circuit: Circuit): string | undefined =>
  circuit.neutral.kind === 'shared' ? circuit.neutral.with : undefined
