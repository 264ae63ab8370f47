import type { Want } from '../ask/brief'
import { conditionsOf } from '../ask/outage-asked'
import { answeredOf, thingOf } from '../ask/things'
import { loadsFor, type Making } from '../ask/want'
import type { ServedLoad } from '../assess/needs'
import type { Job } from '../job/schema'
import { drawn, dutyIn } from '../loads/draw'
import { type Load, runningVA } from '../loads/load'
import { levelW } from '../loads/log'
import type { Conditions } from '../loads/season'
import { rangeOf, startRange, unsure } from '../loads/uncertainty'
import { waiting } from './imagined'

export interface Band {
  low: number
  value: number
  high: number
}

/** How sure we want to be that the true need lies in the band: nine houses in ten, if figures lie as the library says. */
const nineInTen = 1.645
/** What moves all loads of a house together, beside what each does: more people at home, a habit, as a share of the day. Our assumption. */
const habitsShare = 0.12
/** Outdoors, while nobody said how cold or warm: so many °C to either side of what the library reckons with. */
const weatherC = 8

/** One thing that is not known, and what of the day's variance it makes. */
export interface Doubt {
  about:
    | { kind: 'answer'; want: Want }
    | { kind: 'outdoors' }
    | { kind: 'season' }
    | { kind: 'seasons' }
    | { kind: 'load'; load: Load; volts: number }
    | { kind: 'habits' }
  /** of the mean over the outage, W² */
  variance: number
}

interface Part {
  meanW: number
  variance: number
  /** the least and the most that it can be, if its figures lie in their ranges */
  least: number
  most: number
}

const partOf = (load: Load, conditions: Conditions): Part => {
  const { meanW, sdW } = unsure(load, conditions)
  return { meanW, variance: sdW ** 2, ...endsOf(load, conditions) }
}

const sum = (parts: readonly Part[]): Part =>
  parts.reduce(
    (all, p) => ({
      meanW: all.meanW + p.meanW,
      variance: all.variance + p.variance,
      least: all.least + p.least,
      most: all.most + p.most,
    }),
    { meanW: 0, variance: 0, least: 0, most: 0 },
  )

/** Weather that nobody named may take a load anywhere between nothing and all the time. */
function endsOf(load: Load, conditions: Conditions): Pick<Part, 'least' | 'most'> {
  const watts = rangeOf(load.runningW, 'watts')
  const idle = rangeOf(load.idleW, 'watts')
  if (load.weather && conditions.outdoorC === undefined) return { least: 0, most: watts.high }
  if (load.seasons && conditions.season === undefined) return { least: 0, most: watts.high }
  const { value } = dutyIn(load, conditions)
  const share = rangeOf(load.dutyFraction, 'share')
  const by = load.dutyFraction.value > 0 ? value / load.dutyFraction.value : 1
  const level = load.runningW.value > 0 ? levelW(load.runningW.value, load.stages) / load.runningW.value : 1
  const at = (duty: number, W: number, rest: number) => duty * W * level + (1 - duty) * rest
  return {
    least: at(Math.min(1, share.low * by), watts.low, idle.low),
    most: at(Math.min(1, share.high * by), watts.high, idle.high),
  }
}

/** The options of a want whose question is open, each with the loads it would be. None where it is answered, or a circuit carries it. */
export function openOptions(
  want: Want,
  making: Making,
): { share: number; label: string; id: string; loads: NonNullable<Want['loads']> }[] {
  const thing = thingOf(want.thing)
  if (!thing || answeredOf(thing, want.answers) || want.circuitIds.length) return []
  return thing.options.map(o => ({ ...o, loads: loadsFor(want, o.typical, making) }))
}

export interface Banded {
  /** mean over the outage, W: as reckoned, and the band */
  meanW: Band
  /** of a whole day, W × 24 */
  doubts: Doubt[]
}

/**
 * The mean of all loads with its band. Each figure of a load is a triangle between low and high; an open question is a mixture of its
 * answers by their shares; weather and season that nobody named, and habits that move all loads together, come on top. Variances add.
 */
export function banded(job: Job, served: readonly ServedLoad[], making: Making): Banded {
  const conditions = conditionsOf(job)
  const open = new Map(
    waiting(job).flatMap(want => {
      const options = openOptions(want, making)
      return options.length ? [[want, options] as const] : []
    }),
  )
  const openIds = new Set([...open.keys()].flatMap(w => w.loads.map(l => l.load.id)))
  const doubts: Doubt[] = []
  let meanW = 0
  let least = 0
  let most = 0
  for (const { load, need } of served) {
    if (openIds.has(load.id)) continue
    const part = partOf(load, conditions)
    meanW += part.meanW
    least += part.least
    most += part.most
    doubts.push({ about: { kind: 'load', load, volts: need.volts }, variance: part.variance })
  }
  for (const [want, options] of open) {
    const parts = options.map(o => ({ share: o.share, ...sum(o.loads.map(l => partOf(l.load, conditions))) }))
    const whole = parts.reduce((s, p) => s + p.share, 0) || 1
    const mean = parts.reduce((s, p) => s + p.share * p.meanW, 0) / whole
    const between = parts.reduce((s, p) => s + p.share * (p.meanW - mean) ** 2, 0) / whole
    const within = parts.reduce((s, p) => s + p.share * p.variance, 0) / whole
    meanW += mean
    least += Math.min(...parts.map(p => p.least))
    most += Math.max(...parts.map(p => p.most))
    doubts.push({ about: { kind: 'answer', want }, variance: between })
    const [likely] = want.loads
    if (likely)
      doubts.push({ about: { kind: 'load', load: likely.load, volts: likely.volts }, variance: within })
  }
  const value = served.reduce((s, l) => s + l.drawn.meanW, 0)
  doubts.push(...unsaid(job, served, conditions))
  doubts.push({ about: { kind: 'habits' }, variance: (habitsShare * meanW) ** 2 })
  const sdW = Math.sqrt(doubts.reduce((s, d) => s + d.variance, 0))
  return {
    meanW: {
      // nothing lies outside of what its parts can come to
      low: Math.min(value, Math.max(least, meanW - nineInTen * sdW)),
      value,
      high: Math.max(value, Math.min(most, meanW + nineInTen * sdW)),
    },
    doubts: doubts.filter(d => d.variance > 0).sort((a, b) => b.variance - a.variance),
  }
}

/** Weather and season, while nobody said them: what the loads make of a spread of them. */
function unsaid(job: Job, served: readonly ServedLoad[], conditions: Conditions): Doubt[] {
  const doubts: Doubt[] = []
  const meanUnder = (loads: readonly ServedLoad[], under: (load: Load) => Conditions) =>
    loads.reduce((s, { load }) => s + drawn({ ...load }, under(load)).meanW, 0)
  if (conditions.outdoorC === undefined) {
    // a cold week moves every heater, and no air conditioner
    const spread = (['heating', 'cooling'] as const).map(mode => {
      const loads = served.filter(({ load }) => load.weather?.mode === mode)
      const [cold = 0, warm = 0] = [-weatherC, weatherC].map(by =>
        meanUnder(loads, load => ({ ...conditions, outdoorC: (load.dutyFraction.atC ?? 0) + by })),
      )
      // as if the ends were nine in ten
      return ((cold - warm) / 2 / nineInTen) ** 2
    })
    doubts.push({ about: { kind: 'outdoors' }, variance: spread.reduce((a, b) => a + b, 0) })
  }
  if (conditions.season === undefined) {
    const by = (['winter', 'spring', 'summer'] as const).map(season =>
      meanUnder(served, () => ({ ...conditions, season })),
    )
    const mean = by.reduce((a, b) => a + b, 0) / by.length
    const variance = by.reduce((s, v) => s + (v - mean) ** 2, 0) / by.length
    doubts.push({ about: { kind: job.brief.season === 'any' ? 'seasons' : 'season' }, variance })
  }
  return doubts
}

/** By how much the band of the mean would be narrower, W, if this one thing were known. */
export function narrowsW(doubt: Doubt, all: readonly Doubt[]): number {
  const variance = all.reduce((s, d) => s + d.variance, 0)
  return 2 * nineInTen * (Math.sqrt(variance) - Math.sqrt(Math.max(0, variance - doubt.variance)))
}

/** The hardest start among loads, VA, with its range; what has no motor starts as it runs. */
export function startBand(loads: readonly { volts: number; load: Load }[]): Band | null {
  const ranges = loads.map(({ load, volts }) => {
    const VA = runningVA(load)
    return startRange(load, volts) ?? { low: VA, value: VA, high: VA }
  })
  if (!ranges.length) return null
  return ranges.reduce((most, r) => (r.value > most.value ? r : most))
}
