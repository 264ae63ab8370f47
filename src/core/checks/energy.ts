import { hoursOf } from '../assess/balance'
import { runOf } from '../assess/energy'
import type { Evaluated } from '../assess/evaluated'
import type { Job } from '../job/schema'
import { onAverage } from '../outage/on-average'
import type { Source } from '../source/design'
import { plural, quantity } from '../units/format'
import type { Fix, Said } from './finding'

/** Energy. */

/** The same job with so many expansion units on every unit. */
const expanded = (job: Job, units: number): Job =>
  job.source
    ? {
        ...job,
        source: { ...job.source, units: job.source.units.map(u => ({ ...u, expansionUnits: units })) },
      }
    : job

/** The most expansion units that every unit of the source takes. */
export const mostExpansions = (source: Source): number =>
  Math.min(
    ...source.units.map(u => (u.equipment.kind === 'station' ? (u.equipment.expansion?.most ?? 0) : 0)),
  )

/** Fewest expansion units (on each unit) that make the store last, or null where even the most do not. */
export function expansionUnitsNeeded({ job, figures }: Pick<Evaluated, 'job' | 'figures'>): number | null {
  const { source, outage } = job
  if (!source || !figures.run) return null
  const had = Math.max(...source.units.map(u => u.expansionUnits))
  for (let units = had + 1; units <= mostExpansions(source); units++) {
    const more = expanded(job, units)
    const run = runOf(more, figures.mean)
    const had = (figures.course && run && onAverage(more, run.batteryW)?.hours) ?? run?.hours ?? 0
    if (had >= outage.hours) return units
  }
  return null
}

export function energyShort(evaluated: Evaluated): Said[] {
  const { job, figures } = evaluated
  const { run, course, loads } = figures
  const { outage, source } = job
  const had = hoursOf(figures)
  if (!run || had === null || !loads.length || had >= outage.hours) return []
  const units = expansionUnitsNeeded(evaluated)
  const tier1 = loads.some(l => l.need.circuit.tier === 1)
  const fixes: Fix[] = units
    ? [
        {
          label: `Use ${plural(units, 'expansion unit')}`,
          operations: [{ op: 'setExpansionUnits', count: units }],
        },
      ]
    : []
  return [
    {
      id: 'energy.short',
      severity: tier1 ? 'stop' : 'fix',
      sentence: course
        ? `The picked circuits last ${quantity(had, 'h')} of the ${quantity(outage.hours, 'h')} asked on average, with ${course.by}.`
        : `The picked circuits last ${quantity(had, 'h')} of the ${quantity(outage.hours, 'h')} asked: ${quantity(run.needWh - run.usableWh, 'Wh')} are missing.`,
      why: tier1
        ? 'Circuits that must run go dark before the outage ends.'
        : 'Circuits go dark before the outage ends.',
      remedy: units
        ? 'More storage does it; so does dropping circuits. The outage shows how likely it lasts, and searches for designs that do.'
        : `No number of expansion units does it${source && mostExpansions(source) ? '' : ': this unit takes none'}. Drop circuits, or choose a larger store.`,
      target: { view: 'source', field: 'expansionUnits' },
      fixes,
    },
  ]
}

export function energyReserve({ job, figures }: Evaluated): Said[] {
  const { run, course, loads } = figures
  const { outage } = job
  if (!run || course || !loads.length || run.hours >= outage.hours || outage.reserveFraction === 0) return []
  const withoutReserve = (run.hours * outage.startFraction) / (outage.startFraction - outage.reserveFraction)
  if (withoutReserve < outage.hours) return []
  return [
    {
      id: 'energy.reserve',
      severity: 'mind',
      sentence: `The outage is outlasted only by eating into the ${quantity(outage.reserveFraction, 'fraction')} kept in reserve.`,
      why: 'The reserve is there for the outage that lasts longer than asked.',
      remedy: 'Say so to the customer, or size without the reserve.',
      target: { view: 'outage', field: 'reserveFraction' },
      fixes: [{ label: 'Keep no reserve', operations: [{ op: 'setOutage', facts: { reserveFraction: 0 } }] }],
    },
  ]
}
