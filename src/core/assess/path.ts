import type { Adapter, Cord, Inlet } from '../equipment/hookup-kinds'
import { adapterBetween, type Adapter as MayAdapt } from '../hookup/connectors'
import { cordChain } from '../hookup/cord-chain'
import type { Link } from '../hookup/design'
import { methodOf } from '../hookup/method'
import { type WayTold, wayTold } from '../hookup/way'
import type { Job } from '../job/schema'
import { opposed } from '../source/arrangement'
import { legsArrangement, type Source } from '../source/design'
import { outletsOf, ratingOf } from '../source/output'
import { isReceptacle, mates, type ReceptacleType, receptacles } from '../units/tables/receptacles'
import type { Evaluated } from './evaluated'

interface Outlet {
  type: ReceptacleType
  limitA?: number
}

/** Whose outlet the path begins at: the combiner's or transformer's where there is one. */
export function outletOwner({ source }: Pick<Job, 'source'>): string {
  if (source?.arrangement === 'combined' && source.combiner) return source.combiner.name
  if (source?.arrangement === 'autotransformer' && source.autotransformer?.outlets)
    return source.autotransformer.name
  return source?.units[0]?.equipment.name ?? ''
}

/** The outlet that the path begins at: the one its first plug goes into, else the one that carries most. */
export function pathOutlet(job: Job): Outlet | null {
  const { source } = job
  if (!source) return null
  const plug = job.hookup.path?.[0]?.from
  const all = (
    pathSide(source).lossFactor > 1 ? outletsOf({ ...source, arrangement: 'tied' }) : outletsOf(source)
  ).map(o => ({
    type: o.type,
    ...(o.limitA !== undefined && { limitA: o.limitA }),
  }))
  const fits = all.find(o => plug !== undefined && mates(o.type, plug))
  const wanted = pathSide(source).apart ? all.filter(o => receptacles[o.type].hots === 2) : all
  const best = [...(wanted.length ? wanted : all)].sort((a, b) => ampsAt(b) - ampsAt(a))[0]
  return fits ?? best ?? null
}

/** What an outlet carries, A: its own limit, or its connector's. */
export const ampsAt = (o: { type: ReceptacleType; limitA?: number }) =>
  Math.min(o.limitA ?? Infinity, receptacles[o.type].amps)

/**
 * How the path stands to the legs: its volts, and what of the legs' volt-amps flows through it. Ahead of an autotransformer
 * all of it flows through one hot at 120 V, its losses on top; behind it, and under split phase, each leg flows by itself.
 */
export function pathSide(source: Source): { volts: 120 | 240; apart: boolean; lossFactor: number } {
  const { autotransformer } = source
  const ahead = source.arrangement === 'autotransformer' && !autotransformer?.outlets
  const two = opposed(legsArrangement(source)) && !ahead
  return {
    volts: two ? 240 : 120,
    apart: two,
    lossFactor: ahead ? 1 / (autotransformer?.efficiencyFraction ?? 1) : 1,
  }
}

/** The worst current that runs in it together, A: of the fuller leg, or of all where the legs are one. */
export function pathLoadA({ job, figures }: Pick<Evaluated, 'job' | 'figures'>): number {
  const { together } = figures
  if (!job.source) return together.both.VA / 120
  const { apart, lossFactor } = pathSide(job.source)
  return apart ? Math.max(together.L1.VA, together.L2.VA) / 120 : (together.both.VA * lossFactor) / 120
}

export type PathWorked = ReturnType<typeof cordChain.compute>

/** Every thing of the way, rated and for hours, with what opens first. */
export function wayHere(job: Job): WayTold[] {
  const outlet = pathOutlet(job)
  const unit = job.source?.units[0]?.equipment
  return wayTold(
    job,
    outlet && unit
      ? { name: `the ${outlet.type} outlet`, ratedA: ampsAt(outlet), electronic: unit.kind !== 'generator' }
      : unit
        ? { name: `the ${unit.name}`, ratedA: ratingOf(unit).legW / 120, electronic: true }
        : null,
  )
}

/** The path as the `cord-chain` calculator sees it; null while there is no source or no path. */
export function pathWorked(evaluated: Pick<Evaluated, 'job' | 'figures'>): PathWorked | null {
  const { job } = evaluated
  const outlet = pathOutlet(job)
  const { path } = job.hookup
  if (!path?.length || !job.source) return null
  const wiredOn = job.source.units[0]?.equipment.kind === 'inverter'
  if (!outlet && !wiredOn) return null
  const loadA = pathLoadA(evaluated)
  return cordChain.compute({
    ...(outlet && { outlet }),
    links: path.map(
      ({ kind, from, to, ratingA, material = 'cu', size, lengthFt, use, insulationC, terminalC }) => ({
        kind,
        ...(from && { from }),
        ...(to && { to }),
        ratingA,
        material,
        ...(size && { size }),
        ...(lengthFt && { lengthFt }),
        ...(use && { use }),
        ...(insulationC && { insulationC }),
        ...(terminalC && { terminalC }),
      }),
    ),
    sourceV: pathSide(job.source).volts,
    continuous: true,
    ...(loadA > 0 && { loadA }),
  })
}

/** What of the way stands in the house as it was found: devices that are there already, by the kind of link that they are. */
export const standingOnWay = ({ hookup }: Pick<Job, 'hookup'>): { kind: Link['kind']; name: string }[] =>
  (hookup.exists ?? []).flatMap(device => {
    const there = hookup[device]
    return there
      ? [{ kind: device === 'inlet' ? ('inlet' as const) : ('breaker' as const), name: there.name }]
      : []
  })

/** Where the path does not join: between which link and the one before, and the adapter that may stand there. */
export interface Gap {
  /** the link whose plug does not fit */
  at: number
  receptacle: ReceptacleType
  plug: string
  adapter: MayAdapt
  /** of the catalogue, where there is one */
  known: Adapter | undefined
}

export function gapsIn(job: Job, adapters: readonly Adapter[]): Gap[] {
  const outlet = pathOutlet(job)
  const path = job.hookup.path ?? []
  if (!outlet) return []
  return path.flatMap((link, at) => {
    const before = at === 0 ? outlet.type : path[at - 1]?.to
    if (!link.from || before === undefined || !isReceptacle(before) || mates(before, link.from)) return []
    const plug = link.from
    return [
      {
        at,
        receptacle: before,
        plug,
        adapter: adapterBetween(before, plug),
        known: adapters.find(a => mates(before, a.from) && isReceptacle(a.to) && mates(a.to, plug)),
      },
    ]
  })
}

/** The path with an adapter put before a link. One with a breaker of its own brings that along. */
export function withAdapter(path: readonly Link[], at: number, adapter: Adapter, id: string): Link[] {
  const link: Link = {
    id,
    kind: 'adapter',
    name: adapter.name,
    from: adapter.from,
    to: adapter.to,
    ratingA: adapter.ratingA,
    ...(adapter.breakerA !== undefined && { ownBreakerA: adapter.breakerA }),
    listed: adapter.listed,
  }
  return [...path.slice(0, at), link, ...path.slice(at)]
}

/**
 * A path to begin with, from what the catalogue has: the outlet, an adapter where one may exist, a cord to the inlet,
 * wire and breaker or switch. Null where the hook-up has none: the appliance is plugged in, or the source is wired on.
 */
export function proposedPath(
  job: Job,
  catalogue: { cords: readonly Cord[]; adapters: readonly Adapter[]; inlets: readonly Inlet[] },
): Link[] | null {
  const outlet = pathOutlet({ ...job, hookup: { ...job.hookup, path: undefined } })
  const method = methodOf(job.hookup.method)
  if (!outlet || method.transfer === 'unknown') return null
  if (method.transfer === 'unplugging') {
    const cord = fitting(catalogue.cords, outlet.type)
    return cord ? [linkOf(cord, 'l1')] : null
  }
  const { switch: device, inlet } = job.hookup
  const inletType = inlet?.type ?? device?.inlet ?? 'L14-30'
  const inletA = inlet?.ratingA ?? device?.inputA ?? receptacles[inletType].amps
  const cord =
    catalogue.cords.find(c => mates(outlet.type, c.from) && mates(c.to, inletType)) ??
    catalogue.cords.find(c => mates(c.to, inletType))
  const links: Link[] = []
  if (cord) {
    if (!mates(outlet.type, cord.from)) {
      const adapter = catalogue.adapters.find(a => mates(outlet.type, a.from) && mates(a.to, cord.from))
      if (adapter) links.push(...withAdapter([], 0, adapter, 'l0'))
    }
    links.push(linkOf(cord, 'l1'))
  }
  const feeds = Math.min(inletA, job.hookup.backfed?.breakerA ?? inletA)
  return [
    ...links,
    {
      id: 'l2',
      kind: 'inlet',
      name: inlet?.name ?? `Inlet ${inletType}`,
      from: inletType,
      ratingA: inletA,
      listed: true,
    },
    {
      id: 'l3',
      kind: 'wire',
      name: 'Inlet to breaker',
      ratingA: feeds,
      material: 'cu',
      size: feeds > 40 ? '6' : feeds > 30 ? '8' : feeds > 20 ? '10' : '12',
      lengthFt: 15,
    },
    {
      id: 'l4',
      kind: 'breaker',
      name: device ? device.name : 'Backfed breaker',
      ratingA: device?.inputA ?? feeds,
    },
  ]
}

const fitting = (cords: readonly Cord[], outlet: ReceptacleType) => cords.find(c => mates(outlet, c.from))

export const linkOf = (cord: Cord, id: string): Link => ({
  id,
  kind: 'cord',
  name: cord.name,
  from: cord.from,
  to: cord.to,
  ratingA: cord.ratingA,
  material: 'cu',
  size: cord.size,
  lengthFt: cord.lengthFt,
  listed: cord.listed,
})
