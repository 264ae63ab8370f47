import { current, type Draft } from 'immer'
import type { Photo } from '../../ask/evidence'
import type { Load } from '../../loads/load'
import { type Fault, fault } from '../../outcome'
import type { Circuit, Panel } from '../../panel/schema'
import { panelPutUp } from '../../plan/change'
import type { Source } from '../../source/design'
import { circuitOf, placeText } from '../panels'
import type { Job } from '../schema'
import type { Change } from './operation'

/** How an operation reaches the thing it names, and what it says when that is gone. */

export function onCircuit(
  circuitId: string,
  act: (circuit: Draft<Circuit>, panel: Draft<Panel>, job: Draft<Job>) => Fault[] | void,
): Change {
  return job => {
    for (const panel of job.panels) {
      const circuit = panel.circuits.find(c => c.id === circuitId)
      if (circuit) return act(circuit, panel, job)
    }
    // a circuit that is only planned is worked out like any other
    for (const change of job.planned)
      if (change.kind === 'add' && change.circuit.id === circuitId) {
        if (change.origin === 'hook-up')
          return [fault('planned', 'follows from the hook-up: change it there, under the new panel')]
        const stands = job.panels.find(p => p.id === change.panelId)
        const planned = job.planned.map(panelPutUp).find(p => p?.id === change.panelId)
        const panel = stands ?? (planned && { ...planned, circuits: [] })
        if (panel) return act(change.circuit, panel, job)
      }
    return [fault('panels', `no longer hold the circuit ${circuitId}`)]
  }
}

export function onLoad(
  { circuitId, loadId }: { circuitId: string; loadId: string },
  act: (load: Load) => Load | Fault[],
): Change {
  return onCircuit(circuitId, circuit => {
    const at = circuit.loads.findIndex(l => l.id === loadId)
    const load = circuit.loads[at]
    if (!load) return [fault('panels', 'no longer hold this load')]
    const now = act(current(load))
    if (Array.isArray(now)) return now
    circuit.loads[at] = now
  })
}

/** The first panel where none is named. */
export function onPanel(
  panelId: string | undefined,
  act: (panel: Draft<Panel>, job: Draft<Job>) => Fault[] | void,
): Change {
  return job => {
    const panel = panelId === undefined ? job.panels[0] : job.panels.find(p => p.id === panelId)
    return panel ? act(panel, job) : [fault('panels', `no longer hold the panel ${panelId}`)]
  }
}

export function onPhoto(photoId: string, act: (photo: Draft<Photo>) => void): Change {
  return job => {
    const photo = job.photos.find(p => p.id === photoId)
    return photo ? act(photo) : [fault('photos', 'no longer hold this photograph')]
  }
}

export function onSource(act: (source: Draft<Source>, job: Draft<Job>) => Fault[] | void): Change {
  return job =>
    job.source ? act(job.source, job) : [fault('source', 'is not chosen yet: choose a unit first')]
}

/** Positions of circuits that are gone go with them. */
export function leavePositions(job: Draft<Job>) {
  const left = new Set([
    ...job.panels.flatMap(p => p.circuits.map(c => c.id)),
    ...job.planned.flatMap(c => (c.kind === 'add' ? [c.circuit.id] : [])),
  ])
  const { positions } = job.hookup
  if (positions?.some(p => !left.has(p.circuitId)))
    job.hookup.positions = positions.filter(p => left.has(p.circuitId))
}

/** `7 Kitchen counter`; its id where it is gone. */
export function circuitName(job: Job, circuitId: string): string {
  const found = circuitOf(job, circuitId)
  return found
    ? `${placeText(job, found.panel, found.circuit)} ${found.circuit.label || 'unlabelled'}`
    : circuitId
}

export const panelAt = (job: Job, panelId: string | undefined) =>
  panelId === undefined ? job.panels[0] : job.panels.find(p => p.id === panelId)
export const panelName = (job: Job, panelId: string | undefined) => panelAt(job, panelId)?.name ?? ''
export const loadName = (job: Job, { circuitId, loadId }: { circuitId: string; loadId: string }) =>
  circuitOf(job, circuitId)?.circuit.loads.find(l => l.id === loadId)?.name ?? 'a load'
