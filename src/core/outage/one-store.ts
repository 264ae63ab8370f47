import type { Course } from './course'
import type { Cause, CourseOutcome } from './course-outcome'
import type { Plan } from './plan'
import { type Levels, rest } from './quiet'
import type { Bench } from './sums'
import { sunSlotMin } from './sun'

/**
 * The kernel's steps for one store in plain numbers, where nothing is recorded and no overload is looked at: what a search
 * runs ten thousand times. It comes to the same as every step in full, which a property holds it to.
 */

/** What went through, summed over the steps: W × steps, but for hours, gallons and Wh of fuel. */
export interface OneStoreSums {
  sunW: number
  sunUnusedW: number
  genHouseW: number
  genChargeW: number
  /** to the loads through the inverter, and its squares */
  batteryLoadsW: number
  batteryLoadsW2: number
  /** steps that the inverter was on */
  onSteps: number
  genH: number
  gallons: number
  levelWh: number
}

/** An empty store comes back this much above its reserve, and a tier above its level. */
export const backAbove = 0.1

export const oneStoreSuits = (plan: Plan): boolean =>
  plan.stores.length === 1 &&
  (plan.shedding.policy === 'none' || plan.shedding.policy === 'by tier') &&
  (plan.generator !== null || plan.arrays.length > 0 || plan.shedding.policy === 'by tier')

/** Hours to what does not come about. */
export const never = Number.POSITIVE_INFINITY

/** Whether an hour of the day lies in a span, over midnight if need be; a span of no length is none. */
export const within = (h: number, fromH: number, toH: number) =>
  fromH === toH ? false : fromH < toH ? h >= fromH && h < toH : h >= fromH || h < toH

/**
 * The hour at which the must-run circuits are lost, Infinity for never: with nothing let go all go together, for want of
 * energy, for cold, or because the source cannot carry them.
 */
export const lostAtH = (
  { shedding, hasTier }: Plan,
  { emptyH, firstDarkH: [h1, h2, h3] }: CourseOutcome,
): number => (shedding.policy === 'none' ? Math.min(emptyH, h1, h2, h3) : hasTier[0] ? h1 : emptyH)
export const isLost = (plan: Plan, outcome: CourseOutcome): boolean => lostAtH(plan, outcome) !== never

/** Runs a course from a level; times, causes and served hours go into the outcome. */
export function oneStore(
  plan: Plan,
  course: Course,
  bench: Bench,
  start: { levelWh: number; capacityWh: number; reserveWh: number; on: boolean },
  outcome: CourseOutcome,
  levels: Levels | null,
  lostEnds: boolean,
): OneStoreSums {
  const [s] = plan.stores
  const { steps, generator, shedding, hasTier } = plan
  const stepH = plan.stepS / 3600
  const sums: OneStoreSums = {
    sunW: 0,
    sunUnusedW: 0,
    genHouseW: 0,
    genChargeW: 0,
    batteryLoadsW: 0,
    batteryLoadsW2: 0,
    onSteps: 0,
    genH: 0,
    gallons: 0,
    levelWh: start.levelWh,
  }
  if (!s) return sums
  const dark = (tier: number, step: number, cause: Cause, about: number) => {
    if (outcome.firstDarkH[tier] !== never || !hasTier[tier]) return
    outcome.firstDarkH[tier] = step * stepH
    outcome.cause[tier] = cause
    if (tier === 0) outcome.causeAt = about
  }
  const byTier = shedding.policy === 'by tier'
  const still = new Float64Array(0)
  const changes = (tier: number): Float64Array => {
    const group = byTier ? tier * 2 : 0
    return (byTier || tier === 0) && bench.active.includes(group) ? (bench.watts[group] ?? still) : still
  }
  const [w1, w2, w3] = [changes(0), changes(1), changes(2)]
  const sun = course.sky.sunW[0]
  const stepsPerSlot = (sunSlotMin * 60) / plan.stepS
  const { capacityWh, reserveWh } = start
  const { idleW, acChargeW, acceptsW, charges, chargerEfficiencyFraction, taperFromFraction } = s
  const { lossPerW2 } = s
  const perW = 1 / s.efficiencyFraction
  const backWh = reserveWh + backAbove * (capacityWh - reserveWh)
  const revives = plan.arrays.length > 0 || generator !== null
  const { tier2BelowFraction: l2, tier3BelowFraction: l3 } = shedding
  let level = start.levelWh
  let { on } = start
  let t2 = true
  let t3 = true
  let c1 = 0
  let c2 = 0
  let c3 = 0
  let genOn = false
  let fuelWh = generator ? generator.gallons * generator.WhPerGallon : 0
  let served1 = 0
  let served2 = 0
  let served3 = 0
  const every = levels ? levels.every : steps + 1

  for (let m = 0; m < steps; m++) {
    if (levels && m % every === 0) levels.into[levels.offset + m / every] = level
    if (!on && !revives) {
      if (levels) rest(levels, m, steps, Float64Array.of(level))
      break
    }
    c1 += w1[m] ?? 0
    const share = capacityWh > 0 ? level / capacityWh : 1
    if (byTier) {
      c2 += w2[m] ?? 0
      c3 += w3[m] ?? 0
      if (share >= (t3 ? l3 : l3 + backAbove) !== t3) {
        t3 = !t3
        if (!t3) dark(2, m, 'let go', -1)
      }
      if (share >= (t2 ? l2 : l2 + backAbove) !== t2) {
        t2 = !t2
        if (!t2) dark(1, m, 'let go', -1)
      }
    }
    const house = c1 + (t2 ? c2 : 0) + (t3 ? c3 : 0)

    let genW = 0
    if (generator) {
      if (fuelWh <= 0) genOn = false
      else if (genOn || share <= generator.startAtFraction) {
        const hour = (course.beginsH + m * stepH) % 24
        const { fromH, toH, quietFromH, quietToH } = generator
        const quiet = quietFromH !== null && quietToH !== null && within(hour, quietFromH, quietToH)
        if (quiet || !within(hour, fromH, toH) || share >= generator.stopAtFraction - 1e-9) genOn = false
        else genOn = true
        if (genOn) genW = Math.min(generator.continuousW, fuelWh / stepH)
      }
    }
    const carries = genOn && generator?.carriesHouse === true
    let byGen = carries ? Math.min(genW, house) : 0
    const serves = on || (carries && byGen >= house)
    if (!serves) byGen = 0
    const carried = !serves ? 0 : house > 0 ? byGen / house : carries ? 1 : 0
    const isOn = serves && on
    const W = isOn ? house * (1 - carried) : 0
    const dcW = isOn && carried < 1 ? idleW + W * (perW + lossPerW2 * W) : 0

    // charged by sun and generator, less and less when it is nearly full
    const sunW = sun ? (sun[Math.floor(m / stepsPerSlot)] ?? 0) : 0
    const leftW = genW - byGen
    let acW = 0
    let usedW = 0
    if (sunW > 0 || leftW > 0) {
      acW = charges ? Math.min(acChargeW, leftW) : 0
      usedW = sunW
      const taper =
        share <= taperFromFraction ? 1 : Math.max(0.1, (1 - share) / Math.max(1e-9, 1 - taperFromFraction))
      const accepts = charges ? Math.max(0, Math.min(acceptsW * taper, (capacityWh - level) / stepH)) : 0
      const fromAc = acW * chargerEfficiencyFraction
      const surplus = sunW + fromAc - dcW - accepts
      if (surplus > 0) {
        const less = Math.min(fromAc, surplus)
        acW -= less / chargerEfficiencyFraction
        usedW = Math.max(0, sunW - (surplus - less))
      }
    }
    const inW = usedW + acW * chargerEfficiencyFraction
    let part = 1
    let isEmpty = false
    if (isOn && inW < dcW) {
      const lasts = Math.max(0, level - reserveWh) / ((dcW - inW) * stepH)
      if (lasts < 1) {
        part = lasts
        isEmpty = true
      }
    }
    level += (inW - dcW * part) * stepH
    const got = !serves ? 0 : carried >= 1 ? 1 : on ? part : 0
    sums.sunW += usedW
    sums.sunUnusedW += sunW - usedW
    sums.genHouseW += house * carried * got
    sums.genChargeW += acW
    sums.batteryLoadsW += W * part
    sums.batteryLoadsW2 += W * W * part
    if (dcW > 0) sums.onSteps += part
    if (isEmpty) {
      on = false
      if (outcome.emptyH === never) {
        outcome.emptyH = (m + part) * stepH
        outcome.emptyStore = 0
      }
    } else if (!on && s.works && capacityWh > 0 && level >= backWh) on = true
    if (genOn && generator) {
      const Wh = (byGen + acW) * stepH
      fuelWh = Math.max(0, fuelWh - Wh)
      sums.genH += stepH
      sums.gallons += Wh / generator.WhPerGallon
    }
    served1 += got
    if (t2) served2 += got
    if (t3) served3 += got
    if (got < 1 && plan.storeFeeds[0]) {
      if (outcome.emptyH === never && s.works) {
        outcome.emptyH = (m + got) * stepH
        outcome.emptyStore = 0
      }
      dark(0, m + got, 'store empty', outcome.emptyStore)
      if (t2) dark(1, m + got, 'store empty', outcome.emptyStore)
      if (t3) dark(2, m + got, 'store empty', outcome.emptyStore)
    }
    if (lostEnds && isLost(plan, outcome)) break
  }
  sums.levelWh = level
  outcome.servedH.set([served1, served1, served2, served2, served3, served3].map(n => n * stepH))
  return sums
}
