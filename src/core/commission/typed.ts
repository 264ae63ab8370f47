import { typedNumber } from '../typed-number'
import type { Asked, TestUnit } from './tests'

const over = /^(o\.?l\.?|0l|0\.l|∞|open)$/i

/** What an instrument can show of a unit in a 120/240 V house, and why nothing else can be. */
const can: Record<TestUnit, { from: number; to: number; below: string; above: string }> = {
  V: {
    from: 0,
    to: 600,
    below: 'must not be negative: AC volts have no sign; leads the other way round change nothing',
    above: 'cannot be: this house has 240 V. Does the meter stand on mV?',
  },
  A: {
    from: 0,
    to: 1000,
    below: 'must not be negative: AC amps have no sign',
    above: 'must be at most 1,000 A: does the meter stand on mA?',
  },
  W: { from: -50_000, to: 50_000, below: 'must be at least −50,000 W', above: 'must be at most 50,000 W' },
  Ω: { from: 0, to: 100_000_000, below: 'must not be negative', above: 'is OL: type OL' },
  MΩ: { from: 0, to: 100_000, below: 'must not be negative', above: 'is OL: type OL' },
  s: { from: 0, to: 7200, below: 'must not be negative', above: 'must be at most 7,200 s' },
  min: { from: 0, to: 1440, below: 'must not be negative', above: 'must be at most 1,440 min' },
  Hz: { from: 0, to: 500, below: 'must not be negative', above: 'must be at most 500 Hz' },
  Wh: { from: 0, to: 1_000_000, below: 'must not be negative', above: 'must be at most 1,000,000 Wh' },
  '%': { from: 0, to: 100, below: 'must be from 0 to 100 %', above: 'must be from 0 to 100 %' },
  'gal/h': { from: 0, to: 20, below: 'must not be negative', above: 'must be at most 20 gal/h' },
  in·lb: { from: 0, to: 1000, below: 'must not be negative', above: 'must be at most 1,000 in·lb' },
}

/** Other functions of a multimeter that show a figure with the same letter. */
const wrongFunction: Partial<Record<TestUnit, RegExp>> = { V: /\d\s*(mv|µv|uv|kv)$/i, A: /\d\s*(µa|ua)$/i }
/** Units that stand for themselves where the reader of figures knows none. */
const known: Partial<Record<TestUnit, string>> = {
  V: 'V',
  A: 'A',
  W: 'W',
  s: 's',
  min: 'min',
  Wh: 'Wh',
  '%': '%',
}
const larger = { k: 1e3, m: 1e6 } as const

type Typed = { value: number | string } | { problem: string }

/** A reading as somebody typed it off an instrument, by what is asked; or what cannot be about it. */
export function typedRead(text: string, { unit, choices }: Pick<Asked, 'unit' | 'choices'>): Typed {
  const said = text.trim()
  if (choices) {
    const chosen = choices.find(c => c.toLowerCase() === said.toLowerCase())
    return chosen === undefined ? { problem: `must be one of: ${choices.join('; ')}` } : { value: chosen }
  }
  if (unit === null) return said ? { value: said } : { problem: 'must not be empty' }
  const ohms = unit === 'Ω' || unit === 'MΩ'
  if (over.test(said))
    return ohms
      ? { value: 'OL' }
      : { problem: `is no reading of ${unit}: OL is shown on Ω, or where the range is too small` }
  if (wrongFunction[unit]?.test(said))
    return {
      problem: `is in ${unit}: the meter stands on another range. Turn it to AC ${unit === 'V' ? 'volts' : 'amps'}, and read again`,
    }
  const got = ohms ? ohmsTyped(said, unit === 'MΩ') : typedNumber(bare(said, unit), known[unit])
  if ('problem' in got) return got
  if (typeof got.value === 'string') return got
  const { from, to, below, above } = can[unit]
  return got.value < from ? { problem: below } : got.value > to ? { problem: above } : got
}

const bare = (text: string, unit: TestUnit): string => {
  if (unit === 'in·lb') return text.replace(/\s*in[·.\- ]?lbf?s?$/i, '')
  return known[unit] ? text : text.replace(new RegExp(`\\s*${unit.replace('/', '\\/')}$`, 'i'), '')
}

function ohmsTyped(text: string, mega: boolean): Typed {
  const [, figure = text, sign] = /^(.*?)\s*([kKmM])?\s*(?:Ω|ohms?)?$/.exec(text) ?? []
  const got = typedNumber(figure)
  if ('problem' in got || sign === undefined) return got
  const ohms = got.value * (sign === 'k' || sign === 'K' ? larger.k : larger.m)
  return { value: mega ? ohms / larger.m : ohms }
}
