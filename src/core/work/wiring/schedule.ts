import type { Conductor, End, WiringPlan } from './parts'

/** A line of the schedule: one conductor as it is cut, marked and made up. */
export interface ScheduleRow {
  id: string
  mark: string
  function: string
  from: string
  to: string
  sizeAwg: string
  metal: string
  colour: string
  route: string
  cutFt: number
  /** bare at its ends, in */
  stripFromIn: number
  stripToIn: number
  comes: Conductor['comes']
}

/** The conductors of a plan in the order of their routes, one line each, ends by name. */
export function scheduleOf(plan: WiringPlan): ScheduleRow[] {
  const devices = new Map(plan.devices.map(d => [d.id, d]))
  const routes = new Map(plan.routes.map(r => [r.id, r.name]))
  const at = ({ device, terminal }: End) => {
    const found = devices.get(device)
    const here = found?.terminals.find(t => t.id === terminal)
    return { text: `${found?.name ?? device}: ${here?.name ?? terminal}`, stripIn: here?.stripIn ?? 0 }
  }
  return plan.conductors.map(c => {
    const [from, to] = [at(c.from), at(c.to)]
    return {
      id: c.id,
      mark: c.mark,
      function: c.leg ? `${c.function} ${c.leg}` : c.function,
      from: from.text,
      to: to.text,
      sizeAwg: c.size ?? 'its own',
      metal: c.material === 'al' ? 'aluminum' : 'copper',
      colour: c.colour,
      route: routes.get(c.route) ?? c.route,
      cutFt: c.cutFt,
      stripFromIn: from.stripIn,
      stripToIn: to.stripIn,
      comes: c.comes,
    }
  })
}
