import type { Source } from './design'

/** What stands for the source in a sentence: `Sluice 22`, `two Weirgate 36`. */
export function shortName(source: Source): string {
  const [first] = source.units
  if (!first) return 'source'
  return source.units.length > 1 && source.units.every(u => u.equipment.id === first.equipment.id)
    ? `two ${first.equipment.name}`
    : source.units.map(u => u.equipment.name).join(' and ')
}
