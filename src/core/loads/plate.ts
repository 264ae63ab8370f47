import type { Plate } from '../ask/evidence'
import type { Load } from './load'

const wattsPerHorsepower = 746
/** Shaft power over input power of a small motor, where the plate gives horsepower alone. */
const motorEfficiency = 0.65

interface Given {
  id: string
  name: string
  /** the day it was read */
  on: string
  /** of the circuit, V: taken where the plate does not say */
  volts: 120 | 240
  was?: Load | undefined
}

/** Running watts from a nameplate: as printed, else volts × amps × power factor, else horsepower ÷ efficiency; W. */
export function plateW(
  { volts, amps, watts, horsepower }: Plate,
  circuitV: number,
  powerFactor: number,
): number | null {
  if (watts !== undefined) return watts
  if (amps !== undefined) return (volts ?? circuitV) * amps * powerFactor
  return horsepower === undefined ? null : (horsepower * wattsPerHorsepower) / motorEfficiency
}

/**
 * A load with what its nameplate says, keeping of `was` what the plate does not touch. A figure that was metered stays:
 * the better source wins. With a locked-rotor figure it is a motor.
 */
export function loadFromPlate(plate: Plate, { id, name, on, volts, was }: Given): Load {
  const motor = plate.lockedRotorA !== undefined || plate.horsepower !== undefined
  const read = (value: number) => ({ value, from: 'nameplate' as const, on })
  const powerFactor = was?.powerFactor ?? { value: motor ? 0.8 : 1, from: 'typical value' as const }
  const W = plateW(plate, volts, powerFactor.value)
  const keep = was?.runningW.from === 'metered'
  return {
    id,
    name,
    runningW: keep || W === null ? (was?.runningW ?? { value: 0, from: 'assumed' }) : read(W),
    powerFactor,
    dutyFraction: was?.dutyFraction ?? { value: motor ? 0.3 : 1, from: 'assumed' },
    idleW: was?.idleW ?? { value: 0, from: 'assumed' },
    nature: was && was.nature !== 'plain' ? was.nature : motor ? 'motor' : 'plain',
    byHand: was?.byHand ?? false,
    needsBond: was?.needsBond ?? false,
    ...(plate.lockedRotorA !== undefined
      ? { start: { method: 'locked-rotor', lockedRotorA: read(plate.lockedRotorA) } as const }
      : was?.start && { start: was.start }),
  }
}

const number = String.raw`(\d+(?:[.,]\d+)?|\d+\/\d+)`
const printed: readonly (readonly [key: keyof Omit<Plate, 'text'>, pattern: RegExp])[] = [
  ['lockedRotorA', new RegExp(String.raw`${number}\s*(?:LRA|A locked rotor)\b`, 'i')],
  ['lockedRotorA', new RegExp(String.raw`\b(?:LRA|locked rotor(?: amps)?)\s*:?\s*${number}`, 'i')],
  ['horsepower', new RegExp(String.raw`${number}\s*hp\b`, 'i')],
  ['watts', new RegExp(String.raw`${number}\s*W\b`, 'i')],
  ['volts', new RegExp(String.raw`${number}\s*V(?:AC|olts?)?\b`, 'i')],
  ['amps', new RegExp(String.raw`${number}\s*A(?:mps?)?\b(?!\s*locked)`, 'i')],
]

/** The figures in a nameplate’s text as it is printed, such as `1/2 hp, 230 V, 4.2 A, LRA 22`. */
export function plateIn(text: string): Plate {
  const plate: Plate = {}
  let rest = text.replace(/(\d),(?=\d{3}\b)/g, '$1')
  for (const [key, pattern] of printed) {
    const [whole, figure] = pattern.exec(rest) ?? []
    if (!whole || !figure || plate[key] !== undefined) continue
    const [a = 0, b] = figure.replace(',', '.').split('/').map(Number)
    plate[key] = b ? a / b : a
    rest = rest.replace(whole, ' ')
  }
  return plate
}
