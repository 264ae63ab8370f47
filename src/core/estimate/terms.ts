import * as z from 'zod'
import { labelled } from '../field'
import { line, within } from '../quantity'

/** What a price is made of, by the mark-up and the tax that it gets. A row for each. */
export const costKinds = {
  equipment: { name: 'Equipment' },
  material: { name: 'Material' },
  labour: { name: 'Labour' },
} as const
export type CostKind = keyof typeof costKinds

const rate = (title: string) => labelled(within(1, 1000, '$ an hour'), title, '$')
const markUp = (title: string) => labelled(within(0, 3, '(a fraction)'), title, 'fraction')
const text = (title: string) =>
  labelled(z.string().max(2000, 'must be at most 2,000 characters'), title, 'text', { lines: 2 })

/** A tax of a place, and what of a price it is taken of. */
export const taxSchema = z.strictObject({
  place: labelled(line(60, 1), 'Place'),
  fraction: labelled(
    within(0, 0.3, '(a fraction): a sales tax above 30 % is a slip of the pen'),
    'Tax',
    'fraction',
  ),
  equipment: labelled(z.boolean(), 'On equipment'),
  material: labelled(z.boolean(), 'On material'),
  labour: labelled(z.boolean(), 'On labour'),
})
export type Tax = z.infer<typeof taxSchema>

/** How a firm prices its work, and what its estimates say beside the figures. */
export const termsSchema = z.strictObject({
  labourUsdPerHour: rate('Electrician, an hour'),
  helperUsdPerHour: rate('Helper, an hour'),
  markUp: labelled(
    z.strictObject({
      equipment: markUp('Mark-up on equipment'),
      material: markUp('Mark-up on material'),
      labour: markUp('Mark-up on labour'),
    }),
    'Mark-up',
  ),
  taxes: labelled(
    z
      .array(taxSchema)
      .max(40, 'must hold at most 40 places')
      .check(({ value, issues }) => {
        value.forEach((tax, n) => {
          if (value.findIndex(t => t.place.toLowerCase() === tax.place.toLowerCase()) < n)
            issues.push({ code: 'custom', path: [n, 'place'], message: 'stands there twice', input: value })
        })
      }),
    'Taxes by place',
    'text',
    { row: 'Place' },
  ),
  permitUsd: labelled(within(0, 20_000, '$'), 'Permit and inspection', '$'),
  contingencyFraction: labelled(within(0, 0.5, '(a fraction)'), 'Contingency', 'fraction'),
  validDays: labelled(
    z.int('must be a whole number').min(1, 'must be 1 or more').max(365, 'must be at most 365'),
    'Valid for so many days',
    'count',
  ),
  numberPrefix: labelled(line(12), 'Number begins with'),
  intro: text('Before the options'),
  exclusions: text('Not included'),
  payment: text('Payment'),
  closing: text('At the end'),
})
export type Terms = z.infer<typeof termsSchema>

/** Ours, as the start of a firm's own. */
export const usualTerms: Terms = {
  labourUsdPerHour: 95,
  helperUsdPerHour: 55,
  markUp: { equipment: 0.15, material: 0.25, labour: 0 },
  taxes: [],
  permitUsd: 150,
  contingencyFraction: 0.05,
  validDays: 30,
  numberPrefix: 'E-',
  intro: '',
  exclusions:
    'Repair of walls and paint; faults of the existing wiring that show only when it is opened; work that the authority asks for beyond this scope; utility fees.',
  payment: 'A third on acceptance, a third when the equipment is here, the rest after the hand-over.',
  closing:
    'A planning aid stands behind the figures. Local code and the authority having jurisdiction decide.',
}
