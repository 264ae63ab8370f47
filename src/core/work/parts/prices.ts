import * as z from 'zod'
import { cellsOf, csvOf, unescaped } from '../../formats/cells'
import { line, within } from '../../quantity'

/** What a part costs in one put-up: by the foot, as a roll of 500 ft, as a box of 100. */
export const priceSchema = z.strictObject({
  /** key of the part */
  part: line(120, 1),
  name: line(160),
  /** how many, or how many ft, are in it */
  quantity: within(0.01, 100_000, 'of the part'),
  /** $; null: the supplier says it when asked */
  priceUsd: within(0.001, 1_000_000, '$').nullable(),
  supplier: line(80),
  /** what else may be taken in its place: keys of parts */
  substitutes: z.array(line(120, 1)).max(10, 'must hold at most 10 substitutes'),
  /** of the price */
  on: z.iso.date('must be a date: YYYY-MM-DD'),
})
export type Price = z.infer<typeof priceSchema>

export const mostPrices = 20_000
/** A row that could not be taken, as a spreadsheet counts them, with why. */
export interface RowFault {
  row: number
  column: string
  message: string
}

export interface BookRead {
  prices: Price[]
  faults: RowFault[]
  /** rows that were there twice: the newer price counts */
  doubled: number
}

const columns = ['part', 'name', 'quantity', 'price', 'supplier', 'substitutes', 'date'] as const
const needed = ['part', 'quantity', 'price', 'date'] as const
type Column = (typeof columns)[number]

const plainNumber = /^\d+(\.\d+)?$|^\d{1,3}(,\d{3})+(\.\d+)?$/
/** What a spreadsheet would work out; with a ' before it, it is text. */
const formula = /^[=+@]/

const amount = (cell: string): number | null => {
  const text = cell.replace(/^\$\s*/, '')
  return plainNumber.test(text) ? Number(text.replaceAll(',', '')) : null
}

export const keyOfPrice = ({ part, quantity, supplier }: Price) => `${part}|${quantity}|${supplier}`

/**
 * A price book out of CSV: columns by their names in the first row, in any order. What cannot be taken is told by row and column
 * and leaves the other rows; a file without its columns gives one fault and no price.
 */
export function readPrices(text: string, today: string): BookRead {
  const [head = [], ...rows] = cellsOf(text)
  const at = new Map<Column, number>()
  for (const column of columns) {
    const n = head.findIndex(cell => cell.toLowerCase() === column)
    if (n >= 0) at.set(column, n)
  }
  const missing = needed.filter(c => !at.has(c))
  const fail = (row: number, column: string, message: string): BookRead => ({
    prices: [],
    faults: [{ row, column, message }],
    doubled: 0,
  })
  if (missing.length)
    return fail(
      1,
      missing.join(', '),
      `is missing: the first row names the columns ${columns.join(', ')}; the file’s are ${head.slice(0, 12).join(', ') || 'none'}`,
    )
  if (rows.length > mostPrices)
    return fail(
      mostPrices + 2,
      'part',
      `is one too many: a book holds at most ${mostPrices.toLocaleString('en-US')} prices, this has ${rows.length.toLocaleString('en-US')}`,
    )
  const faults: RowFault[] = []
  const taken = new Map<string, Price>()
  let doubled = 0
  for (const [n, cells] of rows.entries()) {
    const read = priceOfRow(column => cells[at.get(column) ?? -1] ?? '', today)
    if ('message' in read) {
      faults.push({ row: n + 2, ...read })
      continue
    }
    const key = keyOfPrice(read)
    const was = taken.get(key)
    if (was) doubled++
    if (!was || was.on <= read.on) taken.set(key, read)
  }
  return { prices: [...taken.values()], faults, doubled }
}

const columnOf: Record<string, Column> = { on: 'date', priceUsd: 'price' }

function priceOfRow(cell: (column: Column) => string, today: string): Price | Omit<RowFault, 'row'> {
  const wrong = (column: Column, message: string) => ({ column, message })
  const bad = columns.find(column => formula.test(cell(column)))
  if (bad) return wrong(bad, `holds a formula (${cell(bad).slice(0, 20)}): save its value in its place`)
  const quantity = amount(cell('quantity'))
  if (quantity === null || quantity === 0)
    return wrong('quantity', `“${cell('quantity')}” is no quantity: a number above 0, as 500 for a roll`)
  const priceUsd = priceOf(cell('price'))
  if (typeof priceUsd === 'string') return wrong('price', priceUsd)
  const price = priceSchema.safeParse({
    part: cell('part'),
    name: unescaped(cell('name')),
    quantity,
    priceUsd,
    supplier: unescaped(cell('supplier')),
    substitutes: cell('substitutes').split(/\s+/).filter(Boolean),
    on: cell('date'),
  })
  if (!price.success) {
    const [issue] = price.error.issues
    const key = String(issue?.path[0] ?? 'part')
    return wrong(columnOf[key] ?? columns.find(c => c === key) ?? 'part', issue?.message ?? 'cannot be taken')
  }
  return price.data.on > today ? wrong('date', `${price.data.on} is yet to come`) : price.data
}

/** $ of a cell, null for one that is asked for; a sentence where it is neither. */
function priceOf(cell: string): number | null | string {
  if (cell === '' || cell.toLowerCase() === 'ask') return null
  if (/[€£¥]/.test(cell)) return `“${cell}” is in another money: prices are in $`
  const usd = amount(cell)
  if (usd === null) return `“${cell}” is no price: a number of $, or “ask”`
  if (usd === 0) return 'is 0: a part that costs nothing is taken from stock; one without a price is “ask”'
  return usd
}

/** The book as CSV, as it is read again. */
export const pricesCsv = (prices: readonly Price[]): string =>
  csvOf([
    [...columns],
    ...prices.map(p => [
      p.part,
      p.name,
      p.quantity,
      p.priceUsd ?? 'ask',
      p.supplier,
      p.substitutes.join(' '),
      p.on,
    ]),
  ])
