import type { Plate } from './nameplate'
import type { PlateKey } from './plate'

const number = String.raw`(\d+(?:[.,]\d+)?(?:\s*\/\s*\d+)?)`
/** A label with its figure before or after it; which of the two a plate means is seen from its first label. */
const labels = {
  lockedRotorA: 'LRA|locked rotor(?: amps)?',
  ratedLoadA: 'RLA|rated load(?: amps)?',
  minCircuitA: 'MCA|min(?:imum)?\\.? circuit(?: ampacity| amps)?',
  maxBreakerA: 'MOP|MOCP|max(?:imum)?\\.? (?:fuse|breaker|overcurrent)(?: protection)?(?: size)?',
} as const
const anyLabel = Object.values(labels).join('|')

function labelled(text: string): (readonly [key: keyof typeof labels, pattern: RegExp])[] {
  const figureFirst = new RegExp(
    String.raw`^(?:(?!\b(?:${anyLabel})\b).)*\d\s*\b(?:${anyLabel})\b`,
    'i',
  ).test(text)
  const before = (name: string) => new RegExp(String.raw`${number}\s*(?:A\s*)?(?:${name})\b`, 'i')
  const after = (name: string) => new RegExp(String.raw`\b(?:${name})\s*[:=]?\s*${number}`, 'i')
  const order = figureFirst ? [before, after] : [after, before]
  return order.flatMap(way =>
    (Object.keys(labels) as (keyof typeof labels)[]).map(key => [key, way(labels[key])] as const),
  )
}

type Numeric = Exclude<PlateKey, 'codeLetter' | 'phase'>
const printed: readonly (readonly [key: Numeric, pattern: RegExp])[] = [
  ['powerFactor', new RegExp(String.raw`\b(?:PF|power factor)\s*[:=]?\s*${number}`, 'i')],
  ['powerFactor', new RegExp(String.raw`${number}\s*(?:PF|power factor)\b`, 'i')],
  ['horsepower', new RegExp(String.raw`${number}\s*hp\b`, 'i')],
  ['hz', new RegExp(String.raw`${number}\s*(?:Hz|cycles)\b`, 'i')],
  ['VA', new RegExp(String.raw`${number}\s*VA\b`, 'i')],
  ['watts', new RegExp(String.raw`${number}\s*W(?:atts?)?\b`, 'i')],
  ['volts', new RegExp(String.raw`${number}\s*V(?:AC|olts?)?\b`, 'i')],
  ['amps', new RegExp(String.raw`${number}\s*(?:FLA|A(?:mps?)?)\b(?!\s*locked)`, 'i')],
  ['amps', new RegExp(String.raw`\bFLA\s*[:=]?\s*${number}`, 'i')],
]

/** The figures in a nameplate’s text as it is printed, such as `1/2 hp, 230 V, 4.2 A, LRA 22`. */
export function plateIn(text: string): Plate {
  const plate: Plate = {}
  let rest = text.replace(/(\d),(?=\d{3}\b)/g, '$1')
  // the kilo in kVA and kW
  rest = rest.replace(
    /(\d+(?:[.,]\d+)?)\s*k(VA|W)\b/gi,
    (_, n: string, unit: string) => `${Number(n.replace(',', '.')) * 1000} ${unit}`,
  )
  rest = rest.replace(/(\d+)[ -](\d)\s*\/\s*(\d)(?=\s*hp\b)/i, (_, w: string, a: string, b: string) =>
    String(Number(w) + Number(a) / Number(b)),
  )
  const letter = /\bcode\s*(?:letter)?\s*[:=]?\s*([A-HJ-NP-V])\b/i.exec(rest)
  if (letter?.[1]) {
    plate.codeLetter = letter[1].toUpperCase()
    rest = rest.replace(letter[0], ' ')
  }
  const phase =
    /\b(?:(1|3)\s*(?:PH|phase|ø)|(?:PH|phase)\s*[:=]?\s*(1|3)|(single|three)[ -]phase)(?!\w)/i.exec(rest)
  if (phase) {
    plate.phase =
      (phase[1] ?? phase[2] ?? phase[3]?.toLowerCase()) === '3' || phase[3]?.toLowerCase() === 'three' ? 3 : 1
    rest = rest.replace(phase[0], ' ')
  }
  for (const [key, pattern] of [...labelled(rest), ...printed]) {
    const [whole, found] = pattern.exec(rest) ?? []
    if (!whole || !found || plate[key] !== undefined) continue
    const [a = 0, b] = found.replace(',', '.').split('/').map(Number)
    // 1/2 hp is a half; 208/230 V are two services, of which a house has the higher
    plate[key] = b ? (key === 'horsepower' ? a / b : Math.max(a, b)) : a
    rest = rest.replace(whole, ' ')
  }
  return plate
}
