import fc from 'fast-check'
import { occupancy, spacesOf } from '../panel/positions'
import { applied, circuit, job, load, splitStation, station } from './fixtures/jobs'
import { applyOperation, describeOperation, type Operation } from './operations'
import { type Job, jobSchema } from './schema'

const faultsOf = (start: Job, operation: Operation) => {
  const outcome = applyOperation(start, operation)
  return outcome.ok ? [] : outcome.faults.map(f => `${f.path} ${f.message}`)
}

describe('moving breakers', () => {
  const start = job([circuit(1), circuit(2, { poles: 2 }), circuit(3, { picked: false })])

  test('to a free space, or trading places with one of the same poles', () => {
    const moved = applied(start, { op: 'moveBreaker', circuitId: 'c1', toPosition: 12 })
    expect(moved.panel.circuits.map(c => c.position)).toEqual([2, 3, 12])
    const traded = applied(start, { op: 'moveBreaker', circuitId: 'c1', toPosition: 3 })
    expect(traded.panel.circuits.map(c => [c.id, c.position])).toEqual([
      ['c3', 1],
      ['c2', 2],
      ['c1', 3],
    ])
  })

  test('is refused in words where a two-pole stands, half of one does, or the panel ends', () => {
    expect(faultsOf(start, { op: 'moveBreaker', circuitId: 'c1', toPosition: 4 })[0]).toMatch(
      /circuit 2 is in the way/,
    )
    expect(faultsOf(start, { op: 'moveBreaker', circuitId: 'c2', toPosition: 1 })[0]).toMatch(/in the way/)
    expect(faultsOf(start, { op: 'moveBreaker', circuitId: 'c2', toPosition: 12 })[0]).toMatch(
      /no space 12 and 14/,
    )
  })
})

test('a shared neutral always names both ways, and re-pairing frees the earlier partner', () => {
  const start = job([circuit(1), circuit(3), circuit(5)])
  const paired = applied(start, {
    op: 'editCircuit',
    circuitId: 'c1',
    facts: { neutral: { kind: 'shared', with: 'c3' } },
  })
  expect(paired.panel.circuits.map(c => c.neutral)).toEqual([
    { kind: 'shared', with: 'c3' },
    { kind: 'shared', with: 'c1' },
    { kind: 'own' },
  ])
  const again = applied(paired, {
    op: 'editCircuit',
    circuitId: 'c5',
    facts: { neutral: { kind: 'shared', with: 'c3' } },
  })
  expect(again.panel.circuits.map(c => c.neutral.kind)).toEqual(['own', 'shared', 'shared'])
  const removed = applied(again, { op: 'removeCircuit', circuitId: 'c3' })
  expect(removed.panel.circuits.map(c => c.neutral.kind)).toEqual(['own', 'own'])
})

test('choosing a station keeps what it can: units up to its most, an arrangement it can make', () => {
  const start = job([], {
    source: { station: splitStation(), expansionUnits: 2, arrangement: 'split-phase' },
  })
  const next = applied(start, {
    op: 'chooseStation',
    station: station({ expansion: { most: 1, energyWh: 500 } }),
  })
  expect(next.source).toMatchObject({ expansionUnits: 1, arrangement: 'tied' })
  expect(faultsOf(next, { op: 'setArrangement', arrangement: 'split-phase' })[0]).toMatch(
    /puts out 120 V only/,
  )
  expect(faultsOf(next, { op: 'setExpansionUnits', count: 2 })[0]).toMatch(/at most 1/)
})

test('bad values are refused at their path and the job stays as it was', () => {
  const start = job([circuit(1)])
  const copy = structuredClone(start)
  expect(faultsOf(start, { op: 'setOutage', facts: { hours: -3 } })).toEqual([
    'outage.hours must be from 0.5 to 720 h',
  ])
  expect(faultsOf(start, { op: 'setOutage', facts: { startFraction: 0.1 } })[0]).toMatch(
    /reserveFraction must leave something to use/,
  )
  expect(faultsOf(start, { op: 'setJobFacts', facts: { title: '  ' } })).toEqual(['title must not be empty'])
  expect(
    faultsOf(start, { op: 'editCircuit', circuitId: 'c1', facts: { label: 'x'.repeat(300) } })[0],
  ).toMatch(/at most 80 characters; this has 300/)
  expect(faultsOf(start, { op: 'putLoad', circuitId: 'c1', load: load(1e9) })[0]).toMatch(
    /runningW.value must be from 0 to 20,000 W/,
  )
  expect(faultsOf(start, { op: 'setPanel', facts: { spaces: 9 } })[0]).toMatch(/even/)
  expect(faultsOf(start, { op: 'selectCircuit', circuitId: 'gone', picked: true })[0]).toMatch(
    /no longer holds/,
  )
  expect(faultsOf(job([circuit(11)]), { op: 'setPanel', facts: { spaces: 8 } })[0]).toMatch(
    /needs space 11, but the panel has 8/,
  )
  expect(start).toEqual(copy)
})

test('an emoji counts as one character; a lone half of one and control characters are refused', () => {
  const start = job([circuit(1)])
  const named = (label: string) => faultsOf(start, { op: 'editCircuit', circuitId: 'c1', facts: { label } })
  expect(named('👩‍🏭'.repeat(80))).toEqual([])
  expect(named('\ud83d')[0]).toMatch(/control characters/)
  expect(named('a\u0000b')[0]).toMatch(/control characters/)
})

test('a fix is one operation: all of it or none', () => {
  const start = job([circuit(1), circuit(3)])
  const fix: Operation = {
    op: 'applyFix',
    label: 'two drops',
    operations: [
      { op: 'selectCircuit', circuitId: 'c1', picked: false },
      { op: 'selectCircuit', circuitId: 'gone', picked: false },
    ],
  }
  expect(faultsOf(start, fix)).toHaveLength(1)
  expect(describeOperation(start, fix)).toBe('applied: two drops')
})

test('whatever is done in whatever order, the document stays valid and no two breakers share a space', () => {
  const id = fc.constantFrom('c1', 'c2', 'c3', 'n4', 'n5')
  const space = fc.integer({ min: -1, max: 14 })
  const operation: fc.Arbitrary<Operation> = fc.oneof(
    fc.record({ op: fc.constant('moveBreaker' as const), circuitId: id, toPosition: space }),
    fc.record({ op: fc.constant('selectCircuit' as const), circuitId: id, picked: fc.boolean() }),
    fc.record({ op: fc.constant('removeCircuit' as const), circuitId: id }),
    fc.record({
      op: fc.constant('editCircuit' as const),
      circuitId: id,
      facts: fc.oneof(
        fc.record({ poles: fc.constantFrom(1 as const, 2 as const) }),
        fc.record({ neutral: fc.record({ kind: fc.constant('shared' as const), with: id }) }),
      ),
    }),
    fc.record({
      op: fc.constant('addCircuit' as const),
      circuit: fc
        .tuple(fc.constantFrom('n4', 'n5'), space, fc.constantFrom(1 as const, 2 as const))
        .map(([cid, position, poles]) => circuit(position, { id: cid, poles })),
    }),
    fc.record({
      op: fc.constant('setPanel' as const),
      facts: fc.record({ spaces: fc.constantFrom(8, 10, 12) }),
    }),
  )
  fc.assert(
    fc.property(fc.array(operation, { maxLength: 25 }), operations => {
      let now = job([circuit(1), circuit(2, { poles: 2 }), circuit(3)])
      for (const op of operations) {
        const outcome = applyOperation(now, op)
        if (outcome.ok) now = outcome.value
      }
      expect(jobSchema.safeParse(now).success).toBe(true)
      const spaces = now.panel.circuits.flatMap(spacesOf)
      expect(occupancy(now.panel.circuits).size).toBe(spaces.length)
    }),
    { numRuns: 150 },
  )
})
