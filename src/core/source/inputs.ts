import { unpackYear, type WeatherYear } from '../ask/weather-year'
import { told } from '../equipment/facts'
import { type SolarArray, type Supplied, solarInputOf, type Unit } from './design'
import { refill } from './refill'
import { solarString } from './solar-string'
import { acInputOf, capacityOf } from './store'

/**
 * The record low of the place that a string is judged by, °C: as asked, else the coldest hour of its weather file, else
 * assumed. Where the battery stands is another matter.
 */
export function recordLowOf(job: Supplied): {
  C: number
  from: 'job' | 'weather file' | 'assumed'
  said: boolean
} {
  const asked = job.brief.recordLowC
  if (asked !== undefined) return { C: asked, from: 'job', said: true }
  const { weather } = job.outage
  if (weather) return { C: coldestHourC(weather), from: 'weather file', said: true }
  return { C: Math.min(-10, job.outage.outdoorC ?? -10), from: 'assumed', said: false }
}

const coldest = new WeakMap<WeatherYear, number>()
function coldestHourC(year: WeatherYear): number {
  const known = coldest.get(year)
  if (known !== undefined) return known
  const C = unpackYear(year).outdoorC.reduce((low, c) => Math.min(low, c), Infinity)
  coldest.set(year, C)
  return C
}

export interface ArrayWorked {
  array: SolarArray
  unit: Unit
  worked: ReturnType<typeof solarString.compute>
  /** what the charge mode leaves of it, W; null where no mode cuts it */
  modeW: number | null
}

/** Each array on its input, by the `solar-string` calculator. */
export function arraysWorked(job: Supplied): ArrayWorked[] {
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
      {
        recordLowC: {
          from: recordLowOf(job).said ? 'job' : 'assumed',
          ...(recordLowOf(job).from === 'weather file' && { document: job.outage.weather?.name }),
        },
      },
    )
    const mode = modeOf(job, unit)
    return [{ array, unit, worked, modeW: mode?.solarW ?? null }]
  })
}

/** The charge mode set on a unit, where it has that mode. */
export const modeOf = (job: Supplied, unit: Unit) =>
  unit.equipment.kind === 'station'
    ? unit.equipment.chargeModes?.find(m => m.name === job.source?.charging?.mode)
    : undefined

/** What one unit takes from AC while it charges, by its mode where one is set, W; undefined where a datasheet is silent. */
export const chargeOf = (job: Supplied, unit: Unit): number | undefined =>
  modeOf(job, unit)?.acW ?? acInputOf(unit.equipment)

/**
 * What passes through the AC inputs of all units at most, to the house and to charge together, W: a station's stated input,
 * an inverter's transfer at 240 V. Infinity where nothing says.
 */
export function acPassesW({ source }: Supplied): number {
  const each = (source?.units ?? []).map(({ equipment }) =>
    equipment.kind === 'station'
      ? (told(equipment.acInputW) ?? Infinity)
      : equipment.kind === 'inverter' && equipment.transferA !== undefined
        ? equipment.transferA * 240
        : Infinity,
  )
  return each.length ? each.reduce((a, b) => a + b, 0) : Infinity
}

/** What all units take from AC together while they charge, W; undefined where a datasheet is silent. */
export function chargeW(job: Supplied): number | undefined {
  const each = job.source?.units.map(u => chargeOf(job, u))
  return each?.every(w => w !== undefined) ? each.reduce((a, b) => a + b, 0) : undefined
}

/** Charging from empty to full by AC: charger losses are taken as a tenth, an assumption. */
export const chargerEfficiencyFraction = 0.9

/** The refill of the whole store by a generator that carries the house meanwhile; null where it cannot. */
export function refillWorked(job: Supplied, houseW: number) {
  const generator = job.source?.generator
  const takesW = chargeW(job)
  const capacityWh = job.source?.units.reduce((sum, u) => sum + capacityOf(u), 0) ?? 0
  if (!generator || takesW === undefined || takesW <= 0 || capacityWh <= 0) return null
  const houseMeanwhileW = generator.chargesOnly ? 0 : houseW
  const givesW = Math.min(
    generator.equipment.continuousW,
    generator.through === 'an isolating charger' ? Infinity : acPassesW(job),
  )
  if (givesW <= houseMeanwhileW) return null
  return refill.compute({
    capacityWh,
    fromFraction: job.outage.reserveFraction,
    toFraction: 1,
    generatorW: givesW,
    chargerMaxW: takesW,
    chargerEfficiencyFraction,
    houseW: houseMeanwhileW,
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
