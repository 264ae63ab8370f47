import Papa from 'papaparse'

/** Rows of cells of a text: commas, semicolons or tabs, quoted or not, any line ending; blank rows left out. */
export function cellsOf(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'), {
    newline: '\n',
    skipEmptyLines: 'greedy',
  })
  return data.map(row => row.map(cell => cell.trim()))
}

/** CSV as spreadsheets read it; a cell that would be taken for a formula is written as text. */
export const csvOf = (rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse(
    rows.map(row => [...row]),
    { escapeFormulae: /^'*[=+\-@\t\r].*$/s, newline: '\r\n' },
  )}\r\n`

/** A cell as it was before `csvOf` made text of a formula. */
export const unescaped = (cell: string): string => cell.replace(/^'(?='*[=+\-@\t\r])/, '')
