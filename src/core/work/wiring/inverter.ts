import { end, put } from './draft'
import type { Supply } from './feed'
import type { Site } from './site'
import { ratedTerminal } from './terminals'

const usualA = 60
const wires = ['L1', 'L2', 'neutral', 'ground'] as const

/** The AC sides of an inverter that passes the utility through; null where the source has none that is wired. */
export function inverterSides(site: Site): { name: string; input: Supply; output: Supply } | null {
  const inverter = site.job.source?.units.find(u => u.equipment.kind === 'inverter')?.equipment
  if (!inverter) return null
  const side = (which: 'AC in' | 'AC out'): Supply => {
    put(site.draft, {
      id: 'inverter',
      kind: 'inverter',
      name: inverter.name,
      within: inverter.name,
      terminals: wires.map(w =>
        ratedTerminal(
          `${which} ${w}`,
          inverter.kind === 'inverter' ? (inverter.transferA ?? usualA) : usualA,
        ),
      ),
    })
    return {
      L1: end('inverter', `${which} L1`),
      L2: end('inverter', `${which} L2`),
      neutral: end('inverter', `${which} neutral`),
      ground: end('inverter', `${which} ground`),
    }
  }
  return { name: inverter.name, input: side('AC in'), output: side('AC out') }
}
