import { coolsS, opensWithinS } from '../wiring/trip-curve'
import { type Runs, ticksPerStep } from './course'
import type { Plan } from './plan'

/**
 * Looks into one step to the second: the first instant at which what is on exceeds the source; and warms the breaker of the
 * way, which opens by its curve. `breakerShare` is the part of its time that this one takes.
 */
export function examiner(plan: Plan, runs: Runs, breakerShare: number) {
  const at = new Int32Array(plan.loads.length)
  for (let l = 0; l < plan.loads.length; l++) at[l] = runs.first[l] ?? 0
  const holds = Math.max(1, Math.round((plan.limits.held.seconds / plan.stepS) * ticksPerStep))
  const { limits } = plan
  const sums: [number, number] = [0, 0]
  const VAat = (tick: number, tierOn: Uint8Array, starting: number): number => {
    sums[0] = 0
    sums[1] = 0
    let largest = 0
    let beside = -1
    for (let l = 0; l < plan.loads.length; l++) {
      const load = plan.loads[l]
      if (!load || !tierOn[load.tier - 1]) continue
      const last = runs.first[l + 1] ?? 0
      for (let i = at[l] ?? 0; i < last; i++) {
        if ((runs.start[i] ?? 0) > tick) break
        if ((runs.end[i] ?? 0) <= tick) continue
        const VA = runs.VA[i] ?? 0
        sums[0] += VA * load.share[0]
        sums[1] += VA * load.share[1]
        if (l !== starting && VA > largest) {
          largest = VA
          beside = l
        }
      }
    }
    return beside
  }
  const { held, breaker } = limits
  const over = () =>
    sums[0] + sums[1] > held.totalVA || (limits.split && (sums[0] > held.legVA[0] || sums[1] > held.legVA[1]))
  const heat: [number, number] = [0, 0]
  const cools = Math.exp(-plan.stepS / coolsS)
  let seen = 0
  const half = ticksPerStep >> 1
  /** The breaker's heat after this step, 1 where it opens; what is largest on it then, and beside that. */
  const warm = (step: number, tierOn: Uint8Array) => {
    if (!breaker) return null
    const tick = step * ticksPerStep + half
    const largest = VAat(tick, tierOn, -1)
    const pause = Math.exp((-Math.max(0, step - seen - 1) * plan.stepS) / coolsS)
    seen = step
    let opens = false
    for (const leg of [0, 1] as const) {
      const VA = breaker.perLeg ? sums[leg] : leg ? 0 : sums[0] + sums[1]
      const within = opensWithinS(VA / breaker.ratedVA, breaker.mustOpen) * breakerShare
      heat[leg] =
        within === Number.POSITIVE_INFINITY
          ? heat[leg] * pause * cools
          : heat[leg] * pause + plan.stepS / within
      if (heat[leg] >= 1) opens = true
    }
    if (!opens || largest < 0) return null
    heat[0] = 0
    heat[1] = 0
    return { trigger: largest, beside: VAat(tick, tierOn, largest) }
  }

  return (step: number, tierOn: Uint8Array) => {
    const from = step * ticksPerStep
    const to = from + ticksPerStep
    let trigger = -1
    let beside = -1
    let when = Number.POSITIVE_INFINITY
    for (let l = 0; l < plan.loads.length; l++) {
      const last = runs.first[l + 1] ?? 0
      while ((at[l] ?? 0) < last && (runs.end[at[l] ?? 0] ?? 0) <= from) at[l] = (at[l] ?? 0) + 1
    }
    for (let l = 0; l < plan.loads.length; l++) {
      const load = plan.loads[l]
      if (!load || !tierOn[load.tier - 1]) continue
      const last = runs.first[l + 1] ?? 0
      for (let i = at[l] ?? 0; i < last; i++) {
        const begins = runs.start[i] ?? 0
        if (begins >= to) break
        const end = runs.end[i] ?? 0
        if (end <= begins) continue
        const tick = Math.max(begins, from)
        if (tick >= when) continue
        const besides = VAat(tick, tierOn, l)
        // a start, on top of what else is on
        const startVA = begins >= from ? (runs.startVA[i] ?? 0) : 0
        const ownVA = runs.VA[i] ?? 0
        const extra = Math.max(0, startVA - ownVA)
        const surges =
          startVA > 0 &&
          (sums[0] + sums[1] + extra > limits.surgeVA ||
            (limits.split &&
              ((load.share[0] > 0 && sums[0] + extra * load.share[0] > limits.legSurgeVA) ||
                (load.share[1] > 0 && sums[1] + extra * load.share[1] > limits.legSurgeVA))))
        let overloads = false
        if (!surges && over()) {
          VAat(tick + holds, tierOn, l)
          overloads = over()
        }
        if (!surges && !overloads) continue
        when = tick
        // what came on last did it; after a reset, where all are on already, the largest
        const cameOn = begins >= from
        trigger = cameOn || besides < 0 ? l : besides
        beside = cameOn ? besides : trigger === l ? -1 : l
      }
    }
    return when === Number.POSITIVE_INFINITY ? warm(step, tierOn) : { trigger, beside }
  }
}
