import type { Leg } from '../../panel/leg'
import type { ConductorSize, Material } from '../../units/tables/conductors'
import type { ConduitKind } from '../../units/tables/conduit'
import type { Conductor, ConductorFunction, Device, End, Route, Terminal } from './parts'

/** A conductor before it is sized. */
export interface Drawn {
  function: ConductorFunction
  leg?: Leg
  circuitId?: string
  mark: string
  from: End
  to: End
  route: string
  /** A of what protects it; a conductor without is as large as the hots beside it */
  breakerA: number | null
  /** what it is, where that is not chosen: a lead, or a wire that is there */
  size?: ConductorSize
  material?: Material
  comes?: Conductor['comes']
  /** a neutral that carries no more than the difference of its hots does not count for heat (310.15(E)) */
  balanced?: boolean
  /** it opens for its own circuit only: no rounding up where it feeds several receptacles (240.4(B)) */
  feeder?: boolean
}

/** A route before its raceway is chosen. */
export interface RouteDrawn extends Pick<Route, 'id' | 'name' | 'from' | 'to'> {
  /** null: inside one enclosure, or as it lies already */
  conduit: ConduitKind | null
  /** where the job names it */
  tradeSize?: string | undefined
  lengthFt: number
  lengthFrom: Route['lengthFrom']
  ambientC?: number | undefined
  bendsDeg?: number | undefined
  wet?: boolean | undefined
  through?: Route['through'] | undefined
  /** its conductors are its device’s own, and as long as they are */
  leads?: boolean
}

/** A plan while it is drawn: devices by name, each with the terminals that were asked of it. */
export interface Draft {
  devices: Map<string, Device>
  routes: Map<string, RouteDrawn>
  conductors: Drawn[]
  /** enclosures that the work puts up for wires alone, by their names */
  boxes: Set<string>
  /** what the plan cannot tell, and where that is looked at: a route, a device, or the whole */
  open: Map<string, string | null>
}

export const newDraft = (): Draft => ({
  devices: new Map(),
  routes: new Map(),
  conductors: [],
  boxes: new Set(),
  open: new Map(),
})

/** The device of that id, made where it is not there yet, with these terminals beside those that it has. */
export function put(draft: Draft, device: Device): Device {
  const was = draft.devices.get(device.id)
  if (!was) {
    draft.devices.set(device.id, device)
    return device
  }
  for (const t of device.terminals) if (!was.terminals.some(w => w.id === t.id)) was.terminals.push(t)
  return was
}

export const lay = (draft: Draft, route: RouteDrawn): string => {
  if (!draft.routes.has(route.id)) draft.routes.set(route.id, route)
  return route.id
}

export const draw = (draft: Draft, conductor: Drawn) => {
  draft.conductors.push(conductor)
}

export const end = (device: string, terminal: string | Terminal): End => ({
  device,
  terminal: typeof terminal === 'string' ? terminal : terminal.id,
})

/** Something that the plan cannot tell, or that is wrong with it; at a route or device. */
export const tell = (draft: Draft, text: string, at: string | null = null) => {
  if (!draft.open.has(text)) draft.open.set(text, at)
}
