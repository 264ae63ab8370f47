import type { CircuitNeed } from '../assess/needs'
import { restMin } from '../commission/matrix'
import { type Proof, plugOf } from '../commission/scene'
import type { House } from '../isolation/house'
import { liveIn, type State } from '../isolation/live'
import { type CardLine, type Directions, staysOff } from './steps'

/** What a card would do to a house if it were followed to the letter. */
export type WalkFault =
  | { what: 'cannot be set'; of: string; why: string }
  | { what: 'fed twice'; of: string }
  | { what: 'bridged'; of: string }
  | { what: 'started warm'; of: string }
  | { what: 'stays dark'; of: string }
  | { what: 'comes on'; of: string }
  | { what: 'not as before'; of: string }

export interface WalkStep {
  direction: 'to' | 'back'
  line: CardLine
  /** circuits that came on and went off by it */
  on: string[]
  off: string[]
  faults: WalkFault[]
}

/** The walk there and back: what each line does, and what is wrong with it. */
export interface Walked {
  steps: WalkStep[]
  faults: WalkFault[]
  /** circuits alive at the end of the way there */
  alive: string[]
  /** how the handles stand after each way */
  ends: Record<'to' | 'back', State>
}

const ownKinds = new Set(['battery', 'vehicle', 'generator'])
/** An outage is longer than any rest, minutes. */
const outageMin = 60

/**
 * Follows a card to the letter in the model of the house, both ways, hands as fast as may be: only the waits that stand on the card pass time. On the way there the utility may
 * come back at any moment, so that nothing is fed twice then either; what has a compressor ran until the utility was lost.
 */
export function walkCard(p: Proof, { to, back }: Directions): Walked {
  const { house } = p
  const lost: House = { ...house, supplies: house.supplies.filter(s => s.kind !== 'utility') }
  const own = new Set(house.supplies.filter(s => ownKinds.has(s.kind)).map(s => s.id))
  // an inverter parts the two itself
  const parted = house.places.some(pl => pl.id === 'inverter out')
  const loads = p.needs.filter(n => n.circuit.purpose === 'loads' && !n.feeds)
  const compressors = loads.filter(n => n.circuit.loads.some(l => l.nature === 'compressor'))
  const keptOff = staysOff(p)
  const unitOn = (state: State) => house.handles.some(h => h.kind === 'unit' && state[h.id] === 'on')
  const fedBy = (n: CircuitNeed, live: Map<string, Set<string>>, state: State): ReadonlySet<string> => {
    const plug = state[plugOf(n.circuit.id)]
    if (plug === 'source') return unitOn(state) ? own : new Set()
    if (plug === 'out') return new Set()
    const led = house.places.some(pl => pl.id === `load ${n.circuit.id}`)
    return live.get(`${led ? 'load' : 'circuit'} ${n.circuit.id}`) ?? new Set()
  }
  const aliveIn = (state: State, here: House) => {
    const live = liveIn(here, state)
    return new Set(loads.filter(n => fedBy(n, live, state).size > 0).map(n => n.circuit.id))
  }

  let state: State = p.states.utility
  let minute = 0
  const ranUntil = new Map(compressors.map(n => [n.circuit.id, 0]))
  const steps: WalkStep[] = []
  const byName = new Map(loads.map(n => [n.circuit.id, n]))
  const name = (id: string) => {
    const need = byName.get(id)
    return need ? `${need.position} ${need.circuit.label || 'unlabelled'}` : id
  }

  function check(faults: WalkFault[], before: ReadonlySet<string>, here: House): Set<string> {
    const worst = liveIn(house, state)
    if (!parted)
      for (const place of house.places) {
        const by = worst.get(place.id)
        if (by?.has('utility') && [...by].some(id => own.has(id)))
          faults.push({ what: 'fed twice', of: place.name })
      }
    const live = liveIn(here, state)
    if (!p.split && p.joined !== 'no')
      for (const n of p.needs)
        if (
          n.circuit.poles === 2 &&
          !p.served.includes(n) &&
          !n.feeds &&
          state[`breaker ${n.circuit.id}`] === 'on' &&
          [...(live.get(`circuit ${n.circuit.id}`) ?? [])].some(id => own.has(id))
        )
          faults.push({ what: 'bridged', of: `${n.position} ${n.circuit.label}` })
    const now = aliveIn(state, here)
    for (const { circuit } of compressors)
      if (now.has(circuit.id) && !before.has(circuit.id)) {
        const rested = minute - (ranUntil.get(circuit.id) ?? 0)
        if (rested < restMin) faults.push({ what: 'started warm', of: name(circuit.id) })
      }
    for (const id of before) if (!now.has(id) && ranUntil.has(id)) ranUntil.set(id, minute)
    return now
  }

  /** Two breakers with one handle go together. */
  function tied(handle: string, setting: string): State {
    const need = p.needs.find(n => `breaker ${n.circuit.id}` === handle)
    const other = need?.circuit.tie && `breaker ${need.circuit.tie.with}`
    return other && house.handles.some(h => h.id === other) ? { [other]: setting } : {}
  }

  /** A position passes its middle, and a plug is in the hand, before it is where it goes. */
  function through(handle: string, setting: string): string[] {
    const middle = handle.startsWith('plug ')
      ? 'out'
      : house.handles.find(h => h.id === handle)?.kind === 'position'
        ? 'off'
        : null
    return middle === null || middle === setting || state[handle] === setting ? [setting] : [middle, setting]
  }

  function follow(lines: readonly CardLine[], direction: 'to' | 'back', here: House, start: Set<string>) {
    let alive = start
    for (const line of lines) {
      const faults: WalkFault[] = []
      const before = alive
      minute += line.waitMin
      for (const id of alive) if (ranUntil.has(id)) ranUntil.set(id, minute)
      for (const { handle, setting } of line.acts) {
        const found = house.handles.find(h => h.id === handle)
        const next = { ...state, [handle]: setting }
        const never = house.nevers.find(n => n.both.every(([id, at]) => next[id] === at))
        if (found ? !found.settings.includes(setting) : !handle.startsWith('plug '))
          faults.push({ what: 'cannot be set', of: found?.name ?? handle, why: `there is no ${setting}` })
        else if (never) faults.push({ what: 'cannot be set', of: found?.name ?? handle, why: never.why })
        else
          for (const at of through(handle, setting)) {
            state = { ...state, [handle]: at, ...tied(handle, at) }
            alive = check(faults, alive, here)
          }
      }
      const on = [...alive].filter(id => !before.has(id)).map(name)
      const off = [...before].filter(id => !alive.has(id)).map(name)
      steps.push({ direction, line, on, off, faults })
    }
    return alive
  }

  // the moment the utility is lost: what something takes over by itself never stopped
  const first: WalkFault[] = []
  const usual = aliveIn(state, house)
  const kept = aliveIn(state, lost)
  check(first, new Set([...usual].filter(id => kept.has(id))), lost)
  const alive = follow(to, 'to', lost, kept)
  const end: WalkFault[] = []
  for (const n of p.served)
    if (!alive.has(n.circuit.id)) end.push({ what: 'stays dark', of: name(n.circuit.id) })
  const live = liveIn(lost, state)
  for (const n of keptOff)
    if ([...(live.get(`circuit ${n.circuit.id}`) ?? [])].some(id => own.has(id)))
      end.push({ what: 'comes on', of: `${n.position} ${n.circuit.label || 'unlabelled'}` })
  const there = state
  minute += outageMin
  for (const id of alive) if (ranUntil.has(id)) ranUntil.set(id, minute)

  // the utility is back: what hangs on it comes on without a hand
  const back0 = aliveIn(state, house)
  follow(back, 'back', house, back0)
  const usualNow = aliveIn(state, house)
  for (const id of usual) if (!usualNow.has(id)) end.push({ what: 'stays dark', of: name(id) })
  for (const [handle, setting] of Object.entries(p.states.utility))
    if (state[handle] !== setting)
      end.push({ what: 'not as before', of: house.handles.find(h => h.id === handle)?.name ?? handle })
  return {
    steps,
    faults: [...first, ...steps.flatMap(s => s.faults), ...end],
    alive: [...alive].map(name),
    ends: { to: there, back: state },
  }
}
