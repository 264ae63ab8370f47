import type { Field } from '@/core/field'
import { cellsOf } from '@/core/formats/cells'
import { typedNumber } from '@/core/typed-number'

/** The most rows one paste may bring: more than a year of quarter hours. */
const most = 50_000

/**
 * Rows of cells as a spreadsheet copies them (tabs, or semicolons, or commas), a column for each field in order.
 * One line without such marks is no table: nothing, so that it is pasted as text. A heading row is left out.
 */
export function pastedRows(text: string, fields: readonly Field[]): Record<string, unknown>[] {
  const rows = cellsOf(text).slice(0, most)
  if (!rows.length || (rows.length === 1 && !text.includes('\t'))) return []
  const numbers = fields.flatMap((f, n) => (f.kind === 'number' || f.kind === 'whole' ? [n] : []))
  const isHeading = numbers.some(n => rows[0]?.[n] && 'problem' in typedNumber(rows[0][n]))
  return rows.slice(isHeading ? 1 : 0).map(cells =>
    Object.fromEntries(
      fields.flatMap((f, n): [string, unknown][] => {
        const cell = cells[n]
        if (cell === undefined || cell === '') return []
        if (f.kind === 'number' || f.kind === 'whole') {
          const typed = typedNumber(cell)
          return [[f.key, 'value' in typed ? typed.value : cell]]
        }
        const option = f.options.find(o => String(o.value) === cell || o.name === cell)
        return [[f.key, option ? option.value : cell]]
      }),
    ),
  )
}
