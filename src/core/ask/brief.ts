import * as z from 'zod'
import { loadSchema } from '../loads/load'
import { line, within } from '../quantity'

const yesNo = z.enum(['yes', 'no', 'unknown'])

/** Something that must stay alive, in the customer's words; the list is in order of importance. */
export const wantSchema = z.strictObject({
  id: line(40, 1),
  name: line(60, 1),
  /** the circuits that turned out to carry it */
  circuitIds: z.array(line(40, 1)).max(12, 'must name at most 12 circuits'),
  /** it would be missed, and may go: missing, it must live */
  nice: z.literal(true).optional(),
  /** which thing of the first call it is, how many of them, and what was answered about it */
  thing: line(60, 1).optional(),
  count: z.int('must be a whole number').min(1, 'must be 1 or more').max(12, 'must be at most 12').optional(),
  answers: z.record(line(40, 1), line(40, 1)).optional(),
  /** what it is taken to draw while no circuit carries it: a circuit takes them over */
  loads: z
    .array(
      z.strictObject({
        volts: z.union([z.literal(120), z.literal(240)], 'must be 120 or 240'),
        load: loadSchema,
      }),
    )
    .max(12, 'must hold at most 12 loads')
    .optional(),
  /** ids of the loads that its circuits took over */
  takenIds: z.array(line(40, 1)).max(12, 'must name at most 12 loads').optional(),
})
export type Want = z.infer<typeof wantSchema>

export const mostWants = 40

/** What was asked and answered before anyone drove out. A missing answer is a question still open. */
export const briefSchema = z.strictObject({
  access: line(200).optional(),
  season: z.enum(['winter', 'spring', 'summer', 'autumn', 'any', 'unknown']).optional(),
  timesPerYear: within(0, 365, 'a year').optional(),
  atHome: z.enum(['always', 'mostly', 'seldom', 'nobody lives there', 'unknown']).optional(),
  automatic: z.enum(['must', 'would be nice', 'no', 'unknown']).optional(),
  dailyUse: z.enum(['no', 'cheap rate', 'own solar', 'unknown']).optional(),
  medical: yesNo.optional(),
  medicalWhat: line(120).optional(),
  water: z.enum(['utility', 'own well', 'unknown']).optional(),
  wastewater: z.enum(['by gravity', 'pumped', 'unknown']).optional(),
  heat: z.enum(['gas or oil burner', 'heat pump', 'electric', 'wood', 'none', 'unknown']).optional(),
  largestMotor: line(80).optional(),
  largestMotorVolts: z.enum(['120', '240', 'unknown']).optional(),
  lockedRotorA: within(1, 300, 'A').optional(),
  solar: yesNo.optional(),
  solarKind: z.enum(['grid-tied', 'with a battery', 'unknown']).optional(),
  generator: yesNo.optional(),
  generatorW: within(300, 50_000, 'W').optional(),
  generatorNeutral: z.enum(['floating', 'bonded', 'unknown']).optional(),
  vehicle: yesNo.optional(),
  vehicleVolts: z.enum(['120', '120/240', 'unknown']).optional(),
  vehicleKeepFraction: within(0, 0.95, '(a fraction)').optional(),
  station: yesNo.optional(),
  stationWhat: line(80).optional(),
  inlet: yesNo.optional(),
  inletKind: z
    .enum(['inlet with interlock', 'inlet without interlock', 'transfer switch', 'unknown'])
    .optional(),
  budget: within(0, 1_000_000, 'dollars').optional(),
  space: line(200).optional(),
  noise: z.enum(['any', 'quiet at night', 'none', 'unknown']).optional(),
  coldestC: within(-50, 50, '°C').optional(),
  /** outdoors, of the place, ever: solar strings are judged by it */
  recordLowC: within(-60, 30, '°C').optional(),
  wants: z.array(wantSchema).max(mostWants, `must hold at most ${mostWants}`),
})
export type Brief = z.infer<typeof briefSchema>
/** A question's key: the answer it fills. */
export type Asked = Exclude<keyof Brief, 'wants'>
