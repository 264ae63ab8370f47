import type { Evaluated } from '../job/evaluated'
import { named } from '../job/needs'
import { meanProvenance, meanW } from '../loads/load'
import { plural, quantity, together } from '../units/format'
import type { Finding } from './finding'

/** Facts that are missing. */

export function circuitUnverified({ needs }: Evaluated): Finding[] {
  const unseen = needs.filter(n => n.circuit.picked && !n.circuit.traced)
  if (!unseen.length) return []
  return [
    {
      id: 'circuit.unverified',
      severity: 'ask',
      sentence: `No one has seen ${plural(unseen.length, 'picked circuit')} die: ${together(unseen.map(named))}.`,
      why: 'Directories are usually wrong; a circuit counts as known only when someone has switched it off and looked.',
      remedy: 'Switch each off, see what dies, write down who saw it and when.',
      article: 'NEC 408.4(A)',
      target: { view: 'panel', circuitIds: unseen.map(n => n.circuit.id) },
      fixes: [],
    },
  ]
}

const largeShare = 0.2

export function loadUnmeasured({ figures }: Evaluated): Finding[] {
  const { loads, meanLoadW } = figures
  const weak = loads.filter(l => {
    const { from } = meanProvenance(l.load)
    return (from === 'typical value' || from === 'assumed') && meanW(l.load) > largeShare * meanLoadW
  })
  return weak.map(l => ({
    id: 'load.unmeasured',
    severity: 'ask',
    sentence: `${l.load.name} on ${l.need.position} decides ${quantity(meanW(l.load) / meanLoadW, 'fraction')} of the energy on a ${meanProvenance(l.load).from}.`,
    why: 'The run time is no better than this guess.',
    remedy: 'Put a plug-in meter on it for 24 to 48 hours.',
    target: { view: 'panel', circuitIds: [l.need.circuit.id] },
    fixes: [],
  }))
}

export function nameplateMissing({ figures }: Evaluated): Finding[] {
  const motors = figures.loads.filter(l => l.load.nature !== 'plain' && !l.load.start)
  if (!motors.length) return []
  return [
    {
      id: 'nameplate.missing',
      severity: 'ask',
      sentence: `${together(motors.map(l => `${l.load.name} on ${l.need.position}`))}: no start figure; five times running is assumed.`,
      why: 'The start decides which source can carry the motor at all.',
      remedy: 'Photograph the nameplate (LRA), or measure with a clamp meter’s inrush hold.',
      target: { view: 'panel', circuitIds: motors.map(l => l.need.circuit.id) },
      fixes: [],
    },
  ]
}

export function circuitWithoutLoad({ needs }: Evaluated): Finding[] {
  const bare = needs.filter(n => n.circuit.picked && !n.circuit.loads.length)
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
