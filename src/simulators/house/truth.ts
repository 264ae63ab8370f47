import type { Proof } from '@/core/commission/scene'
import { assumedStartMultiple, startOf } from '@/core/loads/load'
import { seeded, seedOf } from '../seeded'

/** What a made-up house truly is: near the design, never equal to it, the same for the same seed. */
export interface Truth {
  /** each leg of the utility to neutral, V */
  lineV: number
  /** what a unit puts out, V */
  sourceV: number
  /** of a wire’s ohms by its table */
  ohmsFactor: number
  /** a branch of which nobody knows the length, ohms there and back */
  unknownOhms: number
  loads: ReadonlyMap<string, { W: number; powerFactor: number; startA: number }>
  /** of the label, before anything is weak */
  capacityFraction: number
  /** of what it says about itself */
  transferFraction: number
  backMin: number
  solarBackMin: number
  /** angle of the second unit where nothing ties it to the first, and how fast it wanders */
  angleRad: number
  faults: ReadonlySet<string>
}

export function truthOf(p: Proof, seed: number, faults: readonly string[] = []): Truth {
  const random = seeded(seed)
  const about = (value: number, by: number) => value * (1 - by + 2 * by * random())
  return {
    lineV: about(120.5, 0.02),
    sourceV: about(120, 0.012),
    ohmsFactor: about(1, 0.08),
    unknownOhms: about(0.18, 0.4),
    loads: new Map(
      p.needs.flatMap(need =>
        need.circuit.loads.map(load => {
          const own = seeded(seed ^ seedOf(load.id))
          const W = load.runningW.value * (0.96 + 0.08 * own())
          const powerFactor = Math.min(1, load.powerFactor.value * (0.98 + 0.04 * own()))
          const start =
            startOf(load, need.volts)?.result.startA ??
            (W / powerFactor / need.volts) * (load.nature === 'plain' ? 1.1 : assumedStartMultiple)
          return [load.id, { W, powerFactor, startA: start * (0.85 + 0.2 * own()) }] as const
        }),
      ),
    ),
    capacityFraction: about(0.985, 0.012),
    transferFraction: about(1, 0.2),
    backMin: about(3, 0.5),
    solarBackMin: about(6, 0.15),
    angleRad: 2 * Math.PI * random(),
    faults: new Set(faults),
  }
}
