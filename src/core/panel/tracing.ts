import { type Circuit, isKnown, type Panel } from './schema'

/** Where tracing a panel has come to: what is left, and what tracing brought to light. */
export interface Tracing {
  left: Circuit[]
  doubtful: Circuit[]
  /** switched off, and nothing was seen to die */
  nothing: Circuit[]
  /** several breakers with one label, not all of them known */
  doubled: Circuit[]
  known: number
}

/** Breakers of a panel that share a label, not all of them known; a blank label is no label that could be doubled. */
export function doubledLabels(panel: Panel): Circuit[][] {
  const labels = new Map<string, Circuit[]>()
  for (const c of panel.circuits) {
    const label = c.label.trim().toLowerCase()
    if (label) labels.set(label, [...(labels.get(label) ?? []), c])
  }
  return [...labels.values()].filter(same => same.length > 1 && !same.every(isKnown))
}

export const tracingOf = (panel: Panel): Tracing => ({
  left: panel.circuits.filter(c => !c.traced),
  doubtful: panel.circuits.filter(c => c.traced?.found === 'doubtful'),
  nothing: panel.circuits.filter(c => c.traced?.found === 'nothing'),
  doubled: doubledLabels(panel).flat(),
  known: panel.circuits.filter(isKnown).length,
})
