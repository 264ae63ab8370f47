import * as fc from 'fast-check'
import { applied, circuit, job } from '../../job/fixtures/jobs'
import type { Operation } from '../../job/operations'
import { applyOperation } from '../../job/operations'
import type { Job } from '../../job/schema'
import { bare } from '../../panel/schema'
import { boxFor } from './boxes'
import { made } from './fixtures/made'
import { wiringPlan } from './index'
import { mostBendsDeg, pullPointsFor, raceways, supportsFor } from './raceways'
import { connectorFor } from './splices'
import { wayOnWall } from './wall'

/** What a person decides of a way, of a wire, of the wall; and what follows from it. */

const inletJob = job([circuit(1)], {
  hookup: {
    method: 'interlocked-inlet',
    bondingPlug: false,
    inlet: { kind: 'inlet', id: 'i', name: 'Inlet', version: 1, type: 'L14-30', ratingA: 30 },
    backfed: { breakerA: 30, heldDown: true, space: 2 },
  },
})
const after = (...operations: Operation[]): Job =>
  operations.reduce((j, o) => {
    const next = applyOperation(j, o)
    if (!next.ok) throw new Error(next.faults.map(f => `${f.path} ${f.message}`).join('; '))
    return next.value
  }, inletJob)
const inlet = (j: Job) => wiringPlan(j).routes.find(r => r.id === 'inlet')
const said = (j: Job) =>
  wiringPlan(j)
    .open.map(o => o.text)
    .join('\n')
const route = (facts: object): Operation => ({ op: 'setRoute', facts: { id: 'inlet', ...facts } })

test('straps: within reach of each end, and no gap too wide, for any raceway and length', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(raceways) as (keyof typeof raceways)[])),
      fc.double({ min: 0.5, max: 2000, noNaN: true }),
      (kind, lengthFt) => {
        const { firstFt, everyFt, freeFt } = raceways[kind]
        const n = supportsFor(kind, '1', lengthFt)
        if (lengthFt <= freeFt) return expect(n).toBe(0)
        // as many as reach, and not one more than needed
        const reach = (k: number) => (k === 0 ? 0 : 2 * firstFt + (k - 1) * everyFt('1'))
        expect(reach(n)).toBeGreaterThanOrEqual(lengthFt - 1e-6)
        expect(reach(n - 1)).toBeLessThan(lengthFt + 1e-6)
      },
    ),
  )
})

test('pull points: none up to 360°, one for each 360° begun after', () => {
  expect([0, 90, mostBendsDeg, 361, 720, 721].map(pullPointsFor)).toEqual([0, 0, 0, 1, 1, 2])
})

test('a way on the wall: straight beside or above, else round one corner; rise plus run', () => {
  const box = (leftFt: number, bottomFt: number) => ({ of: 'x', leftFt, bottomFt, widthFt: 1, heightFt: 2 })
  expect(wayOnWall(box(0, 4), box(6, 4))).toMatchObject({ lengthFt: 5, bendsDeg: 0 })
  expect(wayOnWall(box(0, 4), box(0, 0))).toMatchObject({ lengthFt: 2, bendsDeg: 0 })
  expect(wayOnWall(box(0, 6), box(6, 0))).toMatchObject({ lengthFt: 10.5, bendsDeg: 90 })
  fc.assert(
    fc.property(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), (x, y) => {
      const [a, b] = [box(0, 0), box(x, y)]
      expect(wayOnWall(a, b).lengthFt).toBeCloseTo(wayOnWall(b, a).lengthFt, 9)
      expect(wayOnWall(a, b).lengthFt).toBeGreaterThanOrEqual(0)
    }),
  )
})

test('the sketch gives the length and the bends; a number by hand goes before it; nothing: assumed', () => {
  const sketch = (['inlet', 'panel-main'] as const).map(
    (of, n): Operation => ({
      op: 'placeOnWall',
      box: { of, leftFt: 8 * n, bottomFt: 4 - 3 * n, widthFt: 1, heightFt: 1 },
    }),
  )
  // the sheet alone says where the breaker stands
  expect(wiringPlan(inletJob).devices.find(d => d.id === 'backfed')?.name).toBe('Backfed 30 A breaker at 2·4')
  expect(inlet(inletJob)).toMatchObject({ lengthFrom: 'assumed', bendsDeg: 0, ends: ['inlet', 'panel-main'] })
  expect(inlet(after(...sketch))).toMatchObject({ lengthFrom: 'sketch', bendsDeg: 90, lengthFt: 10 })
  expect(inlet(after(...sketch, route({ lengthFt: 31, bendsDeg: 180 })))).toMatchObject({
    lengthFrom: 'job',
    lengthFt: 31,
    bendsDeg: 180,
    supports: 4,
  })
  const taken = after(
    ...sketch,
    { op: 'takeOffWall', of: 'inlet' },
    { op: 'takeOffWall', of: 'panel-main' },
    route({ lengthFt: 31 }),
    { op: 'setRoute', facts: { id: 'inlet' }, clear: ['lengthFt'] },
  )
  // what nobody decides any more leaves no trace
  expect(taken).toEqual(inletJob)
})

test('bends of 720° and a wet place are told where they are, and mended in the plan; flexible metal in the wet is refused', () => {
  const wet = after(route({ bendsDeg: 720, wet: true, through: 'fire-rated' }))
  expect(inlet(wet)).toMatchObject({ pullPoints: 1, raceway: { kind: 'EMT' } })
  expect(said(wet)).toMatch(/bends of 720° .* 1 pull point/)
  expect(said(wet)).toMatch(/fire-stopped .*300\.21/)
  expect(said(after(route({ wet: true, conduit: 'FMC' })))).toMatch(/348\.12/)
  const flexible = after({ op: 'setHabits', facts: { raceway: 'FMC' } }, route({ wet: true }))
  expect(inlet(flexible)?.raceway?.kind).toBe('LFNC-B')
})

test('a route of 0 or 5,000 ft and a wire that nobody makes are refused by their field', () => {
  const why = (facts: object) => {
    const next = applyOperation(inletJob, route(facts))
    return next.ok ? '' : next.faults.map(f => `${f.path} ${f.message}`).join()
  }
  expect(why({ lengthFt: 0 })).toMatch(/wiring\.routes\[0\]\.lengthFt must be from 0\.5 to 2,000 ft/)
  expect(why({ lengthFt: 5000 })).toMatch(/lengthFt must be from 0\.5 to 2,000 ft/)
  expect(why({ bendsDeg: 1e9 })).toMatch(/bendsDeg must be from 0/)
})

test('a wire chosen by hand is taken and checked; thicker than its terminals take, it ends in a splice with a pigtail', () => {
  const choose = (size: '12' | '4'): Operation => ({
    op: 'chooseWire',
    wire: { route: 'inlet', mark: 'IN L1', size },
  })
  expect(said(after(choose('12')))).toMatch(/IN L1: 12 AWG is too thin for 30 A there: 10 AWG is asked/)
  const thick = wiringPlan(after(choose('4')))
  made(thick)
  expect(thick.conductors.filter(c => c.mark === 'IN L1 pigtail').map(c => c.size)).toEqual(['8', '8'])
  expect(thick.open.find(o => o.text.includes('it ends in a splice'))?.at).toBe('inlet')
  expect(after(choose('4'), { op: 'proposeWire', route: 'inlet', mark: 'IN L1' })).toEqual(inletJob)
})

test('habits: one size up, growth for 50 A, and connectors of the school that takes the wires', () => {
  const hot = (j: Job) => wiringPlan(j).conductors.find(c => c.mark === 'IN L1')?.size
  expect(hot(inletJob)).toBe('10')
  expect(hot(after({ op: 'setHabits', facts: { oneSizeUp: true } }))).toBe('8')
  const grown = after({ op: 'setHabits', facts: { growth: true } })
  made(wiringPlan(grown))
  expect(hot(grown)).toBe('6')
  // the 30 A breaker stays: it is reached by a pigtail
  expect(wiringPlan(grown).conductors.some(c => c.mark === 'IN L1 pigtail')).toBe(true)
  const two = (size: '12' | '10' | '6', material: 'cu' | 'al' = 'cu') => [
    { size, material },
    { size, material: 'cu' as const },
  ]
  expect(connectorFor(two('12'), 'lever')?.key).toBe('lever-2')
  expect(connectorFor(two('10'), 'lever')?.key).toBe('lever-3-large')
  expect(connectorFor(two('12'), 'twist-on')?.key).toBe('twist-small')
  expect(connectorFor(two('6'), 'lever')?.key).toBe('tap-insulated')
  expect(connectorFor(two('12', 'al'), 'twist-on')?.bothMetals).toBe(true)
  expect(connectorFor([...two('6'), ...two('6')], 'lever')).toBeNull()
})

test('boxes by their fill: the smallest that holds what enters, a pull box from 4 AWG, none where it is too much', () => {
  const box = (size: '12' | '4', count: number) =>
    boxFor({ conductors: [{ size, count }], grounds: { size, count: 2 }, device: null }, 2020)
  // 4 × 2.25 + one allowance of 2.25 = 11.25 in³
  expect(box('12', 4)).toMatchObject({ volumeIn3: 21, requiredIn3: 11.25 })
  expect(box('12', 10)?.volumeIn3).toBe(30.3)
  expect(box('4', 4)?.key).toBe('box-12x12x4')
  expect(box('12', 400)).toBeNull()
})

test('splices in a panel’s gutter are told where they would fill more of a usual one than 312.8 allows', () => {
  const of = (n: number) => ({
    ...job([], { hookup: { method: 'critical-subpanel', bondingPlug: false } }),
    panels: [
      { ...bare('main', 'Main', 40, 200), circuits: Array.from({ length: n }, (_, i) => circuit(i + 1)) },
    ],
  })
  const told = (j: Job) =>
    /312\.8/.test(said(applied(j, { op: 'setHookup', facts: { neutrals: 'follow their hots' } })))
  expect([told(of(18)), told(of(20))]).toEqual([false, true])
})

test('a connector or a box chosen by hand is taken and checked; an unknown one is left to the plan', () => {
  const tied = job([circuit(1)], {
    hookup: {
      ...inletJob.hookup,
      inlet: { kind: 'inlet', id: 'i', name: 'Inlet', version: 1, type: 'TT-30', ratingA: 30 },
    },
  })
  const withOne = (key: string) => applied(tied, { op: 'chooseJoint', of: 'splice-tied', with: key })
  const made = (j: Job) => wiringPlan(j).splices.find(s => s.device === 'splice-tied')?.connector
  expect([made(tied), made(withOne('tap-insulated')), made(withOne('glue'))]).toEqual([
    'twist-large',
    'tap-insulated',
    'twist-large',
  ])
  expect(said(withOne('twist-small'))).toMatch(
    /a twist-on connector, small does not take 10 copper, 10 copper, 10 copper/,
  )
  expect(applied(withOne('twist-small'), { op: 'chooseJoint', of: 'splice-tied', with: null })).toEqual(tied)
  const entering = { conductors: [{ size: '12' as const, count: 12 }], grounds: null, device: null }
  expect(boxFor(entering, 2020, 'box-4x1-1/2')).toMatchObject({ volumeIn3: 21, requiredIn3: 27 })
})

test('a box for thick wires is never passed by its volume: 314.28 sizes it, and a small one is told as too small', () => {
  const thick = { conductors: [{ size: '4' as const, count: 6 }], grounds: null, device: null }
  expect(boxFor(thick, 2020)).toMatchObject({ pull: true, large: true })
  expect(boxFor(thick, 2020, 'box-4x1-1/2')).toMatchObject({ pull: true, large: false })
  expect(boxFor({ ...thick, conductors: [{ size: '12', count: 4 }] }, 2020)?.pull).toBe(false)
})
