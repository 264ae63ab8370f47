import { type Equipment, ofKind } from '../equipment'
import type { SimpleOperation } from '../job/operations'
import { type Arrangement, jobArrangements } from '../source/arrangement'
import { hindersArrangement, type Source, type Unit, voltsOf } from '../source/design'

/** One arrangement as a source could take it on: what it brings along, or what keeps it away. */
export interface Way {
  arrangement: Arrangement
  /** null where it cannot be with what the catalogue has */
  operation: Extract<SimpleOperation, { op: 'setArrangement' }> | null
  /** what comes along, or goes, with the choice */
  brings: string[]
  hinders: string | null
}

/** Every arrangement for this source, with the parts of the catalogue that it cannot be without. */
export function arrangementWays(source: Source, catalogue: readonly Equipment[]): Way[] {
  return jobArrangements.map(arrangement => wayOf(source, arrangement, catalogue))
}

function wayOf(source: Source, arrangement: Arrangement, catalogue: readonly Equipment[]): Way {
  const [first, second] = source.units
  if (!first) return { arrangement, operation: null, brings: [], hinders: 'there is no unit yet' }
  const pair = arrangement === 'combined' || arrangement === 'independent'
  const twin: Unit = { ...first, id: first.id === 'u2' ? 'u1' : 'u2', owned: false }
  const units = pair ? [first, second ?? twin] : [first]
  const combiner =
    arrangement === 'combined'
      ? (source.combiner ??
        ofKind(catalogue, 'combiner').find(c => c.synchronises && c.pairs.includes(first.equipment.id)))
      : undefined
  const autotransformer =
    arrangement === 'autotransformer'
      ? (source.autotransformer ?? ofKind(catalogue, 'autotransformer')[0])
      : undefined
  const after = { units, combiner: combiner ?? source.combiner, autotransformer }
  const wrong =
    pair && voltsOf(first.equipment) === '120/240'
      ? `a ${first.equipment.name} makes both legs by itself`
      : null
  const unmatched =
    arrangement === 'combined' && !combiner
      ? `no combiner of the catalogue is made for a ${first.equipment.name}`
      : null
  const hinders = wrong ?? unmatched ?? hindersArrangement(after, arrangement)
  const brings = [
    ...(pair && !second ? [`a second ${first.equipment.name}`] : []),
    ...(combiner && !source.combiner ? [`the ${combiner.name}`] : []),
    ...(autotransformer && !source.autotransformer ? [`the ${autotransformer.name}`] : []),
    ...(!pair && second ? [`the second ${second.equipment.name} goes`] : []),
  ]
  return {
    arrangement,
    brings,
    hinders,
    operation: hinders
      ? null
      : {
          op: 'setArrangement',
          arrangement,
          ...(combiner && { combiner }),
          ...(autotransformer && { autotransformer }),
          ...(pair && !second && { second: twin }),
        },
  }
}

/** The bank that an inverter of the catalogue runs from: as many in series as its volts ask. */
export function bankFor(inverterV: number, catalogue: readonly Equipment[]): Unit['bank'] {
  for (const equipment of ofKind(catalogue, 'bank')) {
    const series = Math.max(1, Math.round(inverterV / equipment.unitV))
    const fits = Math.abs(series * equipment.unitV - inverterV) <= 0.2 * inverterV
    if (fits && series <= (equipment.mostSeries ?? 20)) return { equipment, series, parallel: 1 }
  }
  return undefined
}
