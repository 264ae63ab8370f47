import { SaxesParser, type SaxesTagNS } from 'saxes'
import { type IntervalSeries, type Intervals, isSummerTime, unknownPlace } from '../loads/intervals'
import { fail, fault, type Outcome } from '../outcome'

const espi = 'http://naesb.org/espi'
const wanted =
  'wanted is the utility’s Green Button file: an XML feed with UsagePoint, MeterReading, ReadingType and IntervalBlock'

/** Units of measure of the standard that can become watt-hours. */
const units: Record<string, { name: string; energy: boolean }> = {
  '72': { name: 'Wh', energy: true },
  '38': { name: 'W', energy: false },
}
const flows: Record<string, IntervalSeries['flow']> = {
  '1': 'forward',
  '19': 'reverse',
  '4': 'net',
  '0': 'forward',
}
/** Quality of a reading, as the standard numbers it. */
const estimated = new Set(['7', '8', '9', '10'])

interface ReadingType {
  flow: IntervalSeries['flow']
  multiplier: number
  unit: string
  intervalSeconds: number | null
  cumulative: boolean
}

/** The readings of one meter reading as they come: plain numbers, so that a large file stays small. */
interface Series {
  start: number[]
  seconds: number[]
  value: number[]
  estimated: number
}

/** A reader that is given a file piece by piece; what it holds is the figures alone, never the text. */
export interface GreenButtonReader {
  write: (text: string) => Outcome<null>
  end: () => Outcome<Intervals>
}

/**
 * Reads the ESPI Atom feed of a utility as it streams in. Any prefix, several meters, any power of ten; entities and
 * document types are refused. What is odd but can be read is told in `warnings`.
 */
export function greenButtonReader(): GreenButtonReader {
  const parser = new SaxesParser({ xmlns: true, position: true })
  const feed = new Feed()
  let problem: string | null = null
  let written = 0
  let lastTagAt = 0
  let depth = 0
  /** Stops reading at once: what comes after it in the same piece is not gone through. */
  const stop = (message: string): never => {
    problem ??= message
    throw new Stopped(message)
  }
  const guarded = (read: () => void) => {
    try {
      if (!problem) read()
    } catch (error) {
      if (!(error instanceof Stopped)) throw error
    }
  }
  parser.on('error', error =>
    stop(`is not whole XML (${plain(error.message)}): the file may be cut short; ${wanted}`),
  )
  parser.on('doctype', () =>
    stop(
      'declares a document type: entities and outside references are never read; export the file again without them',
    ),
  )
  parser.on('opentag', tag => {
    lastTagAt = written
    if (++depth > deepest) stop(`nests its elements deeper than ${deepest}: ${wanted}`)
    feed.open(tag)
    if (feed.readings > mostReadings)
      stop(`has more than ${mostReadings.toLocaleString('en-US')} readings: ask for one year at a time`)
    if (feed.things > mostThings)
      stop(
        `names more than ${mostThings.toLocaleString('en-US')} meters and blocks: ask for one house at a time`,
      )
  })
  parser.on('text', text => feed.text(text))
  parser.on('closetag', tag => {
    lastTagAt = written
    depth--
    feed.close(tag.local, tag.uri)
  })
  const told = () => (problem === null ? null : fail(fault('$', problem)))
  return {
    write: text => {
      written += text.length
      guarded(() => {
        parser.write(text)
        if (written - lastTagAt > longestPiece)
          stop(`has no element for ${longestPiece.toLocaleString('en-US')} characters: ${wanted}`)
      })
      return told() ?? { ok: true, value: null }
    },
    end: () => {
      guarded(() => parser.close())
      return told() ?? feed.result()
    },
  }
}

class Stopped extends Error {}

/** No feed of a utility goes deeper, or writes so much without an element. */
const deepest = 64
const longestPiece = 2_000_000
const mostReadings = 3_000_000
const mostMeters = 300
/** An interval, and a counter, of no house: the sum of such figures would be no number. */
const mostWh = 1e9
const mostTotalWh = 1e12
/** Entries of a feed that name or hold something; a quarter-hour of a year in a block each is far below. */
const mostThings = 200_000
/** Links of an entry that are looked at, and characters of each. */
const mostLinks = 50
const longestLink = 1000

const plain = (message: string) => message.replace(/^\d+:\d+:\s*/, '')

/** Atom entries and what they point to. Links tie a block to its reading, and a reading to its type. */
class Feed {
  private root: string | null = null
  private readonly path: string[] = []
  private words = ''
  private entry: { self: string; up: string; related: string[]; kind: string | null } | null = null
  private type: Partial<ReadingType> = {}
  private point = { start: 0, seconds: 0, value: null as number | null, estimated: false }
  private block: Series | null = null
  private readonly types = new Map<string, ReadingType>()
  private readonly meterReadings = new Map<string, string[]>()
  private readonly series = new Map<string, Series>()
  private offsetSeconds = 0
  private dstSeconds = 0
  private knowsPlace = false
  private unreadable = 0
  /** how many there are so far */
  readings = 0
  things = 0

  open({ local, uri, attributes }: SaxesTagNS) {
    if (this.root === null) this.root = local
    this.path.push(local)
    this.words = ''
    if (local === 'entry') this.entry = { self: '', up: '', related: [], kind: null }
    else if (local === 'link' && this.entry) {
      const href = (attributes.href?.value ?? '').slice(0, longestLink)
      const rel = attributes.rel?.value
      if (rel === 'self') this.entry.self = href
      else if (rel === 'up') this.entry.up = href
      else if (rel === 'related' && this.entry.related.length < mostLinks) this.entry.related.push(href)
    } else if (uri === espi) this.openEspi(local)
  }

  private openEspi(local: string) {
    if (local === 'ReadingType') this.type = {}
    if (local === 'IntervalBlock') this.block ??= { start: [], seconds: [], value: [], estimated: 0 }
    if (local === 'IntervalReading') this.point = { start: 0, seconds: 0, value: null, estimated: false }
    if (
      ['UsagePoint', 'MeterReading', 'ReadingType', 'IntervalBlock', 'LocalTimeParameters'].includes(local) &&
      this.entry
    )
      this.entry.kind = local
  }

  text(text: string) {
    if (this.words.length < 200) this.words += text
  }

  close(local: string, uri: string) {
    this.path.pop()
    const words = this.words.trim()
    this.words = ''
    if (local === 'entry') this.closeEntry()
    else if (uri === espi) this.closeEspi(local, words, this.path.at(-1) ?? '')
  }

  private closeEspi(local: string, words: string, parent: string) {
    const number = Number(words)
    if (parent === 'ReadingType') {
      if (local === 'flowDirection') this.type.flow = flows[words] ?? 'forward'
      if (local === 'powerOfTenMultiplier') this.type.multiplier = number
      if (local === 'uom') this.type.unit = words
      if (local === 'intervalLength') this.type.intervalSeconds = number
      if (local === 'accumulationBehaviour') this.type.cumulative = words === '3' || words === '1'
    } else if (parent === 'LocalTimeParameters') {
      if (local === 'tzOffset') this.offsetSeconds = number
      if (local === 'dstOffset') this.dstSeconds = number
      this.knowsPlace = true
    } else if (parent === 'timePeriod') {
      if (local === 'start') this.point.start = number
      if (local === 'duration') this.point.seconds = number
    } else if (parent === 'IntervalReading' && local === 'value')
      this.point.value = words === '' ? null : number
    else if (local === 'quality') this.point.estimated = estimated.has(words)
    if (local === 'IntervalReading') this.closeReading()
  }

  private closeReading() {
    const { start, seconds, value } = this.point
    if (!this.block || value === null || !Number.isFinite(value) || !Number.isFinite(start) || start <= 0) {
      this.unreadable++
      return
    }
    this.readings++
    this.block.start.push(start)
    this.block.seconds.push(seconds)
    this.block.value.push(value)
    if (this.point.estimated) this.block.estimated++
  }

  private closeEntry() {
    const { entry } = this
    this.entry = null
    if (!entry) return
    this.things++
    if (entry.kind === 'ReadingType')
      this.types.set(entry.self, {
        flow: 'forward',
        multiplier: 0,
        unit: '72',
        intervalSeconds: null,
        cumulative: false,
        ...this.type,
      })
    else if (entry.kind === 'MeterReading') this.meterReadings.set(entry.self, entry.related)
    else if (entry.kind === 'IntervalBlock' && this.block) this.append(entry.up || entry.self, this.block)
    if (entry.kind === 'IntervalBlock') this.block = null
  }

  private append(key: string, block: Series) {
    const into = this.series.get(key)
    if (!into) {
      this.series.set(key, block)
      return
    }
    for (let i = 0; i < block.start.length; i++) {
      into.start.push(block.start[i] ?? 0)
      into.seconds.push(block.seconds[i] ?? 0)
      into.value.push(block.value[i] ?? 0)
    }
    into.estimated += block.estimated
  }

  result(): Outcome<Intervals> {
    if (!this.series.size)
      return fail(
        fault('$', `holds no readings (its outermost element is ${this.root ?? 'missing'}): ${wanted}`),
      )
    const warnings: string[] = []
    if (!this.knowsPlace) warnings.push('The file does not say its time zone: times are given as UTC.')
    if (this.unreadable)
      warnings.push(`${count(this.unreadable, 'reading')} without a usable start or value left out.`)
    const meters: IntervalSeries[] = []
    const named = new Map<string, number>()
    for (const [key, series] of this.series) {
      const reading = this.readingOf(key)
      const type = this.typeOf(reading)
      const id = idOf(reading ?? key)
      const unit = type && units[type.unit]
      if (!type) warnings.push(`Meter ${id}: no reading type is linked; taken as Wh, forward.`)
      if (type && !unit) {
        warnings.push(`Meter ${id}: its unit (${type.unit}) is neither energy nor power; left out.`)
        continue
      }
      const meter = this.meterOf(id, series, type ?? null, warnings)
      const times = (named.get(`${id} ${meter.flow}`) ?? 0) + 1
      named.set(`${id} ${meter.flow}`, times)
      meters.push(times > 1 ? { ...meter, id: `${id} (${times})` } : meter)
      if (meters.length > mostMeters)
        return fail(fault('$', `holds more than ${mostMeters} meters: ask for one house at a time`))
    }
    if (!meters.length) return fail(fault('$', `holds no energy: ${warnings.join(' ')} ${wanted}`))
    return { ok: true, value: { meters, warnings } }
  }

  /** The meter reading that a block stands under: the longest of the known ones on the way of its link. */
  private readingOf(blockUp: string): string | null {
    for (let under = blockUp; under; under = under.slice(0, Math.max(0, under.lastIndexOf('/'))))
      for (const self of [under, `${under}/`]) if (this.meterReadings.has(self)) return self
    const [only] = this.meterReadings.keys()
    return this.meterReadings.size === 1 ? (only ?? null) : null
  }

  private typeOf(reading: string | null): ReadingType | undefined {
    const related = (reading !== null && this.meterReadings.get(reading)) || []
    const linked = related.map(href => this.types.get(href)).find(Boolean)
    const [only] = this.types.values()
    return linked ?? (this.types.size === 1 ? only : undefined)
  }

  private meterOf(id: string, series: Series, type: ReadingType | null, warnings: string[]): IntervalSeries {
    const scale = 10 ** (type?.multiplier ?? 0)
    const order = series.start
      .map((_, i) => i)
      .sort((a, b) => (series.start[a] ?? 0) - (series.start[b] ?? 0))
    const startS = new Float64Array(order.length)
    const offsetMin = new Int16Array(order.length)
    const minutes = new Float32Array(order.length)
    const energies = new Float64Array(order.length)
    let n = 0
    const flow = type?.flow ?? 'forward'
    let doubled = 0
    let differing = 0
    let gaps = 0
    let negative = 0
    let absurd = 0
    let lastStart = Number.NaN
    let lastEnd = Number.NaN
    let lastTotal = Number.NaN
    for (const i of order) {
      const start = series.start[i] ?? 0
      const seconds = series.seconds[i] || type?.intervalSeconds || 3600
      const raw = (series.value[i] ?? 0) * scale
      const energy = type && units[type.unit]?.energy === false ? (raw * seconds) / 3600 : raw
      if (!(Math.abs(energy) <= (type?.cumulative ? mostTotalWh : mostWh))) {
        absurd++
        continue
      }
      if (start === lastStart) {
        if (energies[n - 1] === Number(energy.toPrecision(12))) doubled++
        else differing++
        continue
      }
      let Wh = energy
      if (type?.cumulative) {
        Wh = energy - lastTotal
        lastTotal = energy
        // the first total, and the first after a counter was set back, tell nothing of an interval
        if (!(Wh >= 0)) {
          lastStart = start
          lastEnd = start + seconds
          continue
        }
      }
      if (Wh < 0) negative++
      if (start > lastEnd) gaps++
      lastStart = start
      lastEnd = start + seconds
      startS[n] = start
      offsetMin[n] = this.offsetMin(start)
      minutes[n] = seconds / 60
      energies[n] = Number(Wh.toPrecision(12))
      n++
    }
    const say = (n: number, what: string) => n && warnings.push(`Meter ${id}, ${flow}: ${what}`)
    say(absurd, `${count(absurd, 'reading')} far beyond any house left out.`)
    say(doubled, `${count(doubled, 'reading')} given twice, counted once.`)
    say(differing, `${count(differing, 'reading')} given twice with different values, the first is kept.`)
    say(gaps, `${count(gaps, 'gap')} in its time.`)
    say(series.estimated, `${count(series.estimated, 'reading')} estimated by the utility.`)
    say(negative, `${count(negative, 'interval')} below zero: it measures net flow.`)
    return {
      id,
      flow: negative ? 'net' : flow,
      startS: startS.subarray(0, n),
      offsetMin: offsetMin.subarray(0, n),
      minutes: minutes.subarray(0, n),
      Wh: energies.subarray(0, n),
    }
  }

  /** Minutes ahead of UTC at the place on that day: the file's own rule where it gives one. */
  private offsetMin(epochS: number): number {
    if (!this.knowsPlace) return unknownPlace
    const summer = this.dstSeconds && isSummerTime(epochS + this.offsetSeconds)
    return Math.round((this.offsetSeconds + (summer ? this.dstSeconds : 0)) / 60)
  }
}

const count = (n: number, what: string) => `${n.toLocaleString('en-US')} ${what}${n === 1 ? '' : 's'}`

/** The last part of a link that names a thing: of `/UsagePoint/1/MeterReading/2`, `1/2`. */
const idOf = (href: string): string => {
  const named = [...href.matchAll(/\/(?:UsagePoint|MeterReading)\/([^/]+)/g)].map(m => m[1])
  return named.join('/') || href.split('/').filter(Boolean).at(-1) || 'meter'
}
