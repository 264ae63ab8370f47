import Papa from 'papaparse'
import { fail, fault, type Outcome, ok } from '../outcome'
import { decimalOf, looksLikeFigure, numberOf } from './figures'
import { type ColumnKind, type MeterFormat, wantedOfMeter } from './meter-format'
import { clockInCell, dateInCell, dateOrderOf } from './written-time'

export interface Guess {
  format: MeterFormat
  names: string[]
  sample: string[][]
  /** what the person should look at, in words */
  unsure: string[]
}

/** Characters of a cell, and columns, that are looked at in telling what a table is. */
const longestCell = 200
const mostColumns = 200

/** What a file of readings seems to be, from its first lines; a person confirms it. Faults: no table, no time, no figures. */
export function guessMeterFormat(head: string, volts: number): Outcome<Guess> {
  const text = head.replace(/^\uFEFF/, '')
  if (!text.trim()) return fail(fault('$', `is empty: ${wantedOfMeter}`))
  if (/^\s*[<{[]/.test(text))
    return fail(fault('$', `is no table but ${text.trim()[0] === '<' ? 'XML' : 'JSON'}: ${wantedOfMeter}`))
  const { data, meta } = Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [';', '\t', ',', '|'],
  })
  const rows = data
    .slice(0, 200)
    .map(r => r.slice(0, mostColumns).map(c => (c.length > longestCell ? c.slice(0, longestCell) : c)))
  const width = commonWidth(rows)
  if (width < 2) return fail(fault('$', `has one column: ${wantedOfMeter}`))
  const headerRows = rows.findIndex(
    r => r.length >= width && r.filter(c => looksLikeFigure(c)).length >= 1 && r.some(isTimeLike),
  )
  if (headerRows < 0) return fail(fault('$', `has no row with a time and a figure: ${wantedOfMeter}`))
  const body = rows.slice(headerRows).filter(r => r.length >= width)
  const names = Array.from({ length: width }, (_, c) =>
    headerRows > 0 ? (rows[headerRows - 1]?.[c] ?? '').trim() : '',
  )
  const decimal = decimalOf(body)
  const unsure: string[] = []
  const columns = names.map((name, c) =>
    kindOf(
      name,
      body.map(r => r[c] ?? ''),
      decimal,
    ),
  )
  settle(columns, names, body, decimal, unsure)
  if (!columns.some(k => ['time', 'clock', 'elapsed s', 'elapsed h'].includes(k)))
    unsure.push('No column of time was recognised: say which it is.')
  if (!columns.some(k => ['W', 'kW', 'VA', 'A', 'Wh total', 'kWh total', 'Wh each row'].includes(k)))
    unsure.push('No column of watts, amps or energy was recognised: say which it is.')
  const dated = columns.findIndex(k => k === 'time' || k === 'date')
  const { order, sure } = dateOrderOf(body.map(r => r[dated] ?? ''))
  if (!sure) unsure.push('Day and month cannot be told apart: month first is taken.')
  return ok({
    format: {
      delimiter: meta.delimiter,
      decimal,
      headerRows,
      columns,
      dateOrder: order,
      volts,
      powerFactor: 1,
    },
    names,
    sample: body.slice(0, 5).map(r => r.slice(0, width)),
    unsure,
  })
}

function commonWidth(rows: readonly string[][]): number {
  const counts = new Map<number, number>()
  for (const r of rows) counts.set(r.length, (counts.get(r.length) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0] ?? 0
}

const isTimeLike = (cell: string) => clockInCell.test(cell) || dateInCell.test(cell) || looksLikeFigure(cell)

const named: readonly (readonly [ColumnKind, RegExp])[] = [
  ['elapsed h', /elapsed.*\bh(ours?)?\b/i],
  ['elapsed s', /elapsed|^\s*(seconds?|sec|t|s)\s*$/i],
  ['kWh total', /kwh/i],
  ['Wh total', /\bwh\b|watt.?hours?|energy/i],
  ['PF', /\bpf\b|power.?factor|cos/i],
  ['kW', /\bkw\b|kilowatts?/i],
  ['VA', /\bva\b|apparent/i],
  ['W', /\bw\b|watts?|power/i],
  ['A peak', /(inrush|peak|max\w*).*(\ba\b|amps?|current)|(\ba\b|amps?|current).*(inrush|peak|max)/i],
  ['A', /\ba\b|amps?|amperes?|current/i],
  ['V', /\bv\b|volts?|voltage/i],
  ['time', /date.*time|time.?stamp|datetime/i],
  ['date', /^\s*(date|day)\b/i],
  ['clock', /time|clock|hour/i],
]

function kindOf(name: string, cells: readonly string[], decimal: '.' | ','): ColumnKind {
  const filled = cells.filter(c => c.trim())
  if (!filled.length) return 'ignore'
  // a row or two of rubbish does not unmake a column
  const most = (fits: (cell: string) => boolean) => filled.filter(fits).length >= 0.6 * filled.length
  if (most(c => clockInCell.test(c) && dateInCell.test(c))) return 'time'
  if (most(c => dateInCell.test(c) && !clockInCell.test(c))) return 'date'
  if (most(c => clockInCell.test(c))) return 'clock'
  const figures = filled.map(c => numberOf(c, decimal))
  if (figures.filter(Number.isFinite).length < filled.length / 2) return 'ignore'
  if (figures.every(f => f > 1e9 && f < 3e12)) return 'time'
  const kind = named.find(([, pattern]) => pattern.test(name))?.[0] ?? 'ignore'
  if (kind === 'time' || kind === 'date' || kind === 'clock') return 'elapsed s'
  if (kind === 'kWh total' || kind === 'Wh total') {
    const falls = figures
      .slice(1)
      .filter((f, n) => f < (figures[n] ?? 0) && f >= 0.1 * (figures[n] ?? 0)).length
    // a counter is set back to nothing now and then; it does not fall a little
    const rises = falls <= figures.length * 0.02
    const steady =
      figures.slice(1).some((f, n) => f > (figures[n] ?? 0)) || figures.every(f => f === figures[0])
    return rises && steady ? kind : 'Wh each row'
  }
  return kind
}

/** A date beside a clock is one time; a clock alone counts from its start; nameless figures are told by what they do. */
function settle(
  columns: ColumnKind[],
  names: readonly string[],
  body: readonly string[][],
  decimal: '.' | ',',
  unsure: string[],
) {
  if (columns.includes('time'))
    columns.forEach((k, c) => {
      if (k === 'date' || k === 'clock') columns[c] = 'ignore'
    })
  const isTime = (k: ColumnKind) => k === 'time' || k === 'clock' || k.startsWith('elapsed')
  const isPower = (k: ColumnKind) =>
    ['W', 'kW', 'VA', 'A', 'Wh total', 'kWh total', 'Wh each row'].includes(k)
  columns.forEach((kind, c) => {
    if (kind !== 'ignore' || names[c]) return
    const figures = body.map(r => numberOf(r[c] ?? '', decimal)).filter(Number.isFinite)
    if (figures.length < body.length / 2) return
    const rises = figures.every((f, n) => n === 0 || f > (figures[n - 1] ?? 0))
    if (rises && !columns.some(isTime)) {
      columns[c] = 'elapsed s'
      unsure.push(`Column ${c + 1} has no name: it rises row by row, taken as seconds.`)
    } else if (!columns.some(isPower)) {
      columns[c] = 'W'
      unsure.push(`Column ${c + 1} has no name: taken as watts.`)
    }
  })
}
