import type { Want } from '../ask/brief'
import { conditionsOf } from '../ask/outage-asked'
import { answeredOf, likeliest, thingOf } from '../ask/things'
import type { Making } from '../ask/want'
import { coincidence, coincidenceWorking, countedLoads, type ServedLoad, startNeeds } from '../assess/needs'
import type { Equipment } from '../equipment'
import type { Job } from '../job/schema'
import { runningVA, startOf } from '../loads/load'
import { rangeOf } from '../loads/uncertainty'
import { quantity, together } from '../units/format'
import type { Working } from '../working'
import { type Band, banded, type Doubt, narrowsW, openOptions, startBand } from './band'
import { imagined, waiting } from './imagined'

/** A motor whose start a source has to bear. */
export interface StartAsked {
  name: string
  volts: 120 | 240
  /** amps of the start at its volts */
  startA: Band
  /** with what already runs, VA */
  needVA: number
  /** nobody read a plate of it */
  guessed: boolean
}

/** What to ask or measure next, and by how much it would narrow the answer. */
export interface Narrowing {
  key: string
  what: string
  how: string
  /** what of the answer it moves */
  moves: 'need' | 'start' | 'price' | 'unknown'
  /** the band would be narrower by so much of itself */
  share: number
  /** Wh of a day, of the need */
  narrowsWh?: number
  /** the want it asks about, where it can be answered at once */
  wantId?: string
}

/** What can be said on the first call, before any panel is known. */
export interface FirstAnswer {
  dailyWh: Band
  hours: number
  /** at the outlets over the outage */
  outageWh: Band
  /** on the label of a battery that bears it, by rule of thumb */
  labelWh: Band
  together: { W: number; VA: number; low: number; high: number; byHand: string | null }
  starts: StartAsked[]
  /** what asks for 240 V */
  v240: string[]
  /** by thing that is wanted: what it takes of a day, and what it draws while it runs */
  byWant: { wantId: string; dailyWh: number; W: number; volts: readonly number[] }[]
  /** things that no library knows: they are in no figure */
  unknown: string[]
  next: Narrowing[]
  assumed: string[]
  overturn: string[]
  working: Working
}

/** Of what a label says, what reaches the outlets: a tenth is lost and a tenth stays in reserve, and a light load loses more. Our rule of thumb. */
const labelReaches = 0.78

/** Surges of the sources of a catalogue, VA. */
export const surgesOf = (catalogue: readonly Equipment[]): number[] =>
  catalogue.flatMap(e => (e.kind === 'station' || e.kind === 'inverter' ? [e.surgeW] : []))

/** What else is known when an answer is given. */
export interface Known {
  /** surges of the sources that a firm may take, VA: a start matters as it parts those that bear it from those that do not */
  surgesVA?: readonly number[]
  /** of the price of the design that is shown first, what the way of connecting leaves open, as a share */
  priceShare?: number
}

/**
 * The first answer of a job. Its figures are those of the whole evaluation on imagined circuits, so that they stay as they are when the
 * panel becomes known and circuits take the loads over.
 */
export function firstAnswer(job: Job, making: Making, known: Known = {}): FirstAnswer {
  const here = imagined(job)
  const served = countedLoads({ ...here, source: undefined })
  const { meanW, doubts } = banded(job, served, making)
  const conditions = conditionsOf(job)
  const ofDay = served.reduce((s, l) => s + l.drawn.dailyWh, 0)
  // the band of the mean is that of the day: an outage within a day may fall on its fuller hours
  const scaled = (W: number) => (meanW.value > 0 ? (ofDay * W) / meanW.value : 24 * W)
  const dailyWh = { low: scaled(meanW.low), value: ofDay, high: scaled(meanW.high) }
  const { hours } = job.outage
  const outageWh = { low: meanW.low * hours, value: meanW.value * hours, high: meanW.high * hours }
  const onLabel = (Wh: number) => Wh / labelReaches
  const sums = coincidence(served, 'both')
  const counted = served.filter(l => !l.load.byHand || l === sums.byHand)
  const togetherAt = (side: 'low' | 'high') =>
    counted.reduce((s, l) => s + rangeOf(l.load.runningW, 'watts')[side], 0)
  const starts = startsOf(served)
  return {
    dailyWh,
    hours,
    outageWh,
    labelWh: { low: onLabel(outageWh.low), value: onLabel(outageWh.value), high: onLabel(outageWh.high) },
    together: {
      W: sums.W,
      VA: sums.VA,
      low: togetherAt('low'),
      high: togetherAt('high'),
      byHand: sums.byHand?.load.name ?? null,
    },
    starts,
    v240: [...new Set(served.filter(l => l.need.volts === 240).map(l => l.load.name))],
    byWant: byWantOf(job, served),
    unknown: unknownOf(job),
    next: nextOf(job, { dailyWh, meanW }, doubts, starts, making, known),
    assumed: assumedOf(job, served),
    overturn: overturnOf(job, served, making),
    working: {
      title: 'Need of a day, first answer',
      formula: [
        'day = the sum over what must live of 24 h × (share of time × running + the rest × idle)',
        'each figure lies in a triangle between low and high; an open question is a mixture of its answers; variances add',
        'band = mean ± 1.645 standard deviations: nine houses in ten, if figures lie as the library says',
      ],
      inputs: served.map(l => ({
        label: `${l.load.name} (${l.need.circuit.label || l.need.position})`,
        value: l.drawn.dailyWh,
        unit: 'Wh' as const,
        provenance: { from: l.load.dutyFraction.from },
      })),
      steps: [
        { label: 'Need of a day', value: dailyWh.value, unit: 'Wh' },
        { label: 'Low', value: dailyWh.low, unit: 'Wh' },
        { label: 'High', value: dailyWh.high, unit: 'Wh' },
        {
          label: `On the label of a battery, for ${quantity(hours, 'h')}`,
          value: onLabel(outageWh.value),
          unit: 'Wh',
          arithmetic: `${quantity(outageWh.value, 'Wh')} ÷ ${labelReaches}`,
        },
        {
          label: 'Running together',
          value: sums.VA,
          unit: 'VA',
          working: coincidenceWorking('Running together', served, 'both'),
        },
      ],
      references: [],
      ruleOfThumb:
        'Of the label 0.78 reaches the outlets: a tenth is lost, a tenth stays in reserve, and a light load loses a little more. Our assumption.',
      notCovered: [
        'What nobody named.',
        ...(conditions.outdoorC === undefined
          ? ['A colder or warmer week than the library reckons with, beyond the band.']
          : []),
      ],
    },
  }
}

const unknownOf = ({ brief }: Job) =>
  brief.wants.filter(w => !w.circuitIds.length && !w.loads?.length).map(w => w.name)

const byWantOf = ({ brief }: Job, served: readonly ServedLoad[]): FirstAnswer['byWant'] =>
  brief.wants.map(({ id, loads = [], takenIds = [], circuitIds }) => {
    const ids = new Set([...loads.map(l => l.load.id), ...takenIds])
    // one that was tied to its circuit by hand is all that this circuit carries
    const own = served.filter(l => (ids.size ? ids.has(l.load.id) : circuitIds.includes(l.need.circuit.id)))
    return {
      wantId: id,
      dailyWh: own.reduce((s, l) => s + l.drawn.dailyWh, 0),
      W: own.reduce((s, l) => s + l.W, 0),
      volts: [...new Set(own.map(l => l.need.volts))].sort(),
    }
  })

function startsOf(served: readonly ServedLoad[]): StartAsked[] {
  return startNeeds(served, false, { totalVA: Infinity, legVA: Infinity }).map(s => {
    const { load, need } = s.load
    const band = startBand([{ load, volts: need.volts }]) ?? { low: 0, value: 0, high: 0 }
    const value = startOf(load, need.volts)?.result.startVA ?? runningVA(load)
    const amps = (VA: number) => VA / need.volts
    return {
      name: load.name,
      volts: need.volts,
      startA: {
        low: amps(Math.min(band.low, value)),
        value: amps(value),
        high: amps(Math.max(band.high, value)),
      },
      needVA: s.needVA,
      guessed: !load.start || load.start.method === 'multiple',
    }
  })
}

/** The share of the sources between two starts, VA: so many may do or not, for want of this figure. */
function parts(low: number, high: number, { surgesVA = [] }: Known): number {
  if (!surgesVA.length) return high > 0 ? (high - low) / high : 0
  return surgesVA.filter(VA => VA >= low && VA < high).length / surgesVA.length
}

function nextOf(
  job: Job,
  { dailyWh, meanW }: { dailyWh: Band; meanW: Band },
  doubts: ReturnType<typeof banded>['doubts'],
  starts: readonly StartAsked[],
  making: Making,
  known: Known,
): Narrowing[] {
  const width = Math.max(1e-9, meanW.high - meanW.low)
  const perW = (dailyWh.high - dailyWh.low) / width
  const found: Narrowing[] = unknownOf(job).map(name => ({
    key: `unknown ${name}`,
    what: `What ${name} draws`,
    how: 'Its plate: watts, or volts and amps; and about how many hours a day it runs.',
    moves: 'unknown',
    share: 1,
  }))
  for (const doubt of doubts) {
    const narrowsWh = narrowsW(doubt, doubts) * perW
    const share = narrowsW(doubt, doubts) / width
    const told = toAsk(doubt.about)
    if (told) found.push({ moves: 'need', share, narrowsWh, ...told })
  }
  for (const want of waiting(job)) {
    const options = openOptions(want, making)
    const thing = thingOf(want.thing)
    const own = starts.find(s => want.loads.some(l => l.load.name === s.name))
    if (!thing?.ask || options.length < 2) continue
    const bands = options.flatMap(o => startBand(o.loads) ?? [])
    const rest = own ? own.needVA - own.startA.value * own.volts : 0
    const values = bands.map(b => rest + b.value)
    const share = parts(Math.min(...values), Math.max(...values), known)
    if (own ?? options.some(o => o.loads.some(l => l.load.nature !== 'plain')))
      found.push({ ...askOf(want, thing.ask), moves: 'start', share })
  }
  for (const s of starts.filter(s => s.guessed).slice(0, 3)) {
    const rest = s.needVA - s.startA.value * s.volts
    found.push({
      key: `start ${s.name}`,
      what: `How ${s.name} starts`,
      how: 'A photograph of its plate: LRA, or volts, amps and horsepower.',
      moves: 'start',
      share: parts(rest + s.startA.low * s.volts, rest + s.startA.high * s.volts, known),
    })
  }
  if (known.priceShare !== undefined && !job.panels.some(p => p.circuits.length))
    found.push({
      key: 'panel',
      what: 'Photographs of the panel: door open, its list, its sticker',
      how: 'By the customer’s link: they fix the way of connecting, and with it much of the price.',
      moves: 'price',
      share: known.priceShare,
    })
  const ranked = found.filter(n => n.share >= 0.01).sort((a, b) => b.share - a.share)
  // what moves two figures is asked once, for the one that it moves most
  return ranked.filter((n, at) => ranked.findIndex(o => o.key === n.key) === at)
}

const askOf = (want: Want, ask: string) => ({
  key: `answer ${want.id}`,
  what: `${want.name}: ${ask.charAt(0).toLowerCase()}${ask.slice(1)}`,
  how: 'Ask on this call.',
  wantId: want.id,
})

/** How one doubt about the need is settled; null where nobody can ask or measure it. */
function toAsk(about: Doubt['about']): Pick<Narrowing, 'key' | 'what' | 'how' | 'wantId'> | null {
  const now = 'Ask on this call.'
  switch (about.kind) {
    case 'answer': {
      const thing = thingOf(about.want.thing)
      return thing?.ask ? askOf(about.want, thing.ask) : null
    }
    case 'outdoors':
      return { key: 'outdoors', what: 'How cold, or how warm, it is outdoors in such an outage', how: now }
    case 'season':
      return { key: 'season', what: 'In which season the outages come', how: now }
    case 'load':
      return about.load.dutyFraction.from === 'metered'
        ? null
        : {
            key: `load ${about.load.id}`,
            what: `What ${about.load.name} really takes`,
            how:
              about.volts === 240
                ? 'Its plate now; a logging clamp meter later.'
                : 'A plug-in meter for 24 to 48 h; its plate tells the watts at once.',
          }
    // which one it will be, nobody can say
    case 'seasons':
    case 'habits':
      return null
  }
}

function assumedOf(job: Job, served: readonly ServedLoad[]): string[] {
  const guesses = waiting(job).flatMap(want => {
    const thing = thingOf(want.thing)
    return thing && !answeredOf(thing, want.answers) ? [`${want.name}: ${likeliest(thing).label}`] : []
  })
  const { season, outdoorC } = conditionsOf(job)
  const typical = served.filter(l => l.load.runningW.from === 'typical value').length
  const hands = served.filter(l => l.load.byHand)
  return [
    ...(guesses.length ? [`While it is not asked: ${guesses.join('; ')}.`] : []),
    ...(typical
      ? [
          `${typical} of ${served.length} loads are as such things usually are, not as a plate or a meter says.`,
        ]
      : []),
    ...(season === undefined
      ? [
          job.brief.season === 'any'
            ? 'Outages come in any season: the figure lies between winter and summer, the range reaches to both.'
            : 'A season between winter and summer.',
        ]
      : []),
    ...(outdoorC === undefined && served.some(l => l.load.weather)
      ? ['Weather as the library reckons with for heating and cooling.']
      : []),
    ...(hands.length > 1
      ? [`Of ${together(hands.slice(0, 4).map(l => l.load.name))} one runs at a time.`]
      : []),
  ]
}

/** What could overturn the answer, not only move it. */
function overturnOf(job: Job, served: readonly ServedLoad[], making: Making): string[] {
  const has240 = served.some(l => l.need.volts === 240)
  const out: string[] = []
  for (const want of waiting(job)) {
    const options = openOptions(want, making)
    const high = options.filter(o => o.loads.some(l => l.volts === 240))
    if (!has240 && high.length)
      out.push(
        `${want.name}: if it is ${high.map(o => o.label).join(' or ')}, 240 V are needed, which rules out every 120 V source without a transformer.`,
      )
  }
  const bond = served.filter(l => l.load.needsBond)
  if (bond.length)
    out.push(
      `${together([...new Set(bond.map(l => l.load.name))])} may prove the flame through ground: standing alone on a floating source it can refuse to start.`,
    )
  const motor = served.filter(l => l.load.nature !== 'plain' && l.W >= 500)
  if (motor.length)
    out.push(
      `The plate of ${together([...new Set(motor.slice(0, 3).map(l => l.load.name))])}: a start above what is taken here asks for another source.`,
    )
  if (!job.panels.some(p => p.circuits.length))
    out.push(
      'A full panel, one without space beside its main, or shared neutrals among these circuits: the way of connecting changes, and its price.',
    )
  if (job.brief.solar === undefined || job.brief.solar === 'unknown')
    out.push('Rooftop solar that nobody mentioned: it must stay off, or be taken by the source.')
  return out
}
