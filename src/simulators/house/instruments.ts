import { transferSaid } from '@/core/commission/automatic'
import { heaterW } from '@/core/commission/legs'
import type { Proof } from '@/core/commission/scene'
import { type Asked, type Test, wantedOf } from '@/core/commission/tests'
import type { State } from '@/core/isolation/live'
import { capacityOf, lossesOf } from '@/core/source/store'
import { type Solved, solve } from './net'
import type { Truth } from './truth'
import { wired } from './wired'

/** What an instrument is asked: held where, between what, with the house standing so. */
export interface Question {
  instrument: Asked['instrument']
  place: string
  points: readonly string[]
  state: State
  on: readonly string[]
  /** the words to choose from, the first as it should be */
  choices?: readonly string[]
  /** a second look at the same, some seconds later */
  later?: boolean
  /** the key of the figure, where one place has several */
  key?: string
}

/** The question of a test’s reading, with the house as the test wants it; `state` and `on` as somebody really set them. */
export const questionOf = (
  test: Test,
  asked: Asked,
  stands?: { state: State; on: readonly string[] },
): Question => ({
  instrument: asked.instrument,
  place: asked.probe.place,
  points: asked.probe.points,
  state: stands?.state ?? wantedOf(test, asked).state,
  on: stands?.on ?? wantedOf(test, asked).on,
  ...(asked.choices && { choices: asked.choices }),
  later: asked.key.endsWith('again'),
  key: asked.key,
})

export interface Instruments {
  read: (q: Question) => number | string
  /** whether anything feeds a place as it stands: to nobody but the tests of the simulator */
  liveAt: (place: string, points: readonly [string, string], state: State) => boolean
}

const round = (value: number, digits: number) => Number(value.toFixed(digits))
/** Radians in which two unsynchronised units drift between two looks. */
const driftRad = 1.9
const openOhms = 20e6
/** A two-pole tester loads what it is held to, Ω. */
const testerOhms = 3000
const dip = (text: string) => /^dip (.+)$/.exec(text)?.[1]
const rest = (text: string, head: string) =>
  text.startsWith(`${head} `) ? text.slice(head.length + 1) : undefined

/** Instruments held to a made-up house: multimeter, clamp, plug-in meter, display, sensors, watch, and what eyes see. */
export function instrumentsOf(p: Proof, truth: Truth): Instruments {
  const known = new Map<string, Solved>()
  const solved = (state: State, on: readonly string[], later = false): Solved => {
    const key = JSON.stringify([state, [...on].sort(), later])
    const was = known.get(key)
    if (was) return was
    const branches = wired(p, truth, { state, on: new Set(on) })
    const now = solve(branches, 'service G', [0, 0.6, truth.angleRad + (later ? driftRad : 0)])
    if (known.size > 60) known.clear()
    known.set(key, now)
    return now
  }

  /** A point of a place in the network. */
  function point(place: string, name: string): string {
    const circuit = rest(place, 'far')
    if (circuit !== undefined) {
      const swapped = truth.faults.has(`polarity:${circuit}`)
      return `far ${circuit} ${swapped && name === 'H' ? 'N' : swapped && name === 'N' ? 'H' : name}`
    }
    const line = rest(place, 'line')
    if (line !== undefined) return name.startsWith('L') ? `line ${line} ${name}` : `bus ${line} ${name}`
    if (place === 'input') return name.startsWith('L') ? `switch in ${name}` : `inlet ${name}`
    const lifted = rest(place, 'lifted')
    if (lifted !== undefined) return name === 'N' ? place : `bus ${panelOf(lifted)} G`
    const box = rest(place, 'box')
    if (box !== undefined) return name === 'G bar' ? `bus ${panelOf(box)} G` : `far ${box} G`
    // a unit names its hot by its leg where its legs are asked
    if (rest(place, 'unit') !== undefined) return `${place} ${name.startsWith('L') ? 'H' : name}`
    return `${place} ${name}`
  }
  const panelOf = (circuitId: string) => p.needs.find(n => n.circuit.id === circuitId)?.panel.id ?? p.tied.id
  const needOf = (circuitId: string) => p.needs.find(n => n.circuit.id === circuitId)
  const loadOf = (loadId: string) => p.loads.find(l => l.load.id === loadId)

  function ohms({ place, points: [a = '', b = ''], state }: Question): number | 'OL' {
    const box = rest(place, 'box')
    // by its own plug: from the ground pin to the metal
    if (box !== undefined && p.joined === 'no') return truth.faults.has(`ground-open:${box}`) ? 'OL' : 0.2
    const blade = rest(place, 'blade')
    if (blade !== undefined) return truth.faults.has(`polarity:${blade}`) ? 'OL' : 0.2
    const [from, to] = [point(place, a), point(place, b)]
    const live = solved(state, [])
    if (live.volts(from, to) > 2) return 'OL'
    const branches = wired(p, truth, { state, on: new Set(), dead: true })
    const probe = solve(
      [...branches, { a: from, b: to, ohms: 1, emf: { volts: 1, by: 0 } }],
      'service G',
      [0],
      false,
    )
    const v = probe.volts(from, to)
    const R = v / Math.max(1e-12, 1 - v)
    return R > openOhms ? 'OL' : round(R + 0.1, R < 10 ? 2 : 0)
  }

  /** Watts of all loads that run, wherever they are fed from. */
  function drawnW(state: State, on: readonly string[]): number {
    const net = solved(state, on)
    return p.loads.reduce((sum, { load, need }) => {
      const is = truth.loads.get(load.id)
      if (!is || !on.includes(load.id)) return sum
      const V = net.volts(
        `far ${need.circuit.id} H`,
        `far ${need.circuit.id} ${need.volts === 240 ? 'H2' : 'N'}`,
      )
      return sum + is.W * (V / need.volts) ** 2
    }, 0)
  }

  function display({ place, points: [what = ''], state, on }: Question): number {
    const circuit = rest(place, 'draw')
    if (circuit !== undefined) return Math.round(drawnW(state, on))
    const leg = rest(place, 'ct')
    if (leg !== undefined) {
      const crossed = truth.faults.has('ct-crossed')
      const here = crossed ? (leg === 'L1' ? 'L2' : 'L1') : leg
      const W = on.some(id => id.startsWith('heater') && id.endsWith(`on ${here}`))
        ? heaterW * (truth.lineV / 120) ** 2
        : 0
      const turned = truth.faults.has(`ct-reversed:${crossed ? here : leg}`)
      return Math.round(turned ? -W : W)
    }
    const sun = rest(place, 'solar')
    if (sun !== undefined) return truth.faults.has(`solar-island:${sun}`) ? 640 : 0
    const unit = rest(place, 'capacity')
    if (unit !== undefined) return capacity(unit, what)
    return 0
  }

  function capacity(unitId: string, what: string): number {
    const unit = p.job.source?.units.find(u => u.id === unitId)
    if (!unit) return 0
    const { idleW, efficiencyFraction } = lossesOf(unit.equipment)
    const loadW = 100 * Math.max(1, Math.round((0.4 * unit.equipment.continuousW) / 100))
    const left = truth.capacityFraction * (truth.faults.has(`cell-weak:${unitId}`) ? 0.72 : 1)
    const hours = (capacityOf(unit) * left) / (idleW + loadW / efficiencyFraction)
    const said: Record<string, number> = {
      load: loadW,
      from: 100,
      to: 0,
      out: Math.round(hours * loadW),
      back: Math.round((capacityOf(unit) * left) / 0.9),
    }
    return said[what] ?? 0
  }

  function watch({ place, points: [what = ''] }: Question): number {
    if (place === 'transfer') return round((transferSaid(p) ?? 4) * truth.transferFraction, 2)
    if (place === 'return') return round(truth.backMin, 1)
    if (place === 'solar back') return round(truth.solarBackMin, 1)
    if (place === 'overload') return truth.faults.has('guard-dead:overload') ? 600 : 8
    if (place === 'drill') return what === 'there' ? 6 : 4
    return 1
  }

  function generator(what: string): number {
    const own = p.job.source?.generator?.equipment
    const poor = truth.faults.has('generator-poor')
    if (what === 'Hz') return poor ? 54.2 : 60.2
    if (poor && what === 'V') return own?.voltage === '120/240' ? 204 : 102
    if (what === 'V') return own?.voltage === '120/240' ? 238 : 119
    return own ? round(Math.min(own.continuousW, own.continuousW) / own.WhPerGallon, 3) : 0
  }

  /** What eyes and hands find: by the house where it tells, else by what is wrong. */
  function eyes({ place, points, state, on, choices = [], key }: Question): string {
    const good = choices[0] ?? 'seen'
    const bad = choices[1] ?? good
    const has = (...faults: string[]) => (faults.some(f => truth.faults.has(f)) ? bad : good)
    if (place === 'interlock' || place === 'switch') return has('interlock-idle')
    if (place === 'way') return has('left-off:way')
    if (place === 'transfer') return has('return-off')
    if (place === 'shed') return has('shed-order')
    if (place === 'battery sign') return has('ct-reversed:battery')
    if (place === 'overload') return truth.faults.has('guard-dead:overload') ? (choices[2] ?? bad) : good
    if (points[0] === 'button') return has(`guard-dead:${rest(place, 'far')}`)
    if (place.startsWith('screw')) return has('screw-loose')
    if (place === 'drill') {
      const net = solved(state, on)
      const volts = (id: string, two: boolean) => net.volts(`far ${id} H`, `far ${id} ${two ? 'H2' : 'N'}`)
      if (key === 'alive')
        return p.served.every(n => volts(n.circuit.id, n.volts === 240) > 0.85 * n.volts) ? good : bad
      const off = p.needs.filter(n => !p.served.includes(n) && !n.feeds && n.circuit.loads.length)
      return off.every(n => volts(n.circuit.id, n.volts === 240) < 30) ? good : bad
    }
    return good
  }

  return {
    read: q => {
      const { instrument, place, points, state, on } = q
      const [a = '', b = ''] = points
      switch (instrument) {
        case 'ohms':
          return ohms(q)
        case 'volts': {
          const loadId = dip(place)
          if (loadId !== undefined) return round(starting(loadId, state, on).volts, 1)
          const fed = fedToo(place)
          if (fed) return round(truth.sourceV, 1)
          return round(solved(state, on, q.later).volts(point(place, a), point(place, b)), 1)
        }
        case 'tester': {
          if (place === 'known') return round(truth.lineV, 1)
          if (fedToo(place)) return round(truth.sourceV, 1)
          const [from, to] = [point(place, a), point(place, b)]
          // what shows nothing unloaded shows nothing loaded
          const unloaded = solved(state, on).volts(from, to)
          if (unloaded < 3) return round(unloaded, 1)
          const branches = wired(p, truth, { state, on: new Set(on) })
          const net = solve([...branches, { a: from, b: to, ohms: testerOhms }], 'service G', [
            0,
            0.6,
            truth.angleRad,
          ])
          return round(net.volts(from, to), 1)
        }
        case 'clamp': {
          const net = solved(state, on)
          return round(
            place === 'load way'
              ? p.split
                ? Math.max(net.amps('way L1'), net.amps('way L2'))
                : net.amps('way N')
              : net.amps(place),
            2,
          )
        }
        case 'inrush':
          return round(starting(rest(place, 'inrush') ?? '', state, on).amps, 1)
        case 'megohms':
          return 520
        case 'plug':
          return place === 'generator' ? generator(points[0] ?? '') : display(q)
        case 'display':
          return display(q)
        case 'watch':
          return watch(q)
        case 'torque':
        case 'eyes':
          return place === 'generator' ? generator(points[0] ?? '') : eyes(q)
      }
    },
    liveAt: (place, [a, b], state) => solved(state, []).volts(point(place, a), point(place, b)) > 60,
  }

  function fedToo(place: string): boolean {
    const circuit = rest(place, 'far')
    return circuit !== undefined && truth.faults.has(`fed-too:${circuit}`)
  }

  /** The instant of a start: the motor at its locked rotor, on top of what runs. */
  function starting(loadId: string, state: State, on: readonly string[]): { volts: number; amps: number } {
    const served = loadOf(loadId)
    const is = truth.loads.get(loadId)
    const need = served && needOf(served.need.circuit.id)
    if (!served || !is || !need) return { volts: 0, amps: 0 }
    const two = need.volts === 240 ? 'H2' : 'N'
    const [a, b] = [`far ${need.circuit.id} H`, `far ${need.circuit.id} ${two}`]
    const hard = truth.faults.has('start-hard') ? 2.2 : 1
    const branches = wired(p, truth, { state, on: new Set(on.filter(id => id !== loadId)) })
    const net = solve(
      [...branches, { a, b, ohms: need.volts / (is.startA * hard), name: 'start' }],
      'service G',
      [0, 0.6, truth.angleRad],
    )
    return { volts: net.volts(a, b), amps: net.amps('start') }
  }
}
