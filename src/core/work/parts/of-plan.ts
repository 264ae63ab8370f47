import type { Job } from '../../job/schema'
import { expansionKey, partsOf } from '../../search/stock'
import { figure, quantity } from '../../units/format'
import { conductorSizes, materialName } from '../../units/tables/conductors'
import { connectorOf } from '../../units/tables/receptacles'
import type { Conductor, Route, WiringPlan } from '../wiring/parts'
import { raceways, stickFt } from '../wiring/raceways'
import { type Asked, summed } from './line'

const tapes = /, (\w+) tape$/

/** A wire as it is bought: metal, size, colour of its cover. What is taped is bought black. */
export function wirePart({
  material,
  size,
  colour,
  function: use,
}: Conductor): Omit<Asked, 'quantity' | 'why' | 'at'> | null {
  if (size === null) return null
  const bought = colour.replace(tapes, '')
  const dc = use === 'plus' || use === 'minus'
  const kind = dc ? 'cable' : 'wire'
  return {
    key: `${kind}-${material}-${size.replace('/', '-')}-${bought}`,
    kind: 'wire',
    name: `${dc ? 'battery or PV cable' : 'THHN/THWN-2'}, ${materialName[material]} ${size} AWG, ${bought}`,
    unit: 'ft',
  }
}

const bushedFrom = conductorSizes.indexOf('4')

function ofRoute(route: Route, along: readonly Conductor[]): Asked[] {
  const { raceway } = route
  if (!raceway) return []
  const { kind, tradeSize } = raceway
  const facts = raceways[kind]
  const size = tradeSize.replace('/', '-')
  const at = { view: 'wire' as const, of: route.id }
  const name = (what: string) => `${facts.name} ${what}, ${tradeSize}`
  // leads come in a whip: its conduit and both its connectors are there
  if (along.length && along.every(c => c.comes === 'with its device')) return []
  const fitting = (what: string, text: string, count: number, why = route.name): Asked => ({
    key: `${what}-${kind}-${size}`,
    kind: 'fitting',
    name: name(text),
    quantity: count,
    why,
    at,
  })
  const tight = route.wet && facts.metal && facts.sold === 'sticks'
  const sticks = Math.ceil(route.lengthFt / stickFt - 1e-9)
  const bends = Math.round(route.bendsDeg / 90)
  const bushed = along.some(c => c.size && conductorSizes.indexOf(c.size) >= bushedFrom)
  return [
    {
      key: `raceway-${kind}-${size}`,
      kind: 'raceway',
      name: `${facts.name}, ${tradeSize}`,
      unit: 'ft',
      quantity: route.lengthFt,
      why: route.name,
      at,
    },
    fitting(tight ? 'connector-raintight' : 'connector', tight ? 'raintight connector' : 'connector', 2),
    ...(facts.sold === 'sticks' ? [fitting('coupling', 'coupling', Math.max(0, sticks - 1))] : []),
    fitting(
      'strap',
      'strap',
      route.supports,
      `${route.name}: within ${quantity(facts.firstFt, 'ft')} of each end (NEC ${facts.article})`,
    ),
    // steel is bent on site; PVC takes elbows
    ...(kind === 'PVC40' ? [fitting('elbow', 'elbow 90°', bends)] : []),
    ...(route.pullPoints
      ? [
          {
            ...fitting('body', 'conduit body, to pull from', route.pullPoints),
            why: `${route.name}: more than 360° of bends`,
          },
        ]
      : []),
    ...(bushed
      ? [
          {
            key: `bushing-${size}`,
            kind: 'fitting' as const,
            name: `insulating bushing, ${tradeSize}`,
            quantity: 2,
            why: `${route.name}: wires of 4 AWG and more (NEC 300.4(G))`,
            at,
          },
        ]
      : []),
    ...(route.through === 'fire-rated'
      ? [
          {
            key: 'fire-stop',
            kind: 'sundry' as const,
            name: 'fire-stop sealant, listed for the wall and the raceway',
            quantity: 1,
            why: `${route.name}: through a fire-rated wall`,
            at,
          },
        ]
      : []),
  ]
}

/** Wire, raceway, connectors and boxes of a wiring plan. What is there already, or comes with its device, is not bought. */
export function partsOfPlan(plan: WiringPlan): Asked[] {
  const routes = new Map(plan.routes.map(r => [r.id, r]))
  const wires = plan.conductors
    .filter(c => c.comes === 'bought')
    .flatMap((c): Asked[] => {
      const part = wirePart(c)
      if (!part) return []
      const at = { view: 'wire' as const, of: c.route }
      const why = `${c.mark}, ${routes.get(c.route)?.name ?? c.route}`
      const tape = tapes.exec(c.colour)?.[1]
      return [
        { ...part, quantity: c.cutFt, why, at },
        ...(tape
          ? [
              {
                key: `tape-${tape}`,
                kind: 'sundry' as const,
                name: `${tape} marking tape, roll`,
                // a roll lasts for many: one is taken along, however many wires ask for it
                quantity: 1,
                why: `${c.mark}, at both ends`,
                at,
              },
            ]
          : []),
        ...(c.material === 'al'
          ? [
              {
                key: 'anti-oxidant',
                kind: 'sundry' as const,
                name: 'anti-oxidant compound',
                quantity: 1,
                why: `${c.mark} is aluminum`,
                at,
              },
            ]
          : []),
      ]
    })
  const devices = new Map(plan.devices.map(d => [d.id, d]))
  const splices = plan.splices.map(
    (s): Asked => ({
      key: s.connector ?? 'connector-chosen',
      kind: 'connector',
      name: s.name === 'to be chosen' ? 'connector, to be chosen' : s.name,
      quantity: 1,
      why: devices.get(s.device)?.name ?? s.device,
      at: { view: 'wire', of: s.device },
    }),
  )
  const boxes = plan.boxes.flatMap((b): Asked[] => [
    {
      key: b.key,
      kind: 'box',
      name: `${b.box}, with cover`,
      quantity: 1,
      why: `${b.name}: ${figure(b.requiredIn3)} of ${figure(b.volumeIn3)} in³ filled`,
      at: { view: 'wire', of: b.name },
    },
  ])
  const disconnects = plan.devices
    .filter(d => d.kind === 'disconnect')
    .map(
      (d): Asked => ({
        key: `disconnect-${d.name.replace(/\D+/g, '-').replace(/^-|-$/g, '')}`,
        kind: 'device',
        name: d.name,
        quantity: 1,
        why: 'Between battery and inverter (NEC 480.7, 706.15)',
        at: { view: 'wire', of: d.id },
      }),
    )
  const lugs = plan.conductors
    .filter(c => (c.function === 'plus' || c.function === 'minus') && c.route === 'battery' && c.size)
    .map(
      (c): Asked => ({
        key: `lug-${c.size?.replace('/', '-')}`,
        kind: 'fitting',
        name: `compression lug, ${c.size} AWG, with its heat shrink`,
        quantity: 2,
        why: `${c.mark}, at both ends`,
        at: { view: 'wire', of: c.route },
      }),
    )
  const ends = plan.conductors.filter(c => c.comes === 'bought').length
  return [
    ...once(wires),
    ...plan.routes.flatMap(r =>
      ofRoute(
        r,
        plan.conductors.filter(c => c.route === r.id),
      ),
    ),
    ...splices,
    ...disconnects,
    ...lugs,
    ...boxes,
    ...(ends
      ? [
          {
            key: 'wire-markers',
            kind: 'label' as const,
            name: 'wire markers, book',
            quantity: 1,
            why: `${ends} wires are marked at both ends`,
            at: { view: 'wire' as const },
          },
        ]
      : []),
  ]
}

/** Sundries of which one is enough for a job, however many ask for it. */
function once(asked: readonly Asked[]): Asked[] {
  const seen = new Set<string>()
  return asked.map(a => {
    if (a.kind !== 'sundry') return a
    const again = seen.has(a.key)
    seen.add(a.key)
    return again ? { ...a, quantity: 0 } : a
  })
}

/** What the source is made of and the customer does not own, and the cords and adapters of the way in. */
export function partsOfSource(job: Job): Asked[] {
  const { source, hookup } = job
  const prices = new Map<string, number>()
  const price = (key: string | undefined, usd: number | undefined) => {
    if (key !== undefined && usd !== undefined) prices.set(key, usd)
  }
  for (const { equipment, bank } of source?.units ?? []) {
    price(equipment.id, equipment.price)
    price(bank?.equipment.id, bank?.equipment.price)
    if (equipment.kind === 'station') price(expansionKey(equipment.id), equipment.expansion?.price)
  }
  for (const part of [source?.combiner, source?.autotransformer, source?.generator?.equipment])
    price(part?.id, part?.price)
  for (const { module } of source?.arrays ?? []) price(module.id, module.price)
  const units = (source ? partsOf(source) : []).map(
    (p): Asked => ({
      key: p.key,
      kind: 'device',
      name: p.name,
      quantity: p.count,
      catalogueUsd: prices.get(p.key),
      why: 'Part of the source',
      at: { view: 'source' },
    }),
  )
  const links = (hookup.path ?? []).flatMap((l): Asked[] => {
    if (l.kind !== 'cord' && l.kind !== 'adapter') return []
    const plug = l.from && connectorOf(l.from)
    return [
      {
        key: `${l.kind}-${l.from ?? 'x'}-${l.to ?? 'x'}-${Math.ceil(l.lengthFt ?? 0)}`.toLowerCase(),
        kind: 'cord',
        name: `${l.kind} ${l.from ?? ''} to ${l.to ?? ''}${l.lengthFt ? `, ${quantity(l.lengthFt, 'ft')}` : ''}, ${figure(l.ratingA || (plug ? plug.amps : 0))} A`,
        quantity: 1,
        why: `The way from the source in: ${l.name ?? l.kind}`,
        at: { view: 'hook-up' },
      },
    ]
  })
  return [...units, ...links]
}

/** The same, summed, while there is no wiring plan. */
export const partsOfSourceAlone = (job: Job) => summed(partsOfSource(job))
