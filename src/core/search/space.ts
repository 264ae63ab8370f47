import { arrangementWays } from '../assess/arrangement-ways'
import { type Equipment, ofKind } from '../equipment'
import type { Generator, Module } from '../equipment/source-kinds'
import { type MethodId, methodIds, methodOf } from '../hookup/method'
import type { Job } from '../job/schema'
import { arrangementNames } from '../source/arrangement'
import { type SolarArray, type Source, solarInputOf, type Unit } from '../source/design'
import { sourceName } from '../source/store'
import { quantity } from '../units/format'
import type { Stock } from './stock'
import type { Wishes } from './wishes'

/** One source without its hook-up, generator and sun. */
export interface Head {
  source: Source
  name: string
  /** heads that differ only in how much they store share one */
  kin: number
  price: number
  weightLb: number
  heaviestLb: number
  /** something of it has no price or weight in the catalogue */
  unpriced: boolean
}

export interface GeneratorChoice {
  equipment: Generator
  gallons: number
  owned: boolean
}
export interface SunChoice {
  module: Module
  series: number
  parallel: number
  owned: boolean
}

/** Every design that the catalogue allows, as lists to choose from: a design is one of each. */
export interface Space {
  job: Job
  catalogue: readonly Equipment[]
  wishes: Wishes
  stock: Stock
  heads: Head[]
  /** one head of each kin, for what storing more does not change */
  kins: number[]
  methods: MethodId[]
  generators: (GeneratorChoice | null)[]
  suns: (SunChoice | null)[]
  /** designs before anything is dropped */
  raw: number
}

/** The most that one person carries without help, lb: a common rule of workplaces. */
export const onePersonLb = 50
/** Fuel that people keep, gallons. */
const fuels = [5, 10]
const sunSizes: [series: number, parallel: number][] = [
  [1, 1],
  [1, 2],
  [2, 1],
  [2, 2],
  [3, 1],
  [4, 1],
  [4, 2],
  [6, 1],
  [8, 1],
  [10, 1],
]
/** Cords lie on the floor for a storm, and the others are no plan at all. */
const notDesigned: MethodId[] = ['undecided', 'backfeed-unprotected', 'extension-cords']

/** The space of a job's designs from a catalogue: of use are only items that are not retired. */
export function spaceOf(job: Job, catalogue: readonly Equipment[], wishes: Wishes, stock: Stock = {}): Space {
  const owned = ownedOf(job)
  const starts: Source[] = []
  const unit = (equipment: Unit['equipment'], expansionUnits: number, bank?: Unit['bank']): Unit => ({
    id: 'u1',
    equipment,
    expansionUnits,
    ...(bank && { bank }),
    owned: owned.has(equipment.id),
  })
  const base = (u: Unit): Source => ({
    units: [u],
    arrangement: 'tied',
    liveLeg: job.source?.liveLeg ?? 'L1',
    ...(job.source?.stands && { stands: job.source.stands }),
  })
  for (const station of ofKind(catalogue, 'station'))
    for (let e = 0; e <= (station.expansion?.most ?? 0); e++) starts.push(base(unit(station, e)))
  for (const inverter of ofKind(catalogue, 'inverter'))
    for (const bank of ofKind(catalogue, 'bank')) {
      const series = Math.max(1, Math.round(inverter.batteryV / bank.unitV))
      if (Math.abs(series * bank.unitV - inverter.batteryV) > 0.2 * inverter.batteryV) continue
      if (series > (bank.mostSeries ?? 20)) continue
      for (let parallel = 1; parallel <= Math.min(bank.mostParallel, 6); parallel++)
        starts.push(base(unit(inverter, 0, { equipment: bank, series, parallel })))
    }
  // a vehicle is theirs or is none
  for (const outlet of ofKind(catalogue, 'vehicle-outlet'))
    if (owned.has(outlet.id) || job.brief.vehicle === 'yes')
      starts.push(base({ ...unit(outlet, 0), owned: true }))

  const heads: Head[] = []
  const kinOf = new Map<string, number>()
  const kins: number[] = []
  for (const start of starts)
    for (const way of arrangementWays(start, catalogue)) {
      if (!way.operation) continue
      const { arrangement, combiner, autotransformer, second } = way.operation
      const [first] = start.units
      if (!first) continue
      for (const liveLeg of arrangement === 'one-leg' || arrangement === 'autotransformer'
        ? (['L1', 'L2'] as const)
        : ([start.liveLeg] as const)) {
        const source: Source = {
          ...start,
          units: second ? [first, { ...second, expansionUnits: first.expansionUnits }] : [first],
          arrangement,
          liveLeg,
          ...(combiner && { combiner }),
          ...(autotransformer && { autotransformer }),
        }
        const key = `${first.equipment.id}|${first.bank?.equipment.id ?? ''}|${arrangement}|${liveLeg}`
        const kin = kinOf.get(key) ?? heads.length
        if (!kinOf.has(key)) {
          kinOf.set(key, kin)
          kins.push(kin)
        }
        heads.push({
          ...costOf(source),
          source,
          kin,
          name: `${sourceName(source)}, ${arrangementNames[arrangement]}`,
        })
      }
    }
  const methods = methodIds.filter(id => !notDesigned.includes(id))
  const generators: Space['generators'] = [
    null,
    ...ofKind(catalogue, 'generator').flatMap(equipment =>
      fuels.map(gallons => ({ equipment, gallons, owned: owned.has(equipment.id) })),
    ),
  ]
  const suns: Space['suns'] = [
    null,
    ...ofKind(catalogue, 'solar-module').flatMap(module =>
      sunSizes.map(([series, parallel]) => ({ module, series, parallel, owned: owned.has(module.id) })),
    ),
  ]
  return {
    job,
    catalogue,
    wishes,
    stock,
    heads,
    kins,
    methods,
    generators,
    suns,
    raw: heads.length * methods.length * generators.length * suns.length,
  }
}

/** Ids of what the customer has already. */
export function ownedOf(job: Job): Set<string> {
  const { source } = job
  return new Set([
    ...(source?.units.filter(u => u.owned).map(u => u.equipment.id) ?? []),
    ...(source?.generator?.owned ? [source.generator.equipment.id] : []),
    ...(source?.arrays?.filter(a => a.owned).map(a => a.module.id) ?? []),
  ])
}

function costOf(source: Source): Pick<Head, 'price' | 'weightLb' | 'heaviestLb' | 'unpriced'> {
  let price = 0
  let weightLb = 0
  let heaviestLb = 0
  let unpriced = false
  const part = (cost: number | undefined, weight: number | undefined, count: number, isOwned = false) => {
    if (!count) return
    if (!isOwned) {
      if (cost === undefined) unpriced = true
      price += (cost ?? 0) * count
    }
    if (weight === undefined) return
    weightLb += weight * count
    heaviestLb = Math.max(heaviestLb, weight)
  }
  for (const { equipment, expansionUnits, bank, owned } of source.units) {
    part(equipment.price, equipment.weightLb, 1, owned)
    if (equipment.kind === 'station' && equipment.expansion)
      part(equipment.expansion.price, equipment.expansion.weightLb, expansionUnits)
    if (bank) part(bank.equipment.price, bank.equipment.weightLb, bank.series * bank.parallel)
  }
  part(source.combiner?.price, source.combiner?.weightLb, source.combiner ? 1 : 0)
  part(source.autotransformer?.price, source.autotransformer?.weightLb, source.autotransformer ? 1 : 0)
  return { price, weightLb, heaviestLb, unpriced }
}

export const generatorCost = (choice: GeneratorChoice | null) =>
  choice && !choice.owned ? (choice.equipment.price ?? 0) : 0
export const sunCost = (choice: SunChoice | null) =>
  choice && !choice.owned ? (choice.module.price ?? 0) * choice.series * choice.parallel : 0
export const sunWeightLb = (choice: SunChoice | null) =>
  (choice?.module.weightLb ?? 0) * (choice ? choice.series * choice.parallel : 0)

/** The source with its generator and modules; null where no unit of it takes modules. */
export function sourceWith(
  head: Head,
  generator: GeneratorChoice | null,
  sun: SunChoice | null,
): Source | null {
  const { source } = head
  const takers = source.units.filter(u => solarInputOf(u.equipment))
  if (sun && !takers.length) return null
  const arrays: SolarArray[] = sun
    ? [
        {
          id: 'a1',
          unitId: takers[0]?.id ?? 'u1',
          module: sun.module,
          series: sun.series,
          parallel: sun.parallel,
          owned: sun.owned,
        },
      ]
    : []
  return {
    ...source,
    ...(generator && {
      generator: {
        equipment: generator.equipment,
        gallons: generator.gallons,
        where: 'outdoors' as const,
        owned: generator.owned,
      },
    }),
    ...(arrays.length && { arrays }),
    ...(generator && { charging: { from: 'not from the panel' as const } }),
  }
}

export const jobWith = (space: Space, source: Source): Job => ({ ...space.job, source })

export interface Design {
  head: number
  method: number
  generator: number
  sun: number
}

/** A design in a line. */
export function designName(space: Space, design: Design): string {
  const head = space.heads[design.head]
  const method = space.methods[design.method]
  const generator = space.generators[design.generator]
  const sun = space.suns[design.sun]
  return [
    head?.name ?? '',
    method ? methodOf(method).short.toLowerCase() : '',
    generator ? `${generator.equipment.name} with ${quantity(generator.gallons, 'gal')}` : '',
    sun ? `${sun.series * sun.parallel} × ${sun.module.name}` : '',
  ]
    .filter(Boolean)
    .join('; ')
}
