import type { Hookup } from '../hookup/design'
import { commonTripAt, positionCount, positionLeg, positionOf, wireProtectsAt } from '../hookup/position'
import type { SolveProgram } from '../hookup/solver'
import { hourFactors } from '../loads/draw'
import type { Leg } from '../panel/leg'
import { reaches } from '../panel/reach'
import { opposed } from '../source/arrangement'
import { legsArrangement } from '../source/design'
import type { Evaluated } from './evaluated'
import { type CircuitNeed, coincidence, liveLegOf, loadsOf, named } from './needs'

type Placed = NonNullable<Hookup['positions']>

/**
 * The positions with what stands on one put on another by hand, and what stood there in its place: both are pinned. The breakers
 * stay where they are fitted. As it was where nothing stands on the first.
 */
export function exchanged(positions: Placed, from: number, to: number): Placed {
  const breakerOf = new Map(positions.map(p => [p.position, p.breakerA]))
  if (from === to || !breakerOf.has(from)) return positions
  return positions.map(p => {
    const position = p.position === from ? to : p.position === to ? from : p.position
    if (position === p.position) return p
    const breakerA = breakerOf.get(position)
    return { position, circuitId: p.circuitId, pinned: true, ...(breakerA !== undefined && { breakerA }) }
  })
}

/** Positions of the switches or the managed panel chosen; null while none is. */
export const positionsThere = (hookup: Hookup): number | null => positionCount(hookup) ?? null

/** A circuit as the solver sees it. */
export interface Placeable {
  id: string
  name: string
  breakerA: number
  /** what its own wire may carry, A: no breaker above that may protect it */
  wireA: number
  poles: 1 | 2
  tier: 1 | 2 | 3
  /** what runs together on it, VA */
  VA: number
  /** its mean volt-amps in each hour of the day */
  hourVA: readonly number[]
  sharesWith?: string | undefined
  /** the leads do not reach its breaker */
  beyondReach: boolean
}

export interface PositionProblem {
  circuits: Placeable[]
  /** each position in order: the most that may stand there, the breaker fitted (null: it has none of its own), its leg */
  places: { mostA: number; fittedA: number | null; leg: Leg; commonTrip: boolean }[]
  /** the legs that are fed; positions alternate between them */
  fed: Record<Leg, boolean>
  /** whether the legs are to be balanced: they oppose each other, or each has a unit of its own */
  balanced: boolean
  inputA: number
  pins: { position: number; circuitId: string; breakerA?: number }[]
}

export interface PositionPlan {
  positions: { position: number; circuitId: string; pinned: boolean; breakerA?: number }[]
  unplaced: string[]
  /** false where both legs are one supply, or only one is fed */
  balanced: boolean
  /** mean difference of the legs over the day and when everything runs, share of their sum */
  imbalanceFraction: number
  /** mean volt-amps of each leg over the day */
  legVA: Record<Leg, number>
  /** what each pin costs: balance given away, and circuits that found no place, against the plan without it */
  pinCosts: { circuitId: string; balanceFraction: number; unplaced: number }[]
}

/** The problem of a job; null without a device whose positions are known. */
export function positionProblem({ job, needs }: Pick<Evaluated, 'job' | 'needs'>): PositionProblem | null {
  const there = positionsThere(job.hookup)
  const device = job.hookup.switch ?? job.hookup.managed
  if (there === null || !device || !job.source) return null
  const { arrangement, liveLeg } = job.source
  const picked = needs.filter(n => n.circuit.picked && !n.feeds && n.feed !== 'not-fed')
  return {
    circuits: picked.map(n => placeable(n, job.hookup.whip)),
    places: Array.from({ length: there }, (_, i) => {
      const found = positionOf(job.hookup, i + 1)
      return {
        mostA: found?.mostA ?? Infinity,
        fittedA: found?.protects ? found.fittedA : null,
        leg: positionLeg(job.hookup, i + 1, liveLegOf(job)),
        commonTrip: commonTripAt(job.hookup, i + 1),
      }
    }),
    fed: {
      L1: arrangement !== 'one-leg' || liveLeg === 'L1',
      L2: arrangement !== 'one-leg' || liveLeg === 'L2',
    },
    balanced: opposed(legsArrangement(job.source)) || arrangement === 'independent',
    inputA: device.inputA + (job.hookup.secondSwitch?.inputA ?? 0),
    pins: (job.hookup.positions ?? [])
      .filter(p => p.pinned && picked.some(n => n.circuit.id === p.circuitId))
      .map(({ position, circuitId, breakerA }) => ({
        position,
        circuitId,
        ...(breakerA !== undefined && { breakerA }),
      })),
  }
}

/** A circuit as the solver of positions sees it. */
export function placeable(n: CircuitNeed, whip: Hookup['whip']): Placeable {
  const { circuit } = n
  const hourVA = Array.from({ length: 24 }, () => 0)
  circuit.loads.forEach((load, i) => {
    const drawn = n.drawn[i]
    if (!drawn) return
    const meanVA = drawn.meanW / (drawn.windowFactor || 1) / load.powerFactor.value
    hourFactors(load).forEach((factor, h) => {
      hourVA[h] = (hourVA[h] ?? 0) + meanVA * factor
    })
  })
  return {
    id: circuit.id,
    name: named(n),
    breakerA: circuit.breakerA,
    wireA: wireProtectsAt(circuit),
    poles: circuit.poles,
    tier: circuit.tier,
    VA: coincidence(loadsOf([n]), 'both').VA,
    hourVA,
    ...(circuit.neutral.kind === 'shared' && { sharesWith: circuit.neutral.with }),
    beyondReach: whip ? !reaches(whip, n.panel.spaces, circuit.position) : false,
  }
}

/** Alone on one position, or two positions side by side: a two-pole, or both hots of a shared neutral. */
type Item = { circuits: Placeable[]; pair: boolean }

/** A choice of the program: an item on a leg, or on both positions of a pair one way round. */
interface Choice {
  name: string
  item: number
  leg: (circuit: Placeable) => Leg | 'both'
  cost: number
}

const unplacedCost = { 1: 400, 2: 100, 3: 20 } as const
const overInputCost = 5
const beyondReachCost = 0.02
/** how much of the balance is the day’s, and how much the moment when everything runs */
const dayShare = 0.7

/**
 * Which circuit on which position, exactly, as an integer program: as many circuits as can be, those that must run first;
 * then the least difference of the legs, hour by hour and when everything runs. The program chooses legs; that positions
 * with high enough limits are left is Hall’s condition, counted for each rating. On its leg the heaviest breaker then takes
 * the tightest position that carries it. Breakers above a position’s limit never go there; the hots of a shared neutral
 * stand side by side on opposite legs (NEC 210.4), or neither is placed. Pins are kept as they are.
 */
export function solvePositions(problem: PositionProblem, solve: SolveProgram): PositionPlan {
  const plan = solveOnce(problem, solve)
  return {
    ...plan,
    pinCosts: problem.pins.map(pin => {
      const without = solveOnce({ ...problem, pins: problem.pins.filter(p => p !== pin) }, solve)
      return {
        circuitId: pin.circuitId,
        balanceFraction: Math.max(0, plan.imbalanceFraction - without.imbalanceFraction),
        unplaced: plan.unplaced.length - without.unplaced.length,
      }
    }),
  }
}

function solveOnce(problem: PositionProblem, solve: SolveProgram): Omit<PositionPlan, 'pinCosts'> {
  const free = freePositions(problem)
  const items = itemsOf(problem)
  const choices = items.flatMap((item, n) => choicesOf(item, n))
  const fixed = problem.pins.flatMap(pin => {
    const circuit = problem.circuits.find(c => c.id === pin.circuitId)
    return circuit ? [{ circuit, leg: legOfPin(problem, circuit, pin.position) }] : []
  })
  const columns = items.length ? solve(programOf(problem, items, choices, free, fixed)) : {}
  const taken = choices.filter(c => (columns[c.name] ?? 0) > 0.5)
  const positions = placed(problem, items, taken, free)
  const legs = new Map<string, Leg | 'both'>(
    positions.map(p => {
      const circuit = problem.circuits.find(c => c.id === p.circuitId)
      return [p.circuitId, circuit ? legOfPin(problem, circuit, p.position) : 'both']
    }),
  )
  return {
    positions,
    unplaced: problem.circuits.filter(c => !legs.has(c.id)).map(c => c.id),
    balanced: problem.balanced,
    ...balanceOf(problem, legs),
  }
}

const legOfPin = (problem: PositionProblem, circuit: Placeable, position: number): Leg | 'both' =>
  circuit.poles === 2 ? 'both' : (problem.places[position - 1]?.leg ?? 'L1')

interface Place {
  position: number
  limitA: number
  fittedA: number | null
  commonTrip: boolean
}
interface Free {
  on: Record<Leg, Place[]>
  /** whole pairs, by the smaller limit of the two */
  pairs: { first: number; limitA: number; fittedA: number | null; commonTrip: boolean }[]
}

function freePositions(problem: PositionProblem): Free {
  const gone = new Set(
    problem.pins.flatMap(pin => {
      const poles = problem.circuits.find(c => c.id === pin.circuitId)?.poles ?? 1
      return poles === 2 ? [pin.position, pin.position + 1] : [pin.position]
    }),
  )
  const open = problem.places
    .map(({ mostA, ...place }, i) => ({ ...place, position: i + 1, limitA: mostA }))
    .filter(({ position, leg }) => !gone.has(position) && problem.fed[leg])
  return {
    on: { L1: open.filter(p => p.leg === 'L1'), L2: open.filter(p => p.leg === 'L2') },
    pairs: open.flatMap(p => {
      const next = open.find(o => o.position === p.position + 1)
      return p.position % 2 && next && next.leg !== p.leg
        ? [
            {
              first: p.position,
              limitA: Math.min(p.limitA, next.limitA),
              fittedA: p.fittedA === next.fittedA ? p.fittedA : null,
              commonTrip: p.commonTrip,
            },
          ]
        : []
    }),
  }
}

function itemsOf({ circuits, pins }: PositionProblem): Item[] {
  const pinned = new Set(pins.map(p => p.circuitId))
  const open = circuits.filter(c => !pinned.has(c.id))
  return open.flatMap((c): Item[] => {
    const partner = open.find(o => o.id === c.sharesWith)
    if (partner) return c.id < partner.id ? [{ circuits: [c, partner], pair: true }] : []
    return [{ circuits: [c], pair: c.poles === 2 }]
  })
}

function choicesOf(item: Item, n: number): Choice[] {
  const [first, second] = item.circuits
  if (!first) return []
  const cost = item.circuits.some(c => c.beyondReach) ? beyondReachCost : 0
  if (!item.pair)
    return (['L1', 'L2'] as const).map(leg => ({ name: `s${n}_${leg}`, item: n, leg: () => leg, cost }))
  // a two-pole has no way round; a shared pair has two
  if (!second) return [{ name: `p${n}`, item: n, leg: () => 'both', cost }]
  return [first, second].map((upper, way) => ({
    name: `p${n}_${way}`,
    item: n,
    leg: c => (c === upper ? 'L1' : 'L2'),
    cost,
  }))
}

/** The part of a circuit that counts as first leg minus second. */
const signed = (leg: Leg | 'both', VA: number) => (leg === 'both' ? 0 : leg === 'L1' ? VA : -VA)
const onLeg = (which: Leg, leg: Leg | 'both', VA: number) =>
  leg === 'both' ? VA / 2 : leg === which ? VA : 0

/** Hours that look alike for every circuit, taken once with their number; the moment of everything last. */
function momentsOf(problem: PositionProblem): { of: (c: Placeable) => number; weight: number }[] {
  if (!problem.balanced) return []
  const alike = new Map<string, { hour: number; count: number }>()
  for (let hour = 0; hour < 24; hour++) {
    const key = problem.circuits.map(c => (c.hourVA[hour] ?? 0).toFixed(3)).join()
    const had = alike.get(key)
    if (had) had.count++
    else alike.set(key, { hour, count: 1 })
  }
  const day = problem.circuits.reduce((sum, c) => sum + c.hourVA.reduce((a, b) => a + b, 0), 0) / 24
  const all = problem.circuits.reduce((sum, c) => sum + c.VA, 0)
  return [
    ...[...alike.values()].map(({ hour, count }) => ({
      of: (c: Placeable) => c.hourVA[hour] ?? 0,
      weight: day > 0 ? (dayShare * count) / 24 / day : 0,
    })),
    { of: c => c.VA, weight: all > 0 ? (1 - dayShare) / all : 0 },
  ]
}

const term = (factor: number, name: string) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`

function programOf(
  problem: PositionProblem,
  items: readonly Item[],
  choices: readonly Choice[],
  free: Free,
  fixed: readonly { circuit: Placeable; leg: Leg | 'both' }[],
): string {
  const moments = momentsOf(problem)
  const inputVA = problem.inputA * 120
  const objective = [
    ...choices.filter(c => c.cost > 0).map(c => term(c.cost, c.name)),
    ...items.map((item, n) =>
      term(Math.max(...item.circuits.map(c => unplacedCost[c.tier])) * item.circuits.length, `u${n}`),
    ),
    ...moments.map((m, i) => term(m.weight, `t${i}`)),
    term(overInputCost / inputVA, 'oL1'),
    term(overInputCost / inputVA, 'oL2'),
  ]
  const rows: string[] = []
  items.forEach((_, n) => {
    rows.push(`${[...choices.filter(c => c.item === n).map(c => `+ ${c.name}`), `+ u${n}`].join(' ')} = 1`)
  })
  const named = (list: readonly Choice[]) => list.map(c => `+ ${c.name}`).join(' ')
  const circuitsOf = (c: Choice) => items[c.item]?.circuits ?? []
  for (const ratingA of new Set(problem.circuits.map(c => c.breakerA))) {
    for (const leg of ['L1', 'L2'] as const) {
      const asks = choices.filter(c =>
        circuitsOf(c).some(p => p.breakerA >= ratingA && [leg, 'both'].includes(c.leg(p))),
      )
      const there = free.on[leg].filter(p => p.limitA >= ratingA).length
      if (asks.length) rows.push(`${named(asks)} <= ${there}`)
    }
    const pairs = choices.filter(c => items[c.item]?.pair && circuitsOf(c).some(p => p.breakerA >= ratingA))
    if (pairs.length) rows.push(`${named(pairs)} <= ${free.pairs.filter(p => p.limitA >= ratingA).length}`)
  }
  moments.forEach((m, i) => {
    const part = (c: Choice) =>
      (items[c.item]?.circuits ?? []).reduce((sum, circuit) => sum + signed(c.leg(circuit), m.of(circuit)), 0)
    const base = fixed.reduce((sum, f) => sum + signed(f.leg, m.of(f.circuit)), 0)
    const terms = choices.map(c => [part(c), c.name] as const).filter(([by]) => by !== 0)
    rows.push(`t${i} ${terms.map(([by, name]) => term(-by, name)).join(' ')} >= ${base}`)
    rows.push(`t${i} ${terms.map(([by, name]) => term(by, name)).join(' ')} >= ${-base}`)
  })
  for (const which of ['L1', 'L2'] as const) {
    const part = (c: Choice) =>
      (items[c.item]?.circuits ?? []).reduce(
        (sum, circuit) => sum + onLeg(which, c.leg(circuit), circuit.VA),
        0,
      )
    const base = fixed.reduce((sum, f) => sum + onLeg(which, f.leg, f.circuit.VA), 0)
    const terms = choices.map(c => [part(c), c.name] as const).filter(([by]) => by !== 0)
    rows.push(`${terms.map(([by, name]) => term(by, name)).join(' ')} - o${which} <= ${inputVA - base}`)
  }
  return [
    'Minimize',
    ` obj: ${objective.join('\n  ')}`,
    'Subject To',
    ...rows.map((row, i) => ` r${i}: ${row}`),
    'Binary',
    ` ${[...choices.map(c => c.name), ...items.map((_, n) => `u${n}`)].join('\n ')}`,
    'End',
  ].join('\n')
}

/** The concrete positions: pins, then whole pairs, then the rest; the heaviest breaker first, on the tightest that carries it. */
function placed(
  problem: PositionProblem,
  items: readonly Item[],
  taken: readonly Choice[],
  free: Free,
): PositionPlan['positions'] {
  const used = new Set<number>()
  // a pin keeps its place, and gets the breaker that its wire bears where another is fitted
  const out: PositionPlan['positions'] = problem.pins.map(p => {
    const circuit = problem.circuits.find(c => c.id === p.circuitId)
    const place = problem.places[p.position - 1]
    const exchanges =
      p.breakerA === undefined &&
      circuit &&
      place &&
      !suits(place.fittedA, circuit) &&
      circuit.breakerA <= place.mostA
    return { ...p, pinned: true, ...(exchanges && { breakerA: circuit.breakerA }) }
  })
  const heavyFirst = [...taken].sort((a, b) => breakerOf(items, b) - breakerOf(items, a))
  // a breaker that may stay as it is, a pair that is not parted, then the least that carries it
  const tightest = <P extends { limitA: number; fittedA: number | null; commonTrip: boolean }>(
    list: readonly P[],
    circuit: Pick<Placeable, 'breakerA' | 'wireA'>,
    asPair: boolean,
    isFree: (p: P) => boolean,
  ) => {
    const costs = (p: P) => (suits(p.fittedA, circuit) ? 0 : 1) + (p.commonTrip === asPair ? 0 : 2)
    return list
      .filter(p => p.limitA >= circuit.breakerA && isFree(p))
      .sort((a, b) => costs(a) - costs(b) || a.limitA - b.limitA)[0]
  }
  const put = (circuit: Placeable, position: number, parted: boolean) => {
    const fittedA = problem.places[position - 1]?.fittedA ?? null
    out.push({
      position,
      circuitId: circuit.id,
      pinned: false,
      ...((parted || !suits(fittedA, circuit)) && fittedA !== null && { breakerA: circuit.breakerA }),
    })
  }
  for (const choice of heavyFirst.filter(c => items[c.item]?.pair)) {
    const circuits = items[choice.item]?.circuits ?? []
    const pair = tightest(
      free.pairs,
      {
        breakerA: breakerOf(items, choice),
        wireA: circuits.reduce((most, c) => Math.min(most, c.wireA), Infinity),
      },
      true,
      p => !used.has(p.first) && !used.has(p.first + 1),
    )
    if (!pair) continue
    used.add(pair.first).add(pair.first + 1)
    for (const c of circuits) put(c, choice.leg(c) === 'L2' ? pair.first + 1 : pair.first, false)
  }
  for (const choice of heavyFirst.filter(c => !items[c.item]?.pair)) {
    const [circuit] = items[choice.item]?.circuits ?? []
    const leg = circuit && choice.leg(circuit)
    if (!circuit || !leg || leg === 'both') continue
    const place = tightest(free.on[leg], circuit, false, p => !used.has(p.position))
    if (!place) continue
    used.add(place.position)
    put(circuit, place.position, place.commonTrip)
  }
  return out.sort((a, b) => a.position - b.position)
}

/** Whether the breaker fitted at a position carries the circuit and protects its wire; with none there, nothing is to change. */
const suits = (fittedA: number | null, { breakerA, wireA }: Pick<Placeable, 'breakerA' | 'wireA'>) =>
  fittedA === null || (fittedA >= breakerA && fittedA <= wireA)

const breakerOf = (items: readonly Item[], choice: Choice) =>
  Math.max(...(items[choice.item]?.circuits ?? []).map(c => c.breakerA))

/** How far apart the legs are with circuits on these legs. */
export function balanceOf(
  problem: PositionProblem,
  legs: ReadonlyMap<string, Leg | 'both'>,
): Pick<PositionPlan, 'imbalanceFraction' | 'legVA'> {
  const mean = (c: Placeable) => c.hourVA.reduce((a, b) => a + b, 0) / 24
  const legVA = { L1: 0, L2: 0 }
  for (const c of problem.circuits) {
    const leg = legs.get(c.id)
    if (!leg) continue
    legVA.L1 += onLeg('L1', leg, mean(c))
    legVA.L2 += onLeg('L2', leg, mean(c))
  }
  const imbalanceFraction = momentsOf(problem).reduce((sum, m) => {
    const apart = problem.circuits.reduce((by, c) => {
      const leg = legs.get(c.id)
      return leg ? by + signed(leg, m.of(c)) : by
    }, 0)
    return sum + m.weight * Math.abs(apart)
  }, 0)
  return { imbalanceFraction, legVA }
}
