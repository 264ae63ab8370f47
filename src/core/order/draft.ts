import type { House } from '../isolation/house'
import type { Job } from '../job/schema'
import type { Panel } from '../panel/schema'
import type { KindOfWork } from '../work/parts/tasks'
import type { ViewOfWork } from '../work/parts/where'
import type { Conductor, WiringPlan } from '../work/wiring/parts'
import type { Hold, HoldKind, ReadingAsked } from './holds'
import type { Phase, Wire } from './task'

/** A task before its minutes and its place in the order are known. */
export interface Drafted {
  id: string
  phase: Phase
  text: string
  lines: string[]
  work: KindOfWork
  /** how many of that kind of work: circuits, feet, splices */
  count: number
  /** of the minutes of its row, where several tasks share it */
  share: number
  /** the window that it opens, proves, closes or ends; others get theirs by what they touch */
  window: string | null
  changes: string[]
  restsOn: string[]
  /** ids of places of bare metal */
  metal: string[]
  holds: Hold[]
  wires: Wire[]
  circuitIds: string[]
  panelId: string | null
  at: ViewOfWork
}

/** The job that an order is made for: with what was built as if it were still to do, so that the order stands while the work goes on. */
export interface Scene {
  job: Job
  /** as planned: its panels */
  planned: Job
  plan: WiringPlan
  found: House
  whole: House
}

export const hold = (
  task: string,
  kind: HoldKind,
  text: string,
  facts: Partial<Omit<Hold, 'kind' | 'text'>> & { of?: string } = {},
): Hold => {
  const { of, ...rest } = facts
  return {
    id: `${task}#${kind}${of === undefined ? '' : `:${of}`}`,
    kind,
    text,
    readings: [],
    could: [],
    ...rest,
  }
}

export const reading = (
  key: string,
  name: string,
  unit: ReadingAsked['unit'],
  role: ReadingAsked['role'],
): ReadingAsked => ({ key, name, unit, role })

export const torqueHold = (task: string, conductors: readonly Conductor[]): Hold => {
  const size = conductors.find(c => c.size)?.size
  return hold(
    task,
    'torque',
    'Torque each screw to its label, with the torque tool: the value, and which tool.',
    {
      readings: [reading('torque', 'Torque of the last screw', 'in·lb', 'torque')],
      ...(size && { size }),
    },
  )
}

/** The panel that an enclosure of the wiring plan is, as planned; undefined for a device or a box. */
export const panelNamed = ({ planned }: Scene, within: string): Panel | undefined =>
  planned.panels.find(p => p.name === within)

/** Whether a panel stands there already. */
export const stands = ({ job }: Scene, panelId: string): boolean => job.panels.some(p => p.id === panelId)

export const task = (facts: Pick<Drafted, 'id' | 'phase' | 'text' | 'work'> & Partial<Drafted>): Drafted => ({
  lines: [],
  count: 1,
  share: 1,
  window: null,
  changes: [],
  restsOn: [],
  metal: [],
  holds: [],
  wires: [],
  circuitIds: [],
  panelId: null,
  at: { view: 'plan' },
  ...facts,
})
