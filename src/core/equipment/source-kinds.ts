import * as z from 'zod'
import { labelled } from '../field'
import { line, within } from '../quantity'
import { receptacleTypes } from '../units/tables/receptacles'
import { bankChemistries, chemistries, chemistryNames } from './chemistries'
import {
  efficiency,
  fullLoadEfficiency,
  head,
  neutralSchema,
  notStated,
  ratedFor,
  statedFigure,
  tail,
  watts,
} from './facts'

const most20 = z.int('must be a whole number').min(1, 'must be 1 or more').max(20, 'must be at most 20')
const outlets = (least = 1) =>
  labelled(
    z
      .array(
        z.strictObject({
          type: labelled(z.enum(receptacleTypes), 'Type'),
          count: labelled(most20, 'How many', 'count'),
          limitA: labelled(within(1, 100, 'A').optional(), 'Its own limit', 'A'),
        }),
      )
      .min(least, 'must list at least one outlet')
      .max(12, 'must hold at most 12 kinds of outlet'),
    'Outlets',
    'text',
    { row: 'Outlet' },
  )

const solarInput = labelled(
  z
    .strictObject({
      count: labelled(z.int().min(1, 'must be 1 or more').max(8, 'must be at most 8'), 'How many', 'count'),
      minV: labelled(within(1, 1000, 'V'), 'Lowest volts', 'V'),
      maxV: labelled(within(1, 1000, 'V'), 'Highest volts', 'V'),
      maxA: labelled(within(0.1, 100, 'A').optional(), 'Takes at most', 'A'),
      maxW: labelled(within(1, 50_000, 'W').optional(), 'Takes at most', 'W'),
    })
    .optional(),
  'Solar input',
)

/** How charging is set, and what that does to the other inputs: a fact of the unit. */
const chargeModes = labelled(
  z
    .array(
      z
        .strictObject({
          name: labelled(line(40, 1), 'Mode'),
          acW: labelled(within(0, 50_000, 'W'), 'From AC', 'W'),
          solarW: labelled(within(0, 50_000, 'W').optional(), 'Solar cut to', 'W'),
          totalW: labelled(within(0, 50_000, 'W').optional(), 'Both together', 'W'),
        })
        .check(({ value: { acW, solarW, totalW }, value, issues }) => {
          const part = Math.max(acW, solarW ?? 0)
          if (totalW !== undefined && totalW < part)
            issues.push({
              code: 'custom',
              path: ['totalW'],
              message: `is ${totalW} W, below the ${part} W that ${part === acW ? 'AC' : 'solar'} alone may bring`,
              input: value,
            })
        }),
    )
    .max(8, 'must hold at most 8 modes')
    .optional(),
  'Charge modes',
  'text',
  { row: 'Mode' },
)

const chemistry = labelled(z.enum([...chemistries, notStated]).optional(), 'Chemistry', 'text', {
  names: chemistryNames,
})
const coldest = {
  chargeAboveC: labelled(within(-40, 30, '°C').optional(), 'Charges only above', 'C'),
  dischargeAboveC: labelled(within(-60, 30, '°C').optional(), 'Works only above', 'C'),
}
const passThrough = labelled(
  z.enum(['allowed', 'forbidden on a bonded neutral', notStated]),
  'Pass-through while it feeds a panel',
)
const passThroughScope = labelled(
  z.enum(['from the utility', 'from any supply', notStated]).optional(),
  'That ban is of AC',
)
/** How the neutral of its AC input stands to that of its output while it passes through or charges. */
const inputNeutral = labelled(
  z.enum(['joined', 'isolated', notStated]).optional(),
  'Neutral from AC input to output',
)
/** How the neutral on its source side stands to the one it makes. */
const throughNeutral = labelled(
  z.enum(['joined', 'isolated', notStated]).optional(),
  'Neutral, source side to house side',
)

/** A portable station: inverter, battery and outlets in one case. */
export const stationSchema = z.strictObject({
  kind: z.literal('station'),
  ...head,
  continuousW: watts('Continuous'),
  legW: labelled(within(1, 100_000, 'W').optional(), 'of it on one leg', 'W', {
    description: 'of a 120/240 V unit',
  }),
  surgeW: watts('Surge'),
  startsLockedRotorA: statedFigure(1, 1000, 'A', 'Starts motors up to (locked rotor)', 'A'),
  overloadS: statedFigure(0, 3600, 's', 'Holds an overload for', 's'),
  voltage: labelled(z.enum(['120', '120/240']), 'Volts'),
  outlets: outlets(),
  energyWh: labelled(within(1, 1_000_000, 'Wh'), 'Energy', 'Wh'),
  chemistry,
  expansion: labelled(
    z
      .strictObject({
        most: labelled(z.int().min(1, 'must be 1 or more').max(20, 'must be at most 20'), 'At most', 'count'),
        energyWh: labelled(within(1, 1_000_000, 'Wh'), 'Energy of each', 'Wh'),
        weightLb: labelled(within(0, 2000, 'lb').optional(), 'Weight of each', 'lb'),
        price: labelled(within(0, 100_000, '$').optional(), 'Price of each', '$'),
      })
      .optional(),
    'Expansion units',
  ),
  /** the unit's own draw while it is on: never nothing */
  idleW: labelled(within(0.1, 1000, 'W'), 'Own draw while on', 'W'),
  efficiencyFraction: efficiency('Battery to outlet'),
  fullLoadEfficiencyFraction: fullLoadEfficiency,
  neutral: neutralSchema,
  groundFaultOutlets: labelled(z.boolean(), 'Ground-fault protection on its outlets'),
  passThrough,
  passThroughScope,
  inputNeutral,
  acInputW: statedFigure(1, 100_000, 'W', 'AC input', 'W'),
  solar: solarInput,
  chargeModes,
  ...coldest,
  ratedFor,
  ...tail,
})
export type Station = z.infer<typeof stationSchema>

export const bankSchema = z.strictObject({
  kind: z.literal('bank'),
  ...head,
  unitV: labelled(within(1, 1000, 'V'), 'Volts of one', 'V'),
  unitAh: labelled(within(1, 10_000, 'Ah'), 'Capacity of one', 'Ah'),
  chemistry: labelled(z.enum(bankChemistries), 'Chemistry', 'text', { names: chemistryNames }),
  depthFraction: labelled(within(0.1, 1, '(a fraction)').optional(), 'Depth of discharge', 'fraction'),
  mostSeries: labelled(z.int().min(1, 'must be 1 or more').max(20).optional(), 'In series, at most', 'count'),
  mostParallel: labelled(z.int().min(1, 'must be 1 or more').max(100), 'In parallel, at most', 'count'),
  maxDischargeA: labelled(within(1, 2000, 'A').optional(), 'Discharges at most', 'A'),
  maxChargeA: labelled(within(1, 1000, 'A').optional(), 'Charges at most', 'A'),
  surgeA: labelled(within(1, 5000, 'A').optional(), 'for seconds', 'A'),
  ...coldest,
  ratedFor,
  ...tail,
})
export type Bank = z.infer<typeof bankSchema>

export const inverterSchema = z.strictObject({
  kind: z.literal('inverter'),
  ...head,
  continuousW: watts('Continuous'),
  legW: watts('of it on one leg'),
  surgeW: watts('Surge'),
  startsLockedRotorA: statedFigure(1, 1000, 'A', 'Starts motors up to (locked rotor)', 'A'),
  overloadS: statedFigure(0, 3600, 's', 'Holds an overload for', 's'),
  voltage: labelled(z.enum(['120', '120/240']).optional(), 'Volts', 'text', {
    description: '120/240 unless said',
  }),
  batteryV: labelled(within(1, 1000, 'V'), 'Battery volts', 'V'),
  idleW: labelled(within(0, 1000, 'W'), 'Own draw while on', 'W'),
  efficiencyFraction: labelled(
    within(0.3, 1, '(a fraction: 0.9 for 90 %)').optional(),
    'Battery to output',
    'fraction',
  ),
  fullLoadEfficiencyFraction: fullLoadEfficiency,
  ownTransfer: labelled(z.boolean(), 'Transfers by itself'),
  transferA: labelled(within(1, 400, 'A').optional(), 'Its transfer carries', 'A'),
  transferSeconds: labelled(within(0, 60, 's').optional(), 'Transfers within', 's'),
  neutral: neutralSchema.optional(),
  inputNeutral,
  chargeW: statedFigure(1, 100_000, 'W', 'Charges with', 'W'),
  solar: solarInput,
  ratedFor,
  ...tail,
})
export type Inverter = z.infer<typeof inverterSchema>

export const chargerSchema = z.strictObject({
  kind: z.literal('charger'),
  ...head,
  inputW: watts('Takes'),
  batteryV: labelled(within(1, 1000, 'V'), 'Battery volts', 'V'),
  efficiencyFraction: efficiency(),
  ...tail,
})

export const vehicleOutletSchema = z.strictObject({
  kind: z.literal('vehicle-outlet'),
  ...head,
  continuousW: watts('Continuous'),
  surgeW: watts('Surge'),
  voltage: labelled(z.enum(['120', '120/240']).optional(), 'Volts', 'text', {
    description: '120 unless said',
  }),
  outlets: outlets().optional(),
  packWh: labelled(within(1, 1_000_000, 'Wh'), 'Pack', 'Wh'),
  idleW: labelled(within(0, 2000, 'W').optional(), 'Own draw while on', 'W'),
  efficiencyFraction: efficiency('Pack to outlet').optional(),
  neutral: neutralSchema.optional(),
  groundFaultOutlets: labelled(z.boolean().optional(), 'Ground-fault protection on its outlet'),
  resetsByHand: labelled(z.boolean().optional(), 'Resets by hand after a trip'),
  ...tail,
})
export type VehicleOutlet = z.infer<typeof vehicleOutletSchema>

export const generatorSchema = z.strictObject({
  kind: z.literal('generator'),
  ...head,
  continuousW: watts('Continuous'),
  surgeW: watts('Surge'),
  voltage: labelled(z.enum(['120', '120/240']).optional(), 'Volts', 'text', {
    description: '120 unless said',
  }),
  outlets: outlets().optional(),
  WhPerGallon: labelled(within(100, 20_000, 'Wh per gallon'), 'Makes of a gallon', 'Wh/gal'),
  tankGallons: labelled(within(0.1, 100, 'gallons'), 'Tank', 'gal'),
  neutral: neutralSchema,
  loudDb: labelled(within(30, 130, 'dB').optional(), 'Loudness at 23 ft, dB', 'count'),
  ...tail,
})
export type Generator = z.infer<typeof generatorSchema>

const coefficient = (title: string) =>
  labelled(
    z
      .number()
      .lt(0, 'must be negative: volts fall as the cell warms')
      .min(-2, 'must be from -2 to 0 % per °C'),
    title,
    '%/°C',
  )

export const moduleSchema = z.strictObject({
  kind: z.literal('solar-module'),
  ...head,
  stcW: labelled(within(1, 2000, 'W'), 'Rated', 'W'),
  vocV: labelled(within(1, 200, 'V'), 'Open circuit', 'V'),
  vmpV: labelled(within(1, 200, 'V'), 'At most power', 'V'),
  iscA: labelled(within(0.1, 50, 'A'), 'Short circuit', 'A'),
  vocPctPerC: coefficient('Open-circuit volts change by'),
  vmpPctPerC: coefficient('Volts at most power change by').optional(),
  folding: labelled(z.boolean(), 'Folding, put out by hand'),
  ...tail,
})
export type Module = z.infer<typeof moduleSchema>

export const autotransformerSchema = z.strictObject({
  kind: z.literal('autotransformer'),
  ...head,
  continuousW: watts('Continuous'),
  idleW: labelled(within(0, 1000, 'W'), 'Own draw while on', 'W'),
  efficiencyFraction: efficiency(),
  /** amps at 120 V as it is switched on */
  inrushA: labelled(within(1, 1000, 'A').optional(), 'Inrush when switched on', 'A'),
  neutral: throughNeutral,
  plug: labelled(z.enum(receptacleTypes).optional(), 'Its plug'),
  outlets: outlets().optional(),
  ...tail,
})
export type Autotransformer = z.infer<typeof autotransformerSchema>

export const combinerSchema = z.strictObject({
  kind: z.literal('combiner'),
  ...head,
  /** ids of the stations it is made for; empty: any, as a plain adapter */
  pairs: labelled(z.array(line(40, 1)).max(20), 'Made for (ids of stations)', 'text'),
  synchronises: labelled(z.boolean(), 'Synchronises the two units'),
  batteries: labelled(z.enum(['apart', 'shared']), 'Batteries', 'text', {
    names: { apart: 'apart: each leg drains its own', shared: 'shared by both legs' },
  }),
  neutral: throughNeutral,
  outlets: outlets(),
  ...tail,
})
export type Combiner = z.infer<typeof combinerSchema>

/** What can stand at the head of a source. */
export const unitEquipmentSchema = z.discriminatedUnion('kind', [
  stationSchema,
  inverterSchema,
  vehicleOutletSchema,
  generatorSchema,
])
export type UnitEquipment = z.infer<typeof unitEquipmentSchema>
