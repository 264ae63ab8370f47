import { asPlanned } from '../job/as-planned'
import { withoutHookup } from '../job/hookup-changes'
import { newPanelOf } from '../job/new-panel'
import type { Job } from '../job/schema'
import { legOf } from '../panel/positions'
import { opposed } from '../source/arrangement'
import { legsArrangement } from '../source/design'
import type { Evaluated } from './evaluated'
import { type PositionPlan, type PositionProblem, placeable } from './positions'

/** Where moved circuits may land in their new panel: the problem of switch positions, its places those of the panel. */
export interface LandingProblem extends PositionProblem {
  /** the space of each place, in order: pairs of places stand one above the other */
  spaces: number[]
}

/** The problem of a job; null where nothing moves to a new panel, or nothing feeds it. */
export function landingProblem(
  { job: found }: { job: Job },
  needs: Evaluated['needs'],
): LandingProblem | null {
  const made = newPanelOf(asPlanned(withoutHookup(found)).job)
  const { source } = found
  if (!made || !source) return null
  const { panel, feeder } = made
  // one above the other, the left column before the right, from the main away
  const spaces: number[] = []
  for (let row = 0; row + 1 < panel.spaces / 2; row += 2)
    for (const column of [1, 2]) spaces.push(2 * row + column, 2 * row + column + 2)
  const moving = new Set(made.landings.flat().map(p => p.circuitId))
  const here = needs.filter(n => moving.has(n.circuit.id) || made.unplaced.includes(n.circuit.id))
  const { arrangement, liveLeg } = source
  return {
    spaces,
    circuits: here.map(n => placeable(n, undefined)),
    places: spaces.map(space => ({
      mostA: Infinity,
      fittedA: null,
      leg: legOf(panel, space),
      commonTrip: false,
    })),
    fed: {
      L1: arrangement !== 'one-leg' || liveLeg === 'L1',
      L2: arrangement !== 'one-leg' || liveLeg === 'L2',
    },
    balanced: opposed(legsArrangement(source)) || arrangement === 'independent',
    inputA: feeder.breakerA,
    pins: (found.hookup.landings ?? []).flatMap(l => {
      const position = spaces.indexOf(l.position) + 1
      return l.pinned && moving.has(l.circuitId) && position > 0 ? [{ circuitId: l.circuitId, position }] : []
    }),
  }
}

/** A solved plan as the landings of the hook-up. */
export const landingsFrom = (
  { spaces }: Pick<LandingProblem, 'spaces'>,
  plan: Pick<PositionPlan, 'positions'>,
): NonNullable<Job['hookup']['landings']> =>
  plan.positions.flatMap(({ circuitId, position, pinned }) => {
    const space = spaces[position - 1]
    return space === undefined ? [] : [{ circuitId, position: space, pinned }]
  })
