import * as z from 'zod'
import { sourcedNumber } from '../job/sourced'
import { line, within } from '../quantity'
import type { Provenance } from '../working'
import { start } from './start'

export const loadNatures = ['plain', 'motor', 'compressor'] as const

const startSchema = z.discriminatedUnion('method', [
  z.strictObject({ method: z.literal('inrush'), inrushA: sourcedNumber(within(0.1, 1000, 'A')) }),
  z.strictObject({
    method: z.literal('locked-rotor'),
    lockedRotorA: sourcedNumber(within(0.1, 1000, 'A')),
    softStartFraction: within(0.1, 1, '(1 = no soft starter)').optional(),
  }),
  z.strictObject({ method: z.literal('multiple'), multiple: sourcedNumber(within(1, 10, '× running')) }),
])

/** One load on a circuit. Watts are real power; the duty is the share of time it runs. */
export const loadSchema = z.strictObject({
  id: line(40, 1),
  name: line(60, 1),
  runningW: sourcedNumber(within(0, 20_000, 'W')),
  powerFactor: sourcedNumber(within(0.1, 1, '(1 = resistive)')),
  dutyFraction: sourcedNumber(within(0, 1, 'of the time')),
  idleW: sourcedNumber(within(0, 5000, 'W')),
  nature: z.enum(loadNatures),
  start: startSchema.optional(),
  /** switched by a person, who can leave it off or wait: of these, one runs at a time */
  byHand: z.boolean(),
  /** proves its flame through ground: refuses a floating source */
  needsBond: z.boolean(),
})

export type Load = z.infer<typeof loadSchema>

/** A motor with no start figure is taken at this multiple of its running volt-amps, and asked for. */
export const assumedStartMultiple = 5

export const runningVA = (load: Load): number => load.runningW.value / load.powerFactor.value

/** Average watts: duty × running + the rest of the time idle. */
export const meanW = (load: Load): number =>
  load.dutyFraction.value * load.runningW.value + (1 - load.dutyFraction.value) * load.idleW.value

/** The weakest evidence among the figures that make a load's average. */
export function meanProvenance(load: Load): Provenance {
  const order = ['metered', 'utility data', 'nameplate', 'catalogue', 'job', 'typical value', 'assumed']
  const figures = [load.runningW, load.dutyFraction]
  return figures.reduce((worst, f) => (order.indexOf(f.from) > order.indexOf(worst.from) ? f : worst))
}

/** The start of a motor load, computed by `start`; null where the load simply runs. */
export function startOf(load: Load, volts: number) {
  if (load.nature === 'plain' && !load.start) return null
  const given = load.start
  if (!given)
    return start.compute(
      { method: 'multiple', runningVA: runningVA(load), multiple: assumedStartMultiple, volts },
      { multiple: { from: 'assumed' } },
    )
  if (given.method === 'inrush')
    return start.compute({ method: 'inrush', inrushA: given.inrushA.value, volts })
  if (given.method === 'multiple')
    return start.compute({
      method: 'multiple',
      runningVA: runningVA(load),
      multiple: given.multiple.value,
      volts,
    })
  return start.compute({
    method: 'locked-rotor',
    lockedRotorA: given.lockedRotorA.value,
    softStartFraction: given.softStartFraction ?? 1,
    volts,
  })
}
