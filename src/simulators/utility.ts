import type { IntervalSeries } from '@/core/loads/intervals'
import { type Household, yearOf } from './household'

/**
 * A stand-in for a utility’s data service: answers with the customer’s year in the open format, an Atom feed of ESPI
 * resources, as a real one does.
 */

/** How a feed is written: utilities differ, and a reader must not mind. */
export interface Manner {
  /** `espi:` before each element, or the default namespace */
  prefixed: boolean
  /** values are counted in ten to this power of a watt-hour */
  powerOfTen: 0 | -3
}

/** Whether this token may read: a real service knows its customers’ tokens; here one is good for all. */
export const serviceToken = 'simulated-customer-consent'

/** The feed of a house, piece by piece. */
export function* feedOf(house: Household, { prefixed, powerOfTen }: Manner): Generator<string> {
  const p = prefixed ? 'espi:' : ''
  const ns = prefixed ? 'xmlns:espi="http://naesb.org/espi"' : 'xmlns="http://naesb.org/espi"'
  const base = `/espi/1_1/resource/RetailCustomer/1/UsagePoint/${house.id}`
  const el = (name: string, content: string | number) => `<${p}${name}>${content}</${p}${name}>`
  const entry = (self: string, up: string, related: readonly string[], content: string) =>
    `<entry><id>urn:uuid:${self}</id><link rel="self" href="${self}"/><link rel="up" href="${up}"/>${related
      .map(href => `<link rel="related" href="${href}"/>`)
      .join('')}<content>${content}</content></entry>\n`
  const root = (name: string, content: string) => `<${p}${name} ${ns}>${content}</${p}${name}>`
  yield '<?xml version="1.0" encoding="UTF-8"?>\n<feed xmlns="http://www.w3.org/2005/Atom">\n<title>Simulated utility</title>\n'
  yield entry(
    base,
    '/espi/1_1/resource/RetailCustomer/1/UsagePoint',
    [`${base}/MeterReading`],
    root('UsagePoint', `<${p}ServiceCategory>${el('kind', 0)}</${p}ServiceCategory>`),
  )
  yield entry(
    '/espi/1_1/resource/LocalTimeParameters/1',
    '/espi/1_1/resource/LocalTimeParameters',
    [],
    root(
      'LocalTimeParameters',
      el('dstEndRule', 'B40E2000') +
        el('dstOffset', 3600) +
        el('dstStartRule', '360E2000') +
        el('tzOffset', -18_000),
    ),
  )
  for (const [n, series] of yearOf(house).entries()) {
    const reading = `${base}/MeterReading/${n + 1}`
    const type = `/espi/1_1/resource/ReadingType/${n + 1}`
    yield entry(reading, `${base}/MeterReading`, [`${reading}/IntervalBlock`, type], root('MeterReading', ''))
    yield entry(
      type,
      '/espi/1_1/resource/ReadingType',
      [],
      root(
        'ReadingType',
        el('accumulationBehaviour', 4) +
          el('commodity', 1) +
          el('flowDirection', series.flow === 'reverse' ? 19 : 1) +
          el('intervalLength', 3600) +
          el('kind', 12) +
          el('powerOfTenMultiplier', powerOfTen) +
          el('uom', 72),
      ),
    )
    yield* blocks(series, reading, 10 ** -powerOfTen, { el, entry, root, p })
  }
  yield '</feed>\n'
}

interface Write {
  el: (name: string, content: string | number) => string
  entry: (self: string, up: string, related: readonly string[], content: string) => string
  root: (name: string, content: string) => string
  p: string
}

/** A block for each day. */
function* blocks(
  { startS, Wh }: IntervalSeries,
  reading: string,
  scale: number,
  { el, entry, root, p }: Write,
): Generator<string> {
  const perDay = 24
  for (let from = 0; from < startS.length; from += perDay) {
    const rows: string[] = []
    for (let i = from; i < Math.min(startS.length, from + perDay); i++)
      rows.push(
        `<${p}IntervalReading><${p}timePeriod>${el('duration', 3600)}${el('start', startS[i] ?? 0)}</${p}timePeriod>${el('value', Math.round((Wh[i] ?? 0) * scale))}</${p}IntervalReading>`,
      )
    const self = `${reading}/IntervalBlock/${from / perDay + 1}`
    const interval = `<${p}interval>${el('duration', rows.length * 3600)}${el('start', startS[from] ?? 0)}</${p}interval>`
    yield entry(self, `${reading}/IntervalBlock`, [], root('IntervalBlock', interval + rows.join('')))
  }
}
