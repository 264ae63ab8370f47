import { inEdition, workingIn } from '../articles'
import { findingsOf } from '../checks'
import type { Finding, Severity } from '../checks/finding'
import type { WayTold } from '../hookup/way'
import { asBuilt, asPlanned, houseOf } from '../job/as-planned'
import { changeText } from '../job/change-text'
import { reachedPanels } from '../job/panels'
import type { Job } from '../job/schema'
import type { Leg } from '../panel/leg'
import type { Panel } from '../panel/schema'
import { changeId, circuitsOfChange } from '../plan/change'
import { asCalculated, busesUnder } from '../source/arrangement'
import { legs as legsCalculator } from '../source/legs'
import { storeOverTime } from '../source/store'
import { type BalanceLine, balanceOf, hoursOf } from './balance'
import { type Caution, cautionsFor } from './cautions'
import { type Delivers, deliversOf } from './delivers'
import type { Evaluated, Legs } from './evaluated'
import { type Grounding, groundingOf, groundingText } from './grounding'
import { type CircuitNeed, circuitNeeds, coincidence, loadsOf, supplyOf } from './needs'
import { type PathWorked, pathWorked, wayHere } from './path'
import { type ChangeTold, planTold, type Settled, settledBy } from './plan-told'
import { type Request, requestsOf } from './requests'

/** One circuit as the panel shows it. */
export interface CircuitState {
  id: string
  position: string
  leg: CircuitNeed['leg']
  feed: CircuitNeed['feed']
  served: boolean
  /** its position on the switch; null without one */
  place: number | null
  meanW: number
}

/** What the jobs list and the top of a screen say about a job. */
export interface Headline {
  hoursNeeded: number
  hoursHad: number | null
  worst: { severity: Severity; sentence: string } | null
  counts: Record<Severity, number>
}

/** Everything computed from one job. Plain data: screens, reports and the command line print the same. */
export interface Evaluation {
  headline: Headline
  balance: BalanceLine[]
  circuits: CircuitState[]
  /** what the panel's two buses carry under the arrangement */
  buses: Record<Leg, 'live' | 'dead' | 'not fed'>
  /** the panels that the source reaches */
  reached: string[]
  legs: Legs | null
  /** the store over the outage at the average draw; null without a source */
  store: ReturnType<typeof storeOverTime> | null
  /** what stands against the house as planned */
  findings: Finding[]
  /** what stands against it as found, and the plan cures */
  settled: Settled[]
  /** the panels as planned, and how circuits fare in the house as found; null where the plan leaves the panels as they are */
  house: { panels: Panel[]; asFound: CircuitState[] } | null
  /** what is going to be done to the house, in an order in which it can be done */
  plan: ChangeTold[]
  requests: Request[]
  cautions: Caution[]
  /** what the source delivers and takes; null without one */
  delivers: Delivers | null
  grounding: Grounding & { text: string }
  /** the way from the outlet to the breaker, worked; null while there is none */
  path: PathWorked | null
  /** every thing between the outlet and the panel: rated, for hours, and what opens first */
  way: WayTold[]
}

/**
 * The job judged as planned: `found` with what its plan does to the house. `withCourse: false` leaves out what sun and generator bring on average, for
 * who asks only what stands against a design.
 */
export function evaluate(found: Job, { withCourse = true } = {}): Evaluation {
  const { job } = asPlanned(found)
  const { evaluated, lines } = worked(job, withCourse, found)
  const { needs, figures, requests, legs } = evaluated
  const findings = findingsOf(evaluated)
  const plan = planTold(found)
  const first = findings.find(f => !f.accepted) ?? findings[0]
  const counts = { stop: 0, fix: 0, mind: 0, ask: 0 }
  for (const finding of findings) counts[finding.severity]++
  return {
    headline: {
      hoursNeeded: job.outage.hours,
      hoursHad: figures.loads.length ? hoursOf(figures) : null,
      worst: first ? { severity: first.severity, sentence: first.sentence } : null,
      counts,
    },
    balance: lines.map(l => ({ ...l, working: workingIn(l.working, job.edition) })),
    circuits: needs.map(stateOf),
    buses: busesOf(job),
    reached: [...reachedPanels(job)],
    legs,
    store: figures.run && storeOverTime(job, figures.run),
    findings,
    ...asFoundToo(found, job, findings, plan, withCourse),
    plan,
    requests,
    cautions: cautionsFor(evaluated).map(c => ({
      ...c,
      ...(c.article && { article: inEdition(c.article, job.edition) }),
    })),
    delivers: deliversOf(job, figures),
    grounding: { ...groundingOf(job), text: groundingText(job) },
    path: pathIn(pathWorked(evaluated), job),
    way: wayHere(job),
  }
}

const stateOf = ({ circuit, position, leg, feed, served, place, meanW }: CircuitNeed): CircuitState => ({
  id: circuit.id,
  position,
  leg,
  feed,
  served,
  place,
  meanW,
})

/** Beside the house as planned the one that stands there, where they differ. */
function asFoundToo(
  found: Job,
  planned: Job,
  findings: readonly Finding[],
  plan: readonly ChangeTold[],
  withCourse: boolean,
): Pick<Evaluation, 'settled' | 'house'> {
  if (planned === found) return { settled: [], house: null }
  const asFound = houseOf(found, 'found')
  // what is built is no danger any more
  const today = found.planned.some(c => c.built) ? houseOf(asBuilt(found), 'found') : asFound
  const { evaluated } = worked(today, withCourse)
  const needs = today === asFound ? evaluated.needs : circuitNeeds(asFound)
  return {
    settled: settledBy(findingsOf(evaluated), findings, plan),
    house: { panels: planned.panels, asFound: needs.map(stateOf) },
  }
}

/** What every check looks at, of a job with nothing left to plan, and the lines of its balance. */
function worked(job: Job, withCourse: boolean, found = job): { evaluated: Evaluated; lines: BalanceLine[] } {
  const needs = circuitNeeds(job)
  const loads = loadsOf(needs.filter(n => n.served || (n.circuit.picked && n.feed === 'no-source')))
  const { lines, figures } = balanceOf(job, needs, loads, withCourse)
  // what is planned is not there to be photographed
  const requests = requestsOf({ ...job, panels: found.panels }, needs)
  const hindered = asPlanned(found).undone.map(({ change, why }) => ({
    id: changeId(change),
    text: changeText(found, change),
    why,
    circuitIds: circuitsOfChange(change),
  }))
  return { evaluated: { job, needs, requests, figures, legs: legsOf(job, needs), hindered }, lines }
}

const pathIn = (path: PathWorked | null, { edition }: Job): PathWorked | null =>
  path && { ...path, working: workingIn(path.working, edition) }

/** Amps by leg and in the neutral, by the `legs` calculator, of what runs together on each circuit. */
function legsOf(job: Job, needs: readonly CircuitNeed[]): Legs | null {
  const supply = supplyOf(job)
  const picked = needs.filter(n => n.circuit.picked)
  if (!supply?.throughPanel || !picked.length) return null
  const worked = legsCalculator.compute(
    {
      arrangement: asCalculated(supply.arrangement),
      liveLeg: supply.liveLeg,
      volts: 120,
      circuits: picked.map(need => ({
        id: `${need.position} ${need.circuit.label}`.trim(),
        leg: need.leg,
        VA: coincidence(loadsOf([need]), 'both').VA,
      })),
    },
    { arrangement: { from: 'job' }, circuits: { from: 'job' } },
  )
  const { L1A, L2A, neutralA, imbalanceFraction } = worked.result
  return { L1A, L2A, neutralA, imbalanceFraction, working: worked.working }
}

function busesOf(job: Job): Evaluation['buses'] {
  const supply = supplyOf(job)
  const buses = supply && busesUnder(supply.arrangement, supply.liveLeg)
  const bus = (leg: Leg) => (!supply?.throughPanel || !buses ? 'not fed' : buses[leg] ? 'live' : 'dead')
  return { L1: bus('L1'), L2: bus('L2') }
}
