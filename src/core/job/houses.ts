import type { Brief } from '../ask/brief'
import { understood, wantOf } from '../ask/want'
import type { MethodId } from '../hookup/method'
import type { Season } from '../loads/season'
import type { Typical } from '../loads/typical'
import { type HouseId, houseNames } from './house-names'
import { newJob } from './new'
import type { Job } from './schema'

/** Kinds of house that every firm may start from, beside its own templates: what must live, for how long, the panel, the way of connecting. */
interface House {
  id: HouseId
  wants: string
  hours: number
  season: Season
  spaces: number
  mainA: number
  method: MethodId
  brief: Partial<Brief>
}

// biome-ignore format: a table is read by its rows
export const houses: readonly House[] = [
  { id: 'well-and-furnace', wants: 'gas furnace, well pump, 2 refrigerators, freezer, internet, lights, phones', hours: 36, season: 'winter', spaces: 40, mainA: 200, method: 'interlocked-inlet', brief: { water: 'own well', heat: 'gas or oil burner', atHome: 'mostly' } },
  { id: 'medical', wants: 'oxygen, medicine refrigerator, refrigerator, window air conditioner, internet, phones, a few outlets', hours: 72, season: 'summer', spaces: 20, mainA: 100, method: 'multi-circuit-switch', brief: { water: 'utility', medical: 'yes', atHome: 'always' } },
  { id: 'shop', wants: 'reach-in refrigerator, display cooler, point of sale, card reader, internet, shop lights, alarm', hours: 10, season: 'summer', spaces: 30, mainA: 150, method: 'critical-subpanel', brief: { water: 'utility', automatic: 'would be nice' } },
]

/** One of our kinds of house as a template; null where there is none of that name. Its loads are those of the library. */
export function houseJob(id: string, library: readonly Typical[]): Job | null {
  const house = houses.find(h => h.id === id)
  if (!house) return null
  const { wants, hours, season, spaces, mainA, method, brief } = house
  const entries = library.map(typical => ({ typical, firms: false }))
  let n = 0
  const newId = () => `${id}-${++n}`
  const job = newJob({ title: houseNames.find(h => h.id === id)?.name ?? id, place: '', spaces, mainA })
  return {
    ...job,
    brief: {
      ...brief,
      season,
      wants: understood(wants, library).map(u => wantOf(u, { library: entries, season, newId })),
    },
    hookup: { ...job.hookup, method },
    outage: { ...job.outage, hours },
  }
}
