import * as z from 'zod'
import { line, within } from '../quantity'
import { receptacleTypes } from '../units/tables/receptacles'

const watts = within(1, 100_000, 'W')
const wattHours = within(1, 1_000_000, 'Wh')
const about = {
  id: line(40, 1),
  name: line(60, 1),
  version: z.int().min(1, 'must be 1 or more'),
  notes: line(300).optional(),
}
const outlet = z.strictObject({
  type: z.enum(receptacleTypes),
  count: z.int().min(1, 'must be 1 or more').max(20, 'must be at most 20'),
  limitA: within(1, 100, 'A').optional(),
})
const solarInput = z.strictObject({
  count: z.int().min(1, 'must be 1 or more'),
  minV: within(1, 1000, 'V'),
  maxV: within(1, 1000, 'V'),
  maxA: within(0.1, 100, 'A').optional(),
  maxW: within(1, 50_000, 'W').optional(),
})
const neutral = z.enum(['floating', 'bonded', 'not stated'])

/** A portable station: inverter, battery and outlets in one case. */
export const stationSchema = z.strictObject({
  kind: z.literal('station'),
  ...about,
  continuousW: watts,
  surgeW: watts,
  energyWh: wattHours,
  voltage: z.enum(['120', '120/240']),
  /** per leg, of a 120/240 V station */
  legW: watts.optional(),
  /** the unit's own draw while it is on: never nothing */
  idleW: within(0.1, 1000, 'W'),
  efficiencyFraction: within(0.3, 1, '(a fraction)'),
  neutral,
  groundFaultOutlets: z.boolean(),
  outlets: z.array(outlet).min(1, 'must list at least one outlet'),
  expansion: z.strictObject({ most: z.int().min(1), energyWh: wattHours }).optional(),
  startsLockedRotorA: within(1, 1000, 'A').optional(),
  acInputW: watts.optional(),
  solar: solarInput.optional(),
  passThrough: z.enum(['allowed', 'forbidden on a bonded neutral', 'not stated']),
  pairing: line(120).optional(),
})
export type Station = z.infer<typeof stationSchema>

/** The firm's catalogue: every kind keeps its own facts; names carry their unit. */
export const equipmentSchema = z.discriminatedUnion('kind', [
  stationSchema,
  z.strictObject({
    kind: z.literal('bank'),
    ...about,
    unitV: within(1, 1000, 'V'),
    unitAh: within(1, 10_000, 'Ah'),
    chemistry: z.enum(['lfp', 'agm', 'flooded']),
    mostParallel: z.int().min(1),
  }),
  z.strictObject({
    kind: z.literal('inverter'),
    ...about,
    continuousW: watts,
    legW: watts,
    surgeW: watts,
    idleW: within(0, 1000, 'W'),
    batteryV: within(1, 1000, 'V'),
    ownTransfer: z.boolean(),
    solar: solarInput.optional(),
  }),
  z.strictObject({
    kind: z.literal('vehicle-outlet'),
    ...about,
    continuousW: watts,
    surgeW: watts,
    packWh: wattHours,
  }),
  z.strictObject({
    kind: z.literal('generator'),
    ...about,
    continuousW: watts,
    surgeW: watts,
    WhPerGallon: within(100, 20_000, 'Wh per gallon'),
    tankGallons: within(0.1, 100, 'gallons'),
    neutral,
  }),
  z.strictObject({
    kind: z.literal('transfer-switch'),
    ...about,
    inputA: within(1, 200, 'A'),
    positions: z.int().min(1),
    positionLimitsA: z.array(within(1, 100, 'A')).min(1),
    volts: z.enum(['120', '120/240']),
    switchesNeutral: z.boolean(),
    whipIn: within(1, 200, 'in').optional(),
  }),
  z.strictObject({
    kind: z.literal('autotransformer'),
    ...about,
    continuousW: watts,
    idleW: within(0, 1000, 'W'),
    efficiencyFraction: within(0.3, 1, '(a fraction)'),
  }),
  z.strictObject({
    kind: z.literal('managed-panel'),
    ...about,
    inputA: within(1, 400, 'A'),
    circuits: z.int().min(1),
  }),
])
export type Equipment = z.infer<typeof equipmentSchema>
