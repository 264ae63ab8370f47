import { told } from '../equipment/facts'
import type { UnitEquipment } from '../equipment/source-kinds'
import type { Leg } from '../panel/leg'
import { type ReceptacleType, receptacles } from '../units/tables/receptacles'
import { opposed } from './arrangement'
import { bankLimits } from './bank-limits'
import { type Source, type Unit, voltsOf } from './design'
import { shortName } from './short-name'

/**
 * What a source puts out under its arrangement, and what limits it. Watts and volt-amps share the same limit. An inverter's
 * own rating holds for hours; of an outlet, a cord or a breaker only four fifths do (NEC 210.20(A), 215.3, 230.42).
 */
export interface Output {
  /** null where it is wired on, without an outlet */
  outlet: { type: ReceptacleType; amps: number } | null
  /** of the whole output for less than three hours, W */
  totalW: number
  /** of each leg for less than three hours, W; legs that are tied share `totalW` */
  legW: Record<Leg, number>
  /** the same for loads of three hours or more, W */
  lasting: Share
  surgeW: number
  /** surge one leg can give to a 120 V motor, W */
  legSurgeW: number
  /** locked-rotor amps, at the motor, that the datasheets name; null where they are silent */
  startsA: number | null
  limitedBy: Limit
  /** what on the way to the panel carries least, where that is less than the outlet */
  way: WayRating | null
}

/** Watts whole and of each leg, and what keeps it from more. */
export interface Share {
  totalW: number
  legW: Record<Leg, number>
  limitedBy: Limit
}

export type Limit = 'unit' | 'battery' | 'outlet' | 'autotransformer' | 'way'

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

/** The same with what its bank and the bank's fuse let through. */
function ratingWith(unit: Unit): { W: number; legW: number; surgeW: number; byBattery: boolean } {
  const { W, legW, surgeW } = ratingOf(unit.equipment)
  const bank = bankLimits(unit)
  const byBattery = bank !== null && bank.outputW < W
  return {
    W: Math.min(W, bank?.outputW ?? Infinity),
    legW: Math.min(legW, bank?.outputW ?? Infinity),
    surgeW: Math.min(surgeW, bank?.surgeW ?? Infinity),
    byBattery,
  }
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
 * The output that the panel sees: the continuous rating, or the outlet's amps where that is less. With one leg or tied
 * legs a 120/240 V unit gives one of its legs only. Two units combined, or one leg each, give a unit a leg. An
 * autotransformer makes the leg that the unit does not feed: half of its rating there at 120 V, since the current of that
 * leg flows through one of its two windings.
 * A leg's surge is taken as the leg's share of the unit's, since datasheets seldom state it; where they name the
 * locked-rotor amps that it starts, those bind instead.
 * `least` is what carries least on the way from the outlet to the panel: the smaller of it and the outlet limits each hot; on
 * tied legs and with one leg all of it goes through one hot, or comes back through the one neutral. `withOutlet: false` leaves
 * the outlet's own limit out, for who looks at it apart.
 */
export function outputOf(source: Source, least: WayRating | null = null, withOutlet = true): Output {
  const { arrangement } = source
  const [first, second = first] = source.units.map(ratingWith)
  if (!first || !second) throw new Error('a source holds at least one unit')
  const outlet = bestOutlet(source, opposed(arrangement))
  const fed = arrangement === 'autotransformer' ? fedOutlet(source) : outlet
  const way = least && least.ratedA < (fed?.amps ?? Infinity) ? least : null
  const startsA = startsOf(source)
  const surge = surgeOf(source, first, second)
  const { totalW, legW, limitedBy } = shareOf(source, least, 1, withOutlet)
  return {
    outlet,
    totalW,
    legW,
    lasting: shareOf(source, least, continuousShare, withOutlet),
    surgeW: surge.W,
    // a leg's surge is an assumption where the sheet gives the whole: named amps show that one leg gives at least so much
    legSurgeW: surge.assumed ? Math.max(surge.legW, (startsA ?? 0) * 120) : surge.legW,
    startsA,
    limitedBy,
    way,
  }
}

function surgeOf(
  source: Source,
  first: Rating,
  second: Rating,
): { W: number; legW: number; assumed: boolean } {
  switch (source.arrangement) {
    case 'combined':
    case 'independent':
      return { W: first.surgeW + second.surgeW, legW: Math.min(first.surgeW, second.surgeW), assumed: false }
    case 'autotransformer': {
      const kept = source.autotransformer?.efficiencyFraction ?? 1
      return { W: first.surgeW * kept, legW: first.surgeW * kept, assumed: false }
    }
    default: {
      const legW = first.surgeW * (first.legW / first.W)
      return {
        W: source.arrangement === 'split-phase' ? first.surgeW : legW,
        legW,
        assumed: first.legW < first.W,
      }
    }
  }
}
type Rating = ReturnType<typeof ratingWith>

/**
 * Locked-rotor amps at the motor. Two 120/240 V units side by side add theirs; two 120 V units that make a leg each do not,
 * as the same amps pass through both. Behind an autotransformer amps at 240 V are doubled at the 120 V unit.
 */
function startsOf(source: Source): number | null {
  const said = source.units.map(u =>
    'startsLockedRotorA' in u.equipment ? told(u.equipment.startsLockedRotorA) : undefined,
  )
  const known = said.filter(a => a !== undefined)
  if (!known.length) return null
  const parallel =
    source.arrangement === 'combined' &&
    known.length === source.units.length &&
    source.units.every(u => voltsOf(u.equipment) === '120/240')
  return parallel ? known.reduce((a, b) => a + b, 0) : Math.min(...known)
}

/** Amps of a motor's start as the sheet of the source counts them: at 240 V behind an autotransformer twice. */
export const startsWithA = (
  source: Pick<Source, 'arrangement'> | undefined,
  startA: number,
  volts: number,
): number => (source?.arrangement === 'autotransformer' && volts === 240 ? 2 * startA : startA)

/** Watts with a share of every rating in amps: all of it, or four fifths for what lasts. */
function shareOf(source: Source, least: WayRating | null, share: number, withOutlet: boolean): Share {
  const { arrangement, liveLeg, autotransformer } = source
  const [first, second = first] = source.units.map(ratingWith)
  if (!first || !second) throw new Error('a source holds at least one unit')
  const outlet = bestOutlet(source, opposed(arrangement))
  const way = least && least.ratedA < (outlet?.amps ?? Infinity) ? least : null
  const outletA = withOutlet ? (outlet?.amps ?? Infinity) : Infinity
  const outletW = share * Math.min(way?.ratedA ?? Infinity, outletA) * 120
  const short = way ? ('way' as const) : ('outlet' as const)
  const own = first.byBattery ? ('battery' as const) : ('unit' as const)
  if (arrangement === 'combined' || arrangement === 'independent') {
    const legW = { L1: Math.min(first.W, outletW), L2: Math.min(second.W, outletW) }
    return {
      totalW: legW.L1 + legW.L2,
      legW,
      limitedBy: outletW < Math.max(first.W, second.W) ? short : own,
    }
  }
  if (arrangement === 'autotransformer' && autotransformer) {
    // the unit's own outlet feeds the transformer; the way begins there, or behind it where it has outlets of its own
    const fed = fedOutlet(source)
    const behind = autotransformer.outlets !== undefined
    const before = least && !behind && least.ratedA < (fed?.amps ?? Infinity) ? least : null
    const unitW = Math.min(
      first.W,
      share * Math.min(before?.ratedA ?? Infinity, withOutlet ? (fed?.amps ?? Infinity) : Infinity) * 120,
    )
    const kept = autotransformer.efficiencyFraction
    const wayW = behind ? outletW : Infinity
    const totalW = Math.min(unitW * kept, autotransformer.continuousW, 2 * wayW)
    const made = Math.min(totalW, autotransformer.continuousW / 2, wayW)
    const fedW = Math.min(unitW, wayW)
    const byWay = before !== null || (behind && way !== null && 2 * wayW <= totalW)
    return {
      totalW,
      legW: { L1: liveLeg === 'L1' ? fedW : made, L2: liveLeg === 'L2' ? fedW : made },
      limitedBy:
        autotransformer.continuousW <= totalW
          ? 'autotransformer'
          : byWay
            ? 'way'
            : unitW < first.W
              ? 'outlet'
              : own,
    }
  }
  const split = arrangement === 'split-phase'
  const unitW = split ? first.W : first.legW
  const totalW = Math.min(unitW, split ? 2 * outletW : outletW)
  const legW = Math.min(first.legW, outletW)
  return { totalW, legW: { L1: legW, L2: legW }, limitedBy: totalW < unitW ? short : own }
}

/** The outlet of a 120 V unit that feeds its autotransformer. */
const fedOutlet = (source: Source) => bestOutlet({ ...source, arrangement: 'tied' }, false)

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
export function limitWords(
  { outlet, way, ...output }: Output,
  source: Source,
  limitedBy: Limit = output.limitedBy,
): string {
  if (limitedBy === 'way' && way) return `the ${way.name}`
  if (limitedBy === 'outlet' && outlet) return `its ${outlet.type} outlet`
  if (limitedBy === 'battery') return `the bank of the ${shortName(source)}`
  return `the ${limitedBy === 'autotransformer' ? source.autotransformer?.name : shortName(source)}`
}
