import type { UnitOfMeasure } from '../working'
import { fahrenheitOf, metresOf } from './convert'

const formatters = new Map<number, Intl.NumberFormat>()

/** Formats are costly to make and few: one for each number of digits. */
function grouped(value: number, mostDigits: number): string {
  let formatter = formatters.get(mostDigits)
  if (!formatter) {
    formatter = new Intl.NumberFormat('en-US', { maximumFractionDigits: mostDigits })
    formatters.set(mostDigits, formatter)
  }
  return formatter.format(value)
}

/** Grouped, never scientific for trade magnitudes; whole numbers from as many digits up as are significant. */
function rounded(value: number, significant: number): string {
  // what is left of rounding is nothing that anybody measures
  if (Math.abs(value) < 1e-15) return '0'
  if (!Number.isFinite(value)) return '–'
  const size = Math.abs(value)
  if (size >= 1e9 || size < 1e-6) return value.toExponential(2)
  return grouped(value, Math.max(0, significant - 1 - Math.floor(Math.log10(size))))
}

/** Three significant digits. */
export const figure = (value: number): string => rounded(value, 3)

const symbols: Record<UnitOfMeasure, string> = {
  W: 'W',
  VA: 'VA',
  A: 'A',
  V: 'V',
  Wh: 'Wh',
  h: 'h',
  ft: 'ft',
  in2: 'in²',
  in3: 'in³',
  C: '°C',
  ohm: 'Ω',
  fraction: '%',
  count: '',
  circuits: '',
  text: '',
  AWG: 'AWG',
  connector: '',
  Ah: 'Ah',
  gal: 'gal',
  'Wh/gal': 'Wh/gal',
  '%/°C': '%/°C',
  degrees: '°',
  lb: 'lb',
  $: '$',
  in: 'in',
  s: 's',
}

/** A number with its unit, the same everywhere: `1,900 Wh`, `19.6 h`, `89 %`. */
export function quantity(value: number, unit: UnitOfMeasure): string {
  if (unit === 'fraction') return `${figure(value * 100)} %`
  if (unit === '$') return `$${grouped(value, 0)}`
  if (unit === 'circuits') return plural(value, 'circuit')
  // a meter shows tenths of a volt, and a drop is told by them
  if (unit === 'V') return `${rounded(value, 4)} V`
  if (unit === 'C') return `${figure(value)} °C (${figure(fahrenheitOf(value))} °F)`
  if (unit === 'ft') return `${figure(value)} ft (${figure(metresOf(value))} m)`
  const symbol = symbols[unit]
  return symbol ? `${figure(value)} ${symbol}` : figure(value)
}

/** Hours as people say them: `18.2 h`; below one in minutes. */
export const duration = (hours: number): string =>
  hours <= 0 || hours >= 1 ? quantity(hours, 'h') : `${Math.max(1, Math.round(hours * 60))} min`

/** Minutes of work as people say them: `50 min`, `1 h 40 min`. */
export function minutesText(minutes: number): string {
  const whole = Math.max(1, Math.round(minutes))
  const [h, min] = [Math.floor(whole / 60), whole % 60]
  return [h ? `${h} h` : '', min ? `${min} min` : ''].filter(Boolean).join(' ')
}

/** About how long it takes: to five minutes above a quarter of an hour. */
export const aboutText = (minutes: number): string =>
  minutesText(minutes > 15 ? 5 * Math.round(minutes / 5) : minutes)

export const shown = (value: number | string | boolean, unit: UnitOfMeasure): string =>
  typeof value === 'number'
    ? quantity(value, unit)
    : typeof value === 'boolean'
      ? value
        ? 'yes'
        : 'no'
      : unit === 'AWG'
        ? `${value} AWG`
        : value

/** `a`, `a and b`, `a, b and c`. */
export const together = (items: readonly string[]): string =>
  items.length < 2 ? (items[0] ?? '') : `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`

export const plural = (count: number, one: string, many = `${one}s`) =>
  `${count.toLocaleString('en-US')} ${count === 1 ? one : many}`

export const sentenceStart = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** An hour of the day as a clock shows it: `17:30`. */
export function hourText(hour: number): string {
  const minutes = Math.round(hour * 60) % 1440
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}
