/** Dates and times of day as programs write them into tables, read by one rule for every table. */

export type DateOrder = 'ymd' | 'mdy' | 'dmy'

export const dateInCell = /(\d{1,4})([-/.])(\d{1,2})[-/.](\d{1,4})/
export const clockInCell = /\d{1,2}:\d{2}/

/** Year, month or day first, by what the cells of a column tell; not sure where each could be a month and a day. */
export function dateOrderOf(cells: readonly string[]): { order: DateOrder; sure: boolean } {
  const dates = cells.flatMap(cell => {
    const found = dateInCell.exec(cell)
    return found ? [found] : []
  })
  if (!dates.length) return { order: 'mdy', sure: true }
  if (dates.every(d => (d[1] ?? '').length === 4)) return { order: 'ymd', sure: true }
  if (dates.some(d => Number(d[1]) > 12) || dates.every(d => d[2] === '.'))
    return { order: 'dmy', sure: true }
  return { order: 'mdy', sure: dates.some(d => Number(d[3]) > 12) }
}

/** Midnight of a date as written, s since 1970 as if that clock were UTC; NaN where there is none, as on 31 February. */
export function daySOf(text: string, order: DateOrder): number {
  const [, a = '', , b = '', c = ''] = dateInCell.exec(text) ?? []
  const [y, m, d] = a.length === 4 ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b]
  const at = Date.UTC(Number(y) + (y.length <= 2 ? 2000 : 0), Number(m) - 1, Number(d))
  // the clock of a computer makes a day of 31 February
  return new Date(at).getUTCDate() === Number(d) && Number(m) <= 12 ? at / 1000 : Number.NaN
}

/** A time of day as written, with am and pm or without, s since midnight; hours may run on. NaN where there is none. */
export function clockSOf(text: string): number {
  const [, h = '', m = '', s = '0', half] =
    /(\d{1,3}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?\s*([AaPp])?/.exec(text) ?? []
  if (h === '') return Number.NaN
  const hour = half ? (Number(h) % 12) + (half.toLowerCase() === 'p' ? 12 : 0) : Number(h)
  return hour * 3600 + Number(m) * 60 + Number(s.replace(',', '.'))
}

/** Date and time in one cell, s; also seconds or milliseconds since 1970. */
export function instantSOf(text: string, order: DateOrder): number {
  if (/^\s*\d{9,13}(\.\d+)?\s*$/.test(text)) {
    const figure = Number(text)
    return figure > 1e11 ? figure / 1000 : figure
  }
  const [day = ''] = dateInCell.exec(text) ?? []
  return daySOf(day, order) + clockSOf(text.replace(day, ' '))
}

const digit = (text: string, at: number) => text.charCodeAt(at) - 48
const two = (text: string, at: number) => digit(text, at) * 10 + digit(text, at + 1)

/**
 * Reads 2026-01-05 00:00:01 by its places, the way most of a long file is written, without cutting a piece out; NaN where a
 * cell is written otherwise.
 */
export function placedReader(order: DateOrder) {
  let lastDate = ''
  let lastDay = Number.NaN
  return (text: string, from: number, to: number): number => {
    const c = text.charCodeAt(from + 10)
    if ((c !== 32 && c !== 84) || text.charCodeAt(from + 13) !== 58 || text.charCodeAt(from + 4) !== 45)
      return Number.NaN
    if (to - from > 19 && text.charCodeAt(from + 19) !== 13) return Number.NaN
    const seconds = text.charCodeAt(from + 16) === 58 ? two(text, from + 17) : 0
    if (lastDate === '' || !text.startsWith(lastDate, from)) {
      lastDate = text.slice(from, from + 10)
      lastDay = daySOf(lastDate, order)
    }
    return lastDay + two(text, from + 11) * 3600 + two(text, from + 14) * 60 + seconds
  }
}
