import type { Draft } from 'immer'
import type { Want } from '../../ask/brief'
import { wantPlate } from '../../ask/want'
import type { Load } from '../../loads/load'
import { fault } from '../../outcome'
import { feedOf } from '../../panel/positions'
import type { Circuit, Panel } from '../../panel/schema'
import { circuitOf } from '../panels'
import type { Job } from '../schema'
import type { Change } from './operation'

/** Things of the first call, and the circuits that turn out to carry them. */

export const wantName = (job: Job, id: string) => job.brief.wants.find(w => w.id === id)?.name ?? 'a thing'

/** Its loads go to the first of these circuits, wherever they were before. */
export function given(wantId: string, circuitIds: readonly string[]): Change {
  return job => {
    const want = job.brief.wants.find(w => w.id === wantId)
    if (!want) return [fault('brief.wants', 'no longer hold this thing')]
    const [first] = circuitIds
    const to = first === undefined ? null : circuitOf(job, first)
    if (first !== undefined && !to) return [fault('panels', `no longer hold the circuit ${first}`)]
    const held: NonNullable<Want['loads']> = [...(want.loads ?? [])]
    const taken = new Set(want.takenIds)
    const volts = to && feedOf(to.panel, to.circuit) === 'both' ? 240 : 120
    // where they would go to is looked at before anything moves
    const other = held.find(l => l.volts !== volts)
    if (to && other)
      return [
        fault(
          'brief.wants',
          `${want.name} runs at ${other.volts} V, and this breaker gives ${volts} V: say first what it is, or choose another breaker`,
        ),
      ]
    const moved: Load[] = held.map(l => l.load)
    for (const panel of job.panels)
      for (const circuit of panel.circuits) {
        if (circuit.id === first) continue
        const here = circuit.loads.filter(l => taken.has(l.id))
        if (!here.length) continue
        circuit.loads = circuit.loads.filter(l => !taken.has(l.id))
        moved.push(...here)
        if (!to) held.push(...here.map(load => ({ volts: voltsOf(panel, circuit), load })))
      }
    want.circuitIds = [...circuitIds]
    // what was sent for a plate goes along with the load that it is of
    const ids = new Set([...taken, ...moved.map(l => l.id)])
    for (const request of [...job.requests, ...job.photos.flatMap(p => (p.request ? [p] : []))]) {
      const key = 'key' in request ? request.key : (request.request ?? '')
      const loadId = key.startsWith('nameplate:') ? (key.split(':')[2] ?? '') : ''
      if (!ids.has(loadId)) continue
      const now = `nameplate:${first === undefined ? wantPlate(loadId) : `${first}:${loadId}`}`
      if ('key' in request) request.key = now
      else request.request = now
    }
    if (!to) {
      if (held.length) want.loads = held
      delete want.takenIds
      return
    }
    delete want.loads
    const counted = to.circuit.picked && to.circuit.loads.length > 0
    for (const load of moved) if (!to.circuit.loads.some(l => l.id === load.id)) to.circuit.loads.push(load)
    const takenIds = [...new Set([...(want.takenIds ?? []), ...moved.map(l => l.id)])]
    if (takenIds.length) want.takenIds = takenIds
    if (!moved.length) return
    to.circuit.picked = true
    // what it carried before keeps its importance, unless this one matters more
    const tier = want.nice ? 2 : 1
    to.circuit.tier = counted ? (Math.min(to.circuit.tier, tier) as 1 | 2) : tier
  }
}

/** A circuit that goes gives their loads back to the things it carried. */
export function leaveWants(job: Draft<Job>, panel: Draft<Panel>, circuit: Draft<Circuit>) {
  for (const want of job.brief.wants) {
    if (!want.circuitIds.includes(circuit.id)) continue
    want.circuitIds = want.circuitIds.filter(id => id !== circuit.id)
    const taken = new Set(want.takenIds)
    const back = circuit.loads.filter(l => taken.has(l.id))
    if (!back.length) continue
    const [next] = want.circuitIds
    if (next !== undefined) {
      circuitOf(job, next)?.circuit.loads.push(...back)
      continue
    }
    want.loads = back.map(load => ({ volts: voltsOf(panel, circuit), load }))
    delete want.takenIds
  }
}

const voltsOf = (...[panel, circuit]: Parameters<typeof feedOf>): 120 | 240 =>
  feedOf(panel, circuit) === 'both' ? 240 : 120
