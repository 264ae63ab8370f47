import type { ManagedPanel, TransferSwitch } from '../equipment/hookup-kinds'
import type { Leg } from '../panel/leg'
import type { Circuit } from '../panel/schema'
import { ordinaryAmpacityA } from '../units/tables/conductors'

/** One position of a switch or managed panel, as it is built. Amps; null where nothing says. */
export interface Position {
  /** the breaker that is fitted, or what its contact takes where it has none of its own */
  fittedA: number | null
  /** the most that may stand there */
  mostA: number
  leadSize: string | null
  bridge: 'no' | 'handle' | 'common trip'
  /** whether a breaker of its own stands there, which alone protects what is on the source */
  protects: boolean
  /** whose position it is: of a second switch, the second */
  device: 'switch' | 'secondSwitch' | 'managed'
}

/** The devices whose positions these are. */
interface Devices {
  switch?: TransferSwitch | undefined
  secondSwitch?: TransferSwitch | undefined
  managed?: ManagedPanel | undefined
}
/** And what is planned on them. */
interface Planned extends Devices {
  positions?: readonly { position: number; breakerA?: number | undefined }[] | undefined
}

/** Positions of the switches, or of the managed panel, chosen; undefined while none is. */
export const positionCount = ({ switch: first, secondSwitch, managed }: Devices): number | undefined =>
  first ? first.positions + (secondSwitch?.positions ?? 0) : managed?.circuits

/** What one position is and takes; undefined where there is none of that number. */
export function positionOf(hookup: Devices, position: number): Position | undefined {
  const { switch: first, secondSwitch, managed } = hookup
  const count = positionCount(hookup)
  if (count === undefined || position < 1 || position > count) return undefined
  if (!first)
    return {
      fittedA: managed?.circuitLimitA ?? null,
      mostA: managed?.circuitLimitA ?? Infinity,
      leadSize: null,
      bridge: 'no',
      protects: false,
      device: 'managed',
    }
  const second = position > first.positions ? secondSwitch : undefined
  return switchPosition(
    second ?? first,
    second ? position - first.positions : position,
    second ? 'secondSwitch' : 'switch',
  )
}

function switchPosition(device: TransferSwitch, at: number, which: Position['device']): Position {
  const fittedA = device.positionLimitsA[at - 1] ?? null
  const detail = device.positionDetails?.find(d => d.position === at)
  const leadA = detail?.leadSize ? (ordinaryAmpacityA('cu', detail.leadSize) ?? Infinity) : Infinity
  return {
    fittedA,
    mostA: Math.min(detail?.mostA ?? fittedA ?? Infinity, leadA),
    leadSize: detail?.leadSize ?? null,
    bridge: detail?.bridge ?? 'no',
    protects: true,
    device: which,
  }
}

/**
 * The leg of a position. Odd ones hang on the first leg, even ones on the second; all of a switch for 120 V only, or with a
 * single position, hang on the one leg that is fed.
 */
export function positionLeg(hookup: Devices, position: number, liveLeg: Leg = 'L1'): Leg {
  const found = positionOf(hookup, position)
  const device = found && found.device !== 'managed' ? hookup[found.device] : undefined
  if (device && (device.volts === '120' || device.positions === 1)) return liveLeg
  return position % 2 ? 'L1' : 'L2'
}

/** Whether a two-pole with a common trip inside stands there, as its upper or its lower half. */
export const commonTripAt = (hookup: Devices, position: number): boolean =>
  positionOf(hookup, position)?.bridge === 'common trip' ||
  (position % 2 === 0 && positionOf(hookup, position - 1)?.bridge === 'common trip')

/** What a circuit's own wire may carry: by its size where that is known, else no more than its breaker. */
export const wireProtectsAt = ({ wire, breakerA }: Pick<Circuit, 'wire' | 'breakerA'>): number =>
  (wire && ordinaryAmpacityA(wire.material, wire.size)) ?? breakerA

/** The breaker that will stand at a position: the one planned there, else the one fitted. */
export const breakerAt = (hookup: Planned, position: number): number | null =>
  hookup.positions?.find(p => p.position === position)?.breakerA ??
  positionOf(hookup, position)?.fittedA ??
  null
