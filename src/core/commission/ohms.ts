import type { CircuitNeed } from '../assess/needs'
import type { Job } from '../job/schema'
import { ohmPerKft } from '../wiring/voltage-drop'

/** Wires carry their tests cold: °C of a conductor that a kilowatt flows through for a minute. */
const conductorC = 30

/** Ohms of the way from the source’s outlet to the panel, there and back, by its links with a size and a length. */
export const wayOhms = ({ hookup }: Job): number =>
  (hookup.path ?? []).reduce(
    (sum, { material = 'cu', size, lengthFt }) =>
      size && lengthFt ? sum + (2 * lengthFt * ohmPerKft(material, size, conductorC)) / 1000 : sum,
    0,
  )

/** Ohms of a circuit’s own wire, there and back; null while its size or length is unknown. */
export const branchOhms = ({ circuit: { wire } }: CircuitNeed): number | null =>
  wire?.lengthFt ? (2 * wire.lengthFt * ohmPerKft(wire.material, wire.size, conductorC)) / 1000 : null

/** Ohms of the whole way to the last outlet: as it was taken over, else of its wires; null while they are not known. */
export function loopOhms(need: CircuitNeed, job: Job): number | null {
  const { loopOhms: taken } = need.circuit
  if (taken) return taken.value
  const own = branchOhms(need)
  return own === null ? null : own + wayOhms(job)
}

/** A branch is seldom longer, ft; joints have little beside it, Ω. */
const longBranchFt = 150
const jointsOhms = 0.2
/** What a sound way of unknown length has at most: more is a poor joint until it is found to be length. Ours. */
export const mostLoopOhms = (need: CircuitNeed, job: Job): number =>
  wayOhms(job) +
  jointsOhms +
  (2 *
    longBranchFt *
    ohmPerKft(
      need.circuit.wire?.material ?? 'cu',
      need.circuit.wire?.size ?? (need.circuit.breakerA > 15 ? '12' : '14'),
      conductorC,
    )) /
    1000
