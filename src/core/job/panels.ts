import { methodOf } from '../hookup/method'
import { type Placed, positionText } from '../panel/positions'
import type { Circuit, Panel } from '../panel/schema'
import type { Job } from './schema'

/** The circuits of all panels, panel by panel. */
export const circuitsOf = (job: Job): Circuit[] => job.panels.flatMap(p => p.circuits)

/** A circuit and the panel it stands in; undefined when it is gone. */
export function circuitOf(job: Job, circuitId: string): { panel: Panel; circuit: Circuit } | undefined {
  for (const panel of job.panels) {
    const circuit = panel.circuits.find(c => c.id === circuitId)
    if (circuit) return { panel, circuit }
  }
  return undefined
}

/** `7`, or `S 7` where the job has several panels and this one has a mark. */
export const placeText = (job: Pick<Job, 'panels'>, panel: Panel, placed: Placed): string => {
  const text = positionText(panel, placed)
  return job.panels.length > 1 && panel.mark ? `${panel.mark} ${text}` : text
}

/** The panel that the source is tied to. */
export const tiedPanel = (job: Job): Panel => {
  const panel = job.panels.find(p => p.id === job.hookup.panelId) ?? job.panels[0]
  if (!panel) throw new Error('a job holds at least one panel')
  return panel
}

/** The panel whose circuit feeds this one, and that circuit; undefined for a service panel or an unknown feeder. */
export const feederOf = (job: Job, panel: Panel): { panel: Panel; circuit: Circuit } | undefined =>
  panel.feederId === undefined ? undefined : circuitOf(job, panel.feederId)

/** Whether the source feeds whole panels, every breaker of them, rather than chosen circuits. */
export const servesWhole = ({ hookup }: Pick<Job, 'hookup'>): boolean =>
  methodOf(hookup.method).serves === 'panel' || intercepts(hookup)

/** A new panel with its own interlock in the feeder of the tied one takes all of that over: nothing is moved. */
export const intercepts = (hookup: Job['hookup']): boolean =>
  hookup.method === 'sub-panel-interlock' && (hookup.intercepts ?? false)

/** Whether chosen circuits move to another panel. */
export const movesCircuits = (job: Pick<Job, 'hookup'>): boolean =>
  methodOf(job.hookup.method).serves === 'moved circuits' && !intercepts(job.hookup)

/** The panels a source reaches: the one it is tied to, and those fed from it. */
export function reachedPanels(job: Job): Set<string> {
  const reached = new Set([tiedPanel(job).id])
  for (let grew = true; grew; ) {
    grew = false
    for (const panel of job.panels) {
      const from = feederOf(job, panel)
      if (from && reached.has(from.panel.id) && !reached.has(panel.id)) {
        reached.add(panel.id)
        grew = true
      }
    }
  }
  return reached
}
