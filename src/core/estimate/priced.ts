import * as z from 'zod'
import { inLanguage, type Sayer } from '../languages'
import { line } from '../quantity'
import { type Cost, centsSchema } from './cost'
import { added, both, type Cents, centsOf, exactly, shareOf } from './money'
import { type CostKind, costKinds, type Tax, type Terms } from './terms'

export const pricedLineSchema = z.strictObject({
  key: line(160, 1),
  kind: z.enum(['equipment', 'material', 'labour', 'permit', 'contingency']),
  name: line(200, 1),
  amount: line(60),
  cents: centsSchema,
})
export type PricedLine = z.infer<typeof pricedLineSchema>

/** A price as the customer pays it, and how it comes about. */
export const pricedSchema = z.strictObject({
  lines: z.array(pricedLineSchema).max(400),
  /** of the lines */
  subtotal: centsSchema,
  /** of which tax is taken */
  taxed: centsSchema,
  tax: z.strictObject({ name: line(80), fraction: z.number(), cents: centsSchema }).nullable(),
  total: centsSchema,
})
export type Priced = z.infer<typeof pricedSchema>

/**
 * The price of costs by a firm's terms. The rounding rule: each cost is whole cents; its mark-up is worked out of it and rounded, half a cent
 * up; so is the contingency, of the sum of equipment, material and labour; and so is the tax, once, of the sum of what is taxed with its part of
 * the contingency. Nothing else is rounded: the lines always add up to the total.
 */
export function priced(costs: readonly Cost[], terms: Terms, place: string): Priced {
  const marked = costs.map(
    (c): PricedLine => ({
      key: c.key,
      kind: c.kind,
      name: c.name,
      amount: c.amount,
      cents: both(c.cents, cents => cents + shareOf(cents, terms.markUp[c.kind])),
    }),
  )
  const tax = terms.taxes.find(t => t.place === place)
  const sum = added(marked.map(l => l.cents))
  const ofTaxed = added(
    marked.flatMap(l => (l.kind in costKinds && isTaxed(tax, l.kind as CostKind) ? [l.cents] : [])),
  )
  const share = (cents: Cents) => both(cents, c => shareOf(c, terms.contingencyFraction))
  const contingency = share(sum)
  const permit = centsOf(terms.permitUsd)
  const lines: PricedLine[] = [
    ...marked,
    ...(permit && marked.length
      ? [
          {
            key: 'permit',
            kind: 'permit' as const,
            name: 'Permit and inspection',
            amount: '',
            cents: exactly(permit),
          },
        ]
      : []),
    ...(contingency.high
      ? [
          {
            key: 'contingency',
            kind: 'contingency' as const,
            name: 'Contingency',
            amount: '',
            cents: contingency,
          },
        ]
      : []),
  ]
  const subtotal = added(lines.map(l => l.cents))
  const taxed = tax ? added([ofTaxed, share(ofTaxed)]) : exactly(0)
  const taxCents = tax ? both(taxed, c => shareOf(c, tax.fraction)) : exactly(0)
  return {
    lines,
    subtotal,
    taxed,
    tax: tax ? { name: `Tax, ${tax.place}`, fraction: tax.fraction, cents: taxCents } : null,
    total: added([subtotal, taxCents]),
  }
}

const isTaxed = (tax: Tax | undefined, kind: CostKind): boolean => tax?.[kind] ?? false

/** Lines as a customer reads them: each device by its name, small parts and hours together. */
export function forCustomer({ lines }: Priced, say: Sayer = inLanguage('en')): PricedLine[] {
  const together = (kind: 'material' | 'labour'): PricedLine[] => {
    const own = lines.filter(l => l.kind === kind)
    const only = own[0]
    if (!only) return []
    return [
      {
        key: kind,
        kind,
        name: say(`offer.line.${kind}`),
        amount: kind === 'labour' ? own.map(l => l.amount).join(` ${say('offer.and')} `) : '',
        cents: added(own.map(l => l.cents)),
      },
    ]
  }
  return [
    ...lines.filter(l => l.kind === 'equipment'),
    ...together('material'),
    ...together('labour'),
    ...lines.flatMap(l =>
      l.kind === 'permit' || l.kind === 'contingency' ? [{ ...l, name: say(`offer.line.${l.kind}`) }] : [],
    ),
  ]
}
