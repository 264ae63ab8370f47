/** Units that may be typed behind a figure, by the unit that the field is in: how much of it one is. */
const accepted: Record<string, Readonly<Record<string, number>>> = {
  W: { w: 1, watt: 1, watts: 1, kw: 1000 },
  VA: { va: 1, kva: 1000 },
  Wh: { wh: 1, kwh: 1000 },
  kWh: { kwh: 1, wh: 0.001 },
  A: { a: 1, amp: 1, amps: 1, ma: 0.001 },
  Ah: { ah: 1 },
  V: { v: 1, volt: 1, volts: 1, kv: 1000 },
  h: { h: 1, hr: 1, hrs: 1, hour: 1, hours: 1, min: 1 / 60, d: 24, day: 24, days: 24 },
  min: { min: 1, minute: 1, minutes: 1, h: 60, hr: 60, hours: 60 },
  s: { s: 1, sec: 1, seconds: 1, min: 60 },
  ft: { ft: 1, feet: 1, foot: 1, "'": 1, '′': 1, in: 1 / 12, m: 1 / 0.3048 },
  m: { m: 1, ft: 0.3048 },
  in: { in: 1, inch: 1, inches: 1, '"': 1, '″': 1, ft: 12 },
  hp: { hp: 1 },
  lb: { lb: 1, lbs: 1 },
  gal: { gal: 1 },
  '%': { '%': 1 },
  '°F': { '°f': 1, f: 1, '°': 1 },
  '°C': { '°c': 1, c: 1, '°': 1 },
  $: { $: 1 },
}

const halves: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
}

const longest = 60
const noNumber = 'must be a number, such as 36 or 2.5'

export type Typed = { value: number } | { problem: string }

/**
 * A figure as people type it: `1,250`, `1 250`, `1.250,5`, `1,5`, `1/2`, `2½`, `−3`, `1e3`, `12 kW` in a field of watts. A comma
 * before exactly three figures parts thousands, as is the custom here; any other parts the decimals. One reader for every field.
 * @param unit the unit that the field is in, as it stands beside it; a unit typed along must be one that it can be reckoned from
 */
export function typedNumber(text: string, unit?: string): Typed {
  if (text.length > longest) return { problem: noNumber }
  const plain = text
    .replace(/[\u2212\u2013\u2012\ufe63\uff0d]/g, '-')
    .replace(/[½¼¾⅓⅔⅛⅜⅝⅞]/g, half => ` ${halves[half]}`)
    .replace(/[\u00a0\u2007\u2009\u202f]/g, ' ')
    .trim()
  if (plain === '') return { problem: 'must not be empty' }
  const money = unit === '$' ? plain.replace(/^(-?)\$\s*/, '$1') : plain
  const [, figure = '', typedUnit = ''] =
    /^([-+]?[\d.,' /]*\d[.,]?(?:[eE][-+]?\d{1,3})?)\s*([^\d\s].{0,9})?$/.exec(money) ??
    /^([-+]?[.,]\d+(?:[eE][-+]?\d{1,3})?)\s*([^\d\s].{0,9})?$/.exec(money) ??
    []
  const value = figure ? figureIn(figure.trim()) : Number.NaN
  if (Number.isNaN(value)) return { problem: noNumber }
  if (!Number.isFinite(value)) return { problem: 'is too large' }
  if (!typedUnit) return { value }
  const factor = unit === undefined ? undefined : accepted[unit]?.[typedUnit.trim().toLowerCase()]
  if (factor === undefined)
    return {
      problem: unit && accepted[unit] ? `is in ${unit}: “${typedUnit}” cannot be reckoned into it` : noNumber,
    }
  return { value: factor === 1 ? value : Number((value * factor).toPrecision(12)) }
}

/** A figure without its unit; NaN where it is none. */
function figureIn(figure: string): number {
  const fraction = /^([-+])?(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(figure)
  if (fraction) {
    const [, sign, whole = '0', above, below] = fraction
    const value = Number(whole) + Number(above) / Number(below)
    return Number(below) === 0 ? Number.NaN : sign === '-' ? -value : value
  }
  const [, sign = '', digits = '', exponent = ''] = /^([-+]?)\s*([\d.,' ]+)([eE].*)?$/.exec(figure) ?? []
  const grouped = withoutThousands(digits.trim())
  return grouped === null || grouped === '' ? Number.NaN : Number(`${sign}${grouped}${exponent}`)
}

/** Digits with a point before the decimals, and nothing between the thousands; null where they are written as nobody does. */
function withoutThousands(digits: string): string | null {
  const commas = digits.split(',').length - 1
  const points = digits.split('.').length - 1
  const decimal =
    commas && points
      ? digits.lastIndexOf(',') > digits.lastIndexOf('.')
        ? ','
        : '.'
      : commas === 1 && !/^[1-9]\d{0,2}(?:[ ']\d{3})*,\d{3}$/.test(digits)
        ? ','
        : points === 1
          ? '.'
          : null
  const at = decimal === null ? -1 : digits.lastIndexOf(decimal)
  const [whole, part] = at < 0 ? [digits, ''] : [digits.slice(0, at), digits.slice(at + 1)]
  if (!/^\d*$/.test(part)) return null
  if (!/^\d*$/.test(whole) && !/^\d{1,3}(?:([ ',.])\d{3})(?:\1\d{3})*$/.test(whole)) return null
  return `${whole.replace(/[ ',.]/g, '')}${at < 0 ? '' : `.${part}`}`
}
