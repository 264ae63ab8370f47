import { feederOf } from '../job/panels'
import type { Job } from '../job/schema'
import { demandOn } from '../loads/panel-demand'
import { freeSpaces } from '../panel/positions'
import { roomFor } from '../panel/room'
import type { Panel } from '../panel/schema'
import type { Working } from '../working'

/** What a panel can still take: spaces, load, and current fed in. */
export interface PanelTakes {
  free: number
  unusable: number
  /** a place for a two-pole: there, by moving so many breakers, or nowhere */
  pair: { where: 'anywhere' | 'beside the main'; moves: number | null }[]
  /** amps to spare on the main after the highest demand of a year, with a quarter on top; null while not known */
  demand: { spareA: number; working: Working } | null
  /** breakers that may feed in at the far end of the bus, A; null while main or bus is not known */
  feedInA: number | null
}

/** A bus fed from both ends carries at most this share of its rating: NEC 705.12(B)(3)(2). */
export const busShare = 1.2

/** Spaces, NEC 220.87 and the 120 % rule of NEC 705.12(B)(3)(2) for one panel. Amps; demand in W. */
export function panelTakes(job: Job, panel: Panel): PanelTakes {
  const { demandW, busA } = panel
  const mainA = panel.mainA ?? feederOf(job, panel)?.circuit.breakerA
  const fedIn = panel.circuits.filter(c => c.purpose === 'solar').reduce((sum, c) => sum + c.breakerA, 0)
  const worked = demandW && mainA !== undefined ? demandOn(demandW, mainA) : null
  return {
    free: freeSpaces(panel.spaces, panel.circuits, panel.unusable).length,
    unusable: panel.unusable.length,
    pair: (['anywhere', 'beside the main'] as const).map(where => {
      const room = roomFor(panel, 2, where)
      return { where, moves: room.kind === 'none' ? null : room.kind === 'there' ? 0 : room.moves.length }
    }),
    demand: worked && { spareA: worked.result.spareA, working: worked.working },
    feedInA: busA === undefined || mainA === undefined ? null : Math.max(0, busShare * busA - mainA - fedIn),
  }
}
