import { type CircuitNeed, named } from '../assess/needs'
import { restMin } from '../commission/matrix'
import { type Proof, plugOf } from '../commission/scene'
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
  /** minutes to be waited before it */
  waitMin: number
}

/** The utility has to hold before anything goes back to it, minutes: ours. */
const sureMin = 5

const line = (
  say: string,
  values: Values = {},
  acts: Act[] = [],
  facts: Partial<Pick<CardLine, 'each' | 'waitMin'>> = {},
): CardLine => ({ say, with: values, each: [], acts, waitMin: 0, ...facts })
const set = (handle: string, setting: string): Act => ({ handle, setting })
const look = line('look')
const sure = line('sure', { minutes: sureMin })

const longestName = 36
/** What fits a card of a name, by whole letters. */
const shortOf = (name: string): string => {
  const letters = [...name]
  return letters.length > longestName
    ? `${letters
        .slice(0, longestName - 1)
        .join('')
        .trim()}…`
    : name
}
/** A circuit as a hand finds it: by the number of its position where a switch has one, else by its breaker; and what fits of its name. */
export const onCard = (need: CircuitNeed): string =>
  shortOf(need.place === null ? named(need) : `${need.place} ${need.circuit.label || named(need)}`)
/** The same in a house; what is plugged in there is found by what it is. */
export const onCardOf =
  ({ joined }: Pick<Proof, 'joined'>) =>
  (need: CircuitNeed): string =>
    joined === 'no' && need.circuit.loads.length
      ? shortOf(need.circuit.loads.map(l => l.name).join(', '))
      : onCard(need)

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

/** What comes on at once, one after the other; and what starts against pressure, or hangs on one handle with it, and rests first. */
function inTurn(
  { needs: all }: Proof,
  needs: readonly CircuitNeed[],
): { now: CircuitNeed[]; later: CircuitNeed[] } {
  const rests = (n: CircuitNeed) =>
    isCompressor(n) || all.some(o => o.circuit.id === n.circuit.tie?.with && isCompressor(o))
  const ordered = inOrder(needs)
  return { now: ordered.filter(n => !rests(n)), later: ordered.filter(rests) }
}

/**
 * A sentence about several that are set in turn; nothing where there are none. What rests first waits its minutes: since the utility was `lost`, or since it was switched
 * `off`.
 */
function several(
  say: string,
  needs: readonly CircuitNeed[],
  setting: string,
  { handle = breaker, each = onCard, since = 'none' }: Partial<Turn> = {},
): CardLine[] {
  if (!needs.length) return []
  const rests = since !== 'none'
  return [
    line(
      say,
      { since, minutes: restMin },
      needs.map(n => set(handle(n), setting)),
      { each: needs.map(each), waitMin: rests ? restMin : 0 },
    ),
  ]
}
interface Turn {
  handle: (n: CircuitNeed) => string
  each: (n: CircuitNeed) => string
  since: 'none' | 'lost' | 'off'
}
const breaker = (n: CircuitNeed) => `breaker ${n.circuit.id}`

/** What one handle switches along with a circuit that lives, and does not live itself; never what was said to be locked off. */
const alongWith = (p: Proof, { circuit }: CircuitNeed): CircuitNeed | undefined =>
  p.needs.find(n => n.circuit.id === circuit.tie?.with && !p.served.includes(n) && !isLocked(p, n))

/** What the source feeds and must not: two-poles on one phase, solar, what nobody picked. */
export function staysOff(p: Proof): CircuitNeed[] {
  const reached = reachedPanels(p.job)
  return p.joined === 'no' || p.method.serves === 'positions'
    ? []
    : p.needs.filter(
        n =>
          reached.has(n.panel.id) &&
          !p.served.includes(n) &&
          !(n.feeds && reached.has(n.feeds.id)) &&
          // one handle with what lives: it comes on along
          !p.served.some(o => alongWith(p, o) === n),
      )
}

/** What a lock keeps off: what would join both legs of one phase, solar, and what was said to be locked. */
export const isLocked = (p: Proof, { circuit }: CircuitNeed): boolean =>
  circuit.lockedOff === true || circuit.purpose === 'solar' || (circuit.poles === 2 && !p.split)

const handleOf = (p: Proof, id: string): Handle | undefined => p.house.handles.find(h => h.id === id)
const units = (p: Proof) => p.house.handles.filter(h => h.kind === 'unit')
/** The units by their names, in no language: `2 × Weirgate 36`. */
export function unitNames({ job }: Pick<Proof, 'job'>): string[] {
  const names = (job.source?.units ?? []).map(u => u.equipment.name)
  return [...new Set(names)].map(name => {
    const count = names.filter(n => n === name).length
    return count > 1 ? `${count} × ${name}` : name
  })
}

/** Bringing the source up: where it stands, its cord, its output. */
function sourceUp(p: Proof): CardLine[] {
  const on = units(p)
  const { where } = p.job.handOver ?? {}
  return [
    line('sourceBring', { units: unitNames(p), kind: sourceKind(p), at: where?.source ?? 'none' }),
    ...(handleOf(p, 'cord') ? [line('cordIn', { at: where?.inlet ?? 'none' }, [set('cord', 'in')])] : []),
    line(
      'sourceOn',
      { count: on.length },
      on.map(h => set(h.id, 'on')),
    ),
  ]
}
/** And putting it away. */
function sourceDown(p: Proof): CardLine[] {
  const off = units(p)
  return [
    line(
      'sourceOff',
      { count: off.length },
      off.map(h => set(h.id, 'off')),
    ),
    ...(handleOf(p, 'cord') ? [line('cordOut', {}, [set('cord', 'out')])] : []),
  ]
}

/** The last of the way back. */
const recharge = (p: Proof) => line('recharge', { kind: sourceKind(p) })

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
  // what is fed by a panel below is set there while its feeder is off
  const below = p.job.panels
    .filter(b => b.id !== p.tied.id && reached.has(b.id))
    .map(b => ({ panel: b.name, all: p.needs.filter(n => n.panel.id === b.id) }))
  // the panel of a house that has but one is not named in each line
  const panel = p.job.panels.length > 1 ? p.tied.name : 'none'
  const reachedNeeds = [...here, ...below.flatMap(b => b.all)]
  const feeders = reachedNeeds.filter(n => n.feeds && reached.has(n.feeds.id))
  const { now, later } = inTurn(p, p.served)
  const usual = inTurn(
    p,
    reachedNeeds.filter(n => !feeders.includes(n)),
  )
  const off = (needs: readonly CircuitNeed[]) => needs.map(n => set(breaker(n), 'off'))
  const allOff = [
    line('branchesOff', { panel }, off(here)),
    ...below.map(b => line('belowOff', { panel: b.panel }, off(b.all))),
  ]
  const feed = several('feedersOn', feeders, 'on')
  return {
    to: [
      look,
      ...allOff,
      line('mainOff', { panel }, [set(`main ${p.tied.id}`, 'off')]),
      ...sourceUp(p),
      line('backfedOn', { panel }, [set('backfed', 'on')]),
      ...feed,
      ...several('breakersOn', now, 'on', { each: withHandle(p) }),
      ...several('breakersOn', later, 'on', { each: withHandle(p), since: 'lost' }),
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
              { later: usual.later.length ? 'yes' : 'no', circuits: usual.later.map(onCard) },
              usual.now.map(n => set(breaker(n), 'on')),
            ),
          ]
        : []),
      ...several('breakersOn', usual.later, 'on', { since: 'off' }),
      recharge(p),
    ],
  }
}

const withHandle = (p: Proof) => (n: CircuitNeed) => {
  const along = alongWith(p, n)
  return along ? `${onCard(n)} (+ ${along.position})` : onCard(n)
}

const position = (n: CircuitNeed) => `position ${n.place}`

function byPositions(p: Proof): Directions {
  const { now, later } = inTurn(p, p.served)
  const turn = (
    needs: readonly CircuitNeed[],
    to: 'Source' | 'Off' | 'Line',
    since: Turn['since'] = 'none',
  ) => several(`positions${to}`, needs, to.toLowerCase(), { handle: position, since })
  return {
    to: [look, ...sourceUp(p), ...turn(now, 'Source'), ...turn(later, 'Source', 'lost')],
    back: [
      sure,
      ...turn(later, 'Off'),
      ...turn(now, 'Line'),
      ...turn(later, 'Line', 'off'),
      ...sourceDown(p),
      recharge(p),
    ],
  }
}

/** Behind an inverter nothing is switched by hand: what may not be on is put off, and on again afterwards. */
function byInverter(p: Proof): Directions {
  const off = staysOff(p)
  const unit = p.job.source?.units[0]?.equipment.name ?? ''
  return {
    to: [look, line('itselfThere', { unit }), ...several('offNow', off, 'off'), line('itselfSparing')],
    back: [
      line('itselfBack', { unit, minutes: sureMin }, [], { waitMin: sureMin }),
      ...several('breakersOn', off, 'on'),
    ],
  }
}

/** A panel that transfers each circuit itself: hands bring the source, the panel does the rest. */
function byManaged(p: Proof): Directions {
  const itself = (setting: string) => p.served.map(n => set(position(n), setting))
  const served = inOrder(p.served).map(onCard)
  return {
    to: [
      look,
      ...sourceUp(p),
      line('managedThere', { minutes: restMin }),
      line('managedIs', {}, itself('source'), { each: served, waitMin: restMin }),
    ],
    back: [
      line('managedRests', { minutes: restMin }, itself('off')),
      line('managedBack', {}, itself('line'), { waitMin: restMin }),
      ...sourceDown(p),
      recharge(p),
    ],
  }
}

function byPlugs(p: Proof): Directions {
  const { now, later } = inTurn(p, p.served)
  const plug = (
    needs: readonly CircuitNeed[],
    to: 'Source' | 'Out' | 'House',
    since: Turn['since'] = 'none',
  ) =>
    several(`plugs${to}`, needs, to.toLowerCase(), {
      handle: n => plugOf(n.circuit.id),
      each: onCardOf(p),
      since,
    })
  return {
    to: [look, ...sourceUp(p), ...plug(now, 'Source'), ...plug(later, 'Source', 'lost')],
    back: [
      sure,
      ...plug(later, 'Out'),
      ...plug(now, 'House'),
      ...plug(later, 'House', 'off'),
      ...sourceDown(p),
      recharge(p),
    ],
  }
}
