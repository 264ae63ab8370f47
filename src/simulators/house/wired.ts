import { type CircuitNeed, liveLegOf } from '@/core/assess/needs'
import { branchOhms, wayOhms } from '@/core/commission/ohms'
import { type Proof, plugOf } from '@/core/commission/scene'
import { positionLeg } from '@/core/hookup/position'
import { liveIn, type State } from '@/core/isolation/live'
import { feederOf } from '@/core/job/panels'
import { legOf } from '@/core/panel/positions'
import type { Circuit, Panel } from '@/core/panel/schema'
import type { Branch } from './net'
import type { Truth } from './truth'

/** The house as a network, with its handles standing so and these loads running: what any instrument then finds. */
export interface Standing {
  state: State
  on: ReadonlySet<string>
  /** everything switched off, for ohms: no coupling, no sources */
  dead?: boolean
}

/** Groups of sources that no phase ties together. */
export const byUtility = 0
export const byFirst = 1
export const bySecond = 2

const joined = 0
const poorOhms = 4
/** Capacitance of a cable between its wires, as a meter of high impedance sees it, Ω. */
const coupledOhms = 15e6
/** Filter capacitors of a unit from hot and from neutral to its frame, Ω. */
const filterOhms: readonly [number, number] = [82_000, 74_000]
const utilityOhms = 0.02
const unitOhms = 0.05

export function wired(p: Proof, truth: Truth, standing: Standing): Branch[] {
  const { job, tied, house } = p
  const { state, on, dead = false } = standing
  const { faults } = truth
  const out: Branch[] = []
  const branch = (a: string, b: string, ohms: number, facts: Partial<Branch> = {}) =>
    out.push({ a, b, ohms, ...facts })
  const is = (handle: string, setting: string) => state[handle] === setting
  const hasHandle = (id: string) => house.handles.some(h => h.id === id)
  const coupled = (hot: string, neutral: string, ground: string) => {
    if (dead) return
    branch(hot, ground, coupledOhms)
    branch(neutral, ground, coupledOhms)
  }
  const leftOff = faults.has('left-off:way')
  const behind = p.joined === 'wires'

  panels()
  for (const panel of job.panels) for (const circuit of panel.circuits) breaker(panel, circuit)
  for (const need of p.needs) if (need.circuit.loads.length || need.circuit.picked) branchOf(need)
  if (p.joined === 'inlet') inlet()
  if (behind) inverter()
  if (!behind) units()
  if (p.joined === 'no') plugged()
  heaters()
  return out

  function panels() {
    if (!dead) {
      branch('service L1', 'service N', utilityOhms, { emf: { volts: truth.lineV, by: byUtility } })
      branch('service L2', 'service N', utilityOhms, { emf: { volts: -truth.lineV * 0.998, by: byUtility } })
    }
    for (const panel of job.panels) {
      const { id } = panel
      const isBehind = behind && panel === tied
      const feeder = feederOf(job, panel)
      for (const leg of ['L1', 'L2']) {
        if (panel.mainA === undefined || is(`main ${id}`, 'on'))
          branch(`line ${id} ${leg}`, `bus ${id} ${leg}`, joined)
        if (isBehind)
          branch(
            `inverter out ${leg}`,
            `line ${id} ${leg}`,
            leftOff || faults.has(`hot-open:${leg}`) ? 1e9 : 0.004,
            { name: `way ${leg}` },
          )
        else if (!feeder) branch(`service ${leg}`, `line ${id} ${leg}`, 0.003)
        else branch(`wire ${feeder.circuit.id} ${leg === 'L1' ? 'H' : 'H2'}`, `line ${id} ${leg}`, 0.012)
      }
      const lifted = is(`neutral ${id}`, 'lifted')
      const from = isBehind ? 'inverter out' : feeder ? `bus ${feeder.panel.id}` : 'service'
      if (!lifted)
        branch(
          `${from} N`,
          `bus ${id} N`,
          isBehind ? 0.004 + (faults.has('neutral-loose:way') ? poorOhms : 0) : 0.006,
        )
      if (isBehind) branch('inverter out G', `bus ${id} G`, 0.008, { name: 'ground way' })
      if (feeder && !isBehind)
        branch(`bus ${feeder.panel.id} G`, `bus ${id} G`, 0.01, { name: `ground feeder ${id}` })
      if (!feeder && !isBehind && panel.supply !== 'service') branch('service G', `bus ${id} G`, 0.01)
      if (panel.supply === 'service') branch('service G', `bus ${id} G`, joined)
      if ((panel.supply === 'service' && panel.neutralBonded !== false) || faults.has(`bond-second:${id}`))
        branch(`bus ${id} N`, `bus ${id} G`, 0.002)
    }
    // a panel that something outside this job feeds is bonded out there
    if (!job.panels.some(panel => panel.supply === 'service')) branch('service N', 'service G', 0.002)
  }

  function breaker(panel: Panel, circuit: Circuit) {
    if (!is(`breaker ${circuit.id}`, 'on')) return
    const upper = legOf(panel, circuit.position)
    branch(`bus ${panel.id} ${upper}`, `wire ${circuit.id} H`, joined)
    if (circuit.poles === 2)
      branch(`bus ${panel.id} ${upper === 'L1' ? 'L2' : 'L1'}`, `wire ${circuit.id} H2`, joined)
  }

  /** From the panel, or through its position, to the last outlet and what hangs there. */
  function branchOf(need: CircuitNeed) {
    const { circuit, place } = need
    const { id } = circuit
    const handle = `position ${place}`
    const led = place !== null && hasHandle(handle)
    const half = ((branchOhms(need) ?? truth.unknownOhms) * truth.ohmsFactor) / 2
    const hots = circuit.poles === 2 ? ['H', 'H2'] : ['H']
    // crossed leads end on the other’s load
    const crossedWith = partnerIn('leads-crossed', id)
    const load = `load ${crossedWith ?? id}`
    if (led) {
      const leg = positionLeg(job.hookup, place, liveLegOf(job))
      hots.forEach((h, n) => {
        const inLeg = n === 0 ? leg : leg === 'L1' ? 'L2' : 'L1'
        if (is(handle, 'line')) branch(`wire ${id} ${h}`, `${load} ${h}`, joined)
        if (is(handle, 'source') && !faults.has(`left-off:${id}`))
          branch(`switch in ${inLeg}`, `${load} ${h}`, joined)
      })
    } else if (!faults.has(`left-off:${id}`) || is(`breaker ${id}`, 'off'))
      for (const h of hots) branch(`wire ${id} ${h}`, `load ${id} ${h}`, joined)
    const byPlug = p.joined === 'no' && p.served.includes(need)
    const onHouse = !byPlug || is(plugOf(id), 'house')
    for (const h of hots)
      if (onHouse)
        branch(
          `load ${id} ${h}`,
          `far ${id} ${h}`,
          Math.max(half, 1e-4) + (faults.has(`hot-loose:${id}`) ? poorOhms : 0),
          { name: h === 'H' ? `hot ${id}` : `hot2 ${id}` },
        )
    neutralAndGround(need, half, onHouse)
    if (!byPlug) coupled(`far ${id} H`, `far ${id} N`, `far ${id} G`)
    loads(need)
  }

  function partnerIn(kind: string, id: string): string | undefined {
    for (const f of faults) {
      if (!f.startsWith(`${kind}:`)) continue
      const pair = f.slice(kind.length + 1).split('+')
      if (pair.includes(id)) return pair.find(o => o !== id)
    }
    return undefined
  }

  function neutralAndGround({ circuit, panel, place }: CircuitNeed, half: number, onHouse: boolean) {
    const { id, neutral } = circuit
    const handle = `position ${place}`
    const throws = p.grounding.neutral === 'switched' && place !== null && hasHandle(handle)
    const owner = partnerIn('neutral-crossed', id) ?? id
    const loose = faults.has(`neutral-loose:${id}`) ? poorOhms : 0
    if (onHouse && !is(`lifted ${owner}`, 'yes')) {
      // both of a shared pair come back through one wire
      const pair = neutral.kind === 'shared' ? [id, neutral.with].sort().join('+') : null
      const root = `root ${pair ?? owner} N`
      if (pair) {
        branch(`far ${id} N`, `pair ${pair} N`, 0.01 + loose)
        if (!out.some(b => b.a === `pair ${pair} N` && b.b === root))
          branch(`pair ${pair} N`, root, Math.max(half, 1e-4))
      } else branch(`far ${id} N`, root, Math.max(half, 1e-4) + loose, { name: `neutral ${id}` })
      if (!throws) branch(root, `bus ${panel.id} N`, joined)
      else if (is(handle, 'line')) branch(root, `bus ${panel.id} N`, joined)
      else if (is(handle, 'source')) branch(root, 'inlet N', joined)
    }
    if (is(`clip ${id}`, 'yes')) branch(`far ${id} N`, `far ${id} G`, 0.05)
    if (is(`lifted ${id}`, 'yes')) branch(`far ${owner} N`, `lifted ${id}`, half)
    if (!faults.has(`ground-open:${id}`) && onHouse)
      branch(`far ${id} G`, `bus ${panel.id} G`, Math.max(half, 1e-4), { name: `ground ${id}` })
  }

  function loads({ circuit, volts }: CircuitNeed) {
    if (dead) return
    for (const load of circuit.loads) {
      const true_ = truth.loads.get(load.id)
      if (!true_ || !on.has(load.id) || true_.W <= 0) continue
      branch(
        `far ${circuit.id} H`,
        `far ${circuit.id} ${volts === 240 ? 'H2' : 'N'}`,
        (volts ** 2 * true_.powerFactor) / true_.W,
        { name: `load ${load.id}` },
      )
    }
  }

  function inlet() {
    const cord = is('cord', 'in')
    const ohms = Math.max((wayOhms(job) * truth.ohmsFactor) / 2, 0.004)
    for (const c of ['L1', 'L2', 'N', 'G'] as const) {
      if (!cord || faults.has(`hot-open:${c}`)) continue
      const poor = c === 'N' && faults.has('neutral-loose:way') ? poorOhms : 0
      // made up the wrong way round in a cord end
      const reversed = faults.has('polarity:way')
      const end = reversed && c === 'N' ? 'L1' : reversed && c === 'L1' ? 'N' : c
      branch(`out ${c}`, `inlet ${end}`, ohms + poor, { name: c === 'G' ? 'ground cord' : `way ${c}` })
    }
    if (faults.has('bond-second:inlet')) branch('inlet N', 'inlet G', 0.02)
    if (p.grounding.neutral !== 'switched' && job.hookup.sourceNeutral !== 'left off')
      branch('inlet N', `bus ${tied.id} N`, 0.006)
    branch('inlet G', `bus ${tied.id} G`, 0.008, { name: 'ground way' })
    for (const leg of ['L1', 'L2'] as const) {
      if (leftOff) continue
      branch(`inlet ${leg}`, `switch in ${leg}`, joined)
      if (is('backfed', 'on')) branch(`inlet ${leg}`, `bus ${tied.id} ${leg}`, joined)
      // a lead landed on the wrong side of a position: the inlet lives while the house does
      if (faults.has('pins-live') && leg === 'L1') branch(`inlet ${leg}`, `bus ${tied.id} ${leg}`, joined)
    }
    coupled('inlet L1', 'inlet N', 'inlet G')
  }

  /** One unit’s hot against its own neutral; its filter capacitors, and its bond where it has one. */
  function unit(
    id: string,
    n: number,
    sign: 1 | -1,
    group: number,
    bondedBy: boolean,
  ): { hot: string; neutral: string; ground: string } {
    const [hot, neutral, ground] = [`unit ${id} H`, `unit ${id} N`, `unit ${id} G`]
    const running = is(`unit ${id}`, 'on')
    if (running && !dead) {
      branch(hot, neutral, unitOhms, {
        emf: { volts: sign * (truth.sourceV - 0.2 * n), by: group },
        name: `given ${id}`,
      })
      branch(hot, ground, filterOhms[0])
      branch(neutral, ground, filterOhms[1])
    }
    const equipment = job.source?.units.find(u => u.id === id)?.equipment
    const bonded = (equipment?.neutral === 'bonded' || bondedBy) && !faults.has(`bond-lost:${id}`)
    // a relay joins them only while it inverts
    if ((bonded && (bondedBy || running)) || (faults.has(`bond-second:${id}`) && running))
      branch(neutral, ground, 0.02)
    return { hot, neutral, ground }
  }

  function units() {
    const { source } = job
    const [first, second] = source?.units ?? []
    if (!source || !first) return
    const a = unit(first.id, 0, 1, byFirst, job.hookup.bondingPlug)
    branch(a.neutral, 'out N', joined)
    branch(a.ground, 'out G', joined)
    const other = source.liveLeg === 'L1' ? 'L2' : 'L1'
    switch (source.arrangement) {
      case 'one-leg':
        branch(a.hot, `out ${source.liveLeg}`, joined)
        break
      case 'tied':
        branch(a.hot, 'out L1', joined)
        branch(a.hot, 'out L2', joined)
        break
      case 'split-phase':
        branch(a.hot, 'out L1', joined)
        if (is(`unit ${first.id}`, 'on') && !dead)
          branch('out L2', a.neutral, unitOhms, { emf: { volts: -truth.sourceV, by: byFirst } })
        break
      case 'autotransformer':
        branch(a.hot, `out ${source.liveLeg}`, joined)
        if (is(`unit ${first.id}`, 'on') && !dead)
          branch(`out ${other}`, a.neutral, 3 * unitOhms, { emf: { volts: -truth.sourceV, by: byFirst } })
        break
      default: {
        branch(a.hot, 'out L1', joined)
        if (!second) break
        const apart =
          source.arrangement === 'independent' || (source.combiner && !source.combiner.synchronises)
        const b = unit(second.id, 1, -1, apart ? bySecond : byFirst, false)
        branch(b.hot, 'out L2', joined)
        branch(b.neutral, 'out N', joined)
        branch(b.ground, 'out G', joined)
      }
    }
  }

  /** With its own transfer: it passes the utility through while there is one, else it makes its own. */
  function inverter() {
    const [first] = job.source?.units ?? []
    const feeder = feederOf(job, tied)
    const ahead = job.panels.find(panel => panel.supply === 'service' && panel !== tied)
    const lives = liveIn(house, state).get('inverter in')?.has('utility') ?? false
    const on_ = first !== undefined && is(`unit ${first.id}`, 'on')
    for (const [leg, h] of [
      ['L1', 'H'],
      ['L2', 'H2'],
    ] as const) {
      if (feeder) branch(`wire ${feeder.circuit.id} ${h}`, `inverter in ${leg}`, 0.01)
      else if (ahead) branch(`bus ${ahead.id} ${leg}`, `inverter in ${leg}`, 0.01)
      if (lives) branch(`inverter in ${leg}`, `inverter out ${leg}`, 0.01)
      else if (on_ && !dead)
        branch(`inverter out ${leg}`, 'inverter out N', unitOhms, {
          emf: { volts: leg === 'L1' ? truth.sourceV : -truth.sourceV, by: byFirst },
        })
    }
    const from = feeder?.panel ?? ahead ?? tied
    branch('inverter out N', `bus ${from.id} N`, 0.008)
    branch('inverter out G', `bus ${from.id} G`, 0.01, { name: 'ground ahead' })
    if (first && faults.has(`bond-second:${first.id}`)) branch('inverter out N', 'inverter out G', 0.02)
  }

  /** What is plugged straight into a unit, or into what makes both legs of it. */
  function plugged() {
    if (!job.source) return
    branch('out G', 'service G', 2e6)
    const half = Math.max((wayOhms(job) * truth.ohmsFactor) / 2, 0.01)
    const one = job.source.arrangement === 'one-leg' ? job.source.liveLeg : 'L1'
    for (const need of p.served) {
      const { id } = need.circuit
      if (!is(plugOf(id), 'source')) continue
      const leg = need.leg === 'both' || !p.split ? one : need.leg
      branch(`out ${leg}`, `far ${id} H`, half + (faults.has(`hot-loose:${id}`) ? poorOhms : 0), {
        name: `hot ${id}`,
      })
      if (need.volts === 240) branch(`out ${leg === 'L1' ? 'L2' : 'L1'}`, `far ${id} H2`, half)
      branch('out N', `far ${id} N`, half + (faults.has(`neutral-loose:${id}`) ? poorOhms : 0))
      if (!faults.has(`ground-open:${id}`)) branch('out G', `far ${id} G`, half)
      coupled(`far ${id} H`, `far ${id} N`, `far ${id} G`)
    }
  }

  /** Test heaters: on a leg where the source is read, or at a last outlet. */
  function heaters() {
    if (dead) return
    for (const id of on) {
      const [, W, where] = /^heater (\d+) (.+)$/.exec(id) ?? []
      if (!W || !where) continue
      const ohms = 120 ** 2 / Number(W)
      if (where.startsWith('far ')) branch(`${where} H`, `${where} N`, ohms, { name: id })
      else {
        const leg = where.slice(3)
        const at = behind
          ? `line ${tied.id}`
          : p.joined === 'inlet' && is('cord', 'in')
            ? 'inlet'
            : `bus ${tied.id}`
        branch(`${at} ${leg}`, behind || at.startsWith('bus') ? `bus ${tied.id} N` : 'inlet N', ohms, {
          name: id,
        })
      }
    }
  }
}
