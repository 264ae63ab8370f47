import Papa from 'papaparse'
import { isSummerTime } from '../loads/intervals'
import type { Series } from '../loads/series'
import { type Fault, fail, fault, type Outcome, ok } from '../outcome'
import { plural } from '../units/format'
import { numberOf } from './figures'
import { type ColumnKind, type MeterFormat, wantedOfMeter } from './meter-format'
import { clockSOf, daySOf, instantSOf, placedReader } from './written-time'

/** Time series of meters, as their programs save them: any delimiter, decimal comma, many ways of writing time. */

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
  const { dateOrder } = format
  const placedS = placedReader(dateOrder)
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
      const plain = placedS(line, from[place.time] ?? 0, to[place.time] ?? 0)
      return Number.isNaN(plain) ? instantSOf(cellAt(place.time), dateOrder) : plain
    }
    if (place.clock >= 0) {
      const time = clockSOf(cellAt(place.clock))
      if (place.date >= 0) return daySOf(cellAt(place.date).trim(), dateOrder) + time
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
          problem = fault('$', `has a line of more than a million characters: ${wantedOfMeter}`)
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
            `holds no two readings that can be used: ${counts.unreadable ? `${plural(counts.unreadable, 'row')} could not be read by these columns; ` : ''}${wantedOfMeter}`,
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
