import { dateInCell } from './written-time'

/** Figures in tables that programs write: one decimal sign for the whole table, told from its first rows. */

/** What is longer than any figure is not looked at: the pattern would try every way to read it. */
const longestFigure = 60
export const looksLikeFigure = (cell: string) =>
  cell.length <= longestFigure && /^\s*[-+]?\d[\d\s.,]*(?:e[-+]?\d+)?\s*$/i.test(cell)

/** The sign before the decimals of a table, by what most of its figures tell. */
export function decimalOf(body: readonly string[][]): '.' | ',' {
  const cells = body.flat().filter(c => looksLikeFigure(c) && !dateInCell.test(c))
  // the last sign of a figure parts its decimals, unless just three digits follow: those may be thousands
  const votes = cells.map(c => /([.,])(\d+)\D*$/.exec(c)).filter(v => v !== null)
  const clear = votes.filter(v => (v[2] ?? '').length !== 3 || /^\s*[-+]?0*$/.test(v.input.slice(0, v.index)))
  const commas = clear.filter(v => v[1] === ',').length
  return commas > clear.length - commas ? ',' : '.'
}

/** A figure as written: thousands separators dropped, the decimal sign as given; NaN where there is none. */
export function numberOf(cell: string, decimal: '.' | ','): number {
  const direct = decimal === '.' ? Number(cell) : Number.NaN
  if (direct) return direct
  const plain = cell.trim()
  if (plain === '') return Number.NaN
  if (direct === 0) return 0
  const written =
    decimal === ','
      ? plain.replace(/[.\s](?=\d{3})/g, '').replace(',', '.')
      : plain.replace(/[,\s](?=\d{3})/g, '')
  return Number(written)
}
