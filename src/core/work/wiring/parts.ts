import type { Leg } from '../../panel/leg'
import type { ConductorSize, Material } from '../../units/tables/conductors'
import type { ConduitKind } from '../../units/tables/conduit'

/** What a conductor is there for. */

export type ConductorFunction = 'hot' | 'neutral' | 'ground' | 'plus' | 'minus' | 'sense'

/** A place where a conductor ends: sizes it takes, how many, and how far the wire is stripped for it. */
export interface Terminal {
  id: string
  name: string
  /** AWG, the thinnest and the thickest: what is usual, the label decides */
  thinnest: ConductorSize
  thickest: ConductorSize
  most: number
  stripIn: number
}

type DeviceKind =
  | 'breaker'
  | 'lugs'
  | 'neutral bar'
  | 'ground bar'
  | 'switch'
  | 'managed panel'
  | 'inlet'
  | 'inverter'
  | 'bank'
  | 'disconnect'
  | 'transformer'
  | 'receptacle'
  | 'splice'
  | 'current transformer'
  | 'array'
  | 'circuit'

/** Whatever has terminals: a breaker, a bar, a device, a splice, or the branch circuit itself, as its wires come in. */
export interface Device {
  id: string
  kind: DeviceKind
  name: string
  /** the enclosure that it sits in, by its name; a device that is its own stands alone */
  within: string
  terminals: Terminal[]
}

/** One end of a conductor. */
export interface End {
  device: string
  terminal: string
}

/** One conductor from terminal to terminal. */
export interface Conductor {
  id: string
  function: ConductorFunction
  /** of a hot */
  leg: Leg | null
  circuitId: string | null
  /** what is written on both its ends */
  mark: string
  /** null: as its device has it, a lead too thin for the tables */
  size: ConductorSize | null
  material: Material
  insulationC: 60 | 75 | 90
  colour: string
  from: End
  to: End
  route: string
  /** from end to end, with what is left at each, ft */
  cutFt: number
  /** A of the breaker ahead of it; null where none is */
  breakerA: number | null
  /** the question whose answer its size is, for the calculator of ampacity; null where the size is not asked of a breaker */
  asked: SizeAsked | null
  /** the same of an equipment ground, for the calculator of grounds */
  groundAsked: GroundAsked | null
  /** `bought`; with a device as its own lead; or there already, and led elsewhere */
  comes: 'bought' | 'with its device' | 'there already'
}

/** What the thinnest size that a breaker protects depends on. */
export interface SizeAsked {
  material: Material
  ambientC: number
  currentCarrying: number
  nipple: boolean
  roundUp: boolean
}

/** What an equipment ground depends on. */
export interface GroundAsked {
  breakerA: number
  circuitSize: ConductorSize
  requiredSize?: ConductorSize
  installedSize?: ConductorSize
}

/** A way that conductors go together. */
export interface Route {
  id: string
  name: string
  /** enclosures at its ends */
  from: string
  to: string
  /** the raceway; null inside one enclosure, and where the wires lie already */
  raceway: { kind: ConduitKind; tradeSize: string } | null
  lengthFt: number
  /** who says how long it is: the job, the device’s own leads, or nobody yet */
  lengthFrom: 'job' | 'sketch' | 'device' | 'assumed'
  /** keys of the enclosures at its ends */
  ends: [string, string]
  bendsDeg: number
  /** straps */
  supports: number
  /** boxes to pull from, where bends come to more than 360° */
  pullPoints: number
  wet: boolean
  through: 'finished' | 'fire-rated' | null
  /** 24 in or shorter */
  nipple: boolean
  /** conductors that carry current and are counted together */
  currentCarrying: number
  /** share of the raceway that is filled, and that may be */
  fillFraction: number | null
  mayFillFraction: number | null
}

/** An enclosure or a thing on the wall. */
export interface Enclosure {
  key: string
  name: string
}

/** Wires that are joined, and with what. */
export interface Splice {
  device: string
  /** key of the connector; null where none of the list takes them */
  connector: string | null
  name: string
}

/** A box that the work puts up, chosen by its fill. */
export interface Box {
  name: string
  box: string
  key: string
  requiredIn3: number
  volumeIn3: number
}

/** What the plan cannot tell, or must be looked at: at a route, a device, or the whole. */
export interface OpenPoint {
  text: string
  at: string | null
}

/** Which conductor goes where, through what: derived from a job as planned. */
export interface WiringPlan {
  enclosures: Enclosure[]
  splices: Splice[]
  boxes: Box[]
  devices: Device[]
  conductors: Conductor[]
  routes: Route[]
  open: OpenPoint[]
}
