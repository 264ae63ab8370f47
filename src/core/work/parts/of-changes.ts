import { asPlanned } from '../../job/as-planned'
import { changeText } from '../../job/change-text'
import { circuitOf } from '../../job/panels'
import type { Job } from '../../job/schema'
import { protections } from '../../panel/protection'
import type { Circuit, Panel } from '../../panel/schema'
import { changeId, type PlannedChange } from '../../plan/change'
import { figure } from '../../units/format'
import { growthA } from '../wiring/feed'
import type { Asked } from './line'

type Facts = Omit<Asked, 'why' | 'at' | 'quantity'> & { quantity?: number }
type OfKind<K extends PlannedChange['kind']> = Extract<PlannedChange, { kind: K }>

/** A breaker by poles, amps and what it guards against; which maker’s type fits is on the sticker of the panel. */
export function breakerPart(
  { poles, breakerA, protection, type }: Pick<Circuit, 'poles' | 'breakerA' | 'protection' | 'type'>,
  panel?: Panel | undefined,
): Facts {
  const guards = protection === 'none' ? '' : ` ${protections[protection].mark}`
  const fits = type ?? (panel?.breakerTypes.length === 1 ? panel.breakerTypes[0] : undefined)
  return {
    key: `breaker-${poles}p-${breakerA}${protection === 'none' ? '' : `-${protection.replace('/', '-')}`}${fits ? `-${fits.toLowerCase()}` : ''}`,
    kind: 'breaker',
    name: `${figure(breakerA)} A ${poles === 2 ? 'two-pole' : 'one-pole'}${guards} breaker${fits ? `, type ${fits}` : ', of a type that the panel’s sticker lists'}`,
  }
}

const panelPart = ({ spaces, mainA, busA }: Omit<Panel, 'circuits'>): Facts[] => [
  {
    key: `panel-${spaces}-${mainA ?? `lugs-${busA ?? 100}`}`,
    kind: 'device',
    name: `panel, ${spaces} spaces, ${mainA === undefined ? `main lugs ${figure(busA ?? 100)} A` : `${figure(mainA)} A main`}, with cover`,
  },
  { key: 'ground-bar', kind: 'breaker', name: 'ground bar with screws' },
]

const one = (key: string, kind: Asked['kind'], name: string): Facts[] => [{ key, kind, name }]

const tieParts = one('handle-tie', 'breaker', 'handle tie, listed for the breakers')

/** The circuit of a change as planned, else as found. */
const circuitIn = (job: Job, id: string) => circuitOf(asPlanned(job).job, id) ?? circuitOf(job, id)

/**
 * What each kind of change takes: a row for each. An empty list says that it takes no part of its own: what is moved is there,
 * and wires are counted in the wiring plan.
 */
const takes: {
  [K in PlannedChange['kind']]: (change: OfKind<K>, job: Job) => Facts[]
} = {
  move: () => [],
  remove: () => [],
  lead: () => [],
  run: () => [],
  land: ({ places }, job) => {
    const breakers = places.flatMap(({ circuitId, panelId }) => {
      const at = circuitIn(job, circuitId)
      if (!at) return []
      // led over, it gets a breaker of the new panel; a type of the old one says nothing there
      const panel = asPlanned(job).job.panels.find(p => p.id === panelId)
      return [breakerPart({ ...at.circuit, type: undefined }, panel)]
    })
    return places.length > 1 ? [...breakers, ...tieParts] : breakers
  },
  exchange: ({ circuitId, breakerA, type, protection }, job) => {
    const at = circuitIn(job, circuitId)
    if (!at) return []
    const { circuit, panel } = at
    return [
      breakerPart(
        {
          poles: circuit.poles,
          breakerA: breakerA ?? circuit.breakerA,
          type: type ?? circuit.type,
          protection: protection ?? circuit.protection,
        },
        panel,
      ),
    ]
  },
  add: ({ circuit, panelId }, job) => [
    breakerPart(
      circuit,
      job.panels.find(p => p.id === panelId),
    ),
  ],
  tie: ({ tie, circuitId }, job) =>
    tie === 'handle'
      ? tieParts
      : [breakerPart({ ...twoPole, breakerA: circuitIn(job, circuitId)?.circuit.breakerA ?? 20 })],
  lock: () => one('breaker-lock', 'breaker', 'lock for a breaker, that stays when the padlock is off'),
  guard: ({ circuitId }, job) => {
    const { breakerA, protection } = circuitIn(job, circuitId)?.circuit ?? {
      breakerA: 20,
      protection: 'none',
    }
    const A = breakerA > 15 ? 20 : 15
    const guards = protections[protection].mark || protections['ground-fault'].mark
    return one(
      `receptacle-${A}-${guards.replace('/', '-').toLowerCase()}`,
      'box',
      `receptacle, ${A} A, ${guards}`,
    )
  },
  // its receptacle is a change of its own
  cord: ({ circuitId }, job) => {
    const A = (circuitIn(job, circuitId)?.circuit.breakerA ?? 15) > 15 ? 20 : 15
    return one(`cord-plug-${A}`, 'cord', `appliance cord with plug, ${A} A, with strain relief`)
  },
  'soft-start': () => one('soft-starter', 'device', 'soft starter, by the motor’s plate'),
  bond: ({ joined }) =>
    joined ? one('bonding-jumper', 'breaker', 'bonding screw or strap of the panel’s maker') : [],
  filler: () => one('filler', 'breaker', 'filler plate for a space'),
  panel: ({ panel }) => panelPart(panel),
  intercept: ({ panel, feeder }) => [...panelPart(panel), breakerPart(feeder)],
  receptacle: ({ circuitId }, job) => {
    const A = circuitIn(job, circuitId)?.circuit.breakerA ?? 20
    return [
      { key: `receptacle-${A > 15 ? 20 : 15}`, kind: 'box', name: `receptacle, ${A > 15 ? 20 : 15} A` },
      { key: 'cover-plate', kind: 'box', name: 'cover plate' },
    ]
  },
  notice: () => one('notice', 'label', 'engraved or weatherproof notice'),
  mount: ({ device }, { hookup, wiring }) => {
    const { inlet } = hookup
    // an inlet for a second unit later is bought once, and today’s plug reaches it by an adapter
    if (device === 'inlet' && inlet && wiring?.habits?.growth && inlet.ratingA < growthA)
      return [
        { key: `inlet-${growthA}`, kind: 'device', name: `${growthA} A inlet, in place of ${inlet.name}` },
        {
          key: `adapter-${inlet.type}-${growthA}`.toLowerCase(),
          kind: 'cord',
          name: `adapter from ${inlet.type} to the ${growthA} A inlet, with a breaker of its own where its cord is thinner`,
        },
      ]
    // what belongs to the source is on its own list, and transformers of current come with their panel
    const found = device in hookup ? hookup[device as keyof typeof hookup] : undefined
    if (!found || typeof found !== 'object' || !('id' in found) || !('name' in found)) return []
    const price = 'price' in found && typeof found.price === 'number' ? found.price : undefined
    return [
      {
        key: String(found.id),
        kind: 'device',
        name: String(found.name),
        ...(price !== undefined && { catalogueUsd: price }),
      },
    ]
  },
  backfeed: ({ breakerA, heldDown, panelId }, job) => [
    breakerPart(
      { ...twoPole, breakerA },
      job.panels.find(p => p.id === panelId),
    ),
    ...(heldDown ? one('hold-down', 'breaker', 'hold-down kit for a backfed breaker (NEC 408.36(D))') : []),
  ],
  'position-breaker': ({ breakerA }) =>
    one(
      `position-breaker-${breakerA}`,
      'breaker',
      `${figure(breakerA)} A breaker for a position of the switch`,
    ),
}
const twoPole = { poles: 2, protection: 'none', type: undefined } as const

const factsOf = <K extends PlannedChange['kind']>(change: OfKind<K>, job: Job): Facts[] =>
  takes[change.kind as K](change, job)

/** Parts that the planned changes of a job take; what is built already takes none any more. */
export const partsOfChanges = (job: Job): Asked[] =>
  job.planned
    .filter(c => !c.built)
    .flatMap(change =>
      factsOf(change, job).map(facts => ({
        quantity: 1,
        ...facts,
        why: changeText(job, change),
        at: { view: 'plan' as const, of: changeId(change) },
      })),
    )
