import type { About } from '../ask/evidence'
import { circuitOf, placeText } from './panels'
import type { Job } from './schema'

/** What a photograph or a mark shows, in words. */
export function aboutText(job: Job, about: About): string {
  if (about.kind === 'panel')
    return job.panels.find(p => p.id === about.panelId)?.name ?? 'a panel that is gone'
  if (about.kind === 'wall') return 'wall'
  if (about.kind === 'task') return 'the work'
  if (about.kind === 'other') return 'other'
  const found = circuitOf(job, about.circuitId)
  if (!found) return 'a circuit that is gone'
  const place = `${placeText(job, found.panel, found.circuit)} ${found.circuit.label || 'unlabelled'}`
  return about.kind === 'circuit'
    ? place
    : `${found.circuit.loads.find(l => l.id === about.loadId)?.name ?? 'a load that is gone'}, ${place}`
}
