import { circuitNeeds } from '../assess/needs'
import { methodOf } from '../hookup/method'
import { asPlanned } from '../job/as-planned'
import { feederOf, placeText, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import { changeId, panelPutUp } from '../plan/change'

/** A piece of metal that is live or dead as a whole, both legs together. */
export interface Place {
  id: string
  name: string
  /** the enclosure in which hands would meet it: `panel main`, `switch`, `inlet` */
  within: string
}

/** What can make a place live. */
export interface Supply {
  id: string
  name: string
  kind: 'utility' | 'battery' | 'vehicle' | 'generator' | 'solar'
  at: string
  /** it comes on without a hand: nobody may trust that it is off because it is quiet */
  byItself: boolean
  /** a grid-tied inverter: it feeds only where something else holds the place up */
  follows?: true
}

/** What a hand, or a device by itself, sets. Its first setting is how it stands on an ordinary day. */
export interface Handle {
  id: string
  name: string
  kind: 'main' | 'breaker' | 'position' | 'plug' | 'unit' | 'disconnect'
  within: string
  settings: readonly [string, string, ...string[]]
  /** the setting that parts what it joins */
  open: string
  /** how it is kept there */
  lock: string
}

/** Two places that are one while a handle stands so; one way where nothing flows back. */
export interface Joint {
  from: string
  to: string
  by?: { handle: string; at: string }
  oneWay?: true
}

/** Settings that a plate, or a device, does not let be at once. */
export interface Never {
  both: readonly [handle: string, setting: string][]
  why: string
}

/** A house as far as it matters what is live: supplies, handles, what they join, what cannot be. */
export interface House {
  places: readonly Place[]
  supplies: readonly Supply[]
  handles: readonly Handle[]
  joints: readonly Joint[]
  nevers: readonly Never[]
}

const onOff = ['on', 'off'] as const
const offOn = ['off', 'on'] as const

/**
 * The house of a job as planned: all of it built; or, while it is worked in, with those changes done whose ids are given. What is not led
 * anywhere yet joins nothing.
 */
export function houseOfJob(found: Job, done?: ReadonlySet<string>): House {
  const { job } = asPlanned(
    done ? { ...found, planned: found.planned.filter(c => done.has(changeId(c))) } : found,
  )
  const undone = new Set(done ? found.planned.map(changeId).filter(id => !done.has(id)) : [])
  const there = (id: string) => !undone.has(id)
  const places: Place[] = []
  const supplies: Supply[] = []
  const handles: Handle[] = []
  const joints: Joint[] = []
  const nevers: Never[] = []
  const place = (id: string, name: string, within: string) => {
    if (!places.some(p => p.id === id)) places.push({ id, name, within })
    return id
  }
  const join = (from: string, to: string, by?: Joint['by'], oneWay?: true) =>
    joints.push({ from, to, ...(by && { by }), ...(oneWay && { oneWay }) })
  const breaker = (id: string, name: string, within: string, usual: 'on' | 'off' = 'on'): Handle => {
    const handle: Handle = {
      id,
      name,
      kind: 'breaker',
      within,
      settings: usual === 'on' ? onOff : offOn,
      open: 'off',
      lock: 'with a breaker lock and a tag',
    }
    handles.push(handle)
    return handle
  }

  place('service', 'the utility’s conductors', 'meter')
  supplies.push({ id: 'utility', name: 'the utility', kind: 'utility', at: 'service', byItself: true })
  const tied = tiedPanel(job)
  const method = methodOf(job.hookup.method)
  const { source } = job
  const panelsUp = found.planned.every(c => !panelPutUp(c) || there(changeId(c)))
  const wiredOn = job.hookup.method === 'critical-subpanel' && there('mount:inverter') && panelsUp
  const stood = job.hookup.method !== 'critical-subpanel' || wiredOn
  for (const panel of job.panels) {
    const within = `panel ${panel.id}`
    const bus = place(`bus ${panel.id}`, `the bus of ${panel.name}`, within)
    const line = place(`line ${panel.id}`, `the line side of ${panel.name}, its incoming lugs`, within)
    if (panel.mainA === undefined) join(line, bus)
    else {
      handles.push({
        id: `main ${panel.id}`,
        name: `the main of ${panel.name}`,
        kind: 'main',
        within,
        settings: onOff,
        open: 'off',
        lock: 'with a breaker lock and a tag',
      })
      join(line, bus, { handle: `main ${panel.id}`, at: 'on' })
    }
    const behind = wiredOn && panel === tied
    const from = feederOf(job, panel)
    if (behind) place('inverter out', 'the inverter’s output', 'inverter')
    if (behind) join('inverter out', line, undefined, true)
    else if (!from) join('service', line)
    for (const circuit of panel.circuits) {
      const at = placeText(job, panel, circuit)
      const wire = place(
        `circuit ${circuit.id}`,
        `the wires of ${at} ${circuit.label || 'unlabelled'}`,
        within,
      )
      breaker(`breaker ${circuit.id}`, `breaker ${at} ${circuit.label || 'unlabelled'}`, within)
      join(bus, wire, { handle: `breaker ${circuit.id}`, at: 'on' })
      const feeds = job.panels.find(p => p.feederId === circuit.id)
      // the feeder of a panel behind an inverter ends in the inverter
      if (feeds && !(wiredOn && feeds === tied))
        join(
          wire,
          place(`line ${feeds.id}`, `the line side of ${feeds.name}, its incoming lugs`, `panel ${feeds.id}`),
        )
      if (circuit.purpose === 'solar')
        supplies.push({
          id: `solar ${circuit.id}`,
          name: `the solar inverter on ${at}`,
          kind: 'solar',
          at: wire,
          byItself: true,
          follows: true,
        })
    }
  }
  if (source) sourceInto(job)
  return { places, supplies, handles, joints, nevers }

  function sourceInto(job: Job) {
    const stands = 'the source'
    source?.units.forEach(({ id, equipment }, n) => {
      const out = place(`out ${id}`, `the output of ${equipment.name}`, stands)
      if (!stood) return
      const own = wiredOn && equipment.kind === 'inverter' && n === 0
      const kind =
        equipment.kind === 'vehicle-outlet'
          ? 'vehicle'
          : equipment.kind === 'generator'
            ? 'generator'
            : 'battery'
      const cells = place(`cells ${id}`, `the store of ${equipment.name}`, stands)
      handles.push({
        id: `unit ${id}`,
        name: own ? `the battery disconnect of ${equipment.name}` : `the output of ${equipment.name}`,
        kind: own ? 'disconnect' : 'unit',
        within: stands,
        settings: own ? onOff : offOn,
        open: 'off',
        lock: own ? 'with its lock and a tag' : 'unplugged as well: a button is no lock',
      })
      supplies.push({ id: `supply ${id}`, name: equipment.name, kind, at: cells, byItself: own })
      join(cells, own ? 'inverter out' : out, { handle: `unit ${id}`, at: 'on' }, true)
      if (own) {
        // passes the utility through while there is one
        join(passed(), 'inverter out', undefined, true)
      } else if (!wiredOn && method.neutral !== 'stand-alone' && there('mount:inlet'))
        join(out, cordEnd(), { handle: 'cord', at: 'in' }, true)
    })
    if (!stood || wiredOn || method.neutral === 'stand-alone' || !there('mount:inlet')) return
    handles.push({
      id: 'cord',
      name: 'the cord at the inlet',
      kind: 'plug',
      within: 'inlet',
      settings: ['out', 'in'],
      open: 'out',
      lock: 'kept in your own hands or locked away',
    })
    transferInto(job)
  }

  /** What feeds the inverter’s input: its breaker in the panel ahead. */
  function passed(): string {
    const input = place('inverter in', 'the inverter’s input', 'inverter')
    const ahead = job.panels.find(p => p.supply === 'service' && p !== tied) ?? tied
    const feeder = feederOf(job, tied)
    if (feeder) join(`circuit ${feeder.circuit.id}`, input)
    else join(`bus ${ahead.id}`, input)
    return input
  }

  function cordEnd(): string {
    return place('inlet', 'the inlet and its conductors', 'inlet')
  }

  function transferInto(job: Job) {
    const inlet = cordEnd()
    if (method.transfer === 'interlock' || method.transfer === 'none') {
      if (!there(`backfeed:${tied.id}`)) return
      const within = `panel ${tied.id}`
      breaker('backfed', `the backfed breaker in ${tied.name}`, within, 'off')
      join(inlet, `bus ${tied.id}`, { handle: 'backfed', at: 'on' })
      if (method.transfer === 'interlock' && tied.mainA !== undefined)
        nevers.push({
          both: [
            [`main ${tied.id}`, 'on'],
            ['backfed', 'on'],
          ],
          why: 'the interlock’s plate lets only one of the two be on',
        })
      return
    }
    if (method.serves !== 'positions') return
    // each led circuit: its load side is joined to its breaker or to the source, by its position
    if (!there('mount:switch') || !there('mount:managed')) return
    const input = place('switch in', 'the input of the switch', 'switch')
    join(inlet, input)
    for (const need of circuitNeeds(job)) {
      if (need.place === null || !there(`lead:${need.circuit.id}`)) continue
      const wire = `circuit ${need.circuit.id}`
      const load = place(
        `load ${need.circuit.id}`,
        `the load side of position ${need.place}, ${need.circuit.label || 'unlabelled'}`,
        'switch',
      )
      const handle = `position ${need.place}`
      handles.push({
        id: handle,
        name: `position ${need.place} of the switch`,
        kind: 'position',
        within: 'switch',
        settings: ['line', 'off', 'source'],
        open: 'off',
        lock: 'with a tag: most positions take no lock',
      })
      join(wire, load, { handle, at: 'line' })
      join(input, load, { handle, at: 'source' })
    }
  }
}
