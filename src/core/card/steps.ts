import { type CircuitNeed, named } from '../assess/needs'
import { type Proof, plugOf, unitName } from '../commission/scene'
import type { Handle } from '../isolation/house'
import { reachedPanels } from '../job/panels'
import type { Values } from '../languages'

/** What a hand sets. */
export interface Act {
  handle: string
  setting: string
}

/** One line of a card: which sentence, of what, what hands do by it, and how long they wait. */
export interface CardLine {
  /** its key among the messages under `card.line` */
  say: string
  with: Values
  /** what is set one after the other, in the order of the acts */
  each: string[]
  acts: Act[]
  /** minutes before the next line */
  waitMin: number
}

/** What has just run against pressure rests before it is fed again, minutes. */
export const restMin = 5
/** The utility has to hold before anything goes back to it, minutes: ours. */
const sureMin = 5

const line = (
  say: string,
  values: Values = {},
  acts: Act[] = [],
  facts: Partial<Pick<CardLine, 'each' | 'waitMin'>> = {},
): CardLine => ({ say, with: values, each: [], acts, waitMin: 0, ...facts })
const set = (handle: string, setting: string): Act => ({ handle, setting })
const sure = line('sure', { minutes: sureMin })

const isCompressor = ({ circuit }: CircuitNeed) => circuit.loads.some(l => l.nature === 'compressor')
const runningW = ({ circuit }: CircuitNeed) => circuit.loads.reduce((sum, l) => sum + l.runningW.value, 0)

/** What must live before what may go, the small before the large. */
const inOrder = (needs: readonly CircuitNeed[]): CircuitNeed[] =>
  [...needs].sort(
    (a, b) =>
      a.circuit.tier - b.circuit.tier ||
      runningW(a) - runningW(b) ||
      a.position.localeCompare(b.position, 'en-US', { numeric: true }),
  )

/** What comes on at once, one after the other; and what starts against pressure, and rests first. */
function inTurn(needs: readonly CircuitNeed[]): { now: CircuitNeed[]; later: CircuitNeed[] } {
  const all = inOrder(needs)
  return { now: all.filter(n => !isCompressor(n)), later: all.filter(isCompressor) }
}

/** The minutes of what rests, counted from the moment that the utility was lost, or that it was switched off. */
const rest = (later: readonly CircuitNeed[], since: 'lost' | 'off'): CardLine[] =>
  later.length
    ? [line('rest', { minutes: restMin, since, circuits: later.map(named) }, [], { waitMin: restMin })]
    : []
/** A sentence about several that are set in turn; nothing where there are none. */
const several = (
  say: string,
  needs: readonly CircuitNeed[],
  setting: string,
  handle: (n: CircuitNeed) => string,
  each: (n: CircuitNeed) => string = named,
  values: Values = {},
): CardLine[] =>
  needs.length
    ? [
        line(
          say,
          values,
          needs.map(n => set(handle(n), setting)),
          { each: needs.map(each) },
        ),
      ]
    : []
const breaker = (n: CircuitNeed) => `breaker ${n.circuit.id}`

/** What the source feeds and must not: two-poles on one phase, solar, what nobody picked. */
export function staysOff(p: Proof): CircuitNeed[] {
  const reached = reachedPanels(p.job)
  return p.joined === 'no' || p.method.serves === 'positions'
    ? []
    : p.needs.filter(
        n => reached.has(n.panel.id) && !p.served.includes(n) && !(n.feeds && reached.has(n.feeds.id)),
      )
}

/** What a lock keeps off: what would join both legs of one phase, solar, and what was said to be locked. */
export const isLocked = (p: Proof, { circuit }: CircuitNeed): boolean =>
  circuit.lockedOff === true || circuit.purpose === 'solar' || (circuit.poles === 2 && !p.split)

const handleOf = (p: Proof, id: string): Handle | undefined => p.house.handles.find(h => h.id === id)
const units = (p: Proof) => p.house.handles.filter(h => h.kind === 'unit')
const names = (p: Proof) =>
  (p.job.source?.units ?? []).filter(u => handleOf(p, `unit ${u.id}`)).map(u => unitName(p, u.id))

/** Bringing the source up: where it stands, its cord, its output. */
const sourceUp = (p: Proof): CardLine[] => [
  line('sourceBring', { units: names(p), kind: sourceKind(p) }),
  ...(handleOf(p, 'cord') ? [line('cordIn', { units: names(p) }, [set('cord', 'in')])] : []),
  line(
    'sourceOn',
    { units: names(p) },
    units(p).map(h => set(h.id, 'on')),
  ),
]
/** And putting it away. */
const sourceDown = (p: Proof): CardLine[] => [
  line(
    'sourceOff',
    { units: names(p) },
    units(p).map(h => set(h.id, 'off')),
  ),
  ...(handleOf(p, 'cord') ? [line('cordOut', { units: names(p) }, [set('cord', 'out')])] : []),
]
export type SourceKind = 'battery' | 'vehicle' | 'generator'
/** What makes the power: an engine of any unit counts before a battery. */
export function sourceKind({ job }: Pick<Proof, 'job'>): SourceKind {
  const kinds = new Set(job.source?.units.map(u => u.equipment.kind))
  return kinds.has('generator') ? 'generator' : kinds.has('vehicle-outlet') ? 'vehicle' : 'battery'
}

/** The two directions of a card. Null where there is no way that may be used. */
export interface Directions {
  to: CardLine[]
  back: CardLine[]
}

export function directionsOf(p: Proof): Directions | null {
  if (!p.job.source || !p.served.length) return null
  switch (p.method.transfer) {
    case 'interlock':
      return handleOf(p, 'backfed') && handleOf(p, `main ${p.tied.id}`) ? byInterlock(p) : null
    case 'switch':
      return byPositions(p)
    case 'automatic':
      return p.house.handles.some(h => h.kind === 'disconnect') ? byInverter(p) : byManaged(p)
    case 'unplugging':
      return byPlugs(p)
    default:
      return null
  }
}

function byInterlock(p: Proof): Directions {
  const reached = reachedPanels(p.job)
  const here = p.needs.filter(n => n.panel.id === p.tied.id)
  const panel = p.tied.name
  // what is fed by a panel below is set there while its feeder is off
  const below = p.job.panels
    .filter(b => b.id !== p.tied.id && reached.has(b.id))
    .map(b => ({ panel: b.name, all: p.needs.filter(n => n.panel.id === b.id) }))
  const reachedNeeds = [...here, ...below.flatMap(b => b.all)]
  const feeders = reachedNeeds.filter(n => n.feeds && reached.has(n.feeds.id))
  const { now, later } = inTurn(p.served)
  const usual = inTurn(reachedNeeds.filter(n => !feeders.includes(n)))
  const off = (needs: readonly CircuitNeed[]) => needs.map(n => set(breaker(n), 'off'))
  const allOff = [
    line('branchesOff', { panel }, off(here)),
    ...below.map(b => line('belowOff', { panel: b.panel }, off(b.all))),
  ]
  const feed = several('feedersOn', feeders, 'on', breaker)
  return {
    to: [
      line('look'),
      ...allOff,
      line('mainOff', { panel }, [set(`main ${p.tied.id}`, 'off')]),
      ...sourceUp(p),
      line('backfedOn', { panel }, [set('backfed', 'on')]),
      ...feed,
      ...several('breakersOn', now, 'on', breaker),
      ...rest(later, 'lost'),
      ...several('breakersOn', later, 'on', breaker),
    ],
    back: [
      sure,
      ...allOff,
      line('backfedOff', { panel }, [set('backfed', 'off')]),
      line('mainOn', { panel }, [set(`main ${p.tied.id}`, 'on')]),
      ...sourceDown(p),
      ...feed,
      ...(usual.now.length
        ? [
            line(
              'othersOn',
              { later: usual.later.length ? 'yes' : 'no', circuits: usual.later.map(named) },
              usual.now.map(n => set(breaker(n), 'on')),
            ),
          ]
        : []),
      ...rest(usual.later, 'off'),
      ...several('breakersOn', usual.later, 'on', breaker),
      line('recharge', { units: names(p), kind: sourceKind(p) }),
    ],
  }
}

const position = (n: CircuitNeed) => `position ${n.place}`
const byPlace = (n: CircuitNeed) => `${n.place}: ${named(n)}`

function byPositions(p: Proof): Directions {
  const { now, later } = inTurn(p.served)
  const turn = (needs: readonly CircuitNeed[], to: string) =>
    several(`positions${to.replace(/^./, c => c.toUpperCase())}`, needs, to, position, byPlace)
  return {
    to: [
      line('look'),
      ...sourceUp(p),
      ...turn(now, 'source'),
      ...rest(later, 'lost'),
      ...turn(later, 'source'),
    ],
    back: [
      sure,
      ...turn(later, 'off'),
      ...turn(now, 'line'),
      ...rest(later, 'off'),
      ...turn(later, 'line'),
      ...sourceDown(p),
      line('recharge', { units: names(p), kind: sourceKind(p) }),
    ],
  }
}

/** Behind an inverter nothing is switched by hand: what may not be on is put off, and on again afterwards. */
function byInverter(p: Proof): Directions {
  const off = staysOff(p)
  const unit = p.job.source?.units[0]?.equipment.name ?? ''
  return {
    to: [
      line('look'),
      line('itselfThere', { unit }),
      ...several('offNow', off, 'off', breaker),
      line('itselfSparing'),
    ],
    back: [
      line('itselfBack', { unit, minutes: sureMin }, [], { waitMin: sureMin }),
      ...several('breakersOn', off, 'on', breaker),
    ],
  }
}

/** A panel that transfers each circuit itself: hands bring the source, the panel does the rest. */
function byManaged(p: Proof): Directions {
  const itself = (setting: string) => p.served.map(n => set(position(n), setting))
  const served = inOrder(p.served).map(named)
  return {
    to: [
      line('look'),
      ...sourceUp(p),
      line('managedThere', { minutes: restMin }, [], { waitMin: restMin }),
      line('managedIs', {}, itself('source'), { each: served }),
    ],
    back: [
      line('managedRests', { minutes: restMin }, itself('off'), { waitMin: restMin }),
      line('managedBack', {}, itself('line')),
      ...sourceDown(p),
      line('recharge', { units: names(p), kind: sourceKind(p) }),
    ],
  }
}

function byPlugs(p: Proof): Directions {
  const { now, later } = inTurn(p.served)
  const plug = (needs: readonly CircuitNeed[], to: string) =>
    several(
      `plugs${to.replace(/^./, c => c.toUpperCase())}`,
      needs,
      to,
      n => plugOf(n.circuit.id),
      n => n.circuit.loads.map(l => l.name).join(', ') || named(n),
    )
  return {
    to: [
      line('look'),
      ...sourceUp(p),
      ...plug(now, 'source'),
      ...rest(later, 'lost'),
      ...plug(later, 'source'),
    ],
    back: [
      sure,
      ...plug(later, 'out'),
      ...plug(now, 'house'),
      ...rest(later, 'off'),
      ...plug(later, 'house'),
      ...sourceDown(p),
      line('recharge', { units: names(p), kind: sourceKind(p) }),
    ],
  }
}
