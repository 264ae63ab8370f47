import { conditionsOf } from '../ask/outage-asked'
import { type Shedding, usualShedding } from '../ask/shedding'
import type { WeatherYear } from '../ask/weather-year'
import {
  type CircuitNeed,
  circuitNeeds,
  loadsOf,
  named,
  type ServedLoad,
  shareOn,
  supplyOf,
} from '../assess/needs'
import { chemistryFacts, factsOfChemistry } from '../equipment/chemistries'
import { told } from '../equipment/facts'
import { methodOf } from '../hookup/method'
import { wayLimits } from '../hookup/way'
import type { Job } from '../job/schema'
import { hourFactors } from '../loads/draw'
import { type Known, type Load, startOf } from '../loads/load'
import { levelW } from '../loads/log'
import type { Season } from '../loads/season'
import { fail, fault, type Outcome, ok } from '../outcome'
import { type Arrangement, opposed } from '../source/arrangement'
import { bankLimits } from '../source/bank-limits'
import type { Source, Unit } from '../source/design'
import {
  type ArrayWorked,
  acPassesW,
  arraysWorked,
  chargerEfficiencyFraction,
  modeOf,
} from '../source/inputs'
import { outputOf, startsWithA, type WayRating } from '../source/output'
import { acInputOf, capacityOf, chemistryOf, lossesOf, storeOf } from '../source/store'
import { duration, quantity } from '../units/format'
import { electronicHoldsS, type MustOpen, mustOpen } from '../wiring/trip-curve'
import { keyOf } from './stream'

/** What the kernel knows of a job: plain figures, made once and run many times. */
export interface Plan {
  hours: number
  stepS: number
  steps: number
  /** hour of the day at which it begins; null: any */
  beginsH: number | null
  /** null: any of the year */
  season: Season | null
  loads: PlanLoad[]
  circuits: PlanCircuit[]
  /** picked, and not fed under this arrangement and hook-up */
  unserved: { name: string; tier: 1 | 2 | 3 }[]
  stores: PlanStore[]
  /** each leg drains its own */
  apart: boolean
  /** one that is empty takes both legs down */
  both: boolean
  /** the transformer's own draw at the battery, and what it loses, where there is one */
  transformer: { idleW: number; efficiencyFraction: number } | null
  limits: PlanLimits
  generator: PlanGenerator | null
  arrays: PlanArray[]
  weather: PlanWeather
  shedding: Shedding & typeof usualShedding
  /** average over the outage by tier, W */
  tierMeanW: [number, number, number]
  heedFraction: number
  restartMinutes: number
  /** whether what the loads do together could exceed what the source gives at all */
  mayTrip: boolean
  hasTier: [boolean, boolean, boolean]
  /** by store: whether any circuit hangs on it */
  storeFeeds: boolean[]
  /** what was assumed because nobody said, in words */
  assumed: string[]
}

/** What the source and the way to the panel give, VA. */
export interface PlanLimits {
  /** above these something may open: the lesser of `held` and the breaker */
  totalVA: number
  legVA: [number, number]
  /** what electronics and parts without a breaker hold; above it the source trips within seconds */
  held: { totalVA: number; legVA: [number, number]; seconds: number }
  /** the smallest breaker on the way: it opens the later the less it is above its rating; null without one */
  breaker: { name: string; ratedVA: number; mustOpen: MustOpen; perLeg: boolean } | null
  surgeVA: number
  legSurgeVA: number
  /** the legs are limits of their own */
  split: boolean
}

export interface PlanCircuit {
  id: string
  name: string
  tier: 1 | 2 | 3
  /** the part of it on L1 and on L2 */
  share: [number, number]
}

export interface PlanLoad {
  id: string
  name: string
  /** in `circuits` */
  circuit: number
  tier: 1 | 2 | 3
  share: [number, number]
  key: number
  runningW: number
  /** over all levels */
  meanRunningW: number
  idleW: number
  VAperW: number
  /** beyond anything where its locked-rotor amps are above what the source's sheet says that it starts */
  startVA: number
  stages: { W: number; shareFraction: number }[]
  sequence: { W: number; seconds: number }[]
  dutyFraction: number
  /** what its duty becomes with the weather: × (balance − outdoors) ÷ (balance − as read) */
  weather: { balanceC: number; readC: number } | null
  hourFactors: number[]
  runs: 'always' | 'cycles' | 'hours' | 'events'
  minutes: number
  byHand: boolean
  notWith: number[]
  /** spread of its watts and of its duty, as the standard deviation of their logarithm */
  wattsSpread: number
  dutySpread: number
}

export interface PlanStore {
  name: string
  capacityWh: number
  startWh: number
  reserveWh: number
  idleW: number
  /** battery to the loads, through a transformer where there is one */
  efficiencyFraction: number
  /** the bend of the inverter's efficiency: beside load ÷ efficiency it loses so much × W² */
  lossPerW2: number
  /** what AC charging puts through the charger at most, W at its input */
  acChargeW: number
  chargerEfficiencyFraction: number
  /** what the battery takes at most while it is not near full, W */
  acceptsW: number
  /** from this share of the capacity on it takes less and less */
  taperFromFraction: number
  charges: boolean
  works: boolean
}

export interface PlanGenerator {
  name: string
  continuousW: number
  WhPerGallon: number
  gallons: number
  fromH: number
  toH: number
  quietFromH: number | null
  quietToH: number | null
  /** it is started when a store is down to this share of its capacity */
  startAtFraction: number
  /** and stopped at this one: the last of a charge goes slowly */
  stopAtFraction: number
  /** it may carry the house while it charges */
  carriesHouse: boolean
  /** a window of hours was set: it is started as that opens */
  byWindow: boolean
}

export interface PlanArray {
  name: string
  store: number
  stcW: number
  /** what input and charge mode take, W */
  inputW: number
  tiltDeg: number
  azimuthDeg: number
  /** put out by hand: only while people are up */
  folding: boolean
  works: boolean
}

export interface PlanWeather {
  latitudeDeg: number
  /** the mean of the outage, °C; null: loads stay as read */
  outdoorC: number | null
  /** for the cells of modules, where nobody said anything */
  climateC: number
  cloudFraction: number
  year: WeatherYear | null
  /** the file's year is taken so much colder, °C, and cloudier, −1 to 1 */
  yearColderC: number
  yearCloudierFraction: number
}

export interface PlanOptions {
  /** seconds of a step; 60 unless said */
  stepS?: number
  /** a weather file's year moved: so much colder, °C, and from its own sky towards an overcast (or, below 0, a clear) one */
  yearColderC?: number
  yearCloudierFraction?: number
}

/** Seasons by the month in the middle. */
export const middleMonth: Record<Season, number> = { winter: 0, spring: 3, summer: 6, autumn: 9 }
const assumedLatitudeDeg = 41
const assumedCloud: Record<Season, number> = { winter: 0.65, spring: 0.55, summer: 0.4, autumn: 0.55 }
/** The part of the sky that is cloudy: as said, else by the season. */
export const usualCloud = (job: Job): number =>
  job.outage.cloudFraction ?? assumedCloud[conditionsOf(job).season ?? 'spring']
const mostSteps = 800_000
const restartMinutesAt = { always: 10, mostly: 45, seldom: 720, 'nobody lives there': 1440, unknown: 30 }

/**
 * Air over a season at a latitude, °C: our own straight lines through the climates of the temperate zone, used where
 * neither the job nor a weather file says anything. 30 − 0.45 × latitude over the year, ± 0.3 × latitude in winter and summer.
 */
export function climateC(latitudeDeg: number, season: Season | null): number {
  const size = Math.abs(latitudeDeg)
  const swing = season === 'winter' ? -0.3 : season === 'summer' ? 0.3 : 0
  return 30 - 0.45 * size + swing * size
}

/**
 * The plan of a job's outage. Faults in words: no source, nothing that draws, no energy at all, steps too fine for the
 * hours. Watts, hours, fractions and °C throughout.
 */
export function planOf(
  job: Job,
  { stepS = 60, yearColderC = 0, yearCloudierFraction = 0 }: PlanOptions = {},
): Outcome<Plan> {
  const { source, outage, brief } = job
  const supply = supplyOf(job)
  if (!source || !supply)
    return fail(fault('source', 'is not chosen yet: choose one, and its outage is simulated'))
  if (!(stepS >= 1 && stepS <= 900)) return fail(fault('stepS', 'must be from 1 to 900 s'))
  const steps = Math.round((outage.hours * 3600) / stepS)
  if (steps > mostSteps)
    return fail(
      fault(
        'stepS',
        `makes ${steps.toLocaleString('en-US')} steps of ${quantity(outage.hours, 'h')}: at most ${mostSteps.toLocaleString('en-US')}; take longer steps`,
      ),
    )
  const needs = circuitNeeds(job)
  const served = needs.filter(n => n.served && !n.feeds)
  const worked = arraysWorked(job)
  const sorted = served.flatMap(n => loadsOf([n]))
  const stores = storesOf(
    job,
    worked,
    sorted.reduce((sum, l) => sum + l.drawn.meanW, 0),
  )
  if (stores.every(s => s.startWh - s.reserveWh <= 0) && !source.generator)
    return fail(
      fault(
        'source',
        stores.every(s => s.capacityWh <= 0)
          ? 'stores nothing: 0 Wh. Give its bank, or choose a source with a battery'
          : 'has nothing to use: the reserve kept is not below the charge when the outage begins',
      ),
    )
  const assumed: string[] = []
  const season = conditionsOf(job).season ?? null
  const year = outage.weather ?? null
  if (outage.latitudeDeg === undefined && !year && (source.arrays?.length ?? 0) > 0)
    assumed.push(`latitude ${assumedLatitudeDeg}° north`)
  const latitudeDeg = year?.latitudeDeg ?? outage.latitudeDeg ?? assumedLatitudeDeg
  if (!season && source.arrays?.length) assumed.push('any season: the sun of every month')
  const circuits = served.map(circuitOf)
  const ids = sorted.map(l => l.load.id)
  const apart = storeOf(source, outage.deratingFraction).apart
  const through = source.arrangement === 'autotransformer' ? source.autotransformer : undefined
  const home = brief.atHome ?? 'unknown'
  if (outage.restartMinutes === undefined)
    assumed.push(`${duration(restartMinutesAt[home] / 60)} until somebody has reset a source that tripped`)
  const { limits, startsA } = limitsOf(job, source, supply.arrangement)
  const loads = sorted.map(l =>
    loadOf(
      l,
      circuits.findIndex(c => c.id === l.need.circuit.id),
      ids,
      job,
      startsA,
    ),
  )
  return ok({
    hours: outage.hours,
    stepS,
    steps,
    beginsH: outage.beginsH ?? null,
    season,
    loads,
    circuits,
    unserved: needs
      .filter(n => n.circuit.picked && !n.served && !n.feeds)
      .map(n => ({ name: named(n), tier: n.circuit.tier })),
    stores,
    apart,
    both: apart && source.arrangement !== 'independent',
    transformer: through
      ? {
          idleW: storeOf(source, 1).transformerIdleW,
          efficiencyFraction: through.efficiencyFraction,
        }
      : null,
    limits,
    generator: generatorOf(
      job,
      apart,
      served.some(n => n.volts === 240),
      assumed,
    ),
    arrays: arraysOf(job, worked, stores, latitudeDeg, assumed),
    weather: {
      latitudeDeg,
      outdoorC: outage.outdoorC ?? null,
      climateC: climateC(latitudeDeg, season),
      cloudFraction: usualCloud(job),
      year,
      yearColderC,
      yearCloudierFraction,
    },
    shedding: {
      ...usualShedding,
      ...(outage.shedding ?? { policy: methodOf(job.hookup.method).sheds ? 'by tier' : 'none' }),
    },
    tierMeanW: tierMeans(sorted),
    heedFraction: outage.heedFraction ?? 0.9,
    restartMinutes: outage.restartMinutes ?? restartMinutesAt[home],
    mayTrip: mayTrip(loads, limits),
    hasTier: [1, 2, 3].map(tier => circuits.some(c => c.tier === tier)) as [boolean, boolean, boolean],
    storeFeeds: stores.map((_, k) => stores.length === 1 || circuits.some(c => (c.share[k] ?? 0) > 0)),
    assumed,
  })
}

/** Limits of the source under its arrangement and of the way to the panel; and the locked-rotor amps that it starts. */
function limitsOf(
  job: Job,
  source: Source,
  arrangement: Arrangement,
): { limits: PlanLimits; startsA: number | null } {
  const here = { ...source, arrangement }
  const { bare, breaker: onTheWay } = wayLimits(job)
  // the outlet of a generator stands behind a breaker; a station's or a vehicle's opens by its electronics
  const behindBreaker = source.units[0]?.equipment.kind === 'generator'
  const held = outputOf(here, bare, !behindBreaker)
  const { outlet } = held
  const own =
    behindBreaker && outlet
      ? { name: `${outlet.amps} A breaker of its ${outlet.type} outlet`, ratedA: outlet.amps }
      : null
  const breaker = least([own, onTheWay])
  const all = outputOf(here, least([bare, breaker]))
  const perLeg = opposed(arrangement) || arrangement === 'independent'
  return {
    startsA: all.startsA,
    limits: {
      totalVA: all.totalW,
      legVA: [all.legW.L1, all.legW.L2],
      held: {
        totalVA: held.totalW,
        legVA: [held.legW.L1, held.legW.L2],
        seconds: Math.min(
          ...source.units.map(({ equipment: e }) =>
            'overloadS' in e ? (told(e.overloadS) ?? electronicHoldsS) : electronicHoldsS,
          ),
        ),
      },
      breaker: breaker && {
        name: breaker.name,
        ratedVA: breaker.ratedA * 120,
        mustOpen: mustOpen(breaker.ratedA),
        perLeg,
      },
      surgeVA: all.surgeW,
      legSurgeVA: all.legSurgeW,
      split: perLeg,
    },
  }
}

const least = (all: readonly (WayRating | null)[]): WayRating | null =>
  all.reduce((a, b) => (!a || (b && b.ratedA < a.ratedA) ? b : a), null)

/** Whether anything the loads do together could exceed what the source gives, each drawn as high as one course in a thousand has it. */
function mayTrip(loads: readonly PlanLoad[], limits: Plan['limits']): boolean {
  const most = (share: (l: PlanLoad) => number) =>
    loads.reduce(
      (sum, l) =>
        sum +
        share(l) *
          l.VAperW *
          Math.exp(3.1 * l.wattsSpread) *
          Math.max(l.runningW, ...l.sequence.map(s => s.W)),
      0,
    )
  const all = most(() => 1)
  const starts = loads.reduce((sum, l) => sum + l.startVA, 0)
  const legs = limits.split
    ? Math.max(most(l => l.share[0]) - limits.legVA[0], most(l => l.share[1]) - limits.legVA[1])
    : -1
  return all > limits.totalVA || legs > 0 || all + starts > Math.min(limits.surgeVA, limits.legSurgeVA)
}

const tierMeans = (loads: readonly ServedLoad[]): Plan['tierMeanW'] => {
  const of = (tier: number) =>
    loads.reduce((sum, l) => sum + ((l.load.tier ?? l.need.circuit.tier) === tier ? l.drawn.meanW : 0), 0)
  return [of(1), of(2), of(3)]
}

const circuitOf = (need: CircuitNeed): PlanCircuit => ({
  id: need.circuit.id,
  name: named(need),
  tier: need.circuit.tier,
  share: need.leg === 'both' ? [0.5, 0.5] : need.leg === 'L1' ? [1, 0] : [0, 1],
})

/** How sure a figure is where it names no range of its own: our estimate by its source, a standard deviation. */
const spreadBy: Record<Known['from'], number> = {
  commissioned: 0.05,
  metered: 0.05,
  'utility data': 0.1,
  nameplate: 0.15,
  catalogue: 0.1,
  job: 0.1,
  'typical value': 0.25,
  assumed: 0.35,
}
/** A range is read as the middle nine tenths of a normal distribution: 3.29 standard deviations. */
const spreadOf = ({ value, low = value, high = value, from }: Known): number =>
  high > low && low > 0 ? Math.min(0.8, Math.log(high / low) / 3.29) : value > 0 ? spreadBy[from] : 0

const shortest = 0.02
const hopelessVA = 1e9
function loadOf(
  served: ServedLoad,
  circuit: number,
  ids: string[],
  job: Job,
  startsA: number | null,
): PlanLoad {
  const { load, need, drawn } = served
  const duty = load.dutyFraction
  const { weather } = load
  const scaled =
    weather &&
    duty.atC !== undefined &&
    (weather.mode === 'heating' ? duty.atC < weather.balanceC : duty.atC > weather.balanceC)
  const { runs, minutes } = rhythmOf(load)
  const start = startOf(load, need.volts)?.result
  return {
    id: load.id,
    name: load.name,
    circuit,
    tier: load.tier ?? need.circuit.tier,
    share: [shareOn('L1', served), shareOn('L2', served)],
    key: keyOf(load.id),
    runningW: load.runningW.value,
    meanRunningW: levelW(load.runningW.value, load.stages),
    idleW: load.idleW.value,
    VAperW: 1 / load.powerFactor.value,
    startVA:
      startsA !== null && startsWithA(job.source, start?.startA ?? 0, need.volts) > startsA
        ? hopelessVA
        : (start?.startVA ?? 0),
    stages: load.stages ?? [],
    sequence: load.sequence ?? [],
    // by the weather where it scales with it; else as `drawn` has it for the season
    dutyFraction: scaled ? duty.value : drawn.dutyFraction,
    weather: scaled && duty.atC !== undefined ? { balanceC: weather.balanceC, readC: duty.atC } : null,
    hourFactors: hourFactors(load),
    runs: drawn.dutyFraction >= 0.999 && runs !== 'hours' && !scaled ? 'always' : runs,
    minutes: Math.max(shortest, minutes),
    byHand: load.byHand,
    notWith: (load.notWith ?? []).flatMap(id => (ids.indexOf(id) < 0 ? [] : [ids.indexOf(id)])),
    wattsSpread: spreadOf(load.runningW),
    dutySpread: job.outage.hours > 0 ? Math.min(0.6, spreadOf(duty)) : 0,
  }
}

/** How its running lies in time; the usual lengths where the load does not say are ours. */
function rhythmOf(load: Load): { runs: PlanLoad['runs']; minutes: number } {
  const { pattern } = load
  if (pattern?.kind === 'continuous')
    return { runs: load.dutyFraction.value >= 0.999 ? 'always' : 'cycles', minutes: 60 }
  if (pattern?.kind === 'cycling') return { runs: 'cycles', minutes: pattern.cycleMinutes ?? 30 }
  if (pattern?.kind === 'scheduled') return { runs: 'hours', minutes: 60 }
  if (pattern?.kind === 'event') return { runs: 'events', minutes: pattern.minutes }
  if (load.byHand) return { runs: 'events', minutes: load.runningW.value >= 600 ? 6 : 45 }
  return { runs: 'cycles', minutes: load.nature === 'plain' ? 60 : 30 }
}

function storesOf(job: Job, arrays: readonly ArrayWorked[], meanW: number): PlanStore[] {
  const { source, outage } = job
  if (!source) return []
  const { apart, deratingFraction, transformerIdleW, efficiencyFraction, idleW } = storeOf(
    source,
    outage.deratingFraction,
    meanW,
  )
  const keeps =
    source.arrangement === 'autotransformer' ? (source.autotransformer?.efficiencyFraction ?? 1) : 1
  const one = (units: readonly Unit[], name: string): PlanStore => {
    const capacityWh = units.reduce((sum, u) => sum + capacityOf(u), 0) * deratingFraction
    const startWh = capacityWh * outage.startFraction
    const acChargeW = units.reduce((sum, u) => sum + (modeOf(job, u)?.acW ?? acInputOf(u.equipment) ?? 0), 0)
    const worked = arrays.filter(a => units.includes(a.unit))
    const sunW = worked.reduce((sum, a) => sum + a.worked.result.inputW, 0)
    // what a mode lets both bring together, and what a bank takes
    const totals = units.map(u => modeOf(job, u)?.totalW ?? Infinity)
    const togetherW = totals.reduce((sum, W) => sum + W, 0)
    const takenW = units.reduce((sum, u) => {
      const bank = bankLimits(u)
      return sum + (bank ? bank.chargeA * bank.nominalV : Infinity)
    }, 0)
    const tapers = units.map(u => (factsOfChemistry(chemistryOf(u)) ?? chemistryFacts.lfp).taperFromFraction)
    const coldest = source.stands?.coldestC
    const limits = units.map(u => coldLimits(u))
    return {
      name,
      capacityWh,
      startWh,
      reserveWh: Math.min(startWh, capacityWh * outage.reserveFraction),
      idleW: units.length === source.units.length ? idleW : idleW / source.units.length,
      efficiencyFraction,
      // units that share a load each carry their part of it
      lossPerW2:
        units.reduce((sum, u) => sum + lossesOf(u.equipment).lossPerW2, 0) / units.length ** 2 / keeps ** 2,
      acChargeW,
      chargerEfficiencyFraction,
      acceptsW: Math.min(acChargeW * chargerEfficiencyFraction + sunW, togetherW, takenW),
      taperFromFraction: Math.min(...tapers),
      charges: coldest === undefined || limits.every(l => coldest >= l.chargeAboveC),
      works: coldest === undefined || limits.every(l => coldest >= l.dischargeAboveC),
    }
  }
  if (!apart) {
    const store = one(source.units, 'store')
    return [{ ...store, idleW: store.idleW + transformerIdleW }]
  }
  return source.units.map((u, n) => one([u], n === 0 ? 'L1’s battery' : 'L2’s battery'))
}

function coldLimits(unit: Unit): { chargeAboveC: number; dischargeAboveC: number } {
  const facts = unit.bank?.equipment ?? (unit.equipment.kind === 'station' ? unit.equipment : undefined)
  return { chargeAboveC: facts?.chargeAboveC ?? -100, dischargeAboveC: facts?.dischargeAboveC ?? -100 }
}

function generatorOf(job: Job, apart: boolean, at240: boolean, assumed: string[]): PlanGenerator | null {
  const generator = job.source?.generator
  if (!generator) return null
  const { equipment, fromH, toH, quietFromH, quietToH, startAtFraction } = generator
  const forbidden =
    methodOf(job.hookup.method).neutral === 'hots-only' &&
    job.source?.units.some(
      u =>
        u.equipment.kind === 'station' &&
        u.equipment.passThrough === 'forbidden on a bonded neutral' &&
        u.equipment.passThroughScope !== 'from the utility',
    ) &&
    generator.through !== 'an isolating charger'
  // a 120 V generator can carry the house only where nothing runs at 240 V; two batteries apart are only charged
  const carriesHouse = !generator.chargesOnly && !apart && (equipment.voltage === '120/240' || !at240)
  if (forbidden && !carriesHouse) {
    assumed.push(
      `the ${equipment.name} is of no use: the source may not be charged while it feeds the house, and the generator cannot carry the house meanwhile`,
    )
    return null
  }
  const byWindow = fromH !== undefined && toH !== undefined
  if (!byWindow && startAtFraction === undefined)
    assumed.push('the generator is started at 40 % of the store, at any hour that is not quiet')
  return {
    name: equipment.name,
    continuousW: Math.min(
      equipment.continuousW,
      generator.through === 'an isolating charger' ? Infinity : acPassesW(job),
    ),
    WhPerGallon: equipment.WhPerGallon,
    gallons: generator.gallons,
    fromH: fromH ?? 0,
    toH: toH ?? 24,
    quietFromH: quietFromH ?? null,
    quietToH: quietToH ?? null,
    startAtFraction: startAtFraction ?? (byWindow ? 0.8 : 0.4),
    stopAtFraction: 0.95,
    carriesHouse,
    byWindow,
  }
}

function arraysOf(
  job: Job,
  worked: readonly ArrayWorked[],
  stores: PlanStore[],
  latitudeDeg: number,
  assumed: string[],
): PlanArray[] {
  const { source } = job
  if (worked.some(({ array }) => array.tiltDeg === undefined || array.azimuthDeg === undefined))
    assumed.push('arrays without a tilt or bearing lean by the latitude and face the noon sun')
  return worked.map(({ array, unit, worked: { result }, modeW }) => ({
    name: `${array.series * array.parallel} × ${array.module.name}`,
    store: stores.length > 1 ? Math.max(0, source?.units.indexOf(unit) ?? 0) : 0,
    stcW: result.arrayW,
    inputW: Math.min(result.inputW, modeW ?? Infinity),
    tiltDeg: array.tiltDeg ?? Math.min(60, Math.abs(latitudeDeg)),
    azimuthDeg: array.azimuthDeg ?? (latitudeDeg >= 0 ? 180 : 0),
    folding: array.module.folding,
    // a string beyond the input's volts is not connected, one below them does not wake it
    works: !result.faults.includes('over-voltage') && !result.faults.includes('under-voltage'),
  }))
}

/** The share of the time a load runs at an hour of the day under an outdoor temperature, null for as read. */
export function dutyAt(load: PlanLoad, hourOfDay: number | null, outdoorC: number | null): number {
  const factor = hourOfDay === null ? 1 : (load.hourFactors[Math.floor(hourOfDay) % 24] ?? 1)
  return Math.min(1, weatherDuty(load, outdoorC) * factor)
}

export function weatherDuty({ dutyFraction, weather }: PlanLoad, outdoorC: number | null): number {
  if (!weather || outdoorC === null) return dutyFraction
  const { balanceC, readC } = weather
  return Math.max(0, Math.min(1, (dutyFraction * (balanceC - outdoorC)) / (balanceC - readC)))
}
