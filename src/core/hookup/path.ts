import type { Adapter, Cord, Inlet } from '../equipment/hookup-kinds'
import type { Evaluated } from '../job/evaluated'
import type { Job } from '../job/schema'
import { opposed } from '../source/arrangement'
import { outletsOf } from '../source/output'
import { isReceptacle, mates, type ReceptacleType, receptacles } from '../units/tables/receptacles'
import { adapterBetween, type Adapter as MayAdapt } from './connectors'
import { cordChain } from './cord-chain'
import type { Link } from './design'
import { methodOf } from './method'

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
  const all = outletsOf(source).map(o => ({
    type: o.type,
    ...(o.limitA !== undefined && { limitA: o.limitA }),
  }))
  const fits = all.find(o => plug !== undefined && mates(o.type, plug))
  const wanted = opposed(source.arrangement) ? all.filter(o => receptacles[o.type].hots === 2) : all
  const best = [...(wanted.length ? wanted : all)].sort((a, b) => ampsAt(b) - ampsAt(a))[0]
  return fits ?? best ?? null
}

const ampsAt = (o: { type: ReceptacleType; limitA?: number }) =>
  Math.min(o.limitA ?? Infinity, receptacles[o.type].amps)

/** The worst current that runs in it together, A: of the fuller leg, or of all where the legs are one. */
export function pathLoadA({ job, figures }: Pick<Evaluated, 'job' | 'figures'>): number {
  const { together } = figures
  return job.source && opposed(job.source.arrangement)
    ? Math.max(together.L1.VA, together.L2.VA) / 120
    : together.both.VA / 120
}

export type PathWorked = ReturnType<typeof cordChain.compute>

/** The path as the `cord-chain` calculator sees it; null while there is no source or no path. */
export function pathWorked(evaluated: Pick<Evaluated, 'job' | 'figures'>): PathWorked | null {
  const { job } = evaluated
  const outlet = pathOutlet(job)
  const { path } = job.hookup
  if (!outlet || !path?.length || !job.source) return null
  const loadA = pathLoadA(evaluated)
  return cordChain.compute({
    outlet,
    links: path.map(({ kind, from, to, ratingA, material = 'cu', size, lengthFt }) => ({
      kind,
      ...(from && { from }),
      ...(to && { to }),
      ratingA,
      material,
      ...(size && { size }),
      ...(lengthFt && { lengthFt }),
    })),
    sourceV: opposed(job.source.arrangement) ? 240 : 120,
    continuous: true,
    ...(loadA > 0 && { loadA }),
  })
}

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
    ratingA: adapter.breakerA ?? adapter.ratingA,
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
