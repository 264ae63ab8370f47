import * as z from 'zod'
import { labelled } from '../field'
import { line, within } from '../quantity'
import type { UnitOfMeasure } from '../working'

/** What a datasheet is silent about: a value of its own, not a gap. */
export const notStated = 'not stated'
export type NotStated = typeof notStated

/** A figure that a datasheet gives, or is known to be silent about; left out while nobody has looked. */
export const statedFigure = (low: number, high: number, unit: string, title: string, symbol: UnitOfMeasure) =>
  labelled(z.union([within(low, high, unit), z.literal(notStated)]).optional(), title, symbol)

/** The figure, where the datasheet gives one. */
export const told = (value: number | NotStated | undefined): number | undefined =>
  typeof value === 'number' ? value : undefined

/** Where a fact of the catalogue comes from. */
export const factOrigins = ['datasheet', 'label', 'measured', 'asked', 'assumed'] as const

const sourceOfFact = z.strictObject({
  fact: labelled(line(60, 1), 'Fact'),
  from: labelled(z.enum(factOrigins), 'From'),
  document: labelled(line(120).optional(), 'Where it stands'),
})

/** What every item of the catalogue begins with, in the order a datasheet gives it. */
export const head = {
  id: labelled(line(40, 1), 'Id'),
  name: labelled(line(60, 1), 'Name'),
  version: z.int().min(1, 'must be 1 or more'),
  document: labelled(line(120).optional(), 'Datasheet it comes from', 'text', {
    description: 'title and date, or where it was measured',
  }),
}

/** What every item ends with: the firm's own figures, all optional. */
export const tail = {
  weightLb: labelled(within(0, 5000, 'lb').optional(), 'Weight', 'lb'),
  price: labelled(within(0, 1_000_000, '$').optional(), 'Price, the firm’s own', '$'),
  notes: labelled(line(300).optional(), 'Notes'),
  sources: labelled(
    z.array(sourceOfFact).max(40, 'must hold at most 40 facts').optional(),
    'Facts from elsewhere than the datasheet',
    'text',
    { row: 'Fact' },
  ),
}

export const watts = (title: string, most = 100_000) => labelled(within(1, most, 'W'), title, 'W')
export const amps = (title: string, most = 400) => labelled(within(1, most, 'A'), title, 'A')
export const efficiency = (title = 'Efficiency') =>
  labelled(within(0.3, 1, '(a fraction: 0.9 for 90 %)'), title, 'fraction')
/** Below the best one: what is left of the battery's energy when everything it can give is drawn. */
export const fullLoadEfficiency = labelled(
  within(0.3, 1, '(a fraction: 0.86 for 86 %)').optional(),
  'Of it at full load',
  'fraction',
  { description: 'beside the own draw; empty: the same at any load' },
)
export const neutralSchema = labelled(
  z.enum(['floating', 'bonded', notStated]),
  'Neutral and ground inside',
  'text',
  { names: { floating: 'floating', bonded: 'bonded', [notStated]: 'not stated' } },
)
/** Where it may stand or hang, by its listing. */
export const ratedFor = labelled(
  z.enum(['indoors', 'damp', 'wet', notStated]).optional(),
  'Rated for',
  'text',
)
