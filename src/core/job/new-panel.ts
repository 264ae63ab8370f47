import { conditionsOf } from '../ask/outage-asked'
import { drawn } from '../loads/draw'
import type { Leg } from '../panel/leg'
import { feedOf, freeSpaces, legOf, otherLeg } from '../panel/positions'
import { roomFor } from '../panel/room'
import { bare, breakerRatings, type Circuit, mainsOffered, type Panel } from '../panel/schema'
import type { Place, Unplanned } from '../plan/change'
import { intercepts, movesCircuits, tiedPanel } from './panels'
import type { Job } from './schema'

/** A new panel that the hook-up asks for, with its feeder, and where each moved circuit lands in it. */
export interface NewPanel {
  panel: Omit<Panel, 'circuits'>
  feeder: Circuit
  /** the panel that circuits come from, and that feeds it */
  from: Panel
  /** what moves together, in one go */
  landings: Place[][]
  /** picked, but without a place in it */
  unplaced: string[]
}

/** A job has one at most. */
export const newPanelId = 'new-panel'
const sizes = [8, 12, 16, 20, 24, 30, 40, 42, 60, 84]
/** What a new panel is fed with where nobody says otherwise, A. */
const usualFeederA = 60
const usualBusA = 125
/** Room for the breaker of the source, and for what is added later. */
const spareShare = 1.2
const sourceSpaces = 2

/**
 * The new panel of a job whose hook-up moves circuits; null where it moves none, or where the panel that they come from has no
 * room for the feeder. `job` with nothing planned but what people and findings want.
 */
export function newPanelOf(job: Job): NewPanel | null {
  const from = tiedPanel(job)
  const moving = movesCircuits(job) ? movingFrom(job, from) : []
  if (!moving.length) return null
  const asked = job.hookup.newPanel
  const space = asked?.feederSpace ?? spaceFor(from)
  if (space === null) return null
  const feederA = asked?.feederA ?? feederFor(job)
  const name =
    asked?.name ?? (job.hookup.method === 'critical-subpanel' ? 'Critical-load panel' : 'Back-up panel')
  const feeder = feederTo(name, space, feederA)
  const wanted = moving.reduce((sum, c) => sum + c.poles, 0) + sourceSpaces
  const tried = asked?.spaces ? [asked.spaces] : sizes.filter(s => s >= wanted * spareShare)
  for (const spaces of tried) {
    const panel = { ...besidePanel(job, from, name, spaces, feederA), feederId: feeder.id }
    const { landings, unplaced } = landingsIn(job, panel, from, moving)
    if (!unplaced.length || spaces === tried.at(-1)) return { panel, feeder, from, landings, unplaced }
  }
  return null
}

/**
 * The new panel in the feeder of the tied one, with its own interlocked main; null where the hook-up asks for none. Nothing moves:
 * it holds the source's breaker and the one that feeds on.
 */
export function interceptingPanel(job: Job): Omit<Extract<Unplanned, { kind: 'intercept' }>, 'kind'> | null {
  if (!intercepts(job.hookup)) return null
  const from = tiedPanel(job)
  const { newPanel: asked, backfed } = job.hookup
  const name = asked?.name ?? 'Back-up panel'
  // what protects the feeder now goes on protecting it, as far as there are breakers so large
  const protectsA = asked?.feederA ?? from.mainA ?? usualFeederA
  const feederA = [...breakerRatings].filter(a => a <= protectsA).at(-1) ?? usualFeederA
  return {
    feeds: from.id,
    panel: besidePanel(job, from, name, asked?.spaces ?? sizes[0] ?? 8, feederA),
    // beside the source's breaker at the end where the main is
    feeder: feederTo(from.name, backfed?.space === 2 ? 1 : 2, feederA),
  }
}

/** A new panel on the wall beside another, neutrals and grounds apart, its bus no less than its feeder. */
function besidePanel(
  job: Job,
  from: Panel,
  name: string,
  spaces: number,
  feederA: number,
): Omit<Panel, 'circuits'> {
  const { circuits: _, ...panel } = bare(newPanelId, name, spaces)
  return {
    ...panel,
    mark: markBeside(job.panels),
    // its own interlocked main, or lugs behind the inverter
    ...(job.hookup.method === 'sub-panel-interlock' && mainsOffered.includes(feederA) && { mainA: feederA }),
    busA: Math.max(usualBusA, feederA),
    where: from.where ? `beside ${from.name}`.slice(0, 120) : '',
    exposure: from.exposure,
    supply: 'fed from another panel',
    neutralBonded: false,
  }
}

const feederTo = (name: string, position: number, breakerA: number): Circuit => ({
  id: `${newPanelId}-feeder`,
  position,
  poles: 2,
  breakerA,
  label: `Feeder of the ${name}`.slice(0, 80),
  purpose: 'loads',
  neutral: { kind: 'own' },
  protection: 'none',
  tier: 3,
  picked: false,
  loads: [],
})

/** Picked circuits, with the other hot of a shared neutral; never a feeder, nor what feeds in. */
function movingFrom(job: Job, from: Panel): Circuit[] {
  const feeders = new Set(job.panels.map(p => p.feederId))
  const picked = from.circuits.filter(c => c.picked && c.purpose === 'loads' && !feeders.has(c.id))
  return from.circuits.filter(
    c => picked.includes(c) || picked.some(p => p.neutral.kind === 'shared' && p.neutral.with === c.id),
  )
}

function spaceFor(from: Panel): number | null {
  const room = roomFor(from, 2, 'anywhere')
  return room.kind === 'there' ? (room.spaces[0] ?? null) : null
}

/** What the inverter lets through, as a standard rating at or below it; else the usual. */
function feederFor({ source }: Job): number {
  const throughA = source?.units.flatMap(({ equipment }) =>
    equipment.kind === 'inverter' && equipment.transferA !== undefined ? [equipment.transferA] : [],
  )[0]
  if (throughA === undefined) return usualFeederA
  return [...breakerRatings].filter(a => a <= throughA).at(-1) ?? usualFeederA
}

const markBeside = (panels: readonly Panel[]): string =>
  ['B', 'C', 'N', 'BP'].find(m => !panels.some(p => p.mark === m)) ?? `B${panels.length}`

/** The leg each one-pole is to land on: the one that it has, or another where they are placed anew. */
function legsWanted(job: Job, from: Panel, moving: readonly Circuit[]): Map<string, Leg> {
  const ones = moving.filter(c => c.poles === 1)
  return legsAnew(job, ones) ?? new Map(ones.map(c => [c.id, feedOf(from, c) === 'L2' ? 'L2' : 'L1']))
}

/**
 * The legs of one-poles that are placed anew where they move to: the only live leg, or the fuller ones first, each on the leg that
 * has less, by mean watts; the two hots of a shared neutral on opposite ones. Null where they are not placed anew.
 */
export function legsAnew(job: Job, ones: readonly Circuit[]): Map<string, Leg> | null {
  if (job.hookup.movedPlaces !== 'placed anew' || !job.source) return null
  const { arrangement, liveLeg } = job.source
  if (arrangement === 'one-leg') return new Map(ones.map(c => [c.id, liveLeg]))
  const conditions = conditionsOf(job)
  const meanOf = (c: Circuit) => c.loads.reduce((sum, l) => sum + drawn(l, conditions).meanW, 0)
  const legs = new Map<string, Leg>()
  const sums = { L1: 0, L2: 0 }
  const put = (c: Circuit, leg: Leg) => {
    legs.set(c.id, leg)
    sums[leg] += meanOf(c)
  }
  for (const c of [...ones].sort((a, b) => meanOf(b) - meanOf(a) || a.id.localeCompare(b.id))) {
    if (legs.has(c.id)) continue
    const leg: Leg = sums.L1 <= sums.L2 ? 'L1' : 'L2'
    put(c, leg)
    const partner = ones.find(m => c.neutral.kind === 'shared' && m.id === c.neutral.with)
    if (partner && !legs.has(partner.id)) put(partner, otherLeg(leg))
  }
  return legs
}

/** A place for each: pins first, then what was solved, two-poles and shared pairs one above the other, then the rest by leg. */
function landingsIn(
  job: Job,
  panel: Omit<Panel, 'circuits'>,
  from: Panel,
  moving: readonly Circuit[],
): Pick<NewPanel, 'landings' | 'unplaced'> {
  const legs = legsWanted(job, from, moving)
  const open = new Set(freeSpaces(panel.spaces, [], panel.unusable))
  const at = new Map<string, number>()
  const opposite = (a: number, b: number) => legOf(panel, a) !== legOf(panel, b)
  const fits = (c: Circuit, position: number) =>
    open.has(position) &&
    (c.poles === 1 || (open.has(position + 2) && legOf(panel, position) !== legOf(panel, position + 2)))
  const put = (c: Circuit, position: number) => {
    at.set(c.id, position)
    open.delete(position)
    if (c.poles === 2) open.delete(position + 2)
  }
  const said = job.hookup.landings ?? []
  const pairOf = (c: Circuit) =>
    c.neutral.kind === 'shared'
      ? moving.find(m => c.neutral.kind === 'shared' && m.id === c.neutral.with)
      : undefined
  for (const pinned of [true, false])
    for (const landing of said.filter(l => l.pinned === pinned)) {
      const circuit = moving.find(c => c.id === landing.circuitId)
      if (!circuit || at.has(circuit.id) || !fits(circuit, landing.position)) continue
      const partner = pairOf(circuit)
      const other = said.find(l => l.circuitId === partner?.id)
      // two hots of one neutral land together, one above the other, or where there is room for both
      const beside = other && Math.abs(other.position - landing.position) === 2
      if (partner && !(beside && fits(partner, other.position) && opposite(other.position, landing.position)))
        continue
      put(circuit, landing.position)
      if (partner && other) put(partner, other.position)
    }
  const first = (suits: (position: number) => boolean) => [...open].find(suits)
  for (const c of moving.filter(m => m.poles === 2 && !at.has(m.id))) {
    const position = first(p => fits(c, p))
    if (position !== undefined) put(c, position)
  }
  for (const c of moving.filter(m => m.poles === 1 && !at.has(m.id))) {
    const partner = pairOf(c)
    if (!partner || at.has(c.id) || at.has(partner.id)) continue
    const upper = first(
      p => open.has(p + 2) && legOf(panel, p) !== legOf(panel, p + 2) && legOf(panel, p) === legs.get(c.id),
    )
    if (upper === undefined) continue
    put(c, upper)
    put(partner, upper + 2)
  }
  for (const c of moving.filter(m => m.poles === 1 && !at.has(m.id))) {
    const position = first(p => legOf(panel, p) === legs.get(c.id)) ?? first(() => true)
    if (position !== undefined) put(c, position)
  }
  const done = new Set<string>()
  const landings = moving.flatMap((c): Place[][] => {
    const position = at.get(c.id)
    if (position === undefined || done.has(c.id)) return []
    const partner = pairOf(c)
    const members = partner && at.has(partner.id) ? [c, partner] : [c]
    for (const m of members) done.add(m.id)
    return [members.map(m => ({ circuitId: m.id, panelId: panel.id, position: at.get(m.id) ?? position }))]
  })
  return { landings, unplaced: moving.filter(c => !at.has(c.id)).map(c => c.id) }
}
