import Papa from 'papaparse'
import { isSummerTime } from '../loads/intervals'
import type { Series } from '../loads/series'
import { type Fault, fail, fault, type Outcome, ok } from '../outcome'
import { plural } from '../units/format'
import { dateInCell as date, decimalOf, looksLikeFigure, numberOf } from './figures'

/** Time series of meters, as their programs save them: any delimiter, decimal comma, many ways of writing time. */

export const columnKinds = [
  'ignore',
  'time',
  'date',
  'clock',
  'elapsed s',
  'elapsed h',
  'W',
  'kW',
  'VA',
  'A',
  'A peak',
  'V',
  'PF',
  'Wh total',
  'kWh total',
  'Wh each row',
] as const
export type ColumnKind = (typeof columnKinds)[number]

export interface MeterFormat {
  delimiter: string
  decimal: '.' | ','
  /** rows before the figures begin */
  headerRows: number
  columns: ColumnKind[]
  dateOrder: 'ymd' | 'mdy' | 'dmy'
  /** of the circuit: for a column of amps alone, V */
  volts: number
  /** where only amps or volt-amps are given */
  powerFactor: number
}

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

const wanted = 'wanted is a table with a time and W, A or a counter of Wh, one reading a row'

/** What a file of readings seems to be, from its first lines; a person confirms it. Faults: no table, no time, no figures. */
export function guessMeterFormat(head: string, volts: number): Outcome<Guess> {
  const text = head.replace(/^\uFEFF/, '')
  if (!text.trim()) return fail(fault('$', `is empty: ${wanted}`))
  if (/^\s*[<{[]/.test(text))
    return fail(fault('$', `is no table but ${text.trim()[0] === '<' ? 'XML' : 'JSON'}: ${wanted}`))
  const { data, meta } = Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [';', '\t', ',', '|'],
  })
  const rows = data
    .slice(0, 200)
    .map(r => r.slice(0, mostColumns).map(c => (c.length > longestCell ? c.slice(0, longestCell) : c)))
  const width = commonWidth(rows)
  if (width < 2) return fail(fault('$', `has one column: ${wanted}`))
  const headerRows = rows.findIndex(
    r => r.length >= width && r.filter(c => looksLikeFigure(c)).length >= 1 && r.some(isTimeLike),
  )
  if (headerRows < 0) return fail(fault('$', `has no row with a time and a figure: ${wanted}`))
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
  const { order, sure } = dateOrderOf(columns, body)
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

const clock = /\d{1,2}:\d{2}/
const isTimeLike = (cell: string) => clock.test(cell) || date.test(cell) || looksLikeFigure(cell)

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
  if (most(c => clock.test(c) && date.test(c))) return 'time'
  if (most(c => date.test(c) && !clock.test(c))) return 'date'
  if (most(c => clock.test(c))) return 'clock'
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

function dateOrderOf(columns: readonly ColumnKind[], body: readonly string[][]) {
  const c = columns.findIndex(k => k === 'time' || k === 'date')
  let order: MeterFormat['dateOrder'] = 'mdy'
  let sure = true
  const dates = body.flatMap(r => {
    const found = /(\d{1,4})([-/.])(\d{1,2})[-/.](\d{1,4})/.exec(r[c] ?? '')
    return found ? [found] : []
  })
  if (!dates.length) return { order, sure }
  if (dates.every(d => (d[1] ?? '').length === 4)) return { order: 'ymd' as const, sure }
  if (dates.some(d => Number(d[1]) > 12) || dates.every(d => d[2] === '.')) order = 'dmy'
  else if (!dates.some(d => Number(d[3]) > 12)) sure = false
  return { order, sure }
}

const digit = (text: string, at: number) => text.charCodeAt(at) - 48
const two = (text: string, at: number) => digit(text, at) * 10 + digit(text, at + 1)

/** Seconds of the local clock, counted like seconds since 1970; NaN where it cannot be read. */
function clockReader(order: MeterFormat['dateOrder']) {
  let lastDate = ''
  let lastDay = Number.NaN
  const dayOf = (text: string): number => {
    if (text === lastDate) return lastDay
    const [, a = '', b = '', c = ''] = /(\d{1,4})[-/.](\d{1,2})[-/.](\d{1,4})/.exec(text) ?? []
    const [y, m, d] = a.length === 4 ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b]
    const year = Number(y) + (y.length <= 2 ? 2000 : 0)
    lastDate = text
    const at = Date.UTC(year, Number(m) - 1, Number(d))
    // 31 February is no day, though the clock of a computer makes one of it
    lastDay = new Date(at).getUTCDate() === Number(d) && Number(m) <= 12 ? at / 1000 : Number.NaN
    return lastDay
  }
  const slow = (text: string): number => {
    const [, h = '', m = '', s = '0', half] =
      /(\d{1,3}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?\s*([AaPp])?/.exec(text) ?? []
    if (h === '') return Number.NaN
    const hour = half ? (Number(h) % 12) + (half.toLowerCase() === 'p' ? 12 : 0) : Number(h)
    return hour * 3600 + Number(m) * 60 + Number(s.replace(',', '.'))
  }
  return {
    /** 2026-01-05 00:00:01 by its places, the way most of a long file is written; NaN where it is written otherwise */
    placed: (text: string, from: number, to: number): number => {
      const c = text.charCodeAt(from + 10)
      if ((c !== 32 && c !== 84) || text.charCodeAt(from + 13) !== 58 || text.charCodeAt(from + 4) !== 45)
        return Number.NaN
      if (to - from > 19 && text.charCodeAt(from + 19) !== 13) return Number.NaN
      const seconds = text.charCodeAt(from + 16) === 58 ? two(text, from + 17) : 0
      const day =
        lastDate.length === 10 && text.startsWith(lastDate, from)
          ? lastDay
          : dayOf(text.slice(from, from + 10))
      return day + two(text, from + 11) * 3600 + two(text, from + 14) * 60 + seconds
    },
    /** date and time in one cell; also seconds or milliseconds since 1970 */
    whole: (text: string): number => {
      if (/^\s*\d{9,13}(\.\d+)?\s*$/.test(text)) {
        const figure = Number(text)
        return figure > 1e11 ? figure / 1000 : figure
      }
      const [day = ''] = /\d{1,4}[-/.]\d{1,2}[-/.]\d{1,4}/.exec(text) ?? []
      return dayOf(day) + slow(text.slice(text.indexOf(day) + day.length))
    },
    date: dayOf,
    clock: slow,
  }
}

/** A figure read from its characters, without cutting a piece out; NaN where it is written in any but the plainest way. */
function plainFigure(text: string, from: number, to: number): number {
  let value = 0
  let scale = 0
  let digits = 0
  let at = from
  const minus = text.charCodeAt(at) === 45
  if (minus) at++
  for (; at < to; at++) {
    const code = text.charCodeAt(at)
    if (code >= 48 && code <= 57) {
      value = value * 10 + (code - 48)
      digits++
      if (scale) scale *= 10
    } else if (code === 46 && !scale) scale = 1
    else if (code === 13 && at === to - 1) break
    else return Number.NaN
  }
  if (!digits || digits > 15) return Number.NaN
  const figure = scale > 1 ? value / scale : value
  return minus ? -figure : figure
}

export interface MeterReader {
  write: (text: string) => Outcome<{ rows: number }>
  end: () => Outcome<{ series: Series; warnings: string[] }>
}

const mostRows = 20_000_000
/** No circuit of a house draws a gigawatt: such a figure is rubbish, and its sum would be no number. */
const mostW = 1e9
const firstSize = 65_536

/** Reads a long file of readings piece by piece by the format that a person confirmed. */
export function meterReader(format: MeterFormat): MeterReader {
  const { columns, decimal, delimiter, volts, powerFactor } = format
  const at = (kind: ColumnKind) => columns.indexOf(kind)
  const place = {
    time: at('time'),
    date: at('date'),
    clock: at('clock'),
    s: at('elapsed s'),
    h: at('elapsed h'),
    W: at('W'),
    kW: at('kW'),
    VA: at('VA'),
    A: at('A'),
    peak: at('A peak'),
    V: at('V'),
    PF: at('PF'),
    Wh: at('Wh total'),
    kWh: at('kWh total'),
    each: at('Wh each row'),
  }
  const read = clockReader(format.dateOrder)
  let clockS = new Float64Array(firstSize)
  let value = new Float32Array(firstSize)
  let peak = place.peak < 0 ? null : new Float32Array(firstSize)
  let n = 0
  let rest = ''
  let skip = format.headerRows
  let problem: Fault | null = null
  const counts = {
    unreadable: 0,
    resets: 0,
    backward: 0,
    doubled: 0,
    negative: 0,
    repeatedHours: 0,
    skippedHours: 0,
  }
  let last = Number.NaN
  let lastTotal = Number.NaN
  let lastStepS = 0
  let crAlone: boolean | undefined
  const clocked = place.time >= 0 || place.date >= 0
  let shiftS = 0
  let dayS = 0
  const shifts: Series['shifts'] = []
  // the row at hand: where in the text each of its cells begins and ends
  let line = ''
  const from = new Int32Array(columns.length)
  const to = new Int32Array(columns.length)
  let ahead = -1
  const cellAt = (c: number) => line.slice(from[c], to[c])
  const figureAt = (c: number) => {
    if (c < 0) return Number.NaN
    const plain = decimal === '.' ? plainFigure(line, from[c] ?? 0, to[c] ?? 0) : Number.NaN
    return Number.isNaN(plain) ? numberOf(cellAt(c), decimal) : plain
  }

  const timeOf = (): number => {
    if (place.time >= 0) {
      const plain = read.placed(line, from[place.time] ?? 0, to[place.time] ?? 0)
      return Number.isNaN(plain) ? read.whole(cellAt(place.time)) : plain
    }
    if (place.clock >= 0) {
      const time = read.clock(cellAt(place.clock))
      if (place.date >= 0) return read.date(cellAt(place.date).trim()) + time
      // a clock alone goes over midnight
      if (time + dayS < last - 43_200) dayS += 86_400
      return time + dayS
    }
    return place.s >= 0 ? figureAt(place.s) : figureAt(place.h) * 3600
  }
  const powerOf = (stepS: number): number => {
    if (place.W >= 0) return figureAt(place.W)
    if (place.kW >= 0) return figureAt(place.kW) * 1000
    const factor = place.PF >= 0 ? figureAt(place.PF) : powerFactor
    if (place.VA >= 0) return figureAt(place.VA) * factor
    if (place.A >= 0) return figureAt(place.A) * (place.V >= 0 ? figureAt(place.V) : volts) * factor
    if (place.each >= 0) return (figureAt(place.each) * 3600) / stepS
    const total = place.Wh >= 0 ? figureAt(place.Wh) : figureAt(place.kWh) * 1000
    const rise = total - lastTotal
    lastTotal = total
    // the first reading of a counter, and the first after it was set back, tell nothing of the time before
    if (rise < 0) {
      counts.resets++
      return Number.NaN
    }
    return (rise * 3600) / stepS
  }
  const counted = place.Wh >= 0 || place.kWh >= 0 || place.each >= 0
  const take = () => {
    const raw = timeOf()
    if (!Number.isFinite(raw)) {
      counts.unreadable++
      return
    }
    let stepS = raw - last
    // the clock set back in autumn: an hour that comes twice, or on again in spring: one that never was
    const near = (expected: number) => Math.abs(stepS + expected - lastStepS) <= Math.max(2, lastStepS / 2)
    if (
      n > 1 &&
      stepS <= 0 &&
      clocked &&
      near(3600) &&
      isSummerTime(raw - 7200) &&
      !isSummerTime(raw + 7200)
    ) {
      shiftS += 3600
      shifts.push({ atS: raw + shiftS, clockS: -shiftS })
      counts.repeatedHours++
      stepS += 3600
    } else if (n > 1 && stepS >= 3600 && clocked && near(-3600) && !isSummerTime(last) && isSummerTime(raw)) {
      shiftS -= 3600
      shifts.push({ atS: raw + shiftS, clockS: -shiftS })
      counts.skippedHours++
      stepS -= 3600
    } else if (stepS < 0) {
      counts.backward++
      return
    } else if (stepS === 0 && n > 0) {
      counts.doubled++
      return
    }
    const W = powerOf(n ? stepS : Number.NaN)
    if (n > 0) lastStepS = stepS
    last = raw
    if (!(Math.abs(W) <= mostW)) {
      if (!counted) counts.unreadable++
      // a counter's first reading is where its time begins
      if (!counted || n > 0) return
    }
    if (W < 0) counts.negative++
    if (n === clockS.length) grow()
    clockS[n] = raw + shiftS
    value[n] = Math.abs(W) <= mostW ? W : 0
    if (peak) peak[n] = figureAt(place.peak) || 0
    n++
    if (n > mostRows)
      problem = fault(
        '$',
        `holds more than ${mostRows.toLocaleString('en-US')} readings: save fewer days, or one reading each second`,
      )
  }
  const grow = () => {
    const bigger = new Float64Array(clockS.length * 2)
    bigger.set(clockS)
    clockS = bigger
    const more = new Float32Array(value.length * 2)
    more.set(value)
    value = more
    if (peak) {
      const peaks = new Float32Array(peak.length * 2)
      peaks.set(peak)
      peak = peaks
    }
  }
  /** Finds the cells of a row that ends at `end`; false where it is empty. */
  const cut = (text: string, begin: number, end: number): boolean => {
    if (begin === 0) ahead = -1
    line = text
    let at = begin
    for (let c = 0; c < from.length; c++) {
      // the next mark is looked for once: a column that never comes would be sought through the rest at every row
      if (ahead < at) {
        const found = text.indexOf(delimiter, at)
        ahead = found < 0 ? Number.POSITIVE_INFINITY : found
      }
      from[c] = Math.min(at, end)
      to[c] = Math.min(ahead, end)
      at = ahead > end ? end + 1 : ahead + delimiter.length
    }
    return end > begin && !(end === begin + 1 && text.charCodeAt(begin) === 13)
  }
  const parse = (text: string) => {
    if (text.includes('"')) {
      for (const row of Papa.parse<string[]>(text, { delimiter, skipEmptyLines: true }).data)
        if (skip > 0) skip--
        else if (
          cut(
            row.map(cell => cell.replaceAll(delimiter, ' ')).join(delimiter),
            0,
            row.reduce((sum, c) => sum + c.length, row.length - 1),
          )
        )
          take()
      return
    }
    // without quotes the cells are found by their places alone: a million rows leave no litter
    for (let begin = 0; begin <= text.length; ) {
      const next = text.indexOf('\n', begin)
      const end = next < 0 ? text.length : next
      if (cut(text, begin, end)) {
        if (skip > 0) skip--
        else take()
      }
      begin = end + 1
    }
  }
  return {
    write: text => {
      if (problem) return fail(problem)
      // some old programs end a line by CR alone
      crAlone ??= text.includes('\r') && !text.includes('\n')
      const all = rest + (crAlone ? text.replaceAll('\r', '\n') : text)
      const end = all.lastIndexOf('\n')
      if (end < 0) {
        rest = all
        if (rest.length > 1_000_000)
          problem = fault('$', `has a line of more than a million characters: ${wanted}`)
      } else {
        rest = all.slice(end + 1)
        parse(all.slice(0, end).replace(/^\uFEFF/, ''))
      }
      return problem ? fail(problem) : ok({ rows: n })
    },
    end: () => {
      if (problem) return fail(problem)
      if (rest.trim()) parse(rest)
      if (n < 2)
        return fail(
          fault(
            '$',
            `holds no two readings that can be used: ${counts.unreadable ? `${plural(counts.unreadable, 'row')} could not be read by these columns; ` : ''}${wanted}`,
          ),
        )
      const upright = counts.negative > n / 2
      const values = value.subarray(0, n)
      if (counts.negative)
        for (let i = 0; i < n; i++) values[i] = upright ? -(values[i] ?? 0) : Math.max(0, values[i] ?? 0)
      const startS = clockS[0] ?? 0
      const times = clockS.subarray(0, n).map(t => t - startS)
      const tell = (count: number, words: string) =>
        count ? [`${count.toLocaleString('en-US')} ${words}`] : []
      return ok({
        series: {
          startClockS: startS,
          dated: place.time >= 0 || place.date >= 0,
          tS: times,
          W: values,
          ...(peak && { peakA: peak.subarray(0, n) }),
          backward: counted,
          shifts: shifts.map(s => ({ atS: s.atS - startS, clockS: s.clockS })),
        },
        warnings: [
          ...tell(counts.unreadable, 'rows could not be read and were left out.'),
          ...tell(counts.doubled, 'rows repeat the time of the row before: the first is kept.'),
          ...tell(counts.backward, 'rows go back in time and were left out.'),
          ...tell(counts.resets, 'times the counter was set back: it is counted on from there.'),
          ...tell(counts.repeatedHours, 'hour comes twice (summer time ends): both are kept.'),
          ...tell(counts.skippedHours, 'hour is missing on the clock (summer time begins): no gap.'),
          ...(upright
            ? ['Most readings are below zero: the clamp sits the wrong way round; taken as positive.']
            : tell(counts.negative, 'readings below zero were taken as zero.')),
        ],
      })
    },
  }
}
