import { figure } from '../units/format'
import { withFigure, withStart } from './evidence'
import type { Known, Load } from './load'
import type { Plate } from './nameplate'
import { type Calculated, derivation } from './plate-figures'

interface Given {
  id: string
  name: string
  /** the day it was read */
  on: string
  /** of the circuit, V: taken where the plate does not say */
  volts: 120 | 240
  was?: Load | undefined
}

/** Units by key, in the order in which a plate is read aloud. */
export const plateUnits = {
  volts: 'V',
  amps: 'A',
  watts: 'W',
  VA: 'VA',
  horsepower: 'hp',
  powerFactor: 'power factor',
  ratedLoadA: 'A rated load',
  lockedRotorA: 'A locked rotor',
  codeLetter: 'code letter',
  minCircuitA: 'A minimum circuit',
  maxBreakerA: 'A maximum breaker',
  hz: 'Hz',
  phase: 'phase',
} as const
export type PlateKey = keyof typeof plateUnits
export const plateKeys = Object.keys(plateUnits).filter((key): key is PlateKey => key in plateUnits)

/** The figures of a plate in words: `230 V`, `4.2 A`. */
export const plateWords = (plate: Plate): string[] =>
  plateKeys.flatMap(key => {
    const value = plate[key]
    return value === undefined
      ? []
      : [`${typeof value === 'number' ? figure(value) : value} ${plateUnits[key]}`]
  })

/**
 * A load with what its nameplate says, beside all else that is known of it: a figure that was metered stays in force.
 * With a locked-rotor figure or horsepower it is a motor.
 */
export function loadFromPlate(plate: Plate, { id, name, on, volts, was }: Given): Load {
  const worked = derivation(plate, volts)
  const document = plateWords(plate).join(', ').slice(0, 120)
  const read = ({ value, low, high }: Calculated): Known => ({
    value,
    from: 'nameplate',
    on,
    ...(document && { document }),
    ...(low !== undefined && { low }),
    ...(high !== undefined && { high }),
  })
  const fresh: Load = was ?? {
    id,
    name,
    runningW: { value: worked.runningW?.value ?? 0, from: 'assumed' },
    powerFactor: { value: worked.motor ? 0.8 : 1, from: 'typical value' },
    dutyFraction: { value: worked.motor ? 0.3 : 1, from: 'assumed' },
    idleW: { value: 0, from: 'assumed' },
    nature: 'plain',
    byHand: false,
    needsBond: false,
  }
  const known: Load = {
    ...fresh,
    name,
    runningW: !worked.runningW
      ? fresh.runningW
      : was
        ? withFigure(was.runningW, read(worked.runningW))
        : read(worked.runningW),
    powerFactor: worked.powerFactor
      ? withFigure(fresh.powerFactor, read(worked.powerFactor))
      : fresh.powerFactor,
    nature: fresh.nature === 'plain' && worked.motor ? 'motor' : fresh.nature,
    plate: { ...plate, on },
  }
  return worked.lockedRotorA
    ? withStart(known, { method: 'locked-rotor', lockedRotorA: read(worked.lockedRotorA) })
    : known
}
