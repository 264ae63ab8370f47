import { type ReceptacleType, receptacles } from '../units/tables/receptacles'
import type { Station } from './equipment'
import type { arrangements } from './legs'

type Arrangement = Exclude<(typeof arrangements)[number], 'independent'>

/** What a station puts out under an arrangement, and what limits it. Watts and volt-amps share the same limit. */
export interface Output {
  outlet: { type: ReceptacleType; amps: number }
  /** of the whole output, W */
  totalW: number
  /** of one leg, W; legs that are tied share `totalW` */
  legW: number
  surgeW: number
  /** surge one leg can give to a 120 V motor, W */
  legSurgeW: number
  limitedBy: 'unit' | 'outlet'
}

const continuousShare = 0.8

/**
 * The output that the panel sees: the unit's continuous rating, or four fifths of its outlet's amps where that is less
 * (continuous load, NEC 210.20(A)). With one leg or tied legs a 120/240 V unit gives one of its legs only.
 * A leg's surge is taken as the leg's share of the unit's, since datasheets seldom state it.
 */
export function outputOf(station: Station, arrangement: Arrangement): Output {
  const split = arrangement === 'split-phase'
  const outlet = bestOutlet(station, split)
  const unitLegW = station.legW ?? station.continuousW
  const unitW = split ? station.continuousW : unitLegW
  const legSurgeW = station.surgeW * (unitLegW / station.continuousW)
  const outletLegW = continuousShare * outlet.amps * 120
  const totalW = Math.min(unitW, split ? 2 * outletLegW : outletLegW)
  return {
    outlet,
    totalW,
    legW: Math.min(unitLegW, outletLegW),
    surgeW: split ? station.surgeW : legSurgeW,
    legSurgeW,
    limitedBy: totalW < unitW ? 'outlet' : 'unit',
  }
}

/** The outlet that carries most; a 120 V arrangement may use one hot of a 120/240 V outlet. */
function bestOutlet(station: Station, split: boolean): Output['outlet'] {
  const all = station.outlets.map(o => ({
    type: o.type,
    amps: Math.min(o.limitA ?? Infinity, receptacles[o.type].amps),
    hots: receptacles[o.type].hots,
  }))
  const fitting = all.filter(o => !split || o.hots === 2)
  const [first, ...rest] = fitting.length ? fitting : all
  if (!first) throw new Error(`${station.name} lists no outlet`)
  const best = rest.reduce((a, b) => (b.amps > a.amps ? b : a), first)
  return { type: best.type, amps: best.amps }
}

/** Split phase needs two legs of opposite phase, which only a 120/240 V unit makes. */
export const canArrange = (station: Station, arrangement: Arrangement): boolean =>
  arrangement !== 'split-phase' || station.voltage === '120/240'
