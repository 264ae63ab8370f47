import type { Evaluated } from '../job/evaluated'
import { runtime } from '../source/runtime'
import { plural, quantity } from '../units/format'
import type { Finding, Fix } from './finding'

/** Energy. */

/** Fewest expansion units that make the store last, or null where even the most do not. */
export function expansionUnitsNeeded({ job, figures }: Pick<Evaluated, 'job' | 'figures'>): number | null {
  const { source, outage } = job
  const { run } = figures
  const expansion = source?.station.expansion
  if (!source || !run || !expansion) return null
  for (let units = source.expansionUnits + 1; units <= expansion.most; units++) {
    const { result } = runtime.compute({
      capacityWh: source.station.energyWh + units * expansion.energyWh,
      startFraction: outage.startFraction,
      reserveFraction: outage.reserveFraction,
      deratingFraction: outage.deratingFraction,
      idleW: source.station.idleW,
      efficiencyFraction: source.station.efficiencyFraction,
      loadW: figures.meanLoadW,
    })
    if (result.hours >= outage.hours) return units
  }
  return null
}

export function energyShort(evaluated: Evaluated): Finding[] {
  const { job, figures } = evaluated
  const { run, loads } = figures
  const { outage, source } = job
  if (!run || !loads.length || run.hours >= outage.hours) return []
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
      sentence: `The picked circuits last ${quantity(run.hours, 'h')} of the ${quantity(outage.hours, 'h')} asked: ${quantity(run.needWh - run.usableWh, 'Wh')} are missing.`,
      why: tier1
        ? 'Circuits that must run go dark before the outage ends.'
        : 'Circuits go dark before the outage ends.',
      remedy: units
        ? 'More storage does it; so does dropping circuits or a generator for some hours.'
        : `No number of expansion units does it${source?.station.expansion ? '' : ': this unit takes none'}. Drop circuits, or choose a larger store.`,
      target: { view: 'source', field: 'expansionUnits' },
      fixes,
    },
  ]
}

export function energyReserve({ job, figures }: Evaluated): Finding[] {
  const { run, loads } = figures
  const { outage } = job
  if (!run || !loads.length || run.hours >= outage.hours || outage.reserveFraction === 0) return []
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
