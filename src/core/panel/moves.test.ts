import fc from 'fast-check'
import { type Grid, type Movable, planMoves } from './moves'
import { alternating, legOf, spacesOf } from './positions'

const b = (position: number, facts: Partial<Movable> = {}): Movable => ({
  id: `b${position}`,
  position,
  poles: 1,
  picked: false,
  ...facts,
})
const picked = { picked: true }
const grid = (spaces: number, facts: Partial<Grid> = {}): Grid => ({
  ...alternating,
  spaces,
  unusable: [],
  ...facts,
})

/** Where everything stands after the steps, each of which must be possible when it comes. */
function after(breakers: readonly Movable[], plan: ReturnType<typeof planMoves>): Map<string, number> {
  const now = new Map(breakers.map(x => [x.id, x.position]))
  for (const { id, from, to, tradesWith } of plan?.steps ?? []) {
    expect(now.get(id)).toBe(from)
    const there = [...now].find(([, p]) => p === to)?.[0]
    expect(there).toBe(tradesWith)
    now.set(id, to)
    if (there !== undefined) now.set(there, from)
  }
  return now
}

test('to the nearest free space of the live leg; what is live already stays', () => {
  // rows 1 and 3 are on L1: 1, 2, 5, 6
  const plan = planMoves(grid(8), [b(1, picked), b(3, picked), b(4, picked)], 'L1')
  expect(plan).toEqual({
    steps: [
      { id: 'b3', from: 3, to: 5 },
      { id: 'b4', from: 4, to: 2 },
    ],
    moved: 2,
  })
})

test('in a full panel it trades places with what may go dark, never with what is picked or a two-pole', () => {
  const full = [b(1, picked), b(2), b(3, picked), b(4), b(5, { poles: 2 }), b(6), b(8)]
  expect(planMoves(grid(8), full, 'L1')).toEqual({
    steps: [{ id: 'b3', from: 3, to: 2, tradesWith: 'b2' }],
    moved: 2,
  })
})

test('the hots of a shared neutral trade places, and are never put on one leg', () => {
  const pair = [b(1, { sharesWith: 'b3' }), b(3, { sharesWith: 'b1', picked: true })]
  expect(planMoves(grid(8), pair, 'L1')).toEqual({
    steps: [{ id: 'b3', from: 3, to: 1, tradesWith: 'b1' }],
    moved: 2,
  })
  expect(
    planMoves(
      grid(8),
      pair.map(x => ({ ...x, picked: true })),
      'L1',
    ),
  ).toBeNull()
  expect(planMoves(grid(8), pair, 'L2')?.moved).toBe(0)
})

test('more picked than the live leg has places for cannot be done', () => {
  expect(planMoves(grid(4), [b(1, picked), b(2, picked), b(3, picked), b(4)], 'L1')).toBeNull()
  expect(planMoves(grid(4), [], 'L1')).toEqual({ steps: [], moved: 0 })
})

/** The fewest breakers that must move, by trying every way to set them: the plain truth for a small panel. */
function bruteForce(spaces: number, breakers: readonly Movable[]): number | null {
  let best: number | null = null
  const free = Array.from({ length: spaces }, (_, i) => i + 1)
  const set = (n: number, taken: number[], moved: number) => {
    if (best !== null && moved >= best) return
    const breaker = breakers[n]
    if (!breaker) {
      best = moved
      return
    }
    for (const place of free)
      if (!taken.includes(place) && (!breaker.picked || legOf(alternating, place) === 'L1'))
        set(n + 1, [...taken, place], moved + (place === breaker.position ? 0 : 1))
  }
  set(0, [], 0)
  return best
}

test('no plan moves fewer: against every possible setting of a small panel', () => {
  const panel = fc
    .uniqueArray(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 5 })
    .chain(positions => fc.tuple(...positions.map(p => fc.boolean().map(pick => b(p, { picked: pick })))))
  fc.assert(
    fc.property(panel, breakers => {
      const plan = planMoves(grid(6), breakers, 'L1')
      expect(plan?.moved ?? null).toBe(bruteForce(6, breakers))
      if (!plan) return
      const now = after(breakers, plan)
      expect(new Set(now.values()).size).toBe(breakers.length)
      for (const x of breakers) if (x.picked) expect(legOf(alternating, now.get(x.id) ?? 0)).toBe('L1')
    }),
  )
})

test('a full panel of forty-two keeps its two-poles and its pairs, whatever is picked', () => {
  const spaces = 42
  const build = (picks: boolean[]) => {
    const out: Movable[] = []
    const taken = new Set<number>()
    for (let p = 1; p <= spaces; p++) {
      if (taken.has(p)) continue
      const poles = p % 9 === 0 && p + 2 <= spaces && !taken.has(p + 2) ? 2 : 1
      const breaker = b(p, { poles, picked: poles === 1 && (picks[p] ?? false) && p % 5 === 0 })
      for (const s of spacesOf(breaker)) taken.add(s)
      out.push(breaker)
    }
    return out
  }
  fc.assert(
    fc.property(fc.array(fc.boolean(), { minLength: 43, maxLength: 43 }), picks => {
      const breakers = build(picks)
      const plan = planMoves(grid(spaces), breakers, 'L2')
      const dead = breakers.filter(x => x.picked && legOf(alternating, x.position) === 'L1').length
      expect(plan?.steps.length).toBe(dead)
      expect(plan?.moved).toBe(2 * dead)
      const now = after(breakers, plan)
      for (const x of breakers) if (x.poles === 2) expect(now.get(x.id)).toBe(x.position)
    }),
    { numRuns: 30 },
  )
})

test('a tandem moves whole and only where the sticker lists it; unusable spaces are left alone', () => {
  const tandem = [b(3, { id: 'up', half: 'a', picked: true }), b(3, { id: 'down', half: 'b' })]
  expect(planMoves(grid(8), tandem, 'L1')?.steps).toEqual([{ id: 'up', from: 3, to: 1 }])
  expect(planMoves(grid(8, { unusable: [1, 5] }), tandem, 'L1')?.steps).toEqual([
    { id: 'up', from: 3, to: 2 },
  ])
  expect(planMoves(grid(8, { tandemSpaces: [3, 6] }), tandem, 'L1')?.steps[0]?.to).toBe(6)
  expect(planMoves(grid(8, { tandemSpaces: [3, 4] }), tandem, 'L1')).toBeNull()
})

test('wires trade places inside a tied pair and inside a quad', () => {
  const tied = [
    b(5, { tie: { with: 'b7' }, sharesWith: 'b7' }),
    b(7, { tie: { with: 'b5' }, sharesWith: 'b5', picked: true }),
  ]
  const plan = planMoves(grid(8), tied, 'L1')
  expect(plan).toEqual({ steps: [{ id: 'b7', from: 7, to: 5, tradesWith: 'b5' }], moved: 2 })
  const quad = [
    b(1, { id: 'outer-up', half: 'a' }),
    b(1, { id: 'inner', poles: 2, half: 'b' }),
    b(3, { id: 'outer-down', half: 'b', picked: true }),
  ]
  expect(planMoves(grid(8), quad, 'L1')?.steps).toEqual([
    { id: 'outer-down', from: 3, to: 1, tradesWith: 'outer-up' },
  ])
})

test('what the whip does not reach is no place to move to, and a picked one beyond it is brought nearer', () => {
  const near = grid(8, { reaches: space => space <= 4 })
  expect(planMoves(near, [b(5, picked), b(3, picked)], 'L1')?.steps.map(s => s.to)).toEqual([1, 2])
  expect(planMoves(near, [b(1, picked), b(2, picked), b(5, picked)], 'L1')).toBeNull()
})

test('legs that do not alternate are followed row by row', () => {
  const odd = grid(8, { busLegs: ['L1', 'L1', 'L2', 'L2'] })
  expect(planMoves(odd, [b(3, picked), b(8, picked)], 'L1')?.steps).toEqual([{ id: 'b8', from: 8, to: 4 }])
})
