import fc from 'fast-check'
import { evaluate } from '../assess/evaluate'
import { asBuilt, asPlanned } from '../job/as-planned'
import { applied, circuit, job, load } from '../job/fixtures/jobs'
import { applyOperation, type Operation } from '../job/operations'
import { circuitsOf } from '../job/panels'
import type { Job } from '../job/schema'
import { checkPanels } from '../panel/panels'
import { bare, type Circuit, type Panel } from '../panel/schema'
import { restsOn, withChanges, withFollowers } from './apply'
import { changeId, type PlannedChange, type Unplanned } from './change'

const move = (circuitId: string, toPosition: number, toPanelId?: string): Operation => ({
  op: 'planMove',
  circuitId,
  toPosition,
  ...(toPanelId && { toPanelId }),
})
const change = (said: Unplanned): Operation => ({ op: 'planChange', change: { ...said, origin: 'person' } })
const at = (start: Job) => Object.fromEntries(circuitsOf(asPlanned(start).job).map(c => [c.id, c.position]))
const ids = (start: Job) => start.planned.map(changeId)
const rests = (start: Job) => Object.fromEntries(restsOn(start.panels, start.planned))
const faultsOf = (start: Job, operation: Operation) => {
  const outcome = applyOperation(start, operation)
  return outcome.ok ? [] : outcome.faults.map(f => `${f.path} ${f.message}`)
}

const start = job([circuit(1), circuit(3), circuit(5), circuit(2, { poles: 2 })], {
  hookup: { method: 'undecided', bondingPlug: false },
})

describe('moves', () => {
  test('the survey stays as it was found, and planning the way back leaves nothing planned', () => {
    const planned = applied(start, move('c1', 9))
    expect(planned.panels).toBe(start.panels)
    expect(at(planned)).toMatchObject({ c1: 9 })
    expect(applied(planned, move('c1', 1)).planned).toEqual([])
  })

  test('a trade of places is one change, a ring of three too; others stand for themselves', () => {
    const traded = applied(start, move('c1', 3), move('c5', 11))
    expect(ids(traded)).toEqual(['move:c1', 'move:c5'])
    expect(at(traded)).toMatchObject({ c1: 3, c3: 1, c5: 11 })
    const ring = applied(start, move('c1', 3), move('c1', 5))
    expect(at(ring)).toMatchObject({ c1: 5, c3: 1, c5: 3 })
    expect(ring.planned).toHaveLength(1)
  })

  test('one that takes another’s place rests on it, and goes with it', () => {
    const planned = applied(start, move('c1', 9), move('c3', 1))
    expect(rests(planned)).toEqual({ 'move:c1': [], 'move:c3': ['move:c1'] })
    expect(applied(planned, { op: 'dropChanges', ids: ['move:c1'] }).planned).toEqual([])
    expect(ids(applied(planned, { op: 'dropChanges', ids: ['move:c3'] }))).toEqual(['move:c1'])
  })

  test('what is tied, or shares its neutral, goes together or not at all', () => {
    const shared = job([
      circuit(1, { neutral: { kind: 'shared', with: 'c3' }, tie: { with: 'c3', kind: 'handle' } }),
      circuit(3, { neutral: { kind: 'shared', with: 'c1' }, tie: { with: 'c1', kind: 'handle' } }),
      circuit(5),
    ])
    const sub: Panel = { ...bare('sub', 'Sub-panel', 8), mark: 'S', supply: 'fed from another panel' }
    const two = applied(shared, { op: 'addPanel', panel: sub }, move('c1', 1, 'sub'))
    expect(asPlanned(two).job.panels[1]?.circuits.map(c => c.id)).toEqual(['c1', 'c3'])
    expect(two.planned.filter(c => c.kind === 'move')).toHaveLength(1)
    const loose = applied(shared, { op: 'tieBreakers', circuitId: 'c1', tie: null })
    expect(faultsOf(applied(loose, { op: 'addPanel', panel: sub }), move('c1', 1, 'sub'))[0]).toMatch(
      /cannot part circuit 1/,
    )
  })
})

test('each kind does what it says, and says it of this house', () => {
  const pump = load(900, {
    id: 'pump',
    connection: 'hard-wired',
    start: { method: 'locked-rotor', lockedRotorA: { value: 40, from: 'nameplate' } },
  })
  const house = applied(
    {
      ...start,
      panels: [{ ...bare('main', 'Main panel', 12), circuits: [circuit(1, { loads: [pump] }), circuit(3)] }],
    },
    change({ kind: 'exchange', circuitId: 'c1', breakerA: 15 }),
    change({ kind: 'tie', circuitId: 'c1', with: 'c3', tie: 'handle' }),
    change({ kind: 'lock', circuitId: 'c3' }),
    change({ kind: 'guard', circuitId: 'c1' }),
    change({ kind: 'cord', circuitId: 'c1', loadId: 'pump' }),
    change({ kind: 'soft-start', circuitId: 'c1', loadId: 'pump', softStartFraction: 0.4 }),
    change({ kind: 'bond', panelId: 'main', joined: false }),
    change({ kind: 'add', panelId: 'main', circuit: circuit(6, { id: 'new', poles: 2 }) }),
  )
  const [panel] = asPlanned(house).job.panels
  expect(panel?.neutralBonded).toBe(false)
  expect(panel?.circuits).toMatchObject([
    {
      id: 'c1',
      breakerA: 15,
      tie: { with: 'c3' },
      outletProtection: true,
      loads: [{ connection: 'plug', start: { softStartFraction: 0.4 } }],
    },
    { id: 'c3', tie: { with: 'c1' }, lockedOff: true },
    { id: 'new', position: 6 },
  ])
  expect(faultsOf(house, change({ kind: 'remove', circuitId: 'c3' }))).toEqual([
    'planned cannot be: Take the breaker of 3 circuit 3 out: it is planned as well: Join 1 circuit 1 and 3 circuit 3 by a listed handle tie',
  ])
})

describe('what cannot be', () => {
  test('two changes that claim one space: the second is refused, and told where a file holds both', () => {
    const planned = applied(start, move('c1', 9))
    expect(
      faultsOf(planned, change({ kind: 'add', panelId: 'main', circuit: circuit(9, { id: 'n' }) }))[0],
    ).toMatch(
      /^planned cannot be: Add a 20 A breaker at 9: circuit 9: circuit 1 needs space 9, which circuit 9 takes/,
    )
    const add: PlannedChange = {
      kind: 'add',
      origin: 'person',
      panelId: 'main',
      circuit: circuit(9, { id: 'n' }),
    }
    const both = { ...planned, planned: [...planned.planned, add] }
    expect(asPlanned(both)).toMatchObject({ undone: [{ change: add, why: /takes/ }] })
    expect(at(both)).toMatchObject({ c1: 9 })
  })

  test('a survey that turns out otherwise hinders a change, which is told and not lost', () => {
    const planned = applied(start, move('c1', 9), change({ kind: 'lock', circuitId: 'c5' }))
    const seen = applied(planned, { op: 'addCircuit', circuit: circuit(9) })
    expect(seen.planned).toEqual(planned.planned)
    expect(asPlanned(seen).undone).toMatchObject([{ change: { kind: 'move' }, why: /needs space 9/ }])
    expect(circuitsOf(asPlanned(seen).job).find(c => c.id === 'c5')?.lockedOff).toBe(true)
    // mended: planned to another place
    expect(asPlanned(applied(seen, move('c1', 11))).undone).toEqual([])
    const removed = applied(planned, { op: 'removeCircuit', circuitId: 'c5' })
    expect(asPlanned(removed).undone[0]?.why).toBe('the circuit it is about is no longer there')
  })

  test('what the sticker does not take is not planned', () => {
    const sticker = job([circuit(1)], { panel: { breakerTypes: ['AB'], tandemSpaces: [3] } })
    expect(faultsOf(sticker, change({ kind: 'exchange', circuitId: 'c1', type: 'XY' }))[0]).toMatch(
      /does not list XY/,
    )
    const half = circuit(5, { id: 'h', half: 'a' })
    expect(faultsOf(sticker, change({ kind: 'add', panelId: 'main', circuit: half }))[0]).toMatch(
      /lists no tandem at 5/,
    )
  })
})

test('a change is built after what it rests on, stays whatever is planned then, and the next visit finds it', () => {
  const by = { by: 'Installer', on: '2026-03-01' }
  const done = (id: string): Operation => ({ op: 'recordBuilt', id, built: by })
  const planned = applied(start, move('c1', 9), move('c3', 1))
  expect(faultsOf(planned, done('move:c3'))[0]).toMatch(/comes first: Move 1 circuit 1 to 9/)
  const half = applied(planned, done('move:c1'))
  expect(circuitsOf(asBuilt(half)).map(c => [c.id, c.position])).toContainEqual(['c1', 9])
  expect(asBuilt(half).planned.map(changeId)).toEqual(['move:c3'])
  expect(at(asBuilt(half))).toEqual(at(planned))
  for (const refused of [move('c1', 11), { op: 'dropChanges' as const, ids: ['move:c1'] }])
    expect(faultsOf(half, refused)[0]).toMatch(/is built already/)
  const whole = applied(half, done('move:c3'))
  expect(faultsOf(whole, { op: 'withdrawBuilt', id: 'move:c1' })[0]).toMatch(/rests on it, and is built/)
  expect(applied(whole, { op: 'withdrawBuilt', id: 'move:c3' })).toEqual(half)
})

test('a danger of the house is told until the change that ends it is built', () => {
  const thin = job([circuit(1, { wire: { material: 'cu', size: '14' } })])
  const planned = applied(thin, change({ kind: 'exchange', circuitId: 'c1', breakerA: 15 }))
  const settled = (of: Job) => evaluate(of).settled.map(s => [s.finding.id, s.today])
  expect(settled(planned)).toContainEqual(['wire.small', true])
  const built = { by: 'Installer', on: '2026-03-01' }
  expect(settled(applied(planned, { op: 'recordBuilt', id: 'exchange:c1', built }))).toEqual([])
})

describe('whatever is planned', () => {
  const panels = fc
    .uniqueArray(fc.integer({ min: 1, max: 24 }), { minLength: 2, maxLength: 12 })
    .map(positions => {
      const circuits: Circuit[] = []
      for (const position of positions) {
        const poles = position % 5 === 0 && position <= 22 ? 2 : 1
        const taken = new Set(circuits.flatMap(c => [c.position, ...(c.poles === 2 ? [c.position + 2] : [])]))
        if (taken.has(position) || (poles === 2 && taken.has(position + 2))) continue
        circuits.push(circuit(position, { poles, ...(position % 7 === 0 && { half: 'a' }) }))
      }
      return circuits
    })
  const steps = fc.array(
    fc.record({
      kind: fc.constantFrom('move', 'move', 'move', 'across', 'exchange', 'lock', 'tie', 'remove', 'add'),
      which: fc.nat(30),
      to: fc.integer({ min: 1, max: 24 }),
    }),
    { minLength: 1, maxLength: 14 },
  )
  const planned = (circuits: Circuit[], said: { kind: string; which: number; to: number }[]): Job => {
    const sub: Panel = { ...bare('sub', 'Sub-panel', 12), mark: 'S', supply: 'fed from another panel' }
    const found = { ...start, panels: [{ ...bare('main', 'Main panel', 24), circuits }, sub] }
    return said.reduce<Job>((now, { kind, which, to }, n) => {
      const id = circuits[which % circuits.length]?.id ?? ''
      const other = circuits[(which + 1) % circuits.length]?.id ?? ''
      const operation =
        kind === 'move'
          ? move(id, to)
          : kind === 'across'
            ? move(id, ((to - 1) % 12) + 1, 'sub')
            : kind === 'exchange'
              ? change({ kind, circuitId: id, breakerA: 15 })
              : kind === 'lock'
                ? change({ kind, circuitId: id })
                : kind === 'tie'
                  ? change({ kind, circuitId: id, with: other, tie: 'handle' })
                  : kind === 'remove'
                    ? change({ kind, circuitId: id })
                    : change({ kind: 'add', panelId: 'main', circuit: circuit(to, { id: `n${n}` }) })
      const outcome = applyOperation(now, operation)
      return outcome.ok ? outcome.value : now
    }, found)
  }
  const faults = (house: readonly Panel[]) => {
    const said: string[] = []
    checkPanels(house, (_, message) => said.push(message))
    return said
  }

  test('the house is a possible one, the survey untouched, and any allowed order gives the same', () => {
    fc.assert(
      fc.property(panels, steps, fc.infiniteStream(fc.nat(50)), (circuits, said, pick) => {
        const plan = planned(circuits, said)
        expect(plan.panels[0]?.circuits).toBe(circuits)
        const { panels: house, undone } = withChanges(plan.panels, plan.planned)
        expect([faults(house), undone]).toEqual([[], []])
        const ahead = restsOn(plan.panels, plan.planned)
        let waiting = [...plan.planned]
        const order: PlannedChange[] = []
        while (waiting.length) {
          const ready = waiting.filter(c =>
            (ahead.get(changeId(c)) ?? []).every(id => !waiting.some(w => changeId(w) === id)),
          )
          expect(ready.length).toBeGreaterThan(0)
          const next = ready[(pick.next().value ?? 0) % ready.length]
          if (!next) break
          waiting = waiting.filter(c => c !== next)
          order.push(next)
          // each step on the way is a house that can be
          expect(withChanges(plan.panels, order).undone).toEqual([])
        }
        expect(withChanges(plan.panels, order).panels).toEqual(house)
      }),
      { numRuns: 150 },
    )
  })

  test('taking one away gives the house without it, and everything else still can be done', () => {
    fc.assert(
      fc.property(panels, steps, fc.nat(30), (circuits, said, which) => {
        const plan = planned(circuits, said)
        const one = plan.planned[which % Math.max(1, plan.planned.length)]
        if (!one) return
        const going = withFollowers(plan.panels, plan.planned, [changeId(one)])
        const left = plan.planned.filter(c => !going.has(changeId(c)))
        expect(withChanges(plan.panels, left).undone).toEqual([])
        expect(asPlanned(applied(plan, { op: 'dropChanges', ids: [changeId(one)] })).job.panels).toEqual([
          ...withChanges(plan.panels, left).panels,
        ])
      }),
      { numRuns: 150 },
    )
  })
})
