import { type CircuitNeed, circuitNeeds } from '../job/needs'
import type { Job } from '../job/schema'
import { occupancy, spacesOf } from '../panel/positions'

export interface DirectoryEntry {
  space: number
  need: CircuitNeed | null
  /** the lower half of a two-pole breaker */
  continued: boolean
}

/** The panel directory row by row: what stands in each odd space, and in the even one beside it. */
export function directoryOf(job: Job): [DirectoryEntry, DirectoryEntry][] {
  const needs = new Map(circuitNeeds(job).map(n => [n.circuit.id, n]))
  const at = occupancy(job.panel.circuits)
  const entry = (space: number): DirectoryEntry => {
    const circuit = at.get(space)
    return {
      space,
      need: (circuit && needs.get(circuit.id)) ?? null,
      continued: circuit !== undefined && spacesOf(circuit)[0] !== space,
    }
  }
  return Array.from({ length: job.panel.spaces / 2 }, (_, row) => [entry(2 * row + 1), entry(2 * row + 2)])
}
