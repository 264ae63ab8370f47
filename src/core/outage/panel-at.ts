import type { Plan } from './plan'
import type { CourseTrace } from './trace'

/** What a circuit does at an hour of a course. */
export interface CircuitThen {
  id: string
  name: string
  tier: 1 | 2 | 3
  live: boolean
  W: number
  /** the loads that run */
  runs: string[]
}

/** The panel as it is at an hour of the trace. */
export function panelAt(
  plan: Pick<Plan, 'circuits' | 'loads' | 'stores' | 'shedding'>,
  trace: CourseTrace,
  asked: number,
): CircuitThen[] {
  // the very end is looked at as it was just before
  const hour = Math.min(asked, trace.hours - trace.stepS / 3600)
  const live = plan.circuits.map(c => {
    const groups = ([0, 1] as const)
      .filter(leg => c.share[leg] > 0)
      .map(leg => (c.tier - 1) * 2 + (plan.stores.length > 1 ? leg : 0))
    return groups.every(g => !(trace.darkFromTo[g] ?? []).some(([from, to]) => hour >= from && hour < to))
  })
  const states = plan.circuits.map(
    ({ id, name, tier }, n): CircuitThen => ({ id, name, tier, live: live[n] ?? false, W: 0, runs: [] }),
  )
  const h = Math.floor(hour + (trace.beginsH - Math.floor(trace.beginsH)))
  plan.loads.forEach((load, l) => {
    const state = states[load.circuit]
    if (state?.live) state.W += trace.hourlyW ? (trace.hourlyW[l]?.[h] ?? 0) : (trace.idleW[l] ?? 0)
  })
  const { runs } = trace
  for (let i = 0; i < runs.load.length; i++) {
    const load = plan.loads[runs.load[i] ?? -1]
    const state = load && states[load.circuit]
    if (!state?.live || (runs.startH[i] ?? 0) > hour || (runs.endH[i] ?? 0) <= hour) continue
    state.W += runs.W[i] ?? 0
    if (load && !state.runs.includes(load.name)) state.runs.push(load.name)
  }
  return states
}
