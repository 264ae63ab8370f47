import type { UnitEquipment } from '../equipment/source-kinds'
import { type ReceptacleType, receptacles } from '../units/tables/receptacles'
import { opposed } from './arrangement'
import { type Source, voltsOf } from './design'
import type { Leg } from './legs'
import { shortName } from './store'

/** What a source puts out under its arrangement, and what limits it. Watts and volt-amps share the same limit. */
export interface Output {
  /** null where it is wired on, without an outlet */
  outlet: { type: ReceptacleType; amps: number } | null
  /** of the whole output, W */
  totalW: number
  /** of each leg, W; legs that are tied share `totalW` */
  legW: Record<Leg, number>
  surgeW: number
  /** surge one leg can give to a 120 V motor, W */
  legSurgeW: number
  limitedBy: 'unit' | 'outlet' | 'autotransformer' | 'way'
  /** what on the way to the panel carries least, where that is less than the outlet */
  way: WayRating | null
}

/** What the way from the outlet to the panel carries on each hot, A, and by what. */
export interface WayRating {
  name: string
  ratedA: number
}

/** Of a rating, for what runs three hours or more (NEC 210.20(A)). */
export const continuousShare = 0.8

/** Continuous and surge watts of a unit: whole, and of one leg. */
export function ratingOf(unit: UnitEquipment): { W: number; legW: number; surgeW: number } {
  const halved = voltsOf(unit) === '120/240' ? unit.continuousW / 2 : unit.continuousW
  const legW = 'legW' in unit && unit.legW !== undefined ? unit.legW : halved
  return { W: unit.continuousW, legW, surgeW: unit.surgeW }
}

/** The outlets that a source offers: the combiner's or the transformer's where there is one, else the unit's. */
export function outletsOf(source: Source) {
  const { arrangement, combiner, autotransformer } = source
  const unit = source.units[0]?.equipment
  if (arrangement === 'combined' && combiner) return combiner.outlets
  if (arrangement === 'autotransformer' && autotransformer?.outlets) return autotransformer.outlets
  if (!unit || unit.kind === 'inverter') return []
  return unit.outlets ?? [{ type: '5-20' as const, count: 1 }]
}

/**
 * The output that the panel sees: the continuous rating, or four fifths of the outlet's amps where that is less
 * (continuous load, NEC 210.20(A)). With one leg or tied legs a 120/240 V unit gives one of its legs only. Two units
 * combined, or one leg each, give a unit a leg. An autotransformer makes the leg that the unit does not feed: half of its
 * rating there at 120 V, since the current of that leg flows through one of its two windings.
 * A leg's surge is taken as the leg's share of the unit's, since datasheets seldom state it.
 * `least` is what carries least on the way from the outlet to the panel: the smaller of it and the outlet limits each hot; on
 * tied legs and with one leg all of it goes through one hot, or comes back through the one neutral.
 */
export function outputOf(source: Source, least: WayRating | null = null): Output {
  const { arrangement, liveLeg, autotransformer } = source
  const ratings = source.units.map(u => ratingOf(u.equipment))
  const [first, second = first] = ratings
  if (!first || !second) throw new Error('a source holds at least one unit')
  const twoHots = opposed(arrangement)
  const outlet = bestOutlet(source, twoHots)
  const way = least && least.ratedA < (outlet?.amps ?? Infinity) ? least : null
  const perHotA = way?.ratedA ?? outlet?.amps ?? Infinity
  const outletW = continuousShare * perHotA * 120
  const short = way ? ('way' as const) : ('outlet' as const)
  if (arrangement === 'combined' || arrangement === 'independent') {
    const legW = { L1: Math.min(first.W, outletW), L2: Math.min(second.W, outletW) }
    return {
      outlet,
      totalW: legW.L1 + legW.L2,
      legW,
      surgeW: first.surgeW + second.surgeW,
      legSurgeW: Math.min(first.surgeW, second.surgeW),
      limitedBy: outletW < Math.max(first.W, second.W) ? short : 'unit',
      way,
    }
  }
  if (arrangement === 'autotransformer' && autotransformer) {
    // the unit's own outlet feeds the transformer; the way begins there, or behind it where it has outlets of its own
    const fed = bestOutlet({ ...source, arrangement: 'tied' }, false)
    const behind = autotransformer.outlets !== undefined
    const before = least && !behind && least.ratedA < (fed?.amps ?? Infinity) ? least : null
    const unitW = Math.min(first.W, continuousShare * (before?.ratedA ?? fed?.amps ?? Infinity) * 120)
    const kept = autotransformer.efficiencyFraction
    const wayW = behind ? outletW : Infinity
    const totalW = Math.min(unitW * kept, autotransformer.continuousW, 2 * wayW)
    const made = Math.min(totalW, autotransformer.continuousW / 2, wayW)
    const fedW = Math.min(unitW, wayW)
    const byWay = before !== null || (behind && way !== null && 2 * wayW <= totalW)
    return {
      outlet,
      totalW,
      legW: { L1: liveLeg === 'L1' ? fedW : made, L2: liveLeg === 'L2' ? fedW : made },
      surgeW: first.surgeW * kept,
      legSurgeW: first.surgeW * kept,
      limitedBy:
        autotransformer.continuousW <= totalW
          ? 'autotransformer'
          : byWay
            ? 'way'
            : unitW < first.W
              ? 'outlet'
              : 'unit',
      way: before ?? (behind ? way : null),
    }
  }
  const split = arrangement === 'split-phase'
  const unitW = split ? first.W : first.legW
  const legSurgeW = first.surgeW * (first.legW / first.W)
  const totalW = Math.min(unitW, split ? 2 * outletW : outletW)
  const legW = Math.min(first.legW, outletW)
  return {
    outlet,
    totalW,
    legW: { L1: legW, L2: legW },
    surgeW: split ? first.surgeW : legSurgeW,
    legSurgeW,
    limitedBy: totalW < unitW ? short : 'unit',
    way,
  }
}

/** The outlet that carries most; a 120 V arrangement may use one hot of a 120/240 V outlet. */
function bestOutlet(source: Source, twoHots: boolean): Output['outlet'] {
  const all = outletsOf(source).map(o => ({
    type: o.type,
    amps: Math.min(o.limitA ?? Infinity, receptacles[o.type].amps),
    hots: receptacles[o.type].hots,
  }))
  const fitting = all.filter(o => !twoHots || o.hots === 2)
  const [first, ...rest] = fitting.length ? fitting : all
  if (!first) return null
  const best = rest.reduce((a, b) => (b.amps > a.amps ? b : a), first)
  return { type: best.type, amps: best.amps }
}

/** What limits an output, as it stands in a sentence: `its TT-30 outlet`, `the 15 A breaker at 2`. */
export function limitWords({ limitedBy, outlet, way }: Output, source: Source): string {
  if (limitedBy === 'way' && way) return `the ${way.name}`
  if (limitedBy === 'outlet' && outlet) return `its ${outlet.type} outlet`
  return `the ${limitedBy === 'autotransformer' ? source.autotransformer?.name : shortName(source)}`
}
