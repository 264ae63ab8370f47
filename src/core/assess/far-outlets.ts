import { asPlanned } from '../job/as-planned'
import { placeText } from '../job/panels'
import type { Job } from '../job/schema'
import { runningVA } from '../loads/load'
import { voltageDrop } from '../wiring/voltage-drop'
import type { Working } from '../working'

/** Volts at the last outlet of a circuit while all its loads run on the source. */
export interface FarOutlet {
  circuitId: string
  name: string
  oneWayFt: number
  currentA: number
  /** where the circuit begins: the source’s volts less the drop of the way in */
  atPanelV: number
  farV: number
  /** of the source’s volts, the whole way */
  dropFraction: number
  /** more than the note to 210.19(A) advises for feeder and branch together */
  beyond: boolean
  working: Working
}

const mostDropFraction = 0.05

/**
 * Picked circuits whose wire has a length, V: source − drop of the way in (`pathDropFraction` of its volts) − drop of the branch
 * wire at 75 °C. NEC 210.19(A), informational note: 5 % for feeder and branch together is advised.
 */
export function farOutlets(found: Job, pathDropFraction = 0): FarOutlet[] {
  const { job } = asPlanned(found)
  return job.panels.flatMap(panel =>
    panel.circuits.flatMap((circuit): FarOutlet[] => {
      const { wire } = circuit
      if (!circuit.picked || !wire?.lengthFt) return []
      const volts = circuit.poles === 2 ? 240 : 120
      const VA = circuit.loads.reduce((sum, load) => sum + runningVA(load), 0)
      const currentA = VA / volts
      const atPanelV = volts * (1 - pathDropFraction)
      const input = {
        material: wire.material,
        size: wire.size,
        oneWayFt: wire.lengthFt,
        currentA,
        sourceV: atPanelV,
        path: 'two-wire' as const,
        conductorC: 75,
      }
      if (atPanelV <= 0 || voltageDrop.faultsIn?.(input).length) return []
      const { result, working } = voltageDrop.compute(input)
      const dropFraction = 1 - result.loadV / volts
      return [
        {
          circuitId: circuit.id,
          name: `${placeText(job, panel, circuit)} ${circuit.label || 'unlabelled'}`,
          oneWayFt: wire.lengthFt,
          currentA,
          atPanelV,
          farV: result.loadV,
          dropFraction,
          beyond: dropFraction > mostDropFraction,
          working,
        },
      ]
    }),
  )
}
