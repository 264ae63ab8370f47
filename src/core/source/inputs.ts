import type { Job } from '../job/schema'
import { type SolarArray, solarInputOf, type Unit } from './design'
import { refill } from './refill'
import { solarString } from './solar-string'
import { acInputOf, capacityOf } from './store'

/** The record low that a string is judged by, °C, and whether anyone said it. */
export function recordLowOf(job: Job): { C: number; said: boolean } {
  const said = job.brief.coldestC
  return said === undefined
    ? { C: Math.min(-10, job.outage.outdoorC ?? -10), said: false }
    : { C: said, said: true }
}

export interface ArrayWorked {
  array: SolarArray
  unit: Unit
  worked: ReturnType<typeof solarString.compute>
  /** what the charge mode leaves of it, W; null where no mode cuts it */
  modeW: number | null
}

/** Each array on its input, by the `solar-string` calculator. */
export function arraysWorked(job: Job): ArrayWorked[] {
  const { source } = job
  return (source?.arrays ?? []).flatMap(array => {
    const unit = source?.units.find(u => u.id === array.unitId)
    const input = unit && solarInputOf(unit.equipment)
    if (!unit || !input) return []
    const { stcW, vocV, vmpV, iscA, vocPctPerC, vmpPctPerC } = array.module
    const maxA = input.maxA ?? 1000
    const worked = solarString.compute(
      {
        module: { stcW, vocV, vmpV, iscA, vocPctPerC, ...(vmpPctPerC !== undefined && { vmpPctPerC }) },
        series: array.series,
        parallel: array.parallel,
        recordLowC: recordLowOf(job).C,
        hotCellC: 65,
        input: { minV: input.minV, maxV: input.maxV, maxA, maxW: input.maxW ?? maxA * input.maxV },
      },
      { recordLowC: { from: recordLowOf(job).said ? 'job' : 'assumed' } },
    )
    const mode = modeOf(job, unit)
    return [{ array, unit, worked, modeW: mode?.solarW ?? null }]
  })
}

/** The charge mode set on a unit, where it has that mode. */
export const modeOf = (job: Job, unit: Unit) =>
  unit.equipment.kind === 'station'
    ? unit.equipment.chargeModes?.find(m => m.name === job.source?.charging?.mode)
    : undefined

/** What all units take from AC together while they charge, W; undefined where a datasheet is silent. */
export function chargeW(job: Job): number | undefined {
  const each = job.source?.units.map(u => modeOf(job, u)?.acW ?? acInputOf(u.equipment))
  return each?.every(w => w !== undefined) ? each.reduce((a, b) => a + b, 0) : undefined
}

/** Charging from empty to full by AC: charger losses are taken as a tenth, an assumption. */
export const chargerEfficiencyFraction = 0.9

/** The refill of the whole store by a generator that carries the house meanwhile; null where it cannot. */
export function refillWorked(job: Job, houseW: number) {
  const generator = job.source?.generator
  const takesW = chargeW(job)
  const capacityWh = job.source?.units.reduce((sum, u) => sum + capacityOf(u), 0) ?? 0
  if (!generator || takesW === undefined || takesW <= 0 || capacityWh <= 0) return null
  if (generator.equipment.continuousW <= houseW) return null
  return refill.compute({
    capacityWh,
    fromFraction: job.outage.reserveFraction,
    toFraction: 1,
    generatorW: generator.equipment.continuousW,
    chargerMaxW: takesW,
    chargerEfficiencyFraction,
    houseW,
    WhPerGallon: generator.equipment.WhPerGallon,
    tankGallons: generator.equipment.tankGallons,
  })
}

/** Whether hours of the day overlap, both over midnight if need be. */
export function overlaps(a: { fromH: number; toH: number }, b: { fromH: number; toH: number }): boolean {
  const within = (h: number, { fromH, toH }: { fromH: number; toH: number }) =>
    fromH <= toH ? h >= fromH && h < toH : h >= fromH || h < toH
  return Array.from({ length: 96 }, (_, i) => i / 4).some(h => within(h, a) && within(h, b))
}
