import { conditionsOf } from '../ask/outage-asked'
import { methodOf } from '../hookup/method'
import { positionCount, positionLeg, positionOf, wireProtectsAt } from '../hookup/position'
import { asPlanned } from '../job/as-planned'
import { legsAnew } from '../job/new-panel'
import { circuitsOf, movesCircuits, placeText, reachedPanels } from '../job/panels'
import type { Job } from '../job/schema'
import { type Drawn, drawn, drawnWorking } from '../loads/draw'
import { lasts } from '../loads/lasting'
import { type Known, type Load, meanProvenance, runningVA, startFigure, startOf } from '../loads/load'
import type { Conditions } from '../loads/season'
import type { Leg } from '../panel/leg'
import { feedOf } from '../panel/positions'
import type { Circuit, Panel } from '../panel/schema'
import { type Arrangement, busesUnder, opposed, voltsSeen } from '../source/arrangement'
import { legsArrangement } from '../source/design'
import { figure, hourText, quantity } from '../units/format'
import type { Working, WorkingValue } from '../working'

/** What a circuit sees under the chosen arrangement, picked or not. */
export type Feed =
  | 'live'
  | 'dead'
  | 'no-240'
  | 'bridge'
  /** between two legs that nothing synchronises */
  | 'no-phase'
  | 'not-fed'
  /** picked, but on no position of the switch */
  | 'no-position'
  | 'no-source'

export interface CircuitNeed {
  circuit: Circuit
  panel: Panel
  /** the panel that this circuit feeds, where it is a feeder */
  feeds: Panel | null
  /** `7`, or `7·9` for a two-pole, after the panel's mark where there are several */
  position: string
  /** that feeds it on the source: of its breaker, or of its position on the switch */
  leg: Leg | 'both'
  /** where it stands on the switch; null without one */
  place: number | null
  volts: 120 | 240
  feed: Feed
  /** picked, and gets its proper voltage */
  served: boolean
  /** average over the outage, W */
  meanW: number
  /** what each of its loads draws under the outage's conditions, in their order */
  drawn: Drawn[]
  /** what has a plug is fed, by a cord; nothing that is wired in */
  byCord: boolean
}

/** A load on a served circuit: what it draws while it runs, and over the outage. */
export interface ServedLoad {
  need: CircuitNeed
  load: Load
  W: number
  VA: number
  drawn: Drawn
  /** it runs for three hours or more without a pause */
  lasting: boolean
}

/** `7 Kitchen counter`, as people say it. */
export const named = (need: CircuitNeed) => `${need.position} ${need.circuit.label || 'unlabelled'}`

/**
 * What the loads see of the source: nothing without one; its arrangement on the panel's legs; or, where appliances are
 * plugged straight into it, one common 120 V supply that the legs have no part in.
 */
export function supplyOf(job: Job) {
  const { source } = job
  if (!source) return null
  const throughPanel = methodOf(job.hookup.method).neutral !== 'stand-alone'
  const real = legsArrangement(source)
  const arrangement: Arrangement = throughPanel || opposed(real) ? real : 'tied'
  return { arrangement, liveLeg: source.liveLeg, throughPanel }
}

/** What a breaker on these legs sees under an arrangement. */
export function feedUnder(
  supply: { arrangement: Arrangement; liveLeg: Leg } | null,
  leg: Leg | 'both',
): Feed {
  if (!supply) return 'no-source'
  const { volts, bridges } = voltsSeen(busesUnder(supply.arrangement, supply.liveLeg), leg)
  if (bridges) return 'bridge'
  if (volts === null) return 'no-phase'
  if (leg === 'both') return volts === 240 ? 'live' : 'no-240'
  return volts === 120 ? 'live' : 'dead'
}

/** The positions of the switch or managed panel, where the hook-up has them and they are set. */
export const positionsOf = (job: Job) =>
  methodOf(job.hookup.method).serves === 'positions' && job.hookup.positions?.length
    ? job.hookup.positions
    : null

/**
 * The position of every picked circuit: as set, else the first free one that carries its breaker, so that a circuit that
 * was picked a moment ago counts. Null while no positions are set; a circuit without any is missing.
 */
function placesOf(job: Job): Map<string, number> | null {
  const set = positionsOf(job)
  if (!set) return null
  const circuits = job.panels.flatMap(p => p.circuits).filter(c => c.picked)
  const places = new Map(
    set.filter(p => circuits.some(c => c.id === p.circuitId)).map(p => [p.circuitId, p.position]),
  )
  const taken = new Set(
    [...places].flatMap(([id, at]) => (circuits.find(c => c.id === id)?.poles === 2 ? [at, at + 1] : [at])),
  )
  const there = positionCount(job.hookup) ?? 0
  const limitA = (at: number) => positionOf(job.hookup, at)?.fittedA ?? Infinity
  for (const circuit of circuits) {
    if (places.has(circuit.id)) continue
    const wants = (at: number) => (circuit.poles === 2 ? [at, at + 1] : [at])
    const open = Array.from({ length: there }, (_, i) => i + 1).filter(
      n =>
        (circuit.poles === 1 || n % 2 === 1) &&
        wants(n).every(w => w <= there && !taken.has(w) && limitA(w) >= circuit.breakerA),
    )
    // one whose breaker the wire bears, before any other
    const wireA = wireProtectsAt(circuit)
    const at = open.find(n => limitA(n) <= wireA) ?? open[0]
    if (at === undefined) continue
    places.set(circuit.id, at)
    for (const w of wants(at)) taken.add(w)
  }
  return places
}

/** The leg that is fed where only one is; else the first. */
export const liveLegOf = ({ source }: Job): Leg => (source?.arrangement === 'one-leg' ? source.liveLeg : 'L1')

/** The legs that moved circuits get where they are placed anew, while there is no panel yet for them to stand in. */
const legsOfMoved = (job: Job): Map<string, Leg> | null =>
  movesCircuits(job)
    ? legsAnew(
        job,
        circuitsOf(job).filter(c => c.picked && c.poles === 1),
      )
    : null

/** Every circuit of the house as planned. */
export function circuitNeeds(found: Job): CircuitNeed[] {
  const { job } = asPlanned(found)
  const conditions = conditionsOf(job)
  const supply = supplyOf(job)
  const reached = reachedPanels(job)
  const places = placesOf(job)
  const moved = legsOfMoved(job)
  return job.panels.flatMap(panel =>
    panel.circuits.map(circuit => {
      const onPanel = feedOf(panel, circuit)
      const place = places?.get(circuit.id) ?? null
      // through a switch it is the position's leg that feeds a circuit, not the breaker's
      const leg =
        onPanel === 'both'
          ? onPanel
          : place !== null
            ? positionLeg(job.hookup, place, liveLegOf(job))
            : (moved?.get(circuit.id) ?? onPanel)
      const loads = circuit.loads.map(load => drawn(load, conditions))
      const feed =
        supply?.throughPanel && !reached.has(panel.id)
          ? 'not-fed'
          : places && supply?.throughPanel && circuit.picked && place === null
            ? 'no-position'
            : feedUnder(supply, leg)
      return {
        circuit,
        panel,
        feeds: job.panels.find(p => p.feederId === circuit.id) ?? null,
        position: placeText(job, panel, circuit),
        leg,
        place,
        volts: leg === 'both' ? 240 : 120,
        feed,
        served: circuit.picked && feed === 'live',
        meanW: loads.reduce((sum, load) => sum + load.meanW, 0),
        drawn: loads,
        byCord: job.hookup.method === 'extension-cords',
      }
    }),
  )
}

/** Loads of these circuits; by cords those that are wired in are not among them. */
export const loadsOf = (needs: readonly CircuitNeed[]): ServedLoad[] =>
  needs.flatMap(need =>
    need.circuit.loads.flatMap((load, n) => {
      if (need.byCord && load.connection === 'hard-wired') return []
      const drawn = need.drawn[n]
      return drawn
        ? [{ need, load, W: load.runningW.value, VA: runningVA(load), drawn, lasting: lasts(load, drawn) }]
        : []
    }),
  )

/** Loads that count: of picked circuits that are fed, or of all picked ones while there is no source. */
export function countedLoads(job: Job): ServedLoad[] {
  return loadsOf(circuitNeeds(job).filter(n => n.served || (n.circuit.picked && n.feed === 'no-source')))
}

/** What runs together: everything that comes on by itself, and the largest of what is switched by hand. */
export interface Coincidence {
  W: number
  VA: number
  /** the sum of everything, as if nobody minded, VA */
  everythingVA: number
  /** of it what lasts three hours or more, VA */
  lastingVA: number
  byHand: ServedLoad | undefined
}

/** The part of a load that a leg carries: all of a 120 V one on that leg, half of a 240 V one. */
export const shareOn = (leg: Leg | 'both', load: ServedLoad): number =>
  leg === 'both' ? 1 : load.need.leg === 'both' ? 0.5 : load.need.leg === leg ? 1 : 0

/** Sums over served loads, on one leg or on both together. */
export function coincidence(loads: readonly ServedLoad[], leg: Leg | 'both'): Coincidence {
  let W = 0
  let VA = 0
  let everythingVA = 0
  let lastingVA = 0
  let longByHandVA = 0
  let byHand: ServedLoad | undefined
  for (const load of loads) {
    const share = shareOn(leg, load)
    everythingVA += share * load.VA
    if (load.load.byHand) {
      if (load.lasting) longByHandVA = Math.max(longByHandVA, share * load.VA)
      if (share > 0 && share * load.VA > (byHand ? shareOn(leg, byHand) * byHand.VA : 0)) byHand = load
    } else {
      W += share * load.W
      VA += share * load.VA
      if (load.lasting) lastingVA += share * load.VA
    }
  }
  if (byHand) {
    const share = shareOn(leg, byHand)
    W += share * byHand.W
    VA += share * byHand.VA
  }
  return { W, VA, everythingVA, lastingVA: lastingVA + longByHandVA, byHand }
}

export function coincidenceWorking(title: string, loads: readonly ServedLoad[], leg: Leg | 'both'): Working {
  const sum = coincidence(loads, leg)
  const counted = loads.filter(l => shareOn(leg, l) > 0 && (!l.load.byHand || l === sum.byHand))
  return {
    title,
    formula: [
      'what runs together = every load that comes on by itself + the largest of those switched by hand',
      'volt-amps of a load = running watts ÷ power factor',
    ],
    inputs: counted.map(l => ({
      label: `${l.load.name} on ${l.need.position}${l.load.byHand ? ' (by hand)' : ''}${shareOn(leg, l) < 1 ? ', half on each leg' : ''}`,
      value: l.VA * shareOn(leg, l),
      unit: 'VA',
      arithmetic: `${figure(l.W)} ÷ ${figure(l.load.powerFactor.value)}`,
      provenance: provenanceOf(l.load.runningW),
    })),
    steps: [
      { label: 'Running together', value: sum.VA, unit: 'VA' },
      { label: 'of which real power', value: sum.W, unit: 'W' },
      { label: 'of which for three hours or more', value: sum.lastingVA, unit: 'VA' },
    ],
    references: [],
    ruleOfThumb: `Everything at once: ${figure(sum.everythingVA)} VA`,
    notCovered: ['Two loads switched by hand at the same moment: the card lists the pairs to avoid.'],
  }
}

const provenanceOf = ({ from, on, document }: Known) => ({ from, on, document })

/** The average load of all served circuits over the outage, W, with every load's part in it. */
export function meanLoad(
  loads: readonly ServedLoad[],
  conditions: Conditions,
): { W: number; working: Working } {
  const W = loads.reduce((sum, l) => sum + l.drawn.meanW, 0)
  const parts: WorkingValue[] = loads.map(({ load, need, drawn: { meanW } }) => ({
    label: `${load.name} on ${need.position}`,
    value: meanW,
    unit: 'W',
    provenance: meanProvenance(load),
    working: drawnWorking(load, conditions),
  }))
  const told = conditionsText(conditions)
  return {
    W,
    working: {
      title: 'Average load',
      formula: [
        'average of a load = share of time it runs × running watts + the rest × idle watts',
        'average load = the sum over the served circuits',
      ],
      inputs: parts,
      steps: [{ label: 'Average load', value: W, unit: 'W' }],
      references: [],
      ...(told && { notes: [`Reckoned for ${told}.`] }),
      notCovered: [
        ...(conditions.outdoorC === undefined ? ['Weather other than that of the readings.'] : []),
        'Habits that change when the power is out.',
      ],
    },
  }
}

/** The conditions in words; empty where nothing is said. */
export const conditionsText = ({ season, outdoorC, beginsH }: Conditions): string =>
  [
    season,
    outdoorC === undefined ? '' : `${quantity(outdoorC, 'C')} outdoors`,
    beginsH === undefined ? '' : `a beginning at ${hourText(beginsH)}`,
  ]
    .filter(Boolean)
    .join(', ')

/** A motor's start on top of everything that may already be running. */
export interface StartNeed {
  load: ServedLoad
  startA: number
  startVA: number
  /** the rest that runs meanwhile, VA */
  runningVA: number
  needVA: number
  haveVA: number
  /** on which leg it is judged, and beside what */
  scope: Leg | 'both'
  others: ServedLoad[]
}

/**
 * Every start among the served loads, worst first (by its share of what the source can surge).
 * Under split phase a 120 V motor is judged on its own leg; a 240 V one on each leg too, which carries half of its
 * volt-amps beside what hangs on that leg, and on the whole.
 */
export function startNeeds(
  loads: readonly ServedLoad[],
  split: boolean,
  surge: { totalVA: number; legVA: number },
): StartNeed[] {
  return (
    loads
      .flatMap(load => {
        const worked = startOf(load.load, load.need.volts)
        if (!worked) return []
        const others = loads.filter(l => l !== load && !(load.load.byHand && l.load.byHand))
        const { leg } = load.need
        const scopes: (Leg | 'both')[] = !split ? ['both'] : leg === 'both' ? ['both', 'L1', 'L2'] : [leg]
        const judged = scopes.map(scope => {
          const runningVA = coincidence(others, scope).VA
          const startVA = worked.result.startVA * shareOn(scope, load)
          const haveVA = scope === 'both' ? surge.totalVA : surge.legVA
          return {
            load,
            startA: worked.result.startA,
            startVA,
            runningVA,
            needVA: runningVA + startVA,
            haveVA,
            scope,
            others,
          }
        })
        return judged.reduce((worst, s) => (s.needVA / s.haveVA > worst.needVA / worst.haveVA ? s : worst))
      })
      // without a source every share is nothing: then the largest start is the worst
      .sort((a, b) => b.needVA / b.haveVA - a.needVA / a.haveVA || b.needVA - a.needVA)
  )
}

/** The working of one start; made for the one that is shown. */
export function startWorking({
  load,
  others,
  scope,
  runningVA,
  needVA,
  haveVA,
  startVA,
}: StartNeed): Working {
  return {
    title: `Worst start: ${load.load.name}`,
    formula: [
      'needed = what already runs + the start of the motor',
      'against the surge of the source; under split phase of the leg, where half of a 240 V motor starts',
    ],
    inputs: [
      {
        label: 'Already running',
        value: runningVA,
        unit: 'VA',
        working: coincidenceWorking('Already running', others, scope),
      },
      {
        label: `Start of ${load.load.name}${shareOn(scope, load) < 1 ? `, half of it on ${scope}` : ''}`,
        value: startVA,
        unit: 'VA',
        working: startOf(load.load, load.need.volts)?.working,
        provenance: startProvenance(load.load),
      },
      ...(Number.isFinite(haveVA)
        ? [
            {
              label: 'Surge of the source',
              value: haveVA,
              unit: 'VA' as const,
              provenance: { from: 'catalogue' as const },
            },
          ]
        : []),
    ],
    steps: [
      {
        label: 'Needed at the start',
        value: needVA,
        unit: 'VA',
        arithmetic: `${figure(runningVA)} + ${figure(startVA)}`,
      },
    ],
    references: [],
    ruleOfThumb: 'A surge is two to seven times running',
    notCovered: ['Two motors starting in the same second.', 'How long the source holds its surge.'],
  }
}

const startProvenance = ({ start }: Load) =>
  start ? provenanceOf(startFigure(start)) : { from: 'assumed' as const }
