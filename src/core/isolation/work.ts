import { asPlanned, standing } from '../job/as-planned'
import { changeText } from '../job/change-text'
import { circuitOf, feederOf, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { changeId, type PlannedChange } from '../plan/change'
import { type House, houseOfJob, type Place, type Supply } from './house'
import { type Cut, isolationOf, stillLive } from './isolate'
import { liveWith } from './live'

/** What is off, locked and proven while one planned change is made, and what stays live beside the hands even then. */
export interface IsolatedChange {
  id: string
  text: string
  /** where bare metal is met; none where the work stays outside every enclosure */
  places: Place[]
  cuts: Cut[]
  /** supplies that no handle of the house keeps away: who owns them cuts them off, or it waits */
  uncut: Supply[]
  staysLive: Place[]
  /** with nothing but the mains off: what still makes a place live, or could by one more handle */
  mainsOnly: { now: Supply[]; could: Supply[] }
}

type Of<K extends PlannedChange['kind']> = Extract<PlannedChange, { kind: K }>

/** The house as it is found, and as it will be: while it is worked in, it may be either. */
export interface Picture {
  job: Job
  house: House
}

const busOf = (pictures: readonly Picture[], circuitId: string) =>
  pictures.flatMap(({ job }) => circuitOf(job, circuitId)?.panel.id ?? []).map(id => `bus ${id}`)
/** A circuit’s wires and what is behind its position; and those of the other on the same neutral, whose current a parted neutral carries. */
const wiresOf = (pictures: readonly Picture[], circuitId: string) =>
  [
    ...new Set([
      circuitId,
      ...pictures.flatMap(({ job }) => {
        const neutral = circuitOf(job, circuitId)?.circuit.neutral
        return neutral?.kind === 'shared' ? [neutral.with] : []
      }),
    ]),
  ].flatMap(id => [`circuit ${id}`, `load ${id}`])
const ofPlaces = ({ places }: Of<'move' | 'land'>, pictures: readonly Picture[]) =>
  places.flatMap(p => [
    `bus ${p.panelId}`,
    ...wiresOf(pictures, p.circuitId),
    ...busOf(pictures, p.circuitId),
  ])
const inPanel = ({ circuitId }: Of<'exchange' | 'remove'>, pictures: readonly Picture[]) => [
  ...busOf(pictures, circuitId),
  ...wiresOf(pictures, circuitId),
]
/** At the far end of a circuit. */
const atOutlet = (
  { circuitId }: Of<'guard' | 'cord' | 'soft-start' | 'receptacle'>,
  pictures: readonly Picture[],
) => wiresOf(pictures, circuitId)
const tiedBus = (pictures: readonly Picture[]) => pictures.map(({ job }) => `bus ${tiedPanel(job).id}`)
const within = (pictures: readonly Picture[], enclosure: string) =>
  pictures.flatMap(({ house }) => house.places.filter(p => p.within === enclosure).map(p => p.id))

/** Where hands, a drill or a screwdriver meet bare metal: a row for each kind of change. Its places are those of either picture; what neither has is dropped. */
const metal: { [K in PlannedChange['kind']]: (change: Of<K>, pictures: readonly Picture[]) => string[] } = {
  move: ofPlaces,
  land: ofPlaces,
  exchange: inPanel,
  remove: inPanel,
  add: change => [`bus ${change.panelId}`, `circuit ${change.circuit.id}`],
  tie: (change, pictures) => [change.circuitId, change.with].flatMap(id => busOf(pictures, id)),
  // the panel's cover is off for each of these
  lock: (change, pictures) => busOf(pictures, change.circuitId),
  bond: change => [`bus ${change.panelId}`],
  filler: change => [`bus ${change.panelId}`],
  guard: atOutlet,
  cord: atOutlet,
  'soft-start': atOutlet,
  receptacle: atOutlet,
  panel: ({ panel }) => [`bus ${panel.id}`, `line ${panel.id}`],
  intercept: ({ panel, feeds, feeder }) => [
    `bus ${panel.id}`,
    `line ${panel.id}`,
    `line ${feeds}`,
    `circuit ${feeder.id}`,
  ],
  notice: () => [],
  mount: ({ device }, pictures) => {
    switch (device) {
      // a combiner’s cords are plugged: bare metal is met at the inlet alone
      case 'inlet':
      case 'combiner':
        return ['inlet']
      case 'inverter':
        return [...within(pictures, 'inverter'), ...within(pictures, 'the source')]
      case 'transformer':
        return ['inlet', ...tiedBus(pictures)]
      case 'current transformers':
        // around the conductors ahead of the main
        return pictures.flatMap(({ job }) =>
          job.panels.filter(p => p.supply === 'service').flatMap(p => [`line ${p.id}`, `bus ${p.id}`]),
        )
      default:
        // a knockout of the panel, or its cover, is opened for it
        return tiedBus(pictures)
    }
  },
  backfeed: change => [`bus ${change.panelId}`, 'inlet'],
  lead: (change, pictures) => [
    ...busOf(pictures, change.circuitId),
    ...wiresOf(pictures, change.circuitId),
    'switch in',
  ],
  'position-breaker': ({ position }, pictures) => [
    'switch in',
    ...pictures.flatMap(({ house }) =>
      house.joints.filter(j => j.by?.handle === `position ${position}`).flatMap(j => [j.from, j.to]),
    ),
  ],
  run: ({ runId }, pictures) => {
    const planned = pictures[1]
    const serves = planned?.job.hookup.runs?.find(r => r.id === runId)?.serves
    const into = planned ? tiedPanel(planned.job) : undefined
    const feeder = planned && into && feederOf(planned.job, into)
    // what nobody said of it may be any of the three
    return [
      ...(into ? [`bus ${into.id}`] : []),
      ...(serves === 'feeder' || serves === 'circuits' ? [] : ['inlet']),
      ...(serves === 'inlet' ? [] : within(pictures, 'inverter')),
      ...(serves === 'inlet' || !into || !feeder ? [] : [`bus ${feeder.panel.id}`, `line ${into.id}`]),
      // it opens every panel that a circuit is led over from
      ...(serves === 'inlet' || serves === 'feeder'
        ? []
        : (into?.circuits ?? []).flatMap(c => busOf(pictures, c.id))),
    ]
  },
}

/** Ids of the places where a change meets bare metal, in either picture. */
export const metalOf = (change: PlannedChange, pictures: readonly Picture[]) =>
  (metal[change.kind] as (change: PlannedChange, pictures: readonly Picture[]) => string[])(change, pictures)

/** The first of each key. */
const byKey = <T>(all: readonly T[], key: (of: T) => string): T[] =>
  [...new Map([...all].reverse().map(x => [key(x), x])).values()].reverse()
export const byId = <T extends { id: string }>(all: readonly T[]) => byKey(all, x => x.id)

/**
 * For each change that is planned and not yet built: what has to be off, reasoned on the house as found and as planned together, for what was connected an hour ago counts.
 * What the house does not bear is left out. Who owns a supply that no handle cuts off: the utility, by its meter or its own disconnect.
 */
export function isolatedChanges(job: Job): IsolatedChange[] {
  const planned = asPlanned(job)
  const pictures: Picture[] = [standing(job), job].map(of => ({
    job: asPlanned(of).job,
    house: houseOfJob(of),
  }))
  const undone = new Set(planned.undone.map(u => changeId(u.change)))
  return job.planned
    .filter(c => !c.built && !undone.has(changeId(c)))
    .map(change => {
      const ids = [...new Set(metalOf(change, pictures))]
      const each = pictures.map(({ house }) => ofHouse(house, ids))
      return {
        id: changeId(change),
        text: changeText(job, change),
        places: byId(each.flatMap(e => e.places)),
        // a handle by the name that it has as found
        cuts: byKey(
          each.flatMap(e => e.cuts),
          c => `${c.supply.id} ${c.handle.id}`,
        ),
        uncut: byId(each.flatMap(e => e.uncut)),
        staysLive: byId(each.flatMap(e => e.staysLive)),
        mainsOnly: {
          now: byId(each.flatMap(e => e.mainsOnly.now)),
          could: byId(each.flatMap(e => e.mainsOnly.could)),
        },
      }
    })
}

/** What has to be off, in one picture of a house, for hands to meet these places. */
export function ofHouse(house: House, ids: readonly string[]): Omit<IsolatedChange, 'id' | 'text'> {
  const places = house.places.filter(p => ids.includes(p.id))
  const each = places.map(p => isolationOf(house, p.id))
  const cuts = each.flatMap(e => e.cuts)
  const live = liveWith(house, new Set(cuts.map(c => c.handle.id)))
  const mains = house.handles.filter(h => h.kind === 'main').map(h => h.id)
  // a circuit's wires are met at its outlet or its position, too: the panel is open where more of it is met
  const opened = new Set(places.filter(p => !p.id.startsWith('circuit ')).map(p => p.within))
  const alone = places.map(p => stillLive(house, p.id, mains))
  return {
    places,
    cuts,
    uncut: each.flatMap(e => e.uncut),
    staysLive: house.places.filter(p => live.has(p.id) && !ids.includes(p.id) && opened.has(p.within)),
    mainsOnly: { now: alone.flatMap(a => a.now), could: alone.flatMap(a => a.could) },
  }
}
