import type { Stock } from '../../search/stock'
import type { PartKind, PartLine, Why } from './line'
import type { Price } from './prices'

/** So many of one put-up. */
export interface Bought {
  quantity: number
  count: number
  priceUsd: number
  supplier: string
  on: string
}

export interface OrderLine {
  key: string
  kind: PartKind
  name: string
  unit: 'each' | 'ft'
  /** with waste, of all jobs of the order */
  needed: number
  fromStock: number
  toOrder: number
  bought: Bought[]
  /** $ of what is bought; null where nobody says */
  priceUsd: number | null
  /** what may be taken in its place, and how much of it is there */
  substitutes: { key: string; inStock: number }[]
  why: Why[]
}

export interface Order {
  lines: OrderLine[]
  /** $ of the lines with a price */
  knownUsd: number
  /** lines of which nobody knows the price */
  unpriced: number
  /** the oldest price that counts; null where none does */
  oldestOn: string | null
}

/** Of a stock, what nobody else keeps. */
export const freeOf = (stock: Stock, others: Stock): Stock =>
  Object.fromEntries(Object.entries(stock).map(([key, n]) => [key, Math.max(0, n - (others[key] ?? 0))]))

/** So many put-ups at most are mixed; more of them are never cheaper by enough to carry. */
const mostMixed = 4
const mostTries = 400

/** The cheapest put-ups that hold at least so much; none where no price is known. The order of the book does not matter. */
export function cheapest(need: number, prices: readonly Price[]): Bought[] {
  const known = prices
    .flatMap(p => (p.priceUsd === null ? [] : [{ ...p, priceUsd: p.priceUsd }]))
    .sort(
      (a, b) =>
        b.quantity - a.quantity ||
        a.priceUsd - b.priceUsd ||
        a.supplier.localeCompare(b.supplier) ||
        b.on.localeCompare(a.on),
    )
    // of one size, the cheapest
    .filter((p, n, all) => all.findIndex(o => o.quantity === p.quantity) === n)
  const perUnit = [...known]
    .sort((a, b) => a.priceUsd / a.quantity - b.priceUsd / b.quantity || b.quantity - a.quantity)
    .slice(0, mostMixed)
    .sort((a, b) => b.quantity - a.quantity)
  const best: { usd: number; counts: readonly number[] } = { usd: Infinity, counts: [] }
  const counts: number[] = []
  const search = (at: number, left: number, usd: number) => {
    if (usd >= best.usd - 1e-9) return
    if (left <= 1e-9) {
      best.usd = usd
      best.counts = [...counts]
      return
    }
    const put = perUnit[at]
    if (!put) return
    const most = Math.ceil(left / put.quantity - 1e-9)
    const last = at === perUnit.length - 1
    for (let n = most; n >= (last ? most : Math.max(0, most - mostTries)); n--) {
      counts[at] = n
      search(at + 1, left - n * put.quantity, usd + n * put.priceUsd)
    }
    counts[at] = 0
  }
  if (need > 1e-9) search(0, need, 0)
  return perUnit.flatMap((p, n) => {
    const count = best.counts[n] ?? 0
    return count
      ? [{ quantity: p.quantity, count, priceUsd: p.priceUsd, supplier: p.supplier, on: p.on }]
      : []
  })
}

/**
 * What is to be ordered for these jobs together: the sum of what each needs, less what is in stock and not kept for another job;
 * bought in the cheapest put-ups of the price book, else at the catalogue's price for one.
 */
export function orderOf(
  lists: readonly (readonly PartLine[])[],
  book: readonly Price[] = [],
  stock: Stock = {},
): Order {
  const byPart = new Map<string, Price[]>()
  for (const p of book) byPart.set(p.part, [...(byPart.get(p.part) ?? []), p])
  const sums = new Map<string, PartLine>()
  for (const line of lists.flat()) {
    const was = sums.get(line.key)
    sums.set(
      line.key,
      was
        ? {
            ...was,
            quantity: was.quantity + line.quantity,
            needed: was.needed + line.needed,
            catalogueUsd: was.catalogueUsd ?? line.catalogueUsd,
            why: [...was.why, ...line.why],
          }
        : line,
    )
  }
  const lines = [...sums.values()].map((line): OrderLine => {
    const fromStock = Math.min(line.needed, stock[line.key] ?? 0)
    const toOrder = line.needed - fromStock
    const prices = byPart.get(line.key) ?? []
    const bought = cheapest(toOrder, prices)
    const booked = bought.reduce((sum, b) => sum + b.count * b.priceUsd, 0)
    const priceUsd =
      toOrder <= 1e-9
        ? 0
        : bought.length
          ? booked
          : line.catalogueUsd === null
            ? null
            : toOrder * line.catalogueUsd
    return {
      key: line.key,
      kind: line.kind,
      name: line.name,
      unit: line.unit,
      needed: line.needed,
      fromStock,
      toOrder,
      bought,
      priceUsd,
      substitutes: [...new Set(prices.flatMap(p => p.substitutes))]
        .filter(key => key !== line.key)
        .sort()
        .map(key => ({ key, inStock: stock[key] ?? 0 })),
      why: line.why,
    }
  })
  const days = lines.flatMap(l => l.bought.map(b => b.on)).sort()
  return {
    lines,
    knownUsd: lines.reduce((sum, l) => sum + (l.priceUsd ?? 0), 0),
    unpriced: lines.filter(l => l.priceUsd === null).length,
    oldestOn: days[0] ?? null,
  }
}
