import fc from 'fast-check'
import { riffle6 } from '../equipment/fixtures/parts'
import { loadSolver, type SolveProgram } from '../hookup/solver'
import { circuit, job, load, splitStation } from '../job/fixtures/jobs'
import type { Leg } from '../panel/leg'
import { evaluate } from './evaluate'
import { circuitNeeds } from './needs'
import {
  balanceOf,
  exchanged,
  type Placeable,
  type PositionProblem,
  positionProblem,
  solvePositions,
} from './positions'

let solve: SolveProgram
beforeAll(async () => {
  solve = await loadSolver()
})

const placeable = (id: string, VA: number, facts: Partial<Placeable> = {}): Placeable => ({
  id,
  name: id,
  breakerA: 15,
  wireA: facts.breakerA ?? 15,
  poles: 1,
  tier: 2,
  VA,
  hourVA: new Array(24).fill(VA / 2),
  beyondReach: false,
  ...facts,
})
const legAt = (position: number): Leg => (position % 2 ? 'L1' : 'L2')
/** Positions whose breaker may be exchanged for any up to so much. */
const upTo = (...limitsA: number[]): PositionProblem['places'] =>
  limitsA.map((mostA, i) => ({ mostA, fittedA: mostA, leg: legAt(i + 1), commonTrip: false }))
const problem = (circuits: Placeable[], facts: Partial<PositionProblem> = {}): PositionProblem => ({
  circuits,
  places: upTo(30, 30, 20, 20, 15, 15),
  fed: { L1: true, L2: true },
  balanced: true,
  inputA: 30,
  pins: [],
  ...facts,
})
const at = (plan: ReturnType<typeof solvePositions>, id: string) =>
  plan.positions.find(p => p.circuitId === id)?.position

/** Every way of putting single circuits on positions, tried one by one. */
function bestByTrying(p: PositionProblem): { placed: number; imbalanceFraction: number } {
  let best = { placed: -1, imbalanceFraction: Infinity }
  const walk = (n: number, legs: Map<string, Leg>, used: Set<number>) => {
    const c = p.circuits[n]
    if (!c) {
      const { imbalanceFraction } = balanceOf(p, legs)
      const better =
        legs.size > best.placed || (legs.size === best.placed && imbalanceFraction < best.imbalanceFraction)
      if (better) best = { placed: legs.size, imbalanceFraction }
      return
    }
    p.places.forEach(({ mostA }, i) => {
      if (used.has(i) || c.breakerA > mostA) return
      walk(n + 1, new Map(legs).set(c.id, legAt(i + 1)), new Set(used).add(i))
    })
    walk(n + 1, legs, used)
  }
  walk(0, new Map(), new Set())
  return best
}

test('as many circuits as can be, then the least difference of the legs: as trying every way finds', () => {
  const circuits = fc.array(
    fc.record({
      VA: fc.integer({ min: 50, max: 1500 }),
      breakerA: fc.constantFrom(15, 20, 30),
      evening: fc.boolean(),
    }),
    { minLength: 2, maxLength: 5 },
  )
  fc.assert(
    fc.property(circuits, list => {
      const p = problem(
        list.map((c, i) =>
          placeable(`c${i}`, c.VA, {
            breakerA: c.breakerA,
            hourVA: Array.from({ length: 24 }, (_, h) => (c.evening ? (h > 16 ? c.VA : 0) : c.VA / 3)),
          }),
        ),
        { places: upTo(30, 30, 20, 15), inputA: 1000 },
      )
      const plan = solvePositions(p, solve)
      const tried = bestByTrying(p)
      expect(plan.positions).toHaveLength(tried.placed)
      // heavy positions for heavy circuits may cost a thousandth of balance
      expect(plan.imbalanceFraction).toBeLessThanOrEqual(tried.imbalanceFraction + 0.006)
    }),
    { numRuns: 15 },
  )
})

test('a two-pole takes both positions of a pair, and a shared neutral stands side by side on opposite legs', () => {
  const plan = solvePositions(
    problem([
      placeable('pump', 900, { poles: 2, breakerA: 20 }),
      placeable('left', 300, { breakerA: 15, sharesWith: 'right' }),
      placeable('right', 500, { breakerA: 15, sharesWith: 'left' }),
      placeable('light', 200),
    ]),
    solve,
  )
  expect(plan.unplaced).toEqual([])
  // the 20 A pair fits it exactly; the 30 A pair is kept for what needs it
  expect(at(plan, 'pump')).toBe(3)
  const [left = 0, right = 0] = [at(plan, 'left'), at(plan, 'right')]
  expect(Math.ceil(left / 2)).toBe(Math.ceil(right / 2))
  expect(legAt(left)).not.toBe(legAt(right))
})

test('heavy breakers go to heavy positions, and what fits nowhere is left out, the least wanted first', () => {
  const plan = solvePositions(
    problem(
      [
        placeable('heavy', 600, { breakerA: 30, tier: 3 }),
        placeable('a', 100, { tier: 1 }),
        placeable('b', 100),
        placeable('c', 100, { tier: 3 }),
        placeable('d', 100, { tier: 1 }),
      ],
      { places: upTo(30, 15, 15, 15) },
    ),
    solve,
  )
  expect(plan.unplaced).toHaveLength(1)
  expect(['heavy', 'c']).toContain(plan.unplaced[0])
  const all = solvePositions(problem([placeable('heavy', 600, { breakerA: 30 }), placeable('a', 100)]), solve)
  expect(all.positions.find(p => p.circuitId === 'heavy')?.position).toBeLessThan(3)
})

test('with one leg live only its positions are used; a pin stays, and its price is what it gives away', () => {
  const one = solvePositions(
    problem([placeable('a', 100), placeable('b', 100)], { fed: { L1: false, L2: true }, balanced: false }),
    solve,
  )
  expect(one.positions.map(p => p.position % 2)).toEqual([0, 0])
  const pinned = solvePositions(
    problem([placeable('a', 1000), placeable('b', 1000)], {
      pins: [
        { circuitId: 'a', position: 1 },
        { circuitId: 'b', position: 3 },
      ],
    }),
    solve,
  )
  // both on L1: all of it out of balance, none without one of the pins
  expect(pinned.imbalanceFraction).toBeCloseTo(1, 6)
  expect(pinned.pinCosts.map(p => p.balanceFraction)).toEqual([1, 1].map(n => expect.closeTo(n, 6)))
})

test('the problem of a job: its picked circuits, their hours, the limits of its switch', () => {
  const j = job(
    [
      circuit(1, { loads: [load(600)] }),
      circuit(2, { poles: 2, loads: [load(400)] }),
      circuit(3, { picked: false }),
    ],
    {
      source: { station: splitStation(), arrangement: 'split-phase' },
      hookup: { method: 'multi-circuit-switch', bondingPlug: false, switch: riffle6 },
    },
  )
  const p = positionProblem({ job: j, needs: circuitNeeds(j) })
  expect(p).toMatchObject({ balanced: true, inputA: 30 })
  expect(p?.places.map(l => [l.mostA, l.leg])).toEqual([
    [30, 'L1'],
    [30, 'L2'],
    [20, 'L1'],
    [20, 'L2'],
    [15, 'L1'],
    [15, 'L2'],
  ])
  expect(p?.circuits.map(c => [c.id, c.VA, c.hourVA[0]])).toEqual([
    ['c1', 600, 600],
    ['c2', 400, 400],
  ])
  const plan = p && solvePositions(p, solve)
  const placed = { ...j, hookup: { ...j.hookup, positions: plan?.positions } }
  // 600 VA on its leg and half of the 240 V load on each
  expect(evaluate(placed).legs).toMatchObject({ L1A: expect.any(Number) })
  expect(evaluate(placed).findings.some(f => f.id === 'position.none')).toBe(false)
})

test('a breaker of a position that is too large for a wire is exchanged in the plan, and a common trip is parted last', () => {
  const places = upTo(30, 30, 15, 15).map((p, i) => ({ ...p, commonTrip: i < 2 }))
  const alone = solvePositions(problem([placeable('a', 100), placeable('b', 300)], { places }), solve)
  expect(alone.positions).toEqual([
    { position: 3, circuitId: expect.any(String), pinned: false },
    { position: 4, circuitId: expect.any(String), pinned: false },
  ])
  const three = ['a', 'b', 'c'].map(id => placeable(id, 100))
  const full = solvePositions(problem(three, { places }), solve)
  expect(full.positions.filter(p => p.position < 3).map(p => p.breakerA)).toEqual([15])
})

test('what is put on another position changes places with what stood there; the breakers stay', () => {
  const set = [
    { position: 1, circuitId: 'a', pinned: false, breakerA: 15 },
    { position: 2, circuitId: 'b', pinned: false },
    { position: 4, circuitId: 'c', pinned: false },
  ]
  const both = exchanged(set, 1, 2)
  expect(both).toContainEqual({ position: 2, circuitId: 'a', pinned: true })
  expect(both).toContainEqual({ position: 1, circuitId: 'b', pinned: true, breakerA: 15 })
  expect(exchanged(set, 4, 3)).toContainEqual({ position: 3, circuitId: 'c', pinned: true })
  expect(exchanged(set, 3, 1)).toBe(set)
})
