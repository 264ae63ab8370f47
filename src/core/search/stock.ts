import * as z from 'zod'
import type { Source } from '../source/design'
import { plural } from '../units/format'

/** How many of an item the firm has, by the item’s id; expansion units of a station by `expansionKey`. Not named: none. */
export const stockSchema = z.record(
  z.string().max(60),
  z.int('must be a whole number').min(0, 'must be 0 or more').max(9999, 'must be at most 9,999'),
)
export type Stock = z.infer<typeof stockSchema>

export const expansionKey = (stationId: string) => `${stationId}/expansion`

export interface Part {
  key: string
  name: string
  count: number
}

/** What a source takes out of the stock: nothing that the customer owns. */
export function partsOf(source: Source): Part[] {
  const parts: Part[] = []
  const take = (key: string, name: string, count: number) => {
    if (count > 0) parts.push({ key, name, count })
  }
  for (const { equipment, expansionUnits, bank, owned } of source.units) {
    if (!owned) take(equipment.id, equipment.name, 1)
    take(expansionKey(equipment.id), `expansion unit of the ${equipment.name}`, expansionUnits)
    if (bank) take(bank.equipment.id, bank.equipment.name, bank.series * bank.parallel)
  }
  const { combiner, autotransformer, generator, arrays } = source
  if (combiner) take(combiner.id, combiner.name, 1)
  if (autotransformer) take(autotransformer.id, autotransformer.name, 1)
  if (generator && !generator.owned) take(generator.equipment.id, generator.equipment.name, 1)
  for (const { module, series, parallel, owned } of arrays ?? [])
    if (!owned) take(module.id, module.name, series * parallel)
  return parts
}

/** What is not there: each part with how many are missing. */
export function missingFrom(stock: Stock, parts: readonly Part[]): Part[] {
  const wanted = new Map<string, Part>()
  for (const p of parts) {
    const had = wanted.get(p.key)
    wanted.set(p.key, { ...p, count: p.count + (had?.count ?? 0) })
  }
  return [...wanted.values()].flatMap(p => {
    const count = p.count - (stock[p.key] ?? 0)
    return count > 0 ? [{ ...p, count }] : []
  })
}

/** `2 × Cascade 48-280`. */
export const partText = ({ name, count }: Part): string =>
  name.startsWith('expansion unit')
    ? `${plural(count, 'expansion unit')}${name.slice('expansion unit'.length)}`
    : `${count} × ${name}`
