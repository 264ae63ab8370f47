import { positionOf } from '../hookup/position'
import { feedOf } from '../panel/positions'
import { protections } from '../panel/protection'
import type { Circuit, Panel } from '../panel/schema'
import type { Place, PlannedChange } from '../plan/change'
import { figure, quantity } from '../units/format'
import { asPlanned } from './as-planned'
import { circuitOf, placeText } from './panels'
import type { Job } from './schema'

const mountVerb = {
  switch: 'Mount the transfer switch',
  secondSwitch: 'Mount the second transfer switch',
  managed: 'Mount the managed panel',
  interlock: 'Fit the interlock',
  inlet: 'Mount the inlet',
  inverter: 'Mount the inverter',
  transformer: 'Mount the autotransformer',
  combiner: 'Fit the combiner',
  'current transformers': 'Clamp on, by leg and arrow:',
} as const

const nameAt = (job: Job, { panel, circuit }: { panel: Panel; circuit: Circuit }) =>
  `${placeText(job, panel, circuit)} ${circuit.label || 'unlabelled'}`

/** A circuit where it stands in the house as found; where the plan adds it, as planned. */
function named(job: Job, circuitId: string): string {
  const found = circuitOf(job, circuitId)
  if (found) return nameAt(job, found)
  const house = asPlanned(job).job
  const planned = circuitOf(house, circuitId)
  return planned ? nameAt(house, planned) : 'a circuit that is gone'
}

const panelName = (job: Job, panelId: string) =>
  asPlanned(job).job.panels.find(p => p.id === panelId)?.name ?? 'a panel that is gone'
const loadName = (job: Job, circuitId: string, loadId: string) =>
  circuitOf(job, circuitId)?.circuit.loads.find(l => l.id === loadId)?.name ?? 'a load that is gone'

function endText(job: Job, place: Place): string {
  const { panels } = asPlanned(job).job
  const panel = panels.find(p => p.id === place.panelId) ?? job.panels.find(p => p.id === place.panelId)
  const poles = circuitOf(job, place.circuitId)?.circuit.poles ?? 1
  if (!panel) return 'a panel that is gone'
  const several = { ...job, panels: [...panels] }
  const leg = feedOf(panel, { position: place.position, poles })
  const at = placeText(several, panel, { position: place.position, poles, half: place.half })
  return leg === 'both' ? at : `${at} (${leg})`
}

/** A change as it is said to the hand that does it. `job` as found, with its plan. */
export function changeText(job: Job, change: PlannedChange): string {
  const house = asPlanned(job).job
  const spaces = (panelId: string, space: number, poles: 1 | 2) => {
    const panel = house.panels.find(p => p.id === panelId)
    return panel ? placeText(house, panel, { position: space, poles }) : String(space)
  }
  switch (change.kind) {
    case 'move':
      return movesText(job, change.places)
    case 'land':
      return (
        change.places.map(p => landText(job, p)).join('; ') +
        (change.places.length > 1 ? '; under one handle tie' : '')
      )
    case 'exchange': {
      const was = circuitOf(house, change.circuitId)?.circuit
      const breakerA = change.breakerA ?? was?.breakerA
      const what = [
        protections[change.protection ?? 'none'].article,
        ...(breakerA === undefined ? [] : [quantity(breakerA, 'A')]),
        ...(was?.poles === 2 ? ['two-pole'] : []),
        'breaker',
        ...(change.type ? [`of type ${change.type}`] : []),
      ].join(' ')
      return `Exchange the breaker of ${named(job, change.circuitId)} for ${what.replace(/^a plain /, /^a plain (8|1[18] )/.test(what) ? 'an ' : 'a ')}`
    }
    case 'add': {
      const { circuit } = change
      const poles = circuit.poles === 2 ? 'two-pole ' : ''
      return `Add a ${quantity(circuit.breakerA, 'A')} ${poles}breaker at ${spaces(change.panelId, circuit.position, circuit.poles)}: ${circuit.label || 'unlabelled'}`
    }
    case 'remove':
      return `Take the breaker of ${named(job, change.circuitId)} out`
    case 'tie':
      return `Join ${named(job, change.circuitId)} and ${named(job, change.with)} by a listed ${change.tie === 'handle' ? 'handle tie' : 'common trip'}`
    case 'lock':
      return `Lock ${named(job, change.circuitId)} off while the source feeds the panel`
    case 'guard':
      return `Put ${protections[circuitOf(job, change.circuitId)?.circuit.protection ?? 'none'].article.replace('a plain', 'a protective')} device at the first outlet of ${named(job, change.circuitId)}`
    case 'cord':
      return `Give the ${loadName(job, change.circuitId, change.loadId)} on ${named(job, change.circuitId)} a cord and plug`
    case 'soft-start':
      return `Put a soft starter before the ${loadName(job, change.circuitId, change.loadId)} on ${named(job, change.circuitId)} (${quantity(change.softStartFraction, 'fraction')} of its locked-rotor amps)`
    case 'bond':
      return change.joined
        ? `Fit the bond of neutral and ground in ${panelName(job, change.panelId)}`
        : `Take the bond of neutral and ground out of ${panelName(job, change.panelId)}, and keep both on bars of their own`
    case 'filler':
      return `Close the open space ${spaces(change.panelId, change.space, 1)} of ${panelName(job, change.panelId)} with a filler`
    case 'panel':
      return putUpText(change.panel)
    case 'intercept':
      return `${putUpText(change.panel)}, in the feeder of ${panelName(job, change.feeds)}: the feeder ends in it, and a ${quantity(change.feeder.breakerA, 'A')} two-pole breaker feeds on`
    case 'receptacle':
      return `Add a receptacle ${change.what} on ${named(job, change.circuitId)}`
    case 'notice':
      return `Put up a notice at the ${change.where}: ${change.text}`
    case 'mount':
      return `${mountVerb[change.device]} ${change.name}`
    case 'backfeed':
      return `Add a ${quantity(change.breakerA, 'A')} two-pole breaker for the source in ${panelName(job, change.panelId)}${change.space === undefined ? '' : ` at ${spaces(change.panelId, change.space, 2)}`}${change.heldDown ? ', held down' : ''}`
    case 'lead':
      return `Lead ${named(job, change.circuitId)} to position ${change.position}${change.neutral === 'goes along' ? ', its neutral with it' : change.neutral === 'stays' ? '; its neutral stays' : ''}`
    case 'position-breaker': {
      const fittedA = positionOf(job.hookup, change.position)?.fittedA
      return `At position ${change.position} fit a ${quantity(change.breakerA, 'A')} breaker${fittedA == null ? '' : ` in place of the one fitted (${quantity(fittedA, 'A')})`}`
    }
    case 'run': {
      const run = job.hookup.runs?.find(r => r.id === change.runId)
      return run
        ? `Pull ${run.name}: ${figure(run.conductors)} × ${run.size} AWG, ${quantity(run.lengthFt, 'ft')}`
        : `Pull ${change.name}`
    }
  }
}

const putUpText = ({ name, spaces, mainA }: Pick<Panel, 'name' | 'spaces' | 'mainA'>) =>
  `Put up ${name}, ${figure(spaces)} spaces, ${mainA === undefined ? 'main lugs only' : `a main of ${quantity(mainA, 'A')}`}, neutrals and grounds apart`

const alongText = {
  'follow their hots': 'hot, neutral and ground',
  'stay behind': 'hot and ground, its neutral left behind',
  'not decided': 'hot and ground (its neutral is not decided)',
} as const

function landText(job: Job, place: Place): string {
  const circuit = circuitOf(job, place.circuitId)?.circuit
  const kind = protections[circuit?.protection ?? 'none'].mark
  const rating = circuit ? `${quantity(circuit.breakerA, 'A')} ${kind ? `${kind} ` : ''}breaker` : 'breaker'
  return `Lead ${named(job, place.circuitId)} over to ${endText(job, place)}, ${alongText[job.hookup.neutrals ?? 'not decided']}, onto a new ${rating}`
}

function movesText(job: Job, places: readonly Place[]): string {
  const [first, second] = places
  if (!first) return 'Move nothing'
  const from = (p: Place) => circuitOf(job, p.circuitId)
  const trades =
    places.length === 2 &&
    second &&
    from(first)?.circuit.position === second.position &&
    from(second)?.circuit.position === first.position
  if (trades)
    return `Let ${named(job, first.circuitId)} and ${named(job, second.circuitId)} trade places, each with its wire`
  return `Move ${places.map(p => `${named(job, p.circuitId)} to ${endText(job, p)}`).join(', ')}${places.length > 1 ? ', in one go, each with its wire' : ', with its wire'}`
}
