import { typedNumber } from '../typed-number'
import type { ReadingAsked } from './holds'

const over = /^(o\.?l\.?|0l|0\.l|∞|open)$/i
const larger = { k: 1e3, m: 1e6 } as const

/** A reading as somebody typed it off a meter: `OL`, `0.3`, `121 V`, `1.2 M` of ohms; or what is wrong with it. */
export function typedReading(
  text: string,
  { unit }: Pick<ReadingAsked, 'unit'>,
): { value: number | 'OL' } | { problem: string } {
  const said = text.trim()
  if (over.test(said)) return { value: 'OL' }
  if (unit === 'Ω') {
    const [, figure = said, sign] = /^(.*?)\s*([kKmM])?\s*(?:Ω|ohms?)?$/.exec(said) ?? []
    const got = typedNumber(figure)
    const factor = sign === undefined ? 1 : sign === 'k' || sign === 'K' ? larger.k : larger.m
    return 'value' in got ? { value: got.value * factor } : got
  }
  return typedNumber(said.replace(/\s*in[·.\- ]?lbf?s?$/i, ''), unit === 'V' ? 'V' : undefined)
}
