import * as z from 'zod'
import { inLanguage, type Language, languageKeys } from '../languages'
import { currencies } from '../money-names'
import { line } from '../quantity'
import { type Costs, centsSchema } from './cost'
import type { Cents } from './money'
import { forCustomer, type Priced, pricedLineSchema, pricedSchema } from './priced'
import { type Promised, promiseSchema } from './promised'

/** One option as the customer sees it. */
export const optionSchema = z.strictObject({
  id: line(40, 1),
  name: line(120, 1),
  basis: z.enum(['wiring plan', 'method’s ranges']),
  unpriced: z.array(line(200, 1)).max(100),
  promise: promiseSchema,
  /** findings of our own checks that must not be, still to be settled */
  unsettled: z.int().min(0),
  lines: z.array(pricedLineSchema).max(400),
  subtotal: centsSchema,
  tax: pricedSchema.shape.tax,
  total: centsSchema,
})
export type Option = z.infer<typeof optionSchema>

export const mostOptions = 3

/** What a change order changes: against which accepted option, line by line. */
export const changeOfSchema = z.strictObject({
  version: z.int().min(1),
  option: line(120, 1),
  acceptedOn: z.iso.date(),
  was: centsSchema,
  lines: z
    .array(z.strictObject({ name: line(200, 1), was: centsSchema.nullable(), now: centsSchema.nullable() }))
    .max(200),
})

const text = z.string().max(2000)

/** An estimate as it is frozen: every figure and word that the customer sees. */
export const documentSchema = z.strictObject({
  format: z.literal(1),
  /** in which it is said; missing: English */
  language: z.enum(languageKeys).optional(),
  /** what its prices are in; missing: US dollars */
  currency: z.enum(currencies).optional(),
  number: line(40, 1),
  version: z.int().min(1),
  firm: line(120, 1),
  title: line(80, 1),
  place: line(120),
  on: z.iso.date(),
  validUntil: z.iso.date(),
  intro: text,
  exclusions: text,
  payment: text,
  closing: text,
  options: z
    .array(optionSchema)
    .min(1, 'must hold an option')
    .max(mostOptions, `must hold at most ${mostOptions} options`),
  changeOf: changeOfSchema.optional(),
})
export type EstimateDocument = z.infer<typeof documentSchema>

export const optionOf = (
  { id, name }: { id: string; name: string },
  { basis, unpriced }: Pick<Costs, 'basis' | 'unpriced'>,
  priced: Priced,
  promise: Promised,
  unsettled = 0,
  language: Language = 'en',
): Option => ({
  id,
  name,
  basis,
  unpriced: unpriced.slice(0, 100).map(n => n.slice(0, 200)),
  promise,
  unsettled,
  lines: forCustomer(priced, inLanguage(language)),
  subtotal: priced.subtotal,
  tax: priced.tax && {
    ...priced.tax,
    name: inLanguage(language)('offer.tax', { place: priced.tax.name.replace(/^Tax, /, '') }),
  },
  total: priced.total,
})

/** Whether a price is one figure: a range cannot be accepted, it is an answer before anybody came. */
export const isFirm = ({ total }: Pick<Option, 'total'>): boolean => total.low === total.high

/** The bytes of a document, the same for the same document: what its checksum is taken of. */
export const documentText = (document: EstimateDocument): string => JSON.stringify(document)

/** What became dearer, cheaper, new or gone between two options, by line; what stayed is left out. */
export function changesBetween(
  was: Pick<Option, 'lines' | 'tax'>,
  now: Pick<Option, 'lines' | 'tax'>,
): NonNullable<EstimateDocument['changeOf']>['lines'] {
  const rows = (o: Pick<Option, 'lines' | 'tax'>): { key: string; name: string; cents: Cents }[] => [
    ...o.lines.map(l => ({
      key: l.key,
      name: l.amount ? `${l.name} (${l.amount})` : l.name,
      cents: l.cents,
    })),
    ...(o.tax ? [{ key: 'tax', name: o.tax.name, cents: o.tax.cents }] : []),
  ]
  const before = rows(was)
  const after = rows(now)
  const same = (a: Cents, b: Cents) => a.low === b.low && a.high === b.high
  type Row = NonNullable<EstimateDocument['changeOf']>['lines'][number]
  return [
    ...before.flatMap((b): Row[] => {
      const a = after.find(x => x.key === b.key)
      if (!a) return [{ name: b.name, was: b.cents, now: null }]
      return same(a.cents, b.cents) ? [] : [{ name: a.name, was: b.cents, now: a.cents }]
    }),
    ...after
      .filter(a => !before.some(b => b.key === a.key))
      .map((a): Row => ({ name: a.name, was: null, now: a.cents })),
  ].slice(0, 200)
}
