import type { Place, Supply } from '../isolation/house'
import type { KindOfWork } from '../work/parts/tasks'
import type { ViewOfWork } from '../work/parts/where'
import type { Hold } from './holds'

/** The order hands work in. `off`: with power off at the place, inside a window. */
export const phases = {
  arrive: { name: 'Arrive', turn: 0 },
  mount: { name: 'Mount', turn: 1 },
  raceways: { name: 'Raceways', turn: 2 },
  isolate: { name: 'Switch off and lock', turn: 3 },
  prove: { name: 'Prove dead', turn: 4 },
  enter: { name: 'Bring the wires in', turn: 5 },
  ground: { name: 'Ground', turn: 6 },
  neutral: { name: 'Neutral', turn: 7 },
  hots: { name: 'Hots, one splice at a time', turn: 8 },
  devices: { name: 'Devices', turn: 9 },
  close: { name: 'Covers', turn: 10 },
  energise: { name: 'Power back', turn: 11 },
  labels: { name: 'Labels', turn: 12 },
  source: { name: 'Energise the source', turn: 13 },
  commission: { name: 'Prove it works', turn: 14 },
  remarks: { name: 'Remarks of the inspection', turn: 15 },
} as const
export type Phase = keyof typeof phases

/** A handle that a hand opens, and how it is kept there. */
export interface Opened {
  id: string
  name: string
  /** how it stands when it is open: `off`, `out` */
  setting: string
  lock: string
  /** supplies that it keeps away */
  keepsAway: string[]
}

/** A conductor as it is drawn beside a step. */
export interface Wire {
  mark: string
  colour: string
  ground: boolean
  from: string
  to: string
}

/** One step of the work, as it is done by one hand or two without putting it down. */
export interface Task {
  id: string
  phase: Phase
  text: string
  /** what is done, in its turn, and what to mind */
  lines: string[]
  work: KindOfWork
  minutes: number
  people: 1 | 2
  tools: readonly string[]
  parts: string[]
  /** ids of the planned changes that are built once all of their tasks are done */
  changes: string[]
  /** ids of tasks that are done before it */
  restsOn: string[]
  /** the window in which power is off for it; null where nothing has to be */
  window: string | null
  /** what is open today, or not there yet, and must stay so while it is done */
  keptOpen: Opened[]
  /** bare metal that hands meet */
  places: Place[]
  /** live metal in the same enclosure even then: named on the page */
  staysLive: Place[]
  holds: Hold[]
  /** the conductors that are made up: what the drawing shows */
  wires: Wire[]
  circuitIds: string[]
  panelId: string | null
  at: ViewOfWork
}

/** Power off once: what is opened, what is dark meanwhile, and for how long. */
export interface Window {
  id: string
  name: string
  opened: Opened[]
  /** open today, or not there yet: they stay open until the end */
  keptOpen: Opened[]
  dark: { circuitId: string; name: string; cold: boolean }[]
  minutes: number
  staysLive: Place[]
  /** with nothing but the mains off: by what the same places are live, or could be */
  mainsOnly: { now: Supply[]; could: Supply[] }
}

export interface WorkOrder {
  tasks: Task[]
  windows: Window[]
  /** power off at any place, minutes */
  offMinutes: number
  /** what it would be if all of it were done with the power off */
  offUnpreparedMinutes: number
  minutes: number
  /** circuits that stay dark after the last window until the source is brought up: they are led behind it */
  waiting: { circuitId: string; name: string; cold: boolean }[]
  /** by circuit: how long it is dark, the longest first */
  dark: { circuitId: string; name: string; cold: boolean; minutes: number }[]
  /** what the order cannot tell */
  open: string[]
}
