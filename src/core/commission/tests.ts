import type { State } from '../isolation/live'
import type { RunningLoad } from '../loads/as-read'
import type { Working } from '../working'

/** The order in which a house is usually proven; any sensible one will do. */
export const groups = {
  dead: { name: 'Dead', about: 'before anything is switched on' },
  legs: { name: 'Inlet and legs', about: 'before the breaker is closed' },
  neutral: { name: 'Neutral and ground', about: 'what must not flow, and one bond' },
  manual: { name: 'Kept apart', about: 'utility and source, tried both ways' },
  matrix: { name: 'Circuit by circuit', about: 'utility, off, source' },
  far: { name: 'Far outlets', about: 'under load, and their protection' },
  start: { name: 'Start and overload', about: 'the largest motor; what opens' },
  automatic: { name: 'By itself', about: 'loss, return, sensors, solar' },
  capacity: { name: 'Capacity', about: 'what comes out, what goes back in' },
  generator: { name: 'Generator', about: 'volts, fuel, alarms' },
  drill: { name: 'Outage drill', about: 'there and back, as on the card' },
  inspection: { name: 'Inspection', about: 'by the authority' },
} as const
export type GroupKey = keyof typeof groups
export const groupKeys = Object.keys(groups) as GroupKey[]

/** What is read with, and what makes its figures worth nothing. */
export const instruments = {
  ohms: { name: 'Multimeter on Ω', mind: 'Leads together first: under 0.5 Ω. Nothing may be live.' },
  volts: {
    name: 'Multimeter on AC volts',
    mind: 'Proven on a live outlet before and after; on V, not mV.',
  },
  tester: {
    name: 'Two-pole tester, or low impedance',
    mind: 'Proven on a live outlet before and after. It loads the wire: phantoms collapse.',
  },
  megohms: {
    name: 'Insulation tester, 500 V',
    mind: 'Everything electronic unplugged, breakers open; discharged afterwards.',
  },
  clamp: {
    name: 'Clamp meter on AC amps',
    mind: 'One conductor in the jaw, jaw shut, zeroed away from wires.',
  },
  inrush: { name: 'Clamp meter with inrush hold', mind: 'Armed before the motor starts; from rest.' },
  plug: { name: 'Plug-in meter', mind: 'At the outlet, the load plugged into it.' },
  display: {
    name: 'The unit’s own display',
    mind: 'It settles within seconds; small loads round to nothing.',
  },
  torque: { name: 'Torque tool', mind: 'Set to the label; within its calibration date.' },
  watch: { name: 'Watch', mind: '' },
  eyes: { name: 'Eyes and hands', mind: '' },
} as const
export type InstrumentKey = keyof typeof instruments

export type TestUnit = 'V' | 'A' | 'W' | 'Ω' | 'MΩ' | 's' | 'min' | 'Hz' | 'Wh' | '%' | 'gal/h' | 'in·lb'

/** Where and between what an instrument is held: a place of the house by its id, and its two points. */
export interface Probe {
  place: string
  /** as it stands behind a comma: `at the inlet` */
  at: string
  points: readonly [string, string] | readonly [string]
}

/** What is expected of a figure: passed between `from` and `to`, doubtful as far as `doubtFrom` and `doubtTo`. */
export interface Expected {
  from: number
  to: number
  doubtFrom?: number
  doubtTo?: number
  working: Working
}

/** One thing that is read, or chosen from what may have been seen. */
export interface Asked {
  key: string
  name: string
  unit: TestUnit | null
  instrument: InstrumentKey
  probe: Probe
  /** null: it is judged together with others */
  expected: Expected | null
  /** what may have been seen, the first as it should be; only without a unit */
  choices?: readonly string[]
  /** it may be left empty */
  optional?: true
  /** what is set otherwise for this one than for the test */
  when?: { state?: State; on?: readonly string[]; says: string }
}

/** What several readings mean together. */
export type Together =
  | {
      by: 'outlet'
      keys: { hotNeutralV: string; neutralGroundV: string; hotGroundV: string }
      at: 'unit-alone' | 'unit-with-plug' | 'inlet' | 'house-outlet' | 'unknown'
      wanted: readonly string[]
    }
  | {
      by: 'legs'
      keys: { l1V: string; l2V: string; l1l2V: string; again: readonly string[] }
      wanted: readonly string[]
    }
  /** the legs must not move apart by more when one of them is loaded, V */
  | {
      by: 'spread'
      keys: { before: readonly [string, string]; loaded: readonly [string, string] }
      mostV: number
    }
  /** a loaded reading against the same unloaded: over known ohms within so many V, and never below either floor */
  | {
      by: 'drop'
      keys: { unloaded: string; loaded: string; amps: string }
      /** of the whole way; null while its length is not known: then `mostOhms` */
      ohms: number | null
      mostOhms: number
      /** with less than this the load was not on */
      leastA: number
      withinV: number
      leastV: number
      leastFraction: number
    }
  /** what a circuit draws against its loads, those that ran */
  | { by: 'watts'; key: string; loads: readonly RunningLoad[] }
  /** delivered and put back, Wh, against the label and the design */
  | { by: 'capacity'; ratedWh: number; idleW: number; efficiencyFraction: number; leftFraction: number }

/** What can be wrong where a test fails: said as a thing to look for, and put right. */
export interface Cause {
  /** a row of `causes`, and what it is of: `ground-open:c5` */
  id: string
  text: string
  mend: string
}

/** How the house stands for a test: by supply, with handles set, and with loads that run. */
export interface SetUp {
  supply: 'dead' | 'utility' | 'source'
  state: State
  /** ids of the loads that run; `choose`: those that are ticked */
  on: readonly string[]
  says: string[]
}

/** One test of the list. */
export interface Test {
  id: string
  group: GroupKey
  text: string
  lines: string[]
  setUp: SetUp
  asks: Asked[]
  together: Together[]
  causes: Cause[]
  circuitIds: string[]
  panelId: string | null
  /** ids of tests that come first, for the sake of hands and equipment */
  restsOn: string[]
  /** articles, by the numbers of 2020 */
  cite: string[]
  /** minutes that what just ran has to rest before */
  restMin: number
  /** where the instrument is at hand: it is not missed where it is left open */
  optional: boolean
  /** stands for what is tested and how it is connected: where that has changed, it is to be read anew */
  basis: string
}

/** How the house stands for one reading of a test: its handles, and what runs. */
export const wantedOf = (test: Pick<Test, 'setUp'>, asked: Pick<Asked, 'when'>) => ({
  state: { ...test.setUp.state, ...asked.when?.state },
  on: asked.when?.on ?? test.setUp.on,
})

/** By circuit and supply. */
export const supplies = ['utility', 'off', 'source'] as const
export type MatrixSupply = (typeof supplies)[number]

export interface MatrixRow {
  circuitId: string
  name: string
  /** ids of the tests of the row, by supply; null where there is nothing to see */
  tests: Record<MatrixSupply, string | null>
  /** expected on the source, W; null where it must stay dead */
  sourceW: number | null
  /** it starts against pressure when it has just run */
  compressor: boolean
}

export interface TestList {
  tests: Test[]
  matrix: MatrixRow[]
  /** what the unit gives, W: the running total is held against it */
  sourceW: number | null
  /** what cannot be told, or is not built yet */
  open: string[]
}
