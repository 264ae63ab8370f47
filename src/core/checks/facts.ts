import type { Evaluated } from '../assess/evaluated'
import { named } from '../assess/needs'
import { isWaiting } from '../assess/requests'
import { meanProvenance } from '../loads/load'
import { isKnown } from '../panel/schema'
import { plural, quantity, together } from '../units/format'
import type { Said } from './finding'

/** Facts that are missing. */

export function circuitUnverified({ needs }: Evaluated): Said[] {
  const unseen = needs.filter(n => n.circuit.picked && !isKnown(n.circuit) && !n.feeds)
  if (!unseen.length) return []
  return [
    {
      id: 'circuit.unverified',
      severity: 'ask',
      sentence: `No one has seen ${plural(unseen.length, 'picked circuit')} die for certain: ${together(unseen.map(n => named(n) + (n.circuit.traced?.found === 'doubtful' ? ' (doubtful)' : '')))}.`,
      why: 'Directories are usually wrong; a circuit counts as known only when someone has switched it off and looked.',
      remedy: 'Switch each off, see what dies, write down who saw it and when.',
      article: 'NEC 408.4(A)',
      target: { view: 'panel', circuitIds: unseen.map(n => n.circuit.id) },
      fixes: [],
    },
  ]
}

const largeShare = 0.2

export function loadUnmeasured({ figures }: Evaluated): Said[] {
  const { loads, meanLoadW } = figures
  const weak = loads.filter(l => {
    const { from } = meanProvenance(l.load)
    return (from === 'typical value' || from === 'assumed') && l.drawn.meanW > largeShare * meanLoadW
  })
  return weak.map(l => ({
    id: 'load.unmeasured',
    severity: 'ask',
    sentence: `${l.load.name} on ${l.need.position} decides ${quantity(l.drawn.meanW / meanLoadW, 'fraction')} of the energy on ${meanProvenance(l.load).from === 'assumed' ? 'an assumption' : 'a typical value'}.`,
    why: 'The run time is no better than this guess.',
    remedy: 'Put a plug-in meter on it for 24 to 48 hours.',
    target: { view: 'loads', field: l.load.id },
    fixes: [],
  }))
}

export function nameplateMissing({ figures }: Evaluated): Said[] {
  const motors = figures.loads.filter(l => l.load.nature !== 'plain' && !l.load.start)
  if (!motors.length) return []
  return [
    {
      id: 'nameplate.missing',
      severity: 'ask',
      sentence: `${together(motors.map(l => `${l.load.name} on ${l.need.position}`))}: no start figure; five times running is assumed.`,
      why: 'The start decides which source can carry the motor at all.',
      remedy: 'Photograph the nameplate (LRA), or measure with a clamp meter’s inrush hold.',
      target: { view: 'loads', ...(motors[0] && { field: motors[0].load.id }) },
      fixes: [],
    },
  ]
}

export function circuitWithoutLoad({ needs }: Evaluated): Said[] {
  const bare = needs.filter(
    n => n.circuit.picked && !n.circuit.loads.length && n.circuit.purpose === 'loads' && !n.feeds,
  )
  if (!bare.length) return []
  return [
    {
      id: 'load.missing',
      severity: 'ask',
      sentence: `${together(bare.map(named))} ${bare.length > 1 ? 'are' : 'is'} picked with no load entered: counted as nothing.`,
      why: 'The run time and the legs are too good by whatever hangs on it.',
      remedy: 'Open the circuit and enter what it feeds.',
      target: { view: 'panel', circuitIds: bare.map(n => n.circuit.id) },
      fixes: [],
    },
  ]
}

export function photoMissing({ requests }: Evaluated): Said[] {
  const missing = requests.filter(r => r.wants === 'photo' && isWaiting(r))
  if (!missing.length) return []
  return [
    {
      id: 'photo.missing',
      severity: 'ask',
      sentence: `${plural(missing.length, 'photograph')} not here yet: ${together(missing.map(r => r.title))}.`,
      why: 'What is missing is found out on the day of installation.',
      remedy:
        'Send the customer the link, or take them on the survey; what is not needed is marked as good enough.',
      target: { view: 'ask', field: missing[0]?.key ?? '' },
      fixes: [],
    },
  ]
}

export function intervalDataMissing({ requests }: Evaluated): Said[] {
  const missing = requests.find(r => r.key === 'interval-data' && isWaiting(r))
  if (!missing) return []
  return [
    {
      id: 'interval-data.missing',
      severity: 'ask',
      sentence:
        'No year of utility data, and no highest demand of a panel: whether the main can take more is not known.',
      why: 'A charger or a sub-panel added to a full service trips the whole house.',
      remedy: 'Ask the customer for the utility’s file, or enter the highest demand with the panel.',
      article: 'NEC 220.87',
      target: { view: 'ask', field: missing.key },
      fixes: [],
    },
  ]
}
