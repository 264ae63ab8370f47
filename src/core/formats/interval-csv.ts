import Papa from 'papaparse'
import type { IntervalSeries, Intervals } from '../loads/intervals'
import { fail, fault, type Outcome, ok } from '../outcome'
import { plural } from '../units/format'
import { zoneClock } from '../zone-clock'
import { decimalOf, numberOf } from './figures'
import {
  clockInCell,
  clockSOf,
  type DateOrder,
  dateInCell,
  dateOrderOf,
  daySOf,
  instantSOf,
} from './written-time'

const wanted =
  'wanted is a table of use: a row for each interval with its date, time and kWh, or a row for each day with 24, 48 or 96 figures'

type Role = 'start' | 'date' | 'clock' | 'end' | 'forward' | 'reverse' | 'net' | 'quality' | null

interface Shape {
  kind: 'long' | 'wide'
  roles: Role[]
  /** of a wide table: the columns of the day, in order, and the length of each, min */
  day: number[]
  minutes: number
  scale: number
  order: DateOrder
  /** the sign before the decimals */
  decimal: '.' | ','
  header: number
}

/** Characters of a figure, and of any other cell that is looked at. */
const longestFigure = 40
const longestCell = 200
const mostColumns = 400
/** Years of quarter-hours of many meters; more is no table of one house. */
const mostReadings = 3_000_000
/** An interval of no house: the sum of such figures would be no number. */
const mostWh = 1e9

/** A figure as written; what is longer than any figure is not looked at: the pattern would try every way to read it. */
const isFigure = (cell: string) =>
  cell.length <= longestFigure && /^\s*-?[\d., ]*\d(?:e-?\d+)?\s*$/i.test(cell)

const roleOf = (name: string): Role =>
  /\b(end|to|until|finish)\b/i.test(name)
    ? 'end'
    : /export|received|generation|generated|returned|reverse|surplus|production/i.test(name)
      ? 'reverse'
      : /\bnet\b/i.test(name)
        ? 'net'
        : /import|delivered|consum|usage|use\b|used|energy|kwh|\bwh\b|value|read/i.test(name)
          ? 'forward'
          : /estimat|quality|flag|type|status/i.test(name)
            ? 'quality'
            : null

/** What the table is, from its first rows. */
function shapeOf(rows: readonly string[][]): Shape | string {
  const header = rows.findIndex((r, i) => {
    const next = rows[i + 1] ?? []
    return (
      next.some(c => dateInCell.test(c)) &&
      next.filter(isFigure).length > 0 &&
      !r.some(c => dateInCell.test(c) && c.length < 26)
    )
  })
  if (header < 0) return `has no header above a row with a date and a figure: ${wanted}`
  const names = rows[header] ?? []
  const body = rows.slice(header + 1).filter(r => r.some(c => dateInCell.test(c)))
  const first = body[0] ?? []
  const day = names.flatMap((name, c) =>
    isFigure(first[c] ?? '') &&
    (clockInCell.test(name) || /^\s*(?:h|hour|hr|he|kwh)?\s*\d{1,2}\s*$/i.test(name))
      ? [c]
      : [],
  )
  const { order } = dateOrderOf(body.map(r => r.find(c => dateInCell.test(c)) ?? ''))
  const decimal = decimalOf(body)
  const said = names.join(' ')
  const scale = /kwh/i.test(said) ? 1000 : /\bwh\b/i.test(said) ? 1 : 1000
  if ([24, 25, 48, 50, 96, 100].includes(day.length)) {
    const roles = names.map(
      (_, c): Role => (!day.includes(c) && dateInCell.test(first[c] ?? '') ? 'date' : null),
    )
    return {
      kind: 'wide',
      roles,
      day,
      minutes: day.length <= 25 ? 60 : day.length <= 50 ? 30 : 15,
      scale,
      order,
      decimal,
      header,
    }
  }
  const roles = names.map((name, c): Role => {
    const cell = first[c] ?? ''
    if (dateInCell.test(cell) && clockInCell.test(cell)) return /\bend|to\b/i.test(name) ? 'end' : 'start'
    if (dateInCell.test(cell)) return 'date'
    if (clockInCell.test(cell)) return /\bend|to\b/i.test(name) ? 'end' : 'clock'
    if (!isFigure(cell)) return /estimat|quality|flag|type|status/i.test(name) ? 'quality' : null
    return roleOf(name)
  })
  // of two columns of one kind the first is meant: kWh before its cost
  const once = roles.map((role, c) => (role !== null && roles.indexOf(role) !== c ? null : role))
  if (!once.includes('start') && !(once.includes('date') && once.includes('clock')))
    return `has no column with the date and time of each interval: ${wanted}`
  if (!once.some(r => r === 'forward' || r === 'reverse' || r === 'net'))
    return `has no column of kWh: ${wanted}`
  return { kind: 'long', roles: once, day: [], minutes: 0, scale, order, decimal, header }
}

interface Column {
  startS: number[]
  offsetMin: number[]
  minutes: number[]
  Wh: number[]
}
const column = (): Column => ({ startS: [], offsetMin: [], minutes: [], Wh: [] })

export interface IntervalCsvReader {
  write: (text: string) => Outcome<null>
  end: () => Outcome<Intervals>
}

/**
 * Reads a utility’s table of use as it streams in: long or wide, with what was fed back where it stands there.
 * @param zone whose clocks it was written by, an IANA name
 */
export function intervalCsvReader(zone: string): IntervalCsvReader {
  let rest = ''
  let head: string[][] | null = []
  let shape: Shape | null = null
  let problem: string | null = null
  let delimiter = ''
  let unreadable = 0
  let estimated = 0
  let readings = 0
  /** a line ended by CR alone, as some old programs write; a CR at the end of a piece may still meet its LF */
  let held = ''
  const flows: Record<'forward' | 'reverse' | 'net', Column> = {
    forward: column(),
    reverse: column(),
    net: column(),
  }
  const { instantsOf } = zoneClock(zone)
  let lastLocalS = Number.NaN
  let newestFirst = false
  let wasTwice = false
  const shownBefore = new Set<number>()

  /**
   * An instant from the clock on the wall: of a time that comes twice in autumn, the first as long as it has not been, and
   * the other way round in a table whose newest row comes first.
   */
  const instant = (localS: number): { startS: number; offset: number } => {
    const [first, second] = instantsOf(localS)
    if (!second || !wasTwice) newestFirst = localS < lastLocalS
    lastLocalS = localS
    wasTwice = second !== undefined
    const at = second && shownBefore.has(localS) !== newestFirst ? second : first
    if (second) shownBefore.add(localS)
    return { startS: at?.startS ?? Number.NaN, offset: at?.offsetMin ?? 0 }
  }
  const figure = (cell: string | undefined) => numberOf(cell ?? '', shape?.decimal ?? '.')
  const put = (into: Column, at: { startS: number; offset: number }, minutes: number, Wh: number) => {
    if (!(Math.abs(Wh) <= mostWh)) {
      unreadable++
      return
    }
    into.startS.push(at.startS)
    into.offsetMin.push(at.offset)
    into.minutes.push(minutes)
    into.Wh.push(Number(Wh.toPrecision(12)))
    if (++readings > mostReadings)
      problem ??= `has more than ${mostReadings.toLocaleString('en-US')} readings: ask for one year at a time`
  }
  const take = (row: string[], { kind, roles, day, minutes, scale, order }: Shape) => {
    const at = (role: Role) => row[roles.indexOf(role)] ?? ''
    if (kind === 'wide') {
      const localDay = daySOf(at('date'), order)
      if (!Number.isFinite(localDay)) {
        unreadable++
        return
      }
      day.forEach((c, n) => {
        const Wh = figure(row[c])
        // the 25th column holds the hour that comes twice, and is empty on other days
        if (n * minutes < 1440 && Number.isFinite(Wh))
          put(flows.forward, instant(localDay + n * minutes * 60), minutes, Wh * scale)
      })
      return
    }
    const text = roles.includes('start') ? at('start') : `${at('date')} ${at('clock')}`
    const localS = instantSOf(text, order)
    if (!Number.isFinite(localS)) {
      unreadable++
      return
    }
    if (/estim/i.test(at('quality')) || /^e$/i.test(at('quality').trim())) estimated++
    const end = at('end')
    const endS = end
      ? dateInCell.test(end)
        ? instantSOf(end, order)
        : daySOf(text, order) + clockSOf(end)
      : Number.NaN
    // 23:00 to 23:59, or to 0:00 of the next day
    const span = Number.isFinite(endS) ? Math.round((endS - localS + (endS <= localS ? 86_400 : 0)) / 60) : 0
    const minutesHere = [14, 29, 59].includes(span % 60) ? span + 1 : span
    const when = instant(localS)
    let any = false
    for (const flow of ['forward', 'reverse', 'net'] as const) {
      if (!roles.includes(flow)) continue
      const Wh = figure(at(flow))
      if (!Number.isFinite(Wh)) continue
      any = true
      put(flows[flow], when, minutesHere, Wh * scale)
    }
    if (!any) unreadable++
  }
  const parse = (text: string) => {
    if (!delimiter) {
      const first = Papa.parse<string[]>(text.slice(0, 40_000), {
        delimitersToGuess: [',', ';', '\t', '|'],
        skipEmptyLines: 'greedy',
      })
      delimiter = first.meta.delimiter
    }
    const { data } = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' })
    for (const full of data) {
      const row = full.length > mostColumns ? full.slice(0, mostColumns) : full
      row.forEach((cell, c) => {
        if (cell.length > longestCell) row[c] = cell.slice(0, longestCell)
      })
      if (shape) {
        if (row.length > 1) take(row, shape)
        continue
      }
      head?.push(row)
      if (head && head.length === 60) settle()
    }
  }
  const settle = () => {
    if (!head || shape) return
    const found = shapeOf(head)
    if (typeof found === 'string') {
      problem = found
      return
    }
    shape = found
    for (const row of head.slice(found.header + 1)) take(row, found)
    head = null
  }
  return {
    write: text => {
      const piece = held + text
      held = piece.endsWith('\r') ? '\r' : ''
      const all = rest + (held ? piece.slice(0, -1) : piece).replace(/\r\n?/g, '\n')
      const end = all.lastIndexOf('\n')
      rest = all.slice(end + 1)
      if (rest.length > 1_000_000) problem ??= `has a line of more than a million characters: ${wanted}`
      if (end >= 0 && !problem) parse(all.slice(0, end).replace(/^\uFEFF/, ''))
      return problem ? fail(fault('$', problem)) : ok(null)
    },
    end: () => {
      if (rest.trim() && !problem) parse(rest.replace(/^\uFEFF/, ''))
      if (!problem) settle()
      if (problem) return fail(fault('$', problem))
      const warnings: string[] = [`Times are taken as the clocks of ${zone} show them.`]
      if (unreadable) warnings.push(`${plural(unreadable, 'row')} without a usable time or figure left out.`)
      if (estimated) warnings.push(`${plural(estimated, 'reading')} estimated by the utility.`)
      const meters = (['forward', 'reverse', 'net'] as const).flatMap(flow => {
        const series = ordered(flow, flows[flow], warnings)
        return series ? [series] : []
      })
      return meters.length
        ? ok({ meters, warnings })
        : fail(fault('$', `holds no figures under its header: ${wanted}`))
    },
  }
}

/** In order of time; doubles left out; lengths that the table does not say taken from one start to the next. */
function ordered(flow: IntervalSeries['flow'], given: Column, warnings: string[]): IntervalSeries | null {
  if (!given.startS.length) return null
  const order = given.startS.map((_, i) => i).sort((a, b) => (given.startS[a] ?? 0) - (given.startS[b] ?? 0))
  const steps = order
    .slice(1)
    .map((i, n) => ((given.startS[i] ?? 0) - (given.startS[order[n] ?? 0] ?? 0)) / 60)
    .filter(m => m > 0)
  const usual = steps.sort((a, b) => a - b)[Math.floor((steps.length - 1) / 2)] ?? 60
  const kept: number[] = []
  let doubled = 0
  let gaps = 0
  let negative = 0
  for (const i of order) {
    const before = kept.at(-1)
    const start = given.startS[i] ?? 0
    if (before !== undefined && given.startS[before] === start) {
      doubled++
      continue
    }
    if (
      before !== undefined &&
      start > (given.startS[before] ?? 0) + (given.minutes[before] || usual) * 60 + 1
    )
      gaps++
    if ((given.Wh[i] ?? 0) < 0) negative++
    kept.push(i)
  }
  if (doubled) warnings.push(`${flow}: ${plural(doubled, 'reading')} given twice, the first is kept.`)
  if (gaps) warnings.push(`${flow}: ${plural(gaps, 'gap')} in its time.`)
  if (negative) warnings.push(`${flow}: ${plural(negative, 'interval')} below zero: it measures net flow.`)
  return {
    id: 'table',
    flow: negative ? 'net' : flow,
    startS: Float64Array.from(kept, i => given.startS[i] ?? 0),
    offsetMin: Int16Array.from(kept, i => given.offsetMin[i] ?? 0),
    minutes: Float32Array.from(kept, i => given.minutes[i] || usual),
    Wh: Float64Array.from(kept, i => given.Wh[i] ?? 0),
  }
}
