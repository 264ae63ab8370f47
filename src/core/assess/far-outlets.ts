import { asPlanned } from '../job/as-planned'
import { placeText } from '../job/panels'
import type { Job } from '../job/schema'
import { runningVA } from '../loads/load'
import { figure } from '../units/format'
import { voltageDrop } from '../wiring/voltage-drop'
import { step, type Working } from '../working'

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
 * wire at 75 °C; or by the ohms of the whole way, where they were read. NEC 210.19(A), informational note: 5 % for feeder and branch together is advised.
 */
export function farOutlets(found: Job, pathDropFraction = 0): FarOutlet[] {
  const { job } = asPlanned(found)
  return job.panels.flatMap(panel =>
    panel.circuits.flatMap((circuit): FarOutlet[] => {
      const { wire, loopOhms } = circuit
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
      // the whole way as it was read, source’s outlet included, is better than what its wires would have
      const farV = loopOhms ? volts - loopOhms.value * currentA : result.loadV
      const dropFraction = 1 - farV / volts
      return [
        {
          circuitId: circuit.id,
          name: `${placeText(job, panel, circuit)} ${circuit.label || 'unlabelled'}`,
          oneWayFt: wire.lengthFt,
          currentA,
          atPanelV,
          farV,
          dropFraction,
          beyond: dropFraction > mostDropFraction,
          working: loopOhms
            ? {
                ...working,
                title: 'Volts at the last outlet, by the ohms that were read',
                formula: ['far outlet = volts of the source − measured ohms of the whole way × amps'],
                inputs: [
                  {
                    label: 'Ohms of the whole way, there and back',
                    value: loopOhms.value,
                    unit: 'ohm',
                    provenance: {
                      from: loopOhms.from,
                      ...(loopOhms.on && { on: loopOhms.on }),
                      ...(loopOhms.document && { document: loopOhms.document }),
                    },
                  },
                  { label: 'Amps', value: currentA, unit: 'A' },
                ],
                steps: [
                  step(
                    'Far outlet',
                    farV,
                    'V',
                    `${figure(volts)} − ${figure(loopOhms.value)} × ${figure(currentA)}`,
                  ),
                ],
              }
            : working,
        },
      ]
    }),
  )
}
