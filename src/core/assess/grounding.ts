import { type NeutralWay, neutralOf } from '../hookup/neutral-of'
import { tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { bondsOf, type NeutralGraph, type NeutralNode, neutralGraph, systemsOf } from './bond-graph'

/** A place where neutral and ground are joined while the source runs. */
export interface Bond {
  at: NeutralNode['kind']
  where: string
}

/** Neutral and ground as they stand while the source runs. */
export interface Grounding {
  /** leaves the house’s bond in force, switches the neutral too, or never meets the house */
  neutral: NeutralWay
  /** of the system that the loads on the source return to */
  bonds: Bond[]
  /** of the fullest system; more than one of them is wrong wherever it is */
  most: Bond[]
  /** each set of places whose neutrals are joined, and where neutral and ground meet */
  systems: { name: string; bonded: boolean }[][]
  ground: 'continuous' | 'interrupted' | 'not said'
  /** a unit whose outlets are protected against ground faults, and whether it floats */
  groundFaultUnit: { name: string; floats: boolean } | null
  /** a unit of which nobody knows whether it is bonded */
  unknownUnit: string | null
  /** what joins neutrals, or does not: nobody stated it, and it changes the count */
  unknown: string[]
}

const asBond = ({ kind, where }: NeutralNode): Bond => ({ at: kind, where })

/** The bonds that are in force while the source runs, from the graph of neutrals. Exactly one is right (NEC 250.24, 250.30). */
export function groundingOf(job: Job): Grounding {
  const { source, hookup } = job
  const graph: NeutralGraph = neutralGraph(job)
  const { counted, matters } = bondsOf(graph)
  const units = source?.units.map(u => u.equipment) ?? []
  const guarded = units.find(u => 'groundFaultOutlets' in u && u.groundFaultOutlets)
  return {
    neutral: neutralOf(job),
    bonds: counted.bonds.map(asBond),
    most: counted.most.map(asBond),
    systems: systemsOf(graph).map(s => s.map(n => ({ name: n.name, bonded: n.bond === 'bonded' }))),
    ground: hookup.ground === undefined || hookup.ground === 'unknown' ? 'not said' : hookup.ground,
    groundFaultUnit: guarded ? { name: guarded.name, floats: guarded.neutral === 'floating' } : null,
    unknownUnit: units.find(u => (u.neutral ?? 'not stated') === 'not stated')?.name ?? null,
    unknown: matters,
  }
}

/** Where neutral and ground stand, in a sentence. */
export function groundingText(job: Job): string {
  const { neutral, bonds, systems } = groundingOf(job)
  if (neutral === 'unknown') return 'Not to be said before the hook-up is chosen.'
  const count = bonds.length === 1 ? 'One bond' : bonds.length ? `${bonds.length} bonds` : 'No bond'
  const where = bonds.map(b => b.where).join(' and ')
  const does = {
    'hots-only': `only hots are switched, so ${tiedPanel(job).name} keeps the house’s bond`,
    switched: 'the neutral is switched too, so the source stands by itself',
    'stand-alone': 'the source never meets the house',
  }[neutral]
  const bondsIn = (system: (typeof systems)[number]) => system.filter(n => n.bonded).length
  const apart =
    neutral === 'stand-alone' && systems.length > 1
      ? ` ${systems.length} systems stand apart, each with its own: ${systems.map(s => `${s.map(n => n.name).join(' with ')} (${bondsIn(s) || 'no'} ${bondsIn(s) === 1 ? 'bond' : 'bonds'})`).join('; ')}.`
      : ''
  return `${count}${where ? `: ${where}` : ''}; ${does}.${apart}`
}
