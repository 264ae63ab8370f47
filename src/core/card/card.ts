import { conditionsOf } from '../ask/outage-asked'
import { balanceOf, hoursOf } from '../assess/balance'
import { type CircuitNeed, loadsOf } from '../assess/needs'
import { pairsForbidden, pairsToAvoid } from '../checks/power'
import { type Proof, proofOf } from '../commission/scene'
import { feederOf } from '../job/panels'
import type { Job } from '../job/schema'
import { type Fault, fail, fault, type Outcome, ok } from '../outcome'
import type { Working } from '../working'
import { type Drawing, drawingsOf } from './drawing'
import {
  type CardLine,
  directionsOf,
  isLocked,
  onCard,
  onCardOf,
  type SourceKind,
  sourceKind,
  staysOff,
  unitNames,
} from './steps'
import { type WalkFault, walkCard } from './walk'

/** How long a full store lasts with what is on, h. */
export interface Lasting {
  what: 'all' | 'must'
  /** the circuits that are meant */
  circuits: string[]
  hours: number
  working: Working
}

/** The card for the door: facts and keys of sentences, in no language yet. */
export interface Card {
  title: string
  place: string
  /** where things are found, as the installer says it; and whom to call */
  found: { panel: string; phone: string; secondWay: string }
  to: CardLine[]
  back: CardLine[]
  /** what a lock keeps off while the source feeds its panel, and what is only left off */
  locked: string[]
  leftOff: string[]
  /** pairs that must not run together */
  apart: [string, string][]
  /** by what one sees that the utility is back */
  tell: { say: 'blind' | 'indicator' | 'others' | 'itself'; circuit: string }
  trips: 'by hand' | 'by itself'
  lasts: Lasting[]
  season: 'winter' | 'spring' | 'summer' | 'autumn' | 'any'
  source: SourceKind
  /** what burns fuel makes the power, or charges what does */
  engine: boolean
  /** what charges the store meanwhile, and from which share of it on; null where nothing does */
  charger: { name: string; share: number } | null
  /** what a life hangs on; null where nothing does */
  medical: string | null
  units: string[]
  drawings: Drawing[]
  /** what would go wrong if it were followed: nothing, or the card is not to be used */
  wrong: WalkFault[]
}

/** The share of the store at which a generator is started where nobody said when: ours. */
const usualStartFraction = 0.3

/** The switch-over card of a job as planned; a fault that says what is missing where there can be none. */
export function cardOf(found: Job): Outcome<Card> {
  const p = proofOf(found)
  const missing = missingFor(p)
  if (missing) return fail(missing)
  const directions = directionsOf(p)
  if (!directions)
    return fail(fault('hookup.method', cannot[p.method.transfer] ?? 'must be chosen before there is a card'))
  const off = staysOff(p)
  const locked = off.filter(n => isLocked(p, n))
  const { figures } = balanceOf(p.job, p.needs, p.loads, false)
  const pairs = [...pairsToAvoid({ figures }), ...pairsForbidden({ figures })]
  const names = pairs.map(([a, b]): [string, string] => [a.load.name, b.load.name])
  const season = conditionsOf(p.job).season
  const generator = p.job.source?.generator
  return ok({
    title: p.job.title,
    place: p.job.place,
    found: foundOf(p),
    ...directions,
    locked: locked.map(onCard),
    leftOff: off.filter(n => !locked.includes(n)).map(onCard),
    apart: names.filter(([a, b], n) => names.findIndex(o => o[0] === a && o[1] === b) === n),
    tell: tellOf(p),
    trips: p.method.transfer === 'automatic' ? 'by itself' : 'by hand',
    lasts: lastsOf(p),
    season: season ?? 'any',
    source: sourceKind(p),
    engine: sourceKind(p) !== 'battery' || generator !== undefined,
    charger: generator
      ? { name: generator.equipment.name, share: generator.startAtFraction ?? usualStartFraction }
      : null,
    medical: p.job.brief.medical === 'yes' ? (p.job.brief.medicalWhat ?? '') : null,
    units: unitNames(p),
    drawings: drawingsOf(p),
    wrong: walkCard(p, directions).faults,
  })
}

const foundOf = ({ job, tied, joined }: Proof): Card['found'] => ({
  panel: joined === 'no' ? '' : (tied.where ?? ''),
  phone: job.handOver?.phone ?? '',
  secondWay: job.handOver?.secondWay ?? '',
})

const cannot: Record<string, string> = {
  none: 'cannot have a card: nothing keeps the main from being on with the backfed breaker. Plan an interlock first',
  unknown: 'must be chosen before there is a card',
  interlock: 'cannot have a card yet: the backfed breaker and its interlock are not planned in this panel',
}

function missingFor(p: Proof): Fault | null {
  if (!p.job.source) return fault('source', 'must be chosen before there is a card')
  if (p.method.transfer === 'none' || p.method.transfer === 'unknown')
    return fault('hookup.method', cannot[p.method.transfer] ?? '')
  if (!p.served.length)
    return fault('panels', `must hold a circuit that lives in an outage${p.open[0] ? ` (${p.open[0]})` : ''}`)
  return null
}

const seen = /light|lamp|outlet|hall|kitchen/i

function tellOf(p: Proof): Card['tell'] {
  const { transfer } = p.method
  if (transfer === 'automatic') return { say: 'itself', circuit: '' }
  if (p.job.hookup.utilityTold) return { say: 'indicator', circuit: '' }
  // a main that is off at the service leaves nothing on the utility
  if (transfer === 'interlock' && !feederOf(p.job, p.tied)) return { say: 'blind', circuit: '' }
  const behind = transfer === 'interlock' ? p.tied.id : null
  const others = p.needs.filter(
    n => n.circuit.purpose === 'loads' && !n.feeds && !p.served.includes(n) && n.panel.id !== behind,
  )
  const lamp =
    others.find(n => /light|lamp/i.test(n.circuit.label)) ?? others.find(n => seen.test(n.circuit.label))
  return { say: 'others', circuit: lamp ? lamp.circuit.label : '' }
}

/** With everything on the card, and with what must live alone, by the mean draw of the season. */
function lastsOf(p: Proof): Lasting[] {
  const of = (what: Lasting['what'], needs: readonly CircuitNeed[]): Lasting[] => {
    const { figures } = balanceOf(p.job, p.needs, loadsOf(needs), false)
    const hours = hoursOf(figures)
    return hours === null || !figures.run
      ? []
      : [{ what, circuits: needs.map(onCardOf(p)), hours, working: figures.run.working }]
  }
  const must = p.served.filter(n => n.circuit.tier === 1)
  return [...of('all', p.served), ...(must.length && must.length < p.served.length ? of('must', must) : [])]
}
