/** Watt-hours by name. In: sun, fuel and what was stored; out: loads; lost; left. */
export interface Account {
  startWh: number
  sunWh: number
  /** of the sun there was, what could not be used */
  sunUnusedWh: number
  /** from the generator, to the loads and into the charger */
  generatorHouseWh: number
  generatorChargeWh: number
  loadsWh: number
  idleWh: number
  inverterWh: number
  transformerWh: number
  chargerWh: number
  endWh: number
}

export const causes = ['lasted', 'store empty', 'trip', 'let go', 'cannot carry', 'too cold'] as const
export type Cause = (typeof causes)[number]

export const eventKinds = [
  'sunrise',
  'sunset',
  'generator on',
  'generator off',
  'fuel gone',
  'let go',
  'back on',
  'trip',
  'reset',
  'store empty',
  'store back',
  'full',
] as const
export type EventKind = (typeof eventKinds)[number]

export interface OutageEvent {
  hour: number
  kind: EventKind
  /** tier, store or load that it is about */
  about: number
}

/** An overload: what came on, beside what. */
export interface Trip {
  hour: number
  /** load that came on last, and the largest beside it; −1 for none */
  trigger: number
  beside: number
}

export interface CourseOutcome {
  /** hours until the first circuit of each tier was dark; Infinity for never */
  firstDarkH: [number, number, number]
  /** and why */
  cause: [Cause, Cause, Cause]
  /** the store, or the load, that it came from */
  causeAt: number
  /** a store first ran empty, h */
  emptyH: number
  emptyStore: number
  trips: Trip[]
  /** overloads that somebody soon resets are borne; this one ended it: a must-run load stays off, or nobody resets it for hours */
  tripEnds: boolean
  /** served hours by tier and leg: 0 L1, 1 L2 */
  servedH: Float64Array
  /** loads that were left off after tripping again and again */
  leftOff: number[]
  generatorH: number
  gallons: number
  endWh: number
  account: Account
}

/** What happened, step by step; filled only where it is asked for. */
export interface CourseRecord {
  /** all stores together at the beginning of each step and at the end, Wh */
  levelWh: Float64Array
  storesWh: Float64Array[]
  sunW: Float64Array
  generatorW: Float64Array
  loadsW: Float64Array
  lostW: Float64Array
  /** served part of each step, by tier × 2 + leg */
  served: Float64Array[]
  marks: OutageEvent[]
}
