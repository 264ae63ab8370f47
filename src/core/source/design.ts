import * as z from 'zod'
import type { Brief } from '../ask/brief'
import type { Outage } from '../ask/outage-asked'
import {
  autotransformerSchema,
  bankSchema,
  combinerSchema,
  generatorSchema,
  moduleSchema,
  type UnitEquipment,
  unitEquipmentSchema,
} from '../equipment/source-kinds'
import { labelled } from '../field'
import { legSchema } from '../panel/leg'
import { line, within } from '../quantity'
import { sourcedNumber } from '../sourced'
import { arrangementNames, jobArrangements } from './arrangement'

const whole = (title: string, most: number) =>
  labelled(
    z.int('must be a whole number').min(1, 'must be at least 1').max(most, `must be at most ${most}`),
    title,
    'count',
  )
const hour = (title: string) => labelled(within(0, 24, '(an hour of the day)'), title, 'h')

/** One thing that makes AC: a station, an inverter on its bank, a vehicle's outlet, a generator that feeds the panel. */
export const unitSchema = z.strictObject({
  id: line(40, 1),
  /** the catalogue's facts as they were when the job was designed */
  equipment: unitEquipmentSchema,
  expansionUnits: z.int('must be a whole number').min(0, 'must not be negative'),
  /** of an inverter */
  bank: z
    .strictObject({
      equipment: bankSchema,
      series: whole('In series', 20),
      parallel: whole('In parallel', 100),
      /** of the whole bank, at its terminals */
      fuseA: labelled(within(1, 2000, 'A').optional(), 'Fuse of the bank', 'A'),
    })
    .optional(),
  /** left of its label, by a capacity test: it takes the place of what age is taken to leave */
  capacity: sourcedNumber(within(0.2, 1.2, '(a fraction: 0.9 for 90 %)')).optional(),
  /** the customer has it already */
  owned: z.boolean(),
})
export type Unit = z.infer<typeof unitSchema>

/** Solar modules on one input of one unit. */
export const arraySchema = z.strictObject({
  id: line(40, 1),
  unitId: line(40, 1),
  module: moduleSchema,
  series: whole('Modules in series', 40),
  parallel: whole('Strings in parallel', 20),
  /** 0 flat, 90 upright */
  tiltDeg: labelled(within(0, 90, 'degrees').optional(), 'Tilt', 'degrees'),
  /** 0 north, 90 east, 180 south */
  azimuthDeg: labelled(within(0, 360, 'degrees').optional(), 'Faces', 'degrees'),
  owned: z.boolean(),
})
export type SolarArray = z.infer<typeof arraySchema>

/** A generator that charges the source, or carries the house meanwhile. */
export const rangeExtenderSchema = z.strictObject({
  equipment: generatorSchema,
  gallons: labelled(within(0, 1000, 'gallons'), 'Fuel kept', 'gal'),
  /** it carries nothing of the house meanwhile */
  chargesOnly: labelled(z.boolean().optional(), 'Charges only'),
  through: labelled(z.enum(['the AC input', 'an isolating charger']).optional(), 'Charges through'),
  where: labelled(z.enum(['outdoors', 'indoors', 'unknown']), 'Runs'),
  fromH: hour('From, hour of the day').optional(),
  toH: hour('To, hour of the day').optional(),
  /** it is started when the store has fallen to this share */
  startAtFraction: labelled(
    within(0.05, 1, '(a fraction: 0.5 for 50 %)').optional(),
    'Started when the store is down to',
    'fraction',
  ),
  quietFromH: hour('Quiet from').optional(),
  quietToH: hour('Quiet to').optional(),
  owned: z.boolean(),
})

const chargingFrom = [
  'not from the panel',
  'the panel, only when disconnected',
  'a circuit of the panel it feeds',
] as const

/** Where the source stands, which decides on cold and wet. */
export const standsSchema = z.strictObject({
  exposure: labelled(z.enum(['indoors', 'damp', 'wet', 'unknown']), 'Stands or hangs'),
  coldestC: labelled(within(-60, 60, '°C').optional(), 'Coldest there', 'C'),
  /** capacity left after use, as tested or assumed */
  agedFraction: labelled(
    within(0.3, 1, '(a fraction: 0.9 for 90 %)').optional(),
    'Left of its capacity',
    'fraction',
  ),
})

export const sourceSchema = z.strictObject({
  units: z
    .array(unitSchema)
    .min(1, 'must hold a unit')
    .max(2, 'must hold at most 2 units: more batteries are expansion units or a bank'),
  arrangement: z.enum(jobArrangements),
  /** the only live leg, or the one that the unit feeds directly */
  liveLeg: legSchema,
  combiner: combinerSchema.optional(),
  autotransformer: autotransformerSchema.optional(),
  generator: rangeExtenderSchema.optional(),
  arrays: z.array(arraySchema).max(16, 'must hold at most 16 arrays').optional(),
  charging: z.strictObject({ from: z.enum(chargingFrom), mode: line(40).optional() }).optional(),
  stands: standsSchema.optional(),
  /** how long it takes over by itself, as it was timed */
  transferS: sourcedNumber(within(0, 600, 's')).optional(),
})
export type Source = z.infer<typeof sourceSchema>
export const chargingWays: readonly (typeof chargingFrom)[number][] = chargingFrom

/** Volts that a unit puts out. */
export const voltsOf = (unit: UnitEquipment): '120' | '120/240' =>
  unit.kind === 'station' ? unit.voltage : (unit.voltage ?? (unit.kind === 'inverter' ? '120/240' : '120'))

/**
 * How the legs really stand to each other: two units behind a combiner that does not synchronise them are not split phase,
 * whatever their plug looks like.
 */
export const legsArrangement = ({
  arrangement,
  combiner,
}: Pick<Source, 'arrangement' | 'combiner'>): Source['arrangement'] =>
  arrangement === 'combined' && combiner && !combiner.synchronises ? 'independent' : arrangement

/** What keeps a source from an arrangement, in words; null when nothing does. */
export function hindersArrangement(
  source: Pick<Source, 'units' | 'combiner' | 'autotransformer'>,
  arrangement: Source['arrangement'],
): string | null {
  const [first] = source.units
  if (!first) return 'there is no unit yet'
  const { name } = first.equipment
  const volts = voltsOf(first.equipment)
  switch (arrangement) {
    case 'one-leg':
    case 'tied':
      return source.units.length > 1 ? 'it takes one unit only: take the other away' : null
    case 'split-phase':
      if (source.units.length > 1) return 'it takes one unit only: two 120 V units are combined instead'
      return volts === '120/240' ? null : `a ${name} puts out ${volts} V only`
    case 'combined':
      if (source.units.length !== 2) return 'it takes two units'
      return source.combiner ? null : 'it takes a combiner made for the two'
    case 'autotransformer':
      if (source.units.length > 1) return 'it takes one unit only'
      if (volts !== '120') return `a ${name} makes both legs by itself`
      return source.autotransformer ? null : 'it takes an autotransformer'
    case 'independent':
      return source.units.length === 2 ? null : 'it takes two units'
  }
}

/** What no single key of a source can tell. Paths are those inside the source. */
export function checkSource(source: Source, say: (path: PropertyKey[], message: string) => void) {
  const ids = new Set<string>()
  source.units.forEach((unit, n) => {
    const at = ['units', n]
    const { equipment } = unit
    if (ids.has(unit.id)) say([...at, 'id'], `repeats the id ${unit.id}`)
    ids.add(unit.id)
    const most = equipment.kind === 'station' ? (equipment.expansion?.most ?? 0) : 0
    if (unit.expansionUnits > most)
      say(
        [...at, 'expansionUnits'],
        most ? `must be at most ${most} on a ${equipment.name}` : `must be 0: a ${equipment.name} takes none`,
      )
    checkBank(unit, (path, message) => say([...at, ...path], message))
  })
  const hindered = hindersArrangement(source, source.arrangement)
  if (hindered) say(['arrangement'], `cannot be ${arrangementNames[source.arrangement]}: ${hindered}`)
  checkCombiner(source, say)
  source.arrays?.forEach((array, n) => {
    const unit = source.units.find(u => u.id === array.unitId)
    if (!unit) say(['arrays', n, 'unitId'], 'must name a unit of this source')
    else if (!solarInputOf(unit.equipment))
      say(['arrays', n, 'unitId'], `must name a unit with a solar input: a ${unit.equipment.name} has none`)
  })
}

function checkBank(unit: Unit, say: (path: PropertyKey[], message: string) => void) {
  const { equipment, bank } = unit
  if (equipment.kind !== 'inverter') {
    if (bank) say(['bank'], `must be left out: a ${equipment.name} brings its own battery or needs none`)
    return
  }
  if (!bank) {
    say(['bank'], `is missing: a ${equipment.name} runs from a battery`)
    return
  }
  const most = bank.equipment.mostParallel
  if (bank.parallel > most)
    say(
      ['bank', 'parallel'],
      `must be at most ${most}: more ${bank.equipment.name} in parallel are not permitted`,
    )
  const series = bank.equipment.mostSeries
  if (series !== undefined && bank.series > series)
    say(['bank', 'series'], `must be at most ${series} of ${bank.equipment.name}`)
  const volts = bank.series * bank.equipment.unitV
  // a 48 V inverter takes banks of 44 to 58 V nominal
  if (Math.abs(volts - equipment.batteryV) > 0.2 * equipment.batteryV)
    say(
      ['bank', 'series'],
      `gives ${volts.toLocaleString('en-US')} V, but a ${equipment.name} takes a ${equipment.batteryV} V bank`,
    )
}

function checkCombiner(source: Source, say: (path: PropertyKey[], message: string) => void) {
  const { combiner, units } = source
  if (!combiner || source.arrangement !== 'combined') return
  for (const unit of units)
    if (combiner.pairs.length && !combiner.pairs.includes(unit.equipment.id))
      say(['combiner'], `is made for ${combiner.pairs.join(', ')}, not for a ${unit.equipment.name}`)
  const [a, b] = units
  if (a && b && a.equipment.id !== b.equipment.id)
    say(['units', 1, 'equipment'], `must match the first: a combiner takes two of one kind`)
}

/** The solar input of a unit, where it has one. */
export const solarInputOf = (unit: UnitEquipment) =>
  unit.kind === 'station' || unit.kind === 'inverter' ? unit.solar : undefined

/** What of a job a source is reckoned from: itself, and the outage and place it has to meet. */
export interface Supplied {
  source?: Source | undefined
  outage: Outage
  brief: Brief
}
