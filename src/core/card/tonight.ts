import { unpackYear, yearHours } from '../ask/weather-year'
import { balanceOf, hoursOf } from '../assess/balance'
import { loadsOf } from '../assess/needs'
import { proofOf } from '../commission/scene'
import type { Job } from '../job/schema'
import { type Season, seasonOf } from '../loads/season'
import type { Working } from '../working'
import { onCardOf } from './steps'

export interface Tonight {
  season: Season
  /** outdoors as the place usually has it on such a day, °C; null where no weather is known */
  outdoorC: number | null
  circuits: { id: string; name: string; on: boolean }[]
  /** with what is on, from full; null where nothing is stored or nothing is on */
  hours: number | null
  working: Working | null
}

const dayMs = 86_400_000

/** The mean of a year of weather around a day of the year, °C. */
function usualC(job: Job, day: string): number | null {
  const { weather } = job.outage
  if (!weather) return null
  const { outdoorC } = unpackYear(weather)
  const from = Math.floor((Date.parse(day) - Date.parse(`${day.slice(0, 4)}-01-01`)) / dayMs) * 24
  const around = Array.from({ length: 72 }, (_, n) => outdoorC[(from - 24 + n + yearHours) % yearHours] ?? 0)
  return around.reduce((sum, c) => sum + c, 0) / around.length
}

/** How long a full store lasts on a day, with those circuits on that are named; with all of them where none are said. */
export function tonight(found: Job, day: string, on: ReadonlySet<string> | null): Tonight {
  const season = seasonOf(day)
  const outdoorC = usualC(found, day)
  const { outdoorC: asked, ...outage } = found.outage
  const here = {
    ...found,
    outage: {
      ...outage,
      season,
      // what was asked of another season says nothing of tonight
      ...(outdoorC !== null
        ? { outdoorC: Math.round(outdoorC) }
        : found.outage.season === season && asked !== undefined && { outdoorC: asked }),
    },
  }
  const p = proofOf(here)
  const chosen = p.served.filter(n => on === null || on.has(n.circuit.id))
  const { figures } = balanceOf(p.job, p.needs, loadsOf(chosen), false)
  return {
    season,
    outdoorC,
    circuits: p.served.map(n => ({ id: n.circuit.id, name: onCardOf(p)(n), on: chosen.includes(n) })),
    hours: chosen.length ? hoursOf(figures) : null,
    working: figures.run?.working ?? null,
  }
}
