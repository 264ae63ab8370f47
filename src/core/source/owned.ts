import type { Brief } from '../ask/brief'
import type { UnitEquipment } from '../equipment/source-kinds'

/** Whether the brief says that the customer has something like this unit. */
export function likelyOwned(unit: UnitEquipment, brief: Brief): boolean {
  switch (unit.kind) {
    case 'vehicle-outlet':
      return brief.vehicle === 'yes'
    case 'generator':
      return (
        brief.generator === 'yes' && (brief.generatorW === undefined || brief.generatorW === unit.continuousW)
      )
    case 'station': {
      if (brief.station !== 'yes') return false
      const said = (brief.stationWhat ?? '').toLowerCase().replace(/(?<=\d),(?=\d)/g, '')
      return said.includes(unit.name.toLowerCase()) || said.includes(`${unit.continuousW} w`)
    }
    case 'inverter':
      return false
  }
}

/** The units with what the customer likely has before the rest, each part in its own order. */
export const ownedFirst = <U extends UnitEquipment>(units: readonly U[], brief: Brief): U[] => [
  ...units.filter(u => likelyOwned(u, brief)),
  ...units.filter(u => !likelyOwned(u, brief)),
]
