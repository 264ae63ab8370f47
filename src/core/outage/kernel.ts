import type { Course } from './course'
import type { Cause, CourseOutcome, CourseRecord, EventKind } from './course-outcome'
import { accountOf, type State, stateFor, total } from './kernel-state'
import { backAbove, isLost, never, oneStore, oneStoreSuits, within } from './one-store'
import { examiner } from './overload'
import type { Plan, PlanGenerator } from './plan'
import { type Levels, laneFor, quietSteps, rest } from './quiet'
import { type Bench, fill, leaveOff } from './sums'
import { sunSlotMin } from './sun'

/**
 * The kernel: one course of an outage through one design, step by step. Loads are the exact average of each step; stores
 * are emptied and filled within it to the moment; starts and overloads are looked at to a second where they might matter.
 */

/** After so many trips by one load people leave it off. */
const mostTrips = 2
/** A dark hour after an overload is borne; more is not: our measure. */
const longestResetMinutes = 60
/** Runs a course through a plan, on a bench that the caller keeps. */
export function runCourse(
  plan: Plan,
  course: Course,
  bench: Bench,
  record: CourseRecord | null = null,
  levels: Levels | null = null,
): CourseOutcome {
  const watches = plan.mayTrip && course.hourlyW === null
  fill(plan, course, bench, watches)
  return runFilled(plan, course, bench, watches, record, levels)
}

/**
 * The same on a bench that is filled already; without watching, the bench is left as it is and serves again. With
 * `lostEnds` it ends where the energy does not last, for who asks nothing else.
 */
export function runFilled(
  plan: Plan,
  course: Course,
  bench: Bench,
  watches: boolean,
  record: CourseRecord | null = null,
  levels: Levels | null = null,
  lostEnds = false,
): CourseOutcome {
  const { steps, stores, generator, shedding } = plan
  const state = stateFor(plan, course, bench, record)
  const { level, on, cur, sums, outcome } = state
  const start = Float64Array.from(level)
  if (!record && !watches && !course.hourlyW && oneStoreSuits(plan))
    return inOneStore(state, start, levels, lostEnds)
  if (record) putStart(record, level)
  const two = stores.length > 1
  const exam = watches ? examiner(plan, course.runs, course.breakerShare) : null
  const lane =
    record || course.hourlyW || shedding.policy !== 'none'
      ? null
      : laneFor(plan, course, bench, state, watches, levels)
  const revives = plan.arrays.length > 0 || generator !== null
  if (stores.some((s, k) => !s.works && (level[k] ?? 0) > (state.reserve[k] ?? 0)))
    for (let t = 0; t < 3; t++) dark(state, t, 0, 'too cold', -1)

  for (let m = 0; m < steps; m++) {
    if (lane && !state.gone && !state.genOn && m >= state.deadUntil && on[0] && (!two || on[1])) {
      lane.wake(sums.fuelWh > 0)
      m = quietSteps(lane, m, steps)
      if (m >= steps) break
    }
    if (levels && m % levels.every === 0) levels.into[levels.offset + m / levels.every] = total(level)
    // what is empty for good stays so
    if (!record && !revives && (state.gone || !(on[0] || (two && on[1])))) {
      if (levels) rest(levels, m, steps, level)
      break
    }
    for (const g of bench.active) cur[g] = (cur[g] ?? 0) + (bench.watts[g]?.[m] ?? 0)
    if (shedding.policy !== 'none') letGo(state, m)
    if (exam) overloads(state, exam, m)
    else if (course.hourlyW) beyondMeans(state, m)
    stepOf(state, m)
    if (lostEnds && isLost(plan, outcome)) break
  }
  if (lane) {
    addQuiet(state, lane)
    for (let k = 0; k < state.stores; k++)
      outcome.servedH[k] = (outcome.servedH[k] ?? 0) + lane.steps * state.stepH
  }
  // groups that nothing parts stand for one another
  if (shedding.policy === 'none') for (let g = 2; g < 6; g++) outcome.servedH[g] = outcome.servedH[g & 1] ?? 0
  if (!two) for (let g = 0; g < 6; g += 2) outcome.servedH[g + 1] = outcome.servedH[g] ?? 0
  outcome.account = accountOf(start, sums, level)
  outcome.endWh = outcome.account.endWh
  outcome.generatorH = sums.generatorH
  outcome.gallons = sums.gallons
  return outcome
}

/** The quick way through a whole course of one store. */
function inOneStore(
  state: State,
  start: Float64Array,
  levels: Levels | null,
  lostEnds: boolean,
): CourseOutcome {
  const { plan, course, bench, stepH, sums, outcome, level } = state
  if (plan.stores[0]?.works === false && (level[0] ?? 0) > (state.reserve[0] ?? 0))
    for (let t = 0; t < 3; t++) dark(state, t, 0, 'too cold', -1)
  const got = oneStore(
    plan,
    course,
    bench,
    {
      levelWh: level[0] ?? 0,
      capacityWh: state.capacity[0] ?? 0,
      reserveWh: state.reserve[0] ?? 0,
      on: state.on[0] === 1,
    },
    outcome,
    levels,
    lostEnds,
  )
  addQuiet(state, {
    loadW: Float64Array.of(got.batteryLoadsW),
    loadW2: Float64Array.of(got.batteryLoadsW2),
    sunW: Float64Array.of(got.sunW),
    steps: got.onSteps,
  })
  sums.loadsWh += got.genHouseW * stepH
  sums.sunUnusedWh = got.sunUnusedW * stepH
  sums.generatorHouseWh = got.genHouseW * stepH
  sums.generatorChargeWh = got.genChargeW * stepH
  sums.chargerWh = got.genChargeW * stepH * (1 - (plan.stores[0]?.chargerEfficiencyFraction ?? 1))
  level[0] = got.levelWh
  outcome.account = accountOf(start, sums, level)
  outcome.endWh = outcome.account.endWh
  outcome.generatorH = got.genH
  outcome.gallons = got.gallons
  return outcome
}

const mark = ({ record, stepH }: State, step: number, kind: EventKind, about = -1) =>
  record?.marks.push({ hour: step * stepH, kind, about })

/** A tier is dark for the first time. */
function dark(state: State, tier: number, step: number, cause: Cause, about: number) {
  const { outcome, plan, stepH } = state
  if (outcome.firstDarkH[tier] !== never || !plan.hasTier[tier]) return
  outcome.firstDarkH[tier] = step * stepH
  outcome.cause[tier] = cause
  if (tier === 0) outcome.causeAt = about
}

function setTier(state: State, tier: number, isOn: boolean, step: number) {
  const { tierOn } = state
  if ((tierOn[tier] === 1) === isOn) return
  tierOn[tier] = isOn ? 1 : 0
  mark(state, step, isOn ? 'back on' : 'let go', tier + 1)
  if (!isOn) dark(state, tier, step, 'let go', -1)
}

/** What is let go at this step, by the policy. */
function letGo(state: State, m: number) {
  const { plan, stepH, capacity, level, reserve, tierOn, stores } = state
  const { shedding } = plan
  const hourOfDay = (state.course.beginsH + m * stepH) % 24
  if (shedding.policy === 'by tier') {
    let share = 1
    for (let k = 0; k < stores; k++)
      if ((capacity[k] ?? 0) > 0) share = Math.min(share, (level[k] ?? 0) / (capacity[k] ?? 1))
    const { tier3BelowFraction: l3, tier2BelowFraction: l2 } = shedding
    setTier(state, 2, share >= (tierOn[2] ? l3 : l3 + backAbove), m)
    setTier(state, 1, share >= (tierOn[1] ? l2 : l2 + backAbove), m)
    return
  }
  if (shedding.policy === 'by schedule') {
    const isOn = shedding.spans.some(s => within(hourOfDay, s.fromH, s.toH))
    setTier(state, 2, isOn, m)
    setTier(state, 1, isOn, m)
    return
  }
  // by hand: somebody looks, and reckons what is left against the mean of what is on
  if (m > 0 && !shedding.atH.some(at => (((hourOfDay - at) % 24) + 24) % 24 < stepH)) return
  const hoursLeft = (plan.steps - m) * stepH
  let haveWh = 0
  for (let k = 0; k < stores; k++) haveWh += Math.max(0, (level[k] ?? 0) - (reserve[k] ?? 0))
  const asksWh = (tiers: number) => {
    let W = 0
    for (let t = 0; t < tiers; t++) W += plan.tierMeanW[t] ?? 0
    const idleW = plan.stores.reduce((all, s) => all + s.idleW, 0)
    return (W / (plan.stores[0]?.efficiencyFraction ?? 1) + idleW) * hoursLeft
  }
  setTier(state, 2, asksWh(3) <= haveWh, m)
  setTier(state, 1, asksWh(2) <= haveWh, m)
}

/** Whether what runs in this step trips the source, and what follows. */
function overloads(state: State, exam: ReturnType<typeof examiner>, m: number) {
  const { plan, course, bench, va, tierOn, outcome, tripsBy } = state
  const { limits } = plan
  const va0 = (va[0] ?? 0) + (bench.VA[0][m] ?? 0)
  const va1 = (va[1] ?? 0) + (bench.VA[1][m] ?? 0)
  va[0] = va0
  va[1] = va1
  // what gives nothing is not overloaded, nor what a generator carries
  if (state.gone || m < state.deadUntil || !givesPower(state)) return
  if (state.genOn && plan.generator?.carriesHouse) return
  const all = va0 + va1
  const may =
    all > limits.totalVA ||
    all + (bench.starts[2][m] ?? 0) > limits.surgeVA ||
    (limits.split &&
      (va0 > limits.legVA[0] ||
        va1 > limits.legVA[1] ||
        va0 + (bench.starts[0][m] ?? 0) > limits.legSurgeVA ||
        va1 + (bench.starts[1][m] ?? 0) > limits.legSurgeVA))
  if (!may) return
  const trip = exam(m, tierOn)
  if (!trip) return
  const { trigger, beside } = trip
  outcome.trips.push({ hour: m * state.stepH, trigger, beside })
  mark(state, m, 'trip', trigger)
  state.deadUntil = m + Math.max(1, Math.round((plan.restartMinutes * 60) / plan.stepS))
  for (let t = 0; t < 3; t++) dark(state, t, m, 'trip', trigger)
  if (plan.restartMinutes > longestResetMinutes) outcome.tripEnds = true
  const by = trigger + 1
  const times = (tripsBy[by] ?? 0) + 1
  tripsBy[by] = times
  if (trigger >= 0 && (plan.loads[trigger]?.byHand || times >= mostTrips)) {
    // a person switches it off; after tripping again and again it stays off
    const forGood = times >= mostTrips
    if (forGood && !outcome.leftOff.includes(trigger)) outcome.leftOff.push(trigger)
    if (forGood && plan.loads[trigger]?.tier === 1) outcome.tripEnds = true
    leaveOff(plan, course, bench, trigger, m + 1, forGood)
  } else if (times > mostTrips) {
    state.gone = true
    outcome.tripEnds = true
  }
}

const givesPower = ({ plan, on, stores }: State): boolean =>
  stores < 2 ? on[0] === 1 : plan.both ? on[0] === 1 && on[1] === 1 : on[0] === 1 || on[1] === 1

/** Means know no starts: what is above the source even on average it cannot carry. */
function beyondMeans(state: State, m: number) {
  const { cur, tierOn, plan } = state
  if (state.gone) return
  let all = 0
  for (let g = 0; g < 6; g++) if (tierOn[g >> 1]) all += cur[g] ?? 0
  if (all <= plan.limits.totalVA) return
  state.gone = true
  mark(state, m, 'trip')
  for (let t = 0; t < 3; t++) dark(state, t, m, 'cannot carry', -1)
}

/** Whether the generator runs in this step, and how many watts it can give. */
function generatorW(state: State, generator: PlanGenerator, m: number): number {
  const { capacity, level, stores, sums, stepH } = state
  const was = state.genOn
  const fuelWh = sums.fuelWh
  if (fuelWh <= 0) {
    state.genOn = false
    if (was) mark(state, m, 'fuel gone')
    return 0
  }
  const hourOfDay = (state.course.beginsH + m * stepH) % 24
  const { fromH, toH, quietFromH, quietToH } = generator
  const quiet = quietFromH !== null && quietToH !== null && within(hourOfDay, quietFromH, quietToH)
  const allowed = !quiet && within(hourOfDay, fromH, toH)
  let lowest = 1
  let allFull = true
  for (let k = 0; k < stores; k++) {
    const share = (capacity[k] ?? 0) > 0 ? (level[k] ?? 0) / (capacity[k] ?? 1) : 1
    lowest = Math.min(lowest, share)
    if (share < generator.stopAtFraction - 1e-9) allFull = false
  }
  if (!allowed || allFull) state.genOn = false
  else if (lowest <= generator.startAtFraction) state.genOn = true
  if (state.genOn !== was) mark(state, m, state.genOn ? 'generator on' : 'generator off')
  return state.genOn ? Math.min(generator.continuousW, fuelWh / stepH) : 0
}

/** One step of the stores: who is served from what, and for how much of the step. */
function stepOf(state: State, m: number) {
  const { plan, stepH, stores: n, cur, tierOn, on, level, reserve, capacity, sums } = state
  const { need, sunIn, acIn, acOut, dcOut, got } = state
  const { generator } = plan
  const two = n > 1
  if (state.deadUntil === m && m > 0) mark(state, m, 'reset')

  const live = !state.gone && m >= state.deadUntil
  let house = 0
  for (let k = 0; k < n; k++) need[k] = 0
  if (live)
    for (const g of state.bench.active) {
      if (!tierOn[g >> 1]) continue
      const W = cur[g] ?? 0
      house += W
      need[two ? g & 1 : 0] = (need[two ? g & 1 : 0] ?? 0) + W
    }
  const genW = generator ? generatorW(state, generator, m) : 0
  const carries = state.genOn && generator?.carriesHouse === true
  let byGenerator = carries && live ? Math.min(genW, house) : 0

  // served by stores that are on, or by the generator alone
  const serves = live && (givesPower(state) || (carries && byGenerator >= house))
  if (!serves) byGenerator = 0
  const carried = !serves ? 0 : house > 0 ? byGenerator / house : carries ? 1 : 0

  const leftW = Math.max(0, genW - byGenerator)
  const slot = Math.floor((m * plan.stepS) / (sunSlotMin * 60))
  for (let k = 0; k < n; k++) {
    const s = plan.stores[k]
    if (!s) continue
    const isOn = serves && on[k] === 1
    const W = isOn ? (need[k] ?? 0) * (1 - carried) : 0
    acOut[k] = W
    dcOut[k] = isOn && carried < 1 ? s.idleW + W / s.efficiencyFraction + s.lossPerW2 * W * W : 0
    charge(state, k, state.course.sky.sunW[k]?.[slot] ?? 0, leftW / n)
  }
  // what one of two cannot take of its half the other may have
  if (two && leftW > 0)
    for (let k = 0; k < n; k++)
      charge(state, k, state.course.sky.sunW[k]?.[slot] ?? 0, leftW - (acIn[1 - k] ?? 0))

  let part = 1
  /** the one that runs empty first of those that stand or fall together */
  let first = -1
  for (let k = 0; k < n; k++) {
    const s = plan.stores[k]
    if (!s) continue
    sums.sunUnusedWh += ((state.course.sky.sunW[k]?.[slot] ?? 0) - (sunIn[k] ?? 0)) * stepH
    const net = (sunIn[k] ?? 0) + (acIn[k] ?? 0) * s.chargerEfficiencyFraction - (dcOut[k] ?? 0)
    if (net < 0 && serves && on[k] === 1 && (plan.both || !two)) {
      const lasts = Math.max(0, (level[k] ?? 0) - (reserve[k] ?? 0)) / (-net * stepH)
      if (lasts < part) first = k
      part = Math.min(part, lasts)
    }
  }

  let genCharge = 0
  for (let k = 0; k < n; k++) {
    const s = plan.stores[k]
    if (!s) continue
    const out = dcOut[k] ?? 0
    const inW = (sunIn[k] ?? 0) + (acIn[k] ?? 0) * s.chargerEfficiencyFraction
    // the moment within the step at which it is empty; two that stand or fall together share it
    let share = part
    if (two && !plan.both && out > inW)
      share = Math.min(1, Math.max(0, (level[k] ?? 0) - (reserve[k] ?? 0)) / ((out - inW) * stepH))
    level[k] = (level[k] ?? 0) + (inW - out * share) * stepH
    const W = (acOut[k] ?? 0) * share
    const fromGen = (need[k] ?? 0) * carried
    // what the generator carries is not cut by an empty store
    const gets = !serves ? 0 : carried >= 1 ? 1 : on[k] ? share : 0
    got[k] = gets
    add(state, k, W, out > 0 ? share : 0, fromGen * gets)
    genCharge += acIn[k] ?? 0
    // it is off from that moment on, though the sun brings a little in what is left of the step
    const isEmpty =
      k === first ||
      (two && !plan.both) ||
      (level[k] ?? 0) <= (reserve[k] ?? 0) + 1e-9 * Math.max(1, capacity[k] ?? 0)
    if (on[k] && isEmpty && share < 1) empty(state, k, m + share)
    else if (!on[k]) revive(state, k, m)
    if (state.record) full(state, k, m)
  }
  if (generator && state.genOn) {
    const usedWh = (byGenerator + genCharge) * stepH
    sums.fuelWh = Math.max(0, sums.fuelWh - usedWh)
    sums.generatorH += stepH
    sums.gallons += usedWh / generator.WhPerGallon
  }
  whoGotIt(state, m, live)
  if (state.record) putStep(state, state.record, m, byGenerator + genCharge)
}

/**
 * What of the sun, and of the watts that the generator offers, the battery can take now; the generator throttles before the
 * sun is left unused.
 */
function charge(state: State, k: number, sunW: number, offeredW: number) {
  const { plan, capacity, level, stepH, acIn, sunIn, dcOut } = state
  const s = plan.stores[k]
  if (!s) return
  acIn[k] = s.charges ? Math.min(s.acChargeW, offeredW) : 0
  const holds = capacity[k] ?? 0
  const share = holds > 0 ? (level[k] ?? 0) / holds : 1
  // less and less when it is nearly full, nothing when it is too cold
  const taper =
    share <= s.taperFromFraction ? 1 : Math.max(0.1, (1 - share) / Math.max(1e-9, 1 - s.taperFromFraction))
  const accepts = s.charges ? Math.max(0, Math.min(s.acceptsW * taper, (holds - (level[k] ?? 0)) / stepH)) : 0
  const fromAc = (acIn[k] ?? 0) * s.chargerEfficiencyFraction
  let surplus = sunW + fromAc - (dcOut[k] ?? 0) - accepts
  let used = sunW
  if (surplus > 0) {
    const less = Math.min(fromAc, surplus)
    acIn[k] = (acIn[k] ?? 0) - less / s.chargerEfficiencyFraction
    surplus -= less
    used = Math.max(0, sunW - surplus)
  }
  sunIn[k] = used
}

/** Books a step of one store: watts to its loads, the share of the step it was on, watts straight from the generator. */
function add(state: State, k: number, W: number, share: number, fromGenW: number) {
  const { plan, sums, stepH, sunIn, acIn } = state
  const s = plan.stores[k]
  if (!s) return
  const { idleW: transformerIdleW, efficiencyFraction: keeps } = plan.transformer ?? noTransformer
  const inTransformer = W / keeps - W
  const ac = acIn[k] ?? 0
  sums.idleWh += (s.idleW - transformerIdleW) * share * stepH
  sums.transformerWh += (inTransformer + transformerIdleW * share) * stepH
  const bent = share > 0 ? (s.lossPerW2 * W * W) / share : 0
  sums.inverterWh += (W / s.efficiencyFraction + bent - W - inTransformer) * stepH
  sums.chargerWh += ac * (1 - s.chargerEfficiencyFraction) * stepH
  sums.sunWh += (sunIn[k] ?? 0) * stepH
  sums.generatorChargeWh += ac * stepH
  sums.generatorHouseWh += fromGenW * stepH
  sums.loadsWh += (W + fromGenW) * stepH
}
const noTransformer = { idleW: 0, efficiencyFraction: 1 }

/** The quiet steps all at once: every loss is in proportion to the watts, their squares or the time. */
function addQuiet(
  state: State,
  lane: { loadW: Float64Array; loadW2: Float64Array; sunW: Float64Array; steps: number },
) {
  const { plan, sums, stepH } = state
  const { idleW: transformerIdleW, efficiencyFraction: keeps } = plan.transformer ?? noTransformer
  plan.stores.forEach((s, k) => {
    const Wh = (lane.loadW[k] ?? 0) * stepH
    const h = lane.steps * stepH
    const inTransformer = Wh / keeps - Wh
    sums.loadsWh += Wh
    sums.idleWh += (s.idleW - transformerIdleW) * h
    sums.transformerWh += inTransformer + transformerIdleW * h
    const bentWh = s.lossPerW2 * (lane.loadW2[k] ?? 0) * stepH
    sums.inverterWh += Wh / s.efficiencyFraction + bentWh - Wh - inTransformer
    sums.sunWh += (lane.sunW[k] ?? 0) * stepH
  })
}

function empty(state: State, k: number, step: number) {
  const { on, outcome, stepH } = state
  on[k] = 0
  // of two in one step the earlier counts, whichever is looked at first
  if (step * stepH < outcome.emptyH) {
    outcome.emptyH = step * stepH
    outcome.emptyStore = k
  }
  mark(state, step, 'store empty', k)
}

function revive(state: State, k: number, m: number) {
  const { plan, on, level, reserve, capacity } = state
  const from = reserve[k] ?? 0
  const back = from + backAbove * ((capacity[k] ?? 0) - from)
  if (!plan.stores[k]?.works || (capacity[k] ?? 0) <= 0 || (level[k] ?? 0) < back) return
  on[k] = 1
  mark(state, m + 1, 'store back', k)
}

function full(state: State, k: number, m: number) {
  const { full: was, level, capacity } = state
  if ((capacity[k] ?? 0) <= 0) return
  const isFull = (level[k] ?? 0) >= (capacity[k] ?? 0) * 0.9999
  if (isFull && !was[k] && m > 0) mark(state, m + 1, 'full', k)
  was[k] = isFull ? 1 : 0
}

/** Puts down who was served for how much of the step, and who is dark for the first time. */
function whoGotIt(state: State, m: number, live: boolean) {
  const { plan, outcome, tierOn, got, stepH, record } = state
  const two = state.stores > 1
  // where nothing is let go the first tier's groups stand for all
  const groups = record || plan.shedding.policy !== 'none' ? 6 : 2
  for (let g = 0; g < groups; g++) {
    const gets = tierOn[g >> 1] ? (got[two ? g & 1 : 0] ?? 0) : 0
    outcome.servedH[g] = (outcome.servedH[g] ?? 0) + gets * stepH
    const of = record?.served[g]
    if (of) of[m] = gets
  }
  if (!live) return
  let least = 1
  for (let k = 0; k < state.stores; k++) {
    if (!plan.storeFeeds[k] || (got[k] ?? 0) >= least) continue
    least = got[k] ?? 0
    // one that was never on, and is waited for, is as empty as one that ran down
    if (outcome.emptyH === never && plan.stores[k]?.works) {
      outcome.emptyH = (m + least) * stepH
      outcome.emptyStore = k
    }
  }
  if (least < 1)
    for (let t = 0; t < 3; t++) if (tierOn[t]) dark(state, t, m + least, 'store empty', outcome.emptyStore)
}

function putStart(record: CourseRecord, level: Float64Array) {
  record.levelWh[0] = total(level)
  level.forEach((Wh, k) => {
    const of = record.storesWh[k]
    if (of) of[0] = Wh
  })
}

function putStep(state: State, record: CourseRecord, m: number, generator: number) {
  const { level, sunIn, acOut, dcOut, acIn, need, got, plan } = state
  record.levelWh[m + 1] = total(level)
  let loads = 0
  let lost = 0
  for (let k = 0; k < state.stores; k++) {
    const of = record.storesWh[k]
    if (of) of[m + 1] = level[k] ?? 0
    const gets = got[k] ?? 0
    loads += (need[k] ?? 0) * gets
    lost +=
      ((dcOut[k] ?? 0) - (acOut[k] ?? 0)) * gets +
      (acIn[k] ?? 0) * (1 - (plan.stores[k]?.chargerEfficiencyFraction ?? 1))
  }
  record.sunW[m] = total(sunIn)
  record.generatorW[m] = generator
  record.loadsW[m] = loads
  record.lostW[m] = lost
}
