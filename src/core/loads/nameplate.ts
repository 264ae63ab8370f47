import * as z from 'zod'
import { line, within } from '../quantity'

/** What a nameplate says, as typed from it. */
export const plateSchema = z.strictObject({
  volts: within(1, 1000, 'V').optional(),
  amps: within(0.01, 400, 'A').optional(),
  watts: within(0.1, 50_000, 'W').optional(),
  horsepower: within(0.01, 50, 'hp').optional(),
  lockedRotorA: within(0.1, 1000, 'A').optional(),
  VA: within(0.1, 50_000, 'VA').optional(),
  powerFactor: within(0.1, 1, '(1 = resistive)').optional(),
  /** rated load amps of a compressor, A */
  ratedLoadA: within(0.01, 400, 'A').optional(),
  /** what the circuit’s wire must carry at least, A */
  minCircuitA: within(0.1, 400, 'A').optional(),
  /** the largest breaker or fuse allowed, A */
  maxBreakerA: within(1, 600, 'A').optional(),
  hz: within(1, 400, 'Hz').optional(),
  phase: z.union([z.literal(1), z.literal(3)], 'must be 1 or 3').optional(),
  /** locked-rotor kVA per horsepower, by NEC table 430.7(B) */
  codeLetter: z
    .string()
    .regex(/^[A-HJ-NP-V]$/, 'must be one letter, A to V without I, O and Q')
    .optional(),
  text: line(300).optional(),
})
export type Plate = z.infer<typeof plateSchema>
