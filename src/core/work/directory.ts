import { type CircuitNeed, circuitNeeds } from '../assess/needs'
import type { Job } from '../job/schema'
import type { Leg } from '../panel/leg'
import { legOf, occupancy, spaceName } from '../panel/positions'
import type { Panel } from '../panel/schema'

export interface DirectoryPlace {
  space: number
  /** the number printed beside it */
  name: number
  leg: Leg
  unusable: boolean
  /** nothing, one breaker, or the two halves of a tandem, upper first */
  entries: DirectoryEntry[]
}

export interface DirectoryEntry {
  need: CircuitNeed
  /** the lower place of a two-pole breaker */
  continued: boolean
}

/** The directory of a panel row by row: what stands in each left space, and in the right one beside it. */
export function directoryOf(job: Job, panel: Panel): [DirectoryPlace, DirectoryPlace][] {
  const needs = new Map(circuitNeeds(job).map(n => [n.circuit.id, n]))
  const at = occupancy(panel.circuits)
  const place = (space: number): DirectoryPlace => ({
    space,
    name: spaceName(panel, space),
    leg: legOf(panel, space),
    unusable: panel.unusable.includes(space),
    entries: (at.get(space) ?? []).flatMap(circuit => {
      const need = needs.get(circuit.id)
      return need ? [{ need, continued: circuit.position !== space }] : []
    }),
  })
  return Array.from({ length: panel.spaces / 2 }, (_, row) => [place(2 * row + 1), place(2 * row + 2)])
}
