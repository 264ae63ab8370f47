import fc from 'fast-check'
import { intervalAt } from '../loads/intervals'
import { greenButtonReader } from './green-button'

interface Given {
  prefix?: string
  flow?: number
  multiplier?: number
  uom?: number
  readings?: string
  place?: boolean
  head?: string
}

const hour = (start: number, value: number, more = '') =>
  `<IntervalReading><timePeriod><duration>3600</duration><start>${start}</start></timePeriod><value>${value}</value>${more}</IntervalReading>`

/** A feed of one meter, in the default namespace or with a prefix. */
function feed({
  prefix = '',
  flow = 1,
  multiplier = 0,
  uom = 72,
  readings = hour(1735707600, 500),
  place = true,
  head = '',
}: Given = {}) {
  const p = prefix ? `${prefix}:` : ''
  const espi = prefix ? `xmlns:${prefix}="http://naesb.org/espi"` : 'xmlns="http://naesb.org/espi"'
  const named = (xml: string) => (prefix ? xml.replace(/<(\/?)(?=[A-Za-z])/g, `<$1${p}`) : xml)
  const entry = (self: string, up: string, related: string, content: string) =>
    `<entry><link rel="self" href="${self}"/><link rel="up" href="${up}"/>${related && `<link rel="related" href="${related}"/>`}<content>${content}</content></entry>`
  return `<?xml version="1.0"?>${head}<feed xmlns="http://www.w3.org/2005/Atom">
${entry('/U/UsagePoint/7', '/U/UsagePoint', '', `<${p}UsagePoint ${espi}/>`)}
${place ? entry('/L/1', '/L', '', `<${p}LocalTimeParameters ${espi}>${named('<dstOffset>3600</dstOffset><tzOffset>-18000</tzOffset>')}</${p}LocalTimeParameters>`) : ''}
${entry('/U/UsagePoint/7/MeterReading/1', '/U/UsagePoint/7/MeterReading', '/T/ReadingType/1', `<${p}MeterReading ${espi}/>`)}
${entry('/T/ReadingType/1', '/T/ReadingType', '', `<${p}ReadingType ${espi}>${named(`<flowDirection>${flow}</flowDirection><intervalLength>3600</intervalLength><powerOfTenMultiplier>${multiplier}</powerOfTenMultiplier><uom>${uom}</uom>`)}</${p}ReadingType>`)}
${entry('/U/UsagePoint/7/MeterReading/1/IntervalBlock/1', '/U/UsagePoint/7/MeterReading/1/IntervalBlock', '', `<${p}IntervalBlock ${espi}>${named(readings)}</${p}IntervalBlock>`)}
</feed>`
}

function read(text: string, pieces = 1_000) {
  const reader = greenButtonReader()
  for (let i = 0; i < text.length; i += pieces) {
    const taken = reader.write(text.slice(i, i + pieces))
    if (!taken.ok) return taken
  }
  return reader.end()
}
const value = (text: string, pieces?: number) => {
  const outcome = read(text, pieces)
  if (!outcome.ok) throw new Error(outcome.faults[0]?.message)
  const { meters, warnings } = outcome.value
  return {
    warnings,
    meters: meters.map(meter => ({
      id: meter.id,
      flow: meter.flow,
      intervals: [...meter.startS].map((_, i) => intervalAt(meter, i)),
    })),
  }
}
const why = (text: string) => {
  const outcome = read(text)
  return outcome.ok ? null : outcome.faults[0]?.message
}

test('one meter: watt-hours with the offset of the place, in winter and in summer', () => {
  const july = 1751342400
  const { meters, warnings } = value(feed({ readings: hour(1735707600, 500) + hour(july, 820) }))
  expect(meters).toEqual([
    {
      id: '7/1',
      flow: 'forward',
      intervals: [
        { start: '2025-01-01T00:00:00-05:00', minutes: 60, Wh: 500 },
        { start: '2025-07-01T00:00:00-04:00', minutes: 60, Wh: 820 },
      ],
    },
  ])
  expect(warnings).toEqual(['Meter 7/1, forward: 1 gap in its time.'])
})

test('any prefix, any power of ten, any cut of the stream gives the same', () => {
  const [plain] = value(feed()).meters
  fc.assert(
    fc.property(
      fc.constantFrom('', 'espi', 'ns0', 'a'),
      fc.integer({ min: -3, max: 3 }),
      fc.integer({ min: 1, max: 700 }),
      (prefix, multiplier, pieces) => {
        const { meters } = value(
          feed({ prefix, multiplier, readings: hour(1735707600, 500 / 10 ** multiplier) }),
          pieces,
        )
        expect(meters).toEqual([plain])
      },
    ),
    { numRuns: 60 },
  )
})

test('reverse and net flow, power instead of energy, a unit that is neither', () => {
  expect(value(feed({ flow: 19 })).meters[0]?.flow).toBe('reverse')
  expect(value(feed({ readings: hour(1735707600, -20) })).meters[0]?.flow).toBe('net')
  const quarter = hour(1735707600, 2000).replace('3600', '900')
  expect(value(feed({ uom: 38, readings: quarter })).meters[0]?.intervals).toEqual([
    { start: '2025-01-01T00:00:00-05:00', minutes: 15, Wh: 500 },
  ])
  expect(why(feed({ uom: 119 }))).toMatch(/holds no energy: Meter 7\/1: its unit \(119\)/)
})

test('doubled, unsorted, estimated and unreadable readings are told, and no energy is counted twice', () => {
  const at = 1735707600
  const { meters, warnings } = value(
    feed({
      place: false,
      readings:
        hour(at + 3600, 2) +
        hour(at, 1, '<ReadingQuality><quality>8</quality></ReadingQuality>') +
        hour(at, 1) +
        hour(at + 3600, 9) +
        '<IntervalReading><value>4</value></IntervalReading>',
    }),
  )
  expect(meters[0]?.intervals.map(i => [i.start, i.Wh])).toEqual([
    ['2025-01-01T05:00:00Z', 1],
    ['2025-01-01T06:00:00Z', 2],
  ])
  expect(warnings).toEqual([
    'The file does not say its time zone: times are given as UTC.',
    '1 reading without a usable start or value left out.',
    'Meter 7/1, forward: 1 reading given twice, counted once.',
    'Meter 7/1, forward: 1 reading given twice with different values, the first is kept.',
    'Meter 7/1, forward: 1 reading estimated by the utility.',
  ])
})

test('entities, cut files and other files are refused with what was expected', () => {
  const bomb = '<!DOCTYPE lolz [<!ENTITY lol "lol"><!ENTITY lol2 "&lol;&lol;">]>'
  expect(why(feed({ head: bomb }))).toMatch(
    /declares a document type: entities and outside references are never read/,
  )
  expect(why(feed().replace('500', '&unknown;'))).toMatch(/not whole XML/)
  expect(why(feed().slice(0, -40))).toMatch(/may be cut short/)
  expect(why('<html><body/></html>')).toMatch(/outermost element is html.*Green Button/)
  expect(why('start,kWh\n1,2')).toMatch(/not whole XML/)
  expect(why('')).toMatch(/Green Button/)
})

test('a block belongs to the reading on its way, not to one whose name begins alike', () => {
  const espi = 'xmlns="http://naesb.org/espi"'
  const entry = (self: string, content: string, related = '') =>
    `<entry><link rel="self" href="${self}"/><link rel="up" href="${self.replace(/\/[^/]+$/, '')}"/>${related && `<link rel="related" href="${related}"/>`}<content>${content}</content></entry>`
  const type = (n: number, uom: number) =>
    entry(
      `/T/${n}`,
      `<ReadingType ${espi}><uom>${uom}</uom><intervalLength>3600</intervalLength></ReadingType>`,
    )
  const meter = (n: number) =>
    entry(`/U/MeterReading/${n}`, `<MeterReading ${espi}/>`, `/T/${n}`) +
    entry(
      `/U/MeterReading/${n}/IntervalBlock/1`,
      `<IntervalBlock ${espi}>${hour(1735707600, n)}</IntervalBlock>`,
    )
  const { meters } = value(
    `<feed xmlns="http://www.w3.org/2005/Atom">${type(1, 72)}${type(10, 72)}${meter(1)}${meter(10)}</feed>`,
  )
  expect(meters.map(m => [m.id, m.intervals[0]?.Wh])).toEqual([
    ['1', 1],
    ['10', 10],
  ])
})

test('figures of no house are left out and told, whatever power of ten they carry', () => {
  const { meters, warnings } = value(
    feed({ multiplier: 300, readings: hour(1735707600, 5) + hour(1735711200, 0) }),
  )
  expect(meters[0]?.intervals).toHaveLength(1)
  expect(warnings.join(' ')).toMatch(/1 reading far beyond any house left out/)
})

test('elements nested without end, and text without end, are refused where they are seen', () => {
  const reader = greenButtonReader()
  const first = reader.write('<feed>'.repeat(100))
  expect(!first.ok && first.faults[0]?.message).toMatch(/deeper than 64/)
  expect(reader.write('</feed>')).toEqual(first)
  const long = greenButtonReader()
  long.write('<feed>')
  expect(long.write('x'.repeat(2_000_001))).toMatchObject({ ok: false })
})
