import { type Grounding, groundingOf } from '../assess/grounding'
import { type CircuitNeed, circuitNeeds, loadsOf, named, type ServedLoad, supplyOf } from '../assess/needs'
import { type MethodFacts, methodOf } from '../hookup/method'
import { wayLimit } from '../hookup/way'
import { type House, houseOfJob } from '../isolation/house'
import { ordinaryDay, type State } from '../isolation/live'
import { asPlanned, unbuilt } from '../job/as-planned'
import { feederOf, reachedPanels, tiedPanel } from '../job/panels'
import type { Job } from '../job/schema'
import type { Leg } from '../panel/leg'
import type { Panel } from '../panel/schema'
import { opposed } from '../source/arrangement'
import { type Output, outputOf } from '../source/output'
import { step, type UnitOfMeasure, type Working } from '../working'
import type { Asked, Cause, Expected, InstrumentKey, Probe, SetUp, Test } from './tests'

/** What every group of tests is made from: the house as planned, whoever built what of it. */
export interface Proof {
  /** as found, with its plan */
  found: Job
  job: Job
  house: House
  method: MethodFacts
  tied: Panel
  needs: CircuitNeed[]
  served: CircuitNeed[]
  loads: ServedLoad[]
  /** legs that live on the source */
  legs: Leg[]
  /** both legs, and they oppose each other */
  split: boolean
  output: Output | null
  grounding: Grounding
  /** the source meets the panel by an inlet and a cord, by wires, or not at all */
  joined: 'inlet' | 'wires' | 'no'
  /** something on the source proves its flame through ground, and nothing of the house bonds it */
  wantsBond: boolean
  /** the hook-up leads the source to something */
  carried: boolean
  /** what cannot be proven, and why */
  open: string[]
  states: Record<SetUp['supply'], State>
}

/** An appliance is taken from its own receptacle to the source: a handle where nothing of the panel is met. */
export const plugOf = (circuitId: string) => `plug ${circuitId}`

export function proofOf(given: Job): Proof {
  const found = unbuilt(given)
  const { job } = asPlanned(found)
  const house = houseOfJob(found)
  const method = methodOf(job.hookup.method)
  const supply = supplyOf(job)
  const needs = circuitNeeds(found)
  const has = (id: string) => house.handles.some(h => h.id === id)
  const unit = job.source?.units[0]?.equipment
  const open: string[] = []
  // what the hook-up does not lead anywhere yet cannot be proven
  if (method.transfer === 'unknown') open.push('No hook-up is chosen yet: only what needs none is listed.')
  const behind = job.hookup.method === 'critical-subpanel'
  const carried = method.transfer !== 'unknown' && !(behind && unit?.kind !== 'inverter')
  if (behind && unit && unit.kind !== 'inverter')
    open.push(
      `The ${unit.name} does not take over by itself: nothing behind it can be proven with this hook-up.`,
    )
  const served = needs.filter(n => {
    if (!carried || !n.served || n.circuit.purpose !== 'loads') return false
    // what is wired in takes no cord
    if (n.byCord && n.circuit.loads.every(l => l.connection === 'hard-wired')) return false
    const led = method.serves !== 'positions' || (n.place !== null && has(`position ${n.place}`))
    if (!led) open.push(`${named(n)} has no position yet: it cannot be proven.`)
    return led
  })
  const split = supply !== null && opposed(supply.arrangement)
  const joined =
    !job.source || method.neutral === 'stand-alone' || method.neutral === 'unknown'
      ? 'no'
      : has('cord')
        ? 'inlet'
        : 'wires'
  const proof = {
    found,
    job,
    house,
    method,
    tied: tiedPanel(job),
    needs,
    served,
    loads: loadsOf(served),
    legs: legsOf(supply),
    split,
    output:
      job.source && supply
        ? outputOf({ ...job.source, arrangement: supply.arrangement }, wayLimit(job))
        : null,
    grounding: groundingOf(job),
    joined,
    carried,
    open,
    wantsBond: joined === 'no' && served.some(n => n.circuit.loads.some(l => l.needsBond)),
  } as const
  return { ...proof, states: statesOf(proof) }
}

function legsOf(supply: ReturnType<typeof supplyOf>): Leg[] {
  if (!supply) return []
  return supply.arrangement === 'one-leg' ? [supply.liveLeg] : ['L1', 'L2']
}

/** How the handles stand: nothing on; an ordinary day; an outage, with everything as it is then. */
function statesOf({
  job,
  house,
  tied,
  joined,
  needs,
  served,
  method,
}: Omit<Proof, 'states'>): Proof['states'] {
  const reached = reachedPanels(job)
  // what the source feeds and cannot serve stays off, as the card has it: two-poles, solar, what nobody picked
  const stayOff =
    joined === 'no' || method.serves === 'positions'
      ? []
      : needs.filter(
          n => reached.has(n.panel.id) && !served.includes(n) && !(n.feeds && reached.has(n.feeds.id)),
        )
  const day = { ...ordinaryDay(house), ...Object.fromEntries(plugs(served, joined, 'house')) }
  const mains = house.handles.filter(h => h.kind === 'main').map(h => h.id)
  // the utility is lost where it comes into what this job knows of the house
  const services = job.panels.filter(p => !feederOf(job, p)).map(p => `main ${p.id}`)
  const set = (kinds: readonly string[], setting: (open: string, settings: readonly string[]) => string) =>
    Object.fromEntries(
      house.handles.filter(h => kinds.includes(h.kind)).map(h => [h.id, setting(h.open, h.settings)]),
    )
  const dead = {
    ...day,
    ...Object.fromEntries(mains.map(id => [id, 'off'])),
    ...set(['unit', 'disconnect', 'plug', 'position'], open => open),
    ...(house.handles.some(h => h.id === 'backfed') && { backfed: 'off' }),
  }
  const apart = [...services, ...(method.transfer === 'interlock' ? [`main ${tied.id}`] : [])]
  const source = {
    ...day,
    ...Object.fromEntries(apart.map(id => [id, 'off'])),
    ...set(['unit', 'disconnect'], (_, all) => (all.includes('on') ? 'on' : (all[1] ?? ''))),
    ...set(['plug'], () => 'in'),
    ...set(['position'], () => 'source'),
    ...(house.handles.some(h => h.id === 'backfed') && { backfed: 'on' }),
    ...Object.fromEntries(plugs(served, joined, 'source')),
    ...Object.fromEntries(stayOff.map(n => [`breaker ${n.circuit.id}`, 'off'])),
  }
  return { dead, utility: day, source }
}

const plugs = (served: readonly CircuitNeed[], joined: Proof['joined'], setting: string) =>
  joined === 'no' ? served.map(n => [plugOf(n.circuit.id), setting] as const) : []

/** Of what it gives, so that nothing opens while something else is read. */
const carriedShare = 0.9

/** Loads that the source carries together, the largest first: what is on while a current is looked for. */
export function carriedTogether({ loads, output }: Proof): string[] {
  const most = carriedShare * (output?.totalW ?? 0)
  let sum = 0
  return [...loads]
    .sort((a, b) => b.VA - a.VA)
    .filter(l => {
      const fits = sum + l.VA <= most
      if (fits) sum += l.VA
      return fits
    })
    .map(l => l.load.id)
}

/** Whether the appliance itself is plugged into the source. */
export const byPlug = ({ joined, job }: Proof): boolean => joined === 'no' && job.source !== undefined

const unitOf: Record<NonNullable<Asked['unit']>, UnitOfMeasure> = {
  V: 'V',
  A: 'A',
  W: 'W',
  Ω: 'ohm',
  MΩ: 'count',
  s: 's',
  min: 'count',
  Hz: 'count',
  Wh: 'Wh',
  '%': 'count',
  'gal/h': 'count',
  in·lb: 'count',
}

/** An expectation with its working: what it is reckoned from, its tolerance, and where that comes from. */
export function expected(
  unit: NonNullable<Asked['unit']>,
  from: number,
  to: number,
  facts: {
    title?: string
    formula: string
    tolerance: string
    references?: string[]
    steps?: Working['steps']
    inputs?: Working['inputs']
    doubtFrom?: number
    doubtTo?: number
  },
): Expected {
  const { doubtFrom, doubtTo } = facts
  return {
    from,
    to,
    ...(doubtFrom !== undefined && { doubtFrom }),
    ...(doubtTo !== undefined && { doubtTo }),
    working: {
      title: facts.title ?? 'What is expected',
      formula: [facts.formula, `tolerance: ${facts.tolerance}`],
      inputs: facts.inputs ?? [],
      steps: [
        ...(facts.steps ?? []),
        ...(Number.isFinite(from) ? [step('From', from, unitOf[unit])] : []),
        ...(Number.isFinite(to) ? [step('To', to, unitOf[unit])] : []),
      ],
      references: facts.references ?? [],
      notCovered: [],
    },
  }
}

export const ours = 'ours'

/** A figure that is asked for. */
export const asked = (
  key: string,
  name: string,
  unit: Asked['unit'],
  instrument: InstrumentKey,
  probe: Probe,
  expectation: Expected | null = null,
  facts: Pick<Asked, 'choices' | 'optional' | 'when'> = {},
): Asked => ({ key, name, unit, instrument, probe, expected: expectation, ...facts })

/** What was seen, chosen from a few words; the first is as it should be. */
export const seen = (
  key: string,
  name: string,
  probe: Probe,
  choices: readonly [string, string, ...string[]],
): Asked => asked(key, name, null, 'eyes', probe, null, { choices })

type Facts = Pick<Test, 'id' | 'group' | 'text' | 'setUp' | 'asks'> & Partial<Test>

/**
 * A test. `about` is what it is of, and how that is connected: where it has changed since a reading, that reading is of another house. What is expected may change: what was
 * read is judged anew.
 */
export function test(facts: Facts, about: unknown): Test {
  const { asks, setUp } = facts
  return {
    lines: [],
    together: [],
    causes: [],
    circuitIds: [],
    panelId: null,
    restsOn: [],
    cite: [],
    restMin: 0,
    optional: false,
    ...facts,
    basis: shortOf(
      JSON.stringify([about, setUp.supply, asks.map(a => [a.key, a.unit, a.probe.place, a.probe.points])]),
    ),
  }
}

/** FNV-1a, 32 bit, twice over: enough to tell one plan from the next. */
function shortOf(text: string): string {
  let [a, b] = [2_166_136_261, 84_696_351]
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 16_777_619)
    b = Math.imul(b ^ text.charCodeAt(i), 2_246_822_519)
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}`
}

export const setUp = (
  { states }: Proof,
  supply: SetUp['supply'],
  says: readonly string[],
  facts: { state?: State; on?: readonly string[] } = {},
): SetUp => ({
  supply,
  state: { ...states[supply], ...facts.state },
  on: facts.on ?? [],
  says: [...says],
})

/** How a circuit is connected, as far as its tests depend on it. */
export const wiringOf = ({ circuit, panel, place, leg }: CircuitNeed, { job }: Proof): unknown => [
  panel.id,
  circuit.position,
  circuit.half,
  circuit.poles,
  circuit.breakerA,
  circuit.wire,
  circuit.neutral,
  place,
  leg,
  job.hookup.method,
]
/** A unit by its name, with its number where there are several. */
export const unitName = ({ job: { source } }: Pick<Proof, 'job'>, unitId: string): string => {
  const units = source?.units ?? []
  const at = units.findIndex(u => u.id === unitId)
  const name = units[at]?.equipment.name ?? 'unit'
  return units.length > 1 ? `${name}, unit ${at + 1}` : name
}
/** How the source is connected. */
export const wayIn = ({ job: { source, hookup } }: Proof): unknown => [
  source?.arrangement,
  source?.liveLeg,
  source?.units.map(u => u.equipment.id),
  hookup.method,
  hookup.path?.map(l => [l.kind, l.from, l.to, l.size, l.lengthFt]),
  hookup.bondingPlug,
]
export const farOf = (need: CircuitNeed, points: Probe['points']): Probe => ({
  place: `far ${need.circuit.id}`,
  at: `at the last outlet of ${named(need)}`,
  points,
})
export const cause = (id: string, text: string, mend: string): Cause => ({ id, text, mend })
