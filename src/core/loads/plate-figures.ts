import { figure } from '../units/format'
import type { UnitOfMeasure } from '../working'
import type { Plate } from './nameplate'

const wattsPerHorsepower = 746
/** Input power over shaft power of a small motor, where the plate gives horsepower alone. An assumption. */
const motorEfficiency = 0.65
/** Of a small motor whose plate does not say. An assumption. */
const motorPowerFactor = 0.8

/** Locked-rotor kVA per horsepower by code letter, from and to: NEC table 430.7(B). */
const codeLetters: Record<string, readonly [number, number]> = {
  A: [0, 3.15],
  B: [3.15, 3.55],
  C: [3.55, 4],
  D: [4, 4.5],
  E: [4.5, 5],
  F: [5, 5.6],
  G: [5.6, 6.3],
  H: [6.3, 7.1],
  J: [7.1, 8],
  K: [8, 9],
  L: [9, 10],
  M: [10, 11.2],
  N: [11.2, 12.5],
  P: [12.5, 14],
  R: [14, 16],
  S: [16, 18],
  T: [18, 20],
  U: [20, 22.4],
  V: [22.4, 25],
}

/** A figure that a plate leads to, and how. */
export interface Calculated {
  value: number
  unit: UnitOfMeasure
  how: string
  low?: number
  high?: number
}

export interface PlateReading {
  motor: boolean
  volts: number
  runningA: Calculated | null
  runningVA: Calculated | null
  runningW: Calculated | null
  powerFactor: Calculated | null
  lockedRotorA: Calculated | null
  /** what to know of it: ampacity against running current, what a plate cannot tell */
  notes: string[]
  /** what cannot be, by the key to look at again */
  impossible: { key: keyof Plate; message: string }[]
}

const nominal = (volts: number): 120 | 240 | null =>
  volts >= 100 && volts <= 130 ? 120 : volts >= 200 && volts <= 250 ? 240 : null

/**
 * What a nameplate comes to on a circuit of `circuitV`: running amps, volt-amps, watts, power factor, locked-rotor amps,
 * each with how; and what on it cannot be. Source: S = V × I, P = S × power factor, 746 W per horsepower,
 * code letters by NEC table 430.7(B); minimum circuit ampacity by NEC 440.4(B) and 430.24.
 */
export function derivation(plate: Plate, circuitV: 120 | 240): PlateReading {
  const { watts, horsepower, minCircuitA, maxBreakerA, ratedLoadA, lockedRotorA, hz } = plate
  const motor =
    lockedRotorA !== undefined ||
    horsepower !== undefined ||
    ratedLoadA !== undefined ||
    plate.codeLetter !== undefined
  const volts = plate.volts ?? circuitV
  const vText = plate.volts === undefined ? `${circuitV} V of the circuit` : `${figure(volts)} V`
  const runningA = amps(plate, volts, motor)
  const runningVA: Calculated | null =
    plate.VA !== undefined
      ? { value: plate.VA, unit: 'VA', how: 'as printed' }
      : runningA && {
          value: volts * runningA.value,
          unit: 'VA',
          how: `${vText} × ${figure(runningA.value)} A`,
        }
  const readFactor =
    plate.powerFactor ?? (watts !== undefined && runningVA ? Math.min(1, watts / runningVA.value) : undefined)
  const factor = readFactor ?? (motor ? motorPowerFactor : 1)
  const runningW = realPower(plate, runningVA, factor, readFactor === undefined)
  return {
    motor,
    volts,
    runningA,
    runningVA,
    runningW,
    powerFactor:
      readFactor === undefined
        ? null
        : {
            value: readFactor,
            unit: 'fraction',
            how: plate.powerFactor === undefined ? 'watts ÷ volt-amps' : 'as printed',
          },
    lockedRotorA: lockedRotor(plate, volts),
    notes: [
      ...(minCircuitA !== undefined
        ? [
            `MCA ${figure(minCircuitA)} A is what the wire must carry: 125 % of the largest motor plus the rest. It runs on ${
              runningA ? `about ${figure(runningA.value)} A` : 'less'
            }; do not size energy by it.`,
          ]
        : []),
      ...(maxBreakerA !== undefined
        ? [
            `MOP ${figure(maxBreakerA)} A is the largest breaker allowed, so that the motor can start: it says nothing of what runs.`,
          ]
        : []),
      ...(runningW
        ? [
            'A plate gives the highest draw: energy reckoned from it is usually too high. Meter it for the share of time.',
          ]
        : []),
      ...(hz !== undefined && hz !== 60
        ? [`Made for ${figure(hz)} Hz: a motor turns faster and draws otherwise at 60 Hz.`]
        : []),
    ],
    impossible: impossible(plate, runningA, runningVA, circuitV),
  }
}

function amps(plate: Plate, volts: number, motor: boolean): Calculated | null {
  const printed = plate.amps ?? plate.ratedLoadA
  if (printed !== undefined)
    return {
      value: printed,
      unit: 'A',
      how: plate.amps === undefined ? 'rated load amps (RLA), as printed' : 'as printed',
    }
  if (plate.VA !== undefined)
    return { value: plate.VA / volts, unit: 'A', how: `${figure(plate.VA)} VA ÷ ${figure(volts)} V` }
  if (plate.watts !== undefined) {
    const factor = plate.powerFactor ?? (motor ? motorPowerFactor : 1)
    return {
      value: plate.watts / factor / volts,
      unit: 'A',
      how: `${figure(plate.watts)} W ÷ power factor ${figure(factor)} ÷ ${figure(volts)} V`,
    }
  }
  if (plate.horsepower !== undefined) {
    const W = (plate.horsepower * wattsPerHorsepower) / motorEfficiency
    const factor = plate.powerFactor ?? motorPowerFactor
    return {
      value: W / factor / volts,
      unit: 'A',
      how: `${figure(plate.horsepower)} hp × 746 W ÷ ${motorEfficiency} ÷ power factor ${figure(factor)} ÷ ${figure(volts)} V`,
    }
  }
  if (plate.minCircuitA !== undefined)
    return {
      value: plate.minCircuitA / 1.25,
      unit: 'A',
      how: `MCA ${figure(plate.minCircuitA)} A ÷ 1.25, if one motor is all of it`,
    }
  return null
}

function realPower(
  plate: Plate,
  runningVA: Calculated | null,
  factor: number,
  assumed: boolean,
): Calculated | null {
  if (plate.watts !== undefined)
    return {
      value: plate.watts,
      unit: 'W',
      how: 'as printed',
      low: plate.watts * 0.5,
      high: plate.watts * 1.05,
    }
  if (
    plate.amps === undefined &&
    plate.ratedLoadA === undefined &&
    plate.VA === undefined &&
    plate.horsepower !== undefined
  ) {
    const value = (plate.horsepower * wattsPerHorsepower) / motorEfficiency
    return {
      value,
      unit: 'W',
      how: `${figure(plate.horsepower)} hp × 746 W ÷ ${motorEfficiency} efficiency`,
      low: value * 0.5,
      high: value * 1.3,
    }
  }
  if (!runningVA) return null
  const value = runningVA.value * factor
  return {
    value,
    unit: 'W',
    how: `${figure(runningVA.value)} VA × power factor ${figure(factor)}${assumed && factor < 1 ? ', assumed' : ''}`,
    low: value * 0.4,
    high: Math.min(runningVA.value, value * 1.2),
  }
}

function lockedRotor({ lockedRotorA, codeLetter, horsepower }: Plate, volts: number): Calculated | null {
  if (lockedRotorA !== undefined)
    return {
      value: lockedRotorA,
      unit: 'A',
      how: 'as printed (LRA)',
      low: lockedRotorA * 0.85,
      high: lockedRotorA,
    }
  const range = codeLetter && codeLetters[codeLetter]
  if (!range || horsepower === undefined) return null
  const A = (kVA: number) => (kVA * 1000 * horsepower) / volts
  return {
    value: A(range[1]),
    unit: 'A',
    how: `code letter ${codeLetter}: below ${figure(range[1])} kVA per hp × ${figure(horsepower)} hp ÷ ${figure(volts)} V (NEC table 430.7(B))`,
    low: A(range[0]),
    high: A(range[1]),
  }
}

function impossible(
  plate: Plate,
  runningA: Calculated | null,
  runningVA: Calculated | null,
  circuitV: 120 | 240,
): PlateReading['impossible'] {
  const found: PlateReading['impossible'] = []
  const say = (key: keyof Plate, message: string) => found.push({ key, message })
  const { watts, minCircuitA, maxBreakerA, ratedLoadA, lockedRotorA, horsepower } = plate
  const given = (plate.VA ?? (plate.amps ?? ratedLoadA) !== undefined) ? runningVA : null
  if (watts !== undefined && given && watts > given.value * 1.05)
    say(
      'watts',
      `${figure(watts)} W is more than the ${figure(given.value)} VA that it takes: real power is never above volt-amps.`,
    )
  if (
    plate.VA !== undefined &&
    plate.volts !== undefined &&
    plate.amps !== undefined &&
    Math.abs(plate.VA / (plate.volts * plate.amps) - 1) > 0.1
  )
    say('VA', `${figure(plate.VA)} VA does not go with ${figure(plate.volts)} V × ${figure(plate.amps)} A.`)
  const input = watts ?? given?.value
  if (horsepower !== undefined && input && horsepower * wattsPerHorsepower > input)
    say(
      'horsepower',
      `${figure(horsepower)} hp is ${figure(horsepower * wattsPerHorsepower)} W at the shaft, more than it takes in.`,
    )
  const runs = ratedLoadA ?? plate.amps
  if (minCircuitA !== undefined && runs !== undefined && minCircuitA < runs)
    say(
      'minCircuitA',
      `the minimum circuit of ${figure(minCircuitA)} A is below the ${figure(runs)} A it runs on.`,
    )
  if (maxBreakerA !== undefined && minCircuitA !== undefined && maxBreakerA < minCircuitA)
    say(
      'maxBreakerA',
      `the largest breaker, ${figure(maxBreakerA)} A, is below the minimum circuit of ${figure(minCircuitA)} A: the two may be swapped.`,
    )
  if (lockedRotorA !== undefined && runningA && lockedRotorA < runningA.value)
    say(
      'lockedRotorA',
      `locked-rotor amps (${figure(lockedRotorA)} A) are several times the running amps (${figure(runningA.value)} A), never below.`,
    )
  if (plate.phase === 3)
    say('phase', 'three-phase: a 120/240 V split-phase panel cannot run it without a converter.')
  if (plate.volts !== undefined) {
    const v = nominal(plate.volts)
    if (v === null) say('volts', `${figure(plate.volts)} V is neither of a panel’s voltages, 120 or 240 V.`)
    else if (v !== circuitV)
      say(
        'volts',
        `${figure(plate.volts)} V on a ${circuitV} V circuit: this plate belongs to another circuit.`,
      )
  }
  return found
}
