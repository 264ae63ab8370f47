import { daysAfter } from '../day'
import type { Job } from '../job/schema'
import { visitKinds } from '../job/visits'

/** Something of a house that comes up on a day. */
export interface Due {
  what: 'yearly test' | 'warranty ends' | 'visit open'
  text: string
  on: string
}

const yearDays = 365

/** A year later, the same day of the month; the 29th of February becomes the 28th. */
export function yearAfter(day: string, years = 1): string {
  const [y = '', m = '', d = ''] = day.split('-')
  const next = `${Number(y) + years}-${m}-${m === '02' && d === '29' ? '28' : d}`
  return Number.isNaN(Date.parse(next)) ? daysAfter(day, yearDays * years) : next
}

/** What is due of a house that was handed over: the yearly test a year after the last, warranties as they end, visits that stand open. */
export function dueOf(job: Pick<Job, 'handOver' | 'visits' | 'source'>): Due[] {
  const { handOver, visits = [], source } = job
  const tests = visits.filter(v => v.kind === 'yearly test' && v.closedOn).map(v => v.closedOn ?? '')
  const last = [...(handOver?.on ? [handOver.on] : []), ...tests].sort().at(-1)
  return [
    ...(last ? [{ what: 'yearly test' as const, text: 'Yearly test', on: yearAfter(last) }] : []),
    ...(handOver?.warranties ?? []).map(w => ({
      what: 'warranty ends' as const,
      text: `Warranty of ${source?.units.find(u => u.id === w.unitId)?.equipment.name ?? 'a unit'} ends`,
      on: w.until,
    })),
    ...visits
      .filter(v => !v.closedOn)
      .map(v => ({
        what: 'visit open' as const,
        text: `Visit open: ${visitKinds[v.kind].name.toLowerCase()}`,
        on: v.on,
      })),
  ].sort((a, b) => a.on.localeCompare(b.on))
}
