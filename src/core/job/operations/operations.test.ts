import fc from 'fast-check'
import { overlaps } from '../../panel/body'
import { bare } from '../../panel/schema'
import { applied, circuit, job, load, splitStation, station } from '../fixtures/jobs'
import { circuitsOf } from '../panels'
import { type Job, jobSchema } from '../schema'
import { applyOperation, describeOperation, type Operation } from '.'

const faultsOf = (start: Job, operation: Operation) => {
  const outcome = applyOperation(start, operation)
  return outcome.ok ? [] : outcome.faults.map(f => `${f.path} ${f.message}`)
}

describe('moving breakers', () => {
  const start = job([circuit(1), circuit(2, { poles: 2 }), circuit(3, { picked: false })])

  test('to a free space, or trading places with one of the same poles', () => {
    const moved = applied(start, { op: 'moveBreaker', circuitId: 'c1', toPosition: 12 })
    expect(circuitsOf(moved).map(c => c.position)).toEqual([2, 3, 12])
    const traded = applied(start, { op: 'moveBreaker', circuitId: 'c1', toPosition: 3 })
    expect(circuitsOf(traded).map(c => [c.id, c.position])).toEqual([
      ['c3', 1],
      ['c2', 2],
      ['c1', 3],
    ])
  })

  test('is refused in words where a two-pole stands, half of one does, or the panel ends', () => {
    expect(faultsOf(start, { op: 'moveBreaker', circuitId: 'c1', toPosition: 4 })[0]).toMatch(
      /circuit 2 is in the way/,
    )
    expect(faultsOf(start, { op: 'moveBreaker', circuitId: 'c2', toPosition: 12 })[0]).toMatch(/no space 14/)
  })
})

test('a shared neutral always names both ways, and re-pairing frees the earlier partner', () => {
  const start = job([circuit(1), circuit(3), circuit(5)])
  const paired = applied(start, {
    op: 'editCircuit',
    circuitId: 'c1',
    facts: { neutral: { kind: 'shared', with: 'c3' } },
  })
  expect(circuitsOf(paired).map(c => c.neutral)).toEqual([
    { kind: 'shared', with: 'c3' },
    { kind: 'shared', with: 'c1' },
    { kind: 'own' },
  ])
  const again = applied(paired, {
    op: 'editCircuit',
    circuitId: 'c5',
    facts: { neutral: { kind: 'shared', with: 'c3' } },
  })
  expect(circuitsOf(again).map(c => c.neutral.kind)).toEqual(['own', 'shared', 'shared'])
  const removed = applied(again, { op: 'removeCircuit', circuitId: 'c3' })
  expect(circuitsOf(removed).map(c => c.neutral.kind)).toEqual(['own', 'own'])
})

test('choosing a station keeps what it can: units up to its most, an arrangement it can make', () => {
  const start = job([], {
    source: { station: splitStation(), expansionUnits: 2, arrangement: 'split-phase' },
  })
  const next = applied(start, {
    op: 'chooseUnit',
    equipment: station({ expansion: { most: 1, energyWh: 500 } }),
  })
  expect(next.source).toMatchObject({ units: [{ expansionUnits: 1 }], arrangement: 'tied' })
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
    /no longer hold/,
  )
  expect(faultsOf(job([circuit(11)]), { op: 'setPanel', facts: { spaces: 8 } })[0]).toMatch(
    /needs space 11 for circuit 11, but the panel has 8/,
  )
  expect(start).toEqual(copy)
})

test('an emoji counts as one character; a lone half of one and control characters are refused', () => {
  const start = job([circuit(1)])
  const named = (label: string) => faultsOf(start, { op: 'editCircuit', circuitId: 'c1', facts: { label } })
  expect(named('👩‍🏭'.repeat(80))).toEqual([])
  expect(named('\ud83d')[0]).toMatch(/half of a character/)
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
      op: fc.constant('tieBreakers' as const),
      circuitId: id,
      tie: fc.option(
        fc.record({ with: id, kind: fc.constantFrom('handle' as const, 'common trip' as const) }),
      ),
    }),
    fc.record({
      op: fc.constant('moveBreaker' as const),
      circuitId: id,
      toPosition: space,
      toPanelId: fc.constantFrom('main', 'sub'),
    }),
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
        .tuple(
          fc.constantFrom('n4', 'n5'),
          space,
          fc.constantFrom(1 as const, 2 as const),
          fc.constantFrom(undefined, 'a' as const, 'b' as const),
        )
        .map(([cid, position, poles, half]) => circuit(position, { id: cid, poles, half })),
    }),
    fc.record({
      op: fc.constant('setPanel' as const),
      facts: fc.record({ spaces: fc.constantFrom(8, 10, 12) }),
    }),
  )
  fc.assert(
    fc.property(fc.array(operation, { maxLength: 25 }), operations => {
      let now = applied(job([circuit(1), circuit(2, { poles: 2 }), circuit(3)]), {
        op: 'addPanel',
        panel: {
          ...bare('sub', 'Sub-panel', 6),
          mark: 'S',
          supply: 'fed from another panel',
          feederId: 'c2',
        },
      })
      for (const op of operations) {
        const outcome = applyOperation(now, op)
        if (outcome.ok) now = outcome.value
      }
      expect(jobSchema.safeParse(now).success).toBe(true)
      for (const panel of now.panels) expect(overlaps(panel.circuits)).toBe(false)
    }),
    { numRuns: 150 },
  )
})

describe('what comes out in one piece moves in one piece', () => {
  const places = (j: Job) => circuitsOf(j).map(c => `${c.id}@${c.position}${c.half ?? ''}`)
  const move = (circuitId: string, toPosition: number, toPanelId?: string): Operation => ({
    op: 'moveBreaker',
    circuitId,
    toPosition,
    ...(toPanelId && { toPanelId }),
  })

  test('both halves of a tandem; a tied pair; a quad with everything in it', () => {
    const tandem = job([
      circuit(1, { id: 'up', half: 'a' }),
      circuit(1, { id: 'down', half: 'b' }),
      circuit(4),
    ])
    expect(places(applied(tandem, move('down', 4)))).toEqual(['c4@1', 'up@4a', 'down@4b'])
    const tied = applied(job([circuit(1), circuit(3), circuit(2), circuit(4)]), {
      op: 'tieBreakers',
      circuitId: 'c1',
      tie: { with: 'c3', kind: 'common trip' },
    })
    expect(places(applied(tied, move('c1', 2)))).toEqual(['c2@1', 'c1@2', 'c4@3', 'c3@4'])
    expect(places(applied(tied, move('c1', 3)))).toEqual(['c3@1', 'c2@2', 'c1@3', 'c4@4'])
    expect(faultsOf(tied, move('c3', 4))[0]).toBeUndefined()
    const quad = job([
      circuit(1, { id: 'outer', poles: 2, half: 'a' }),
      circuit(1, { id: 'inner', poles: 2, half: 'b' }),
    ])
    expect(places(applied(quad, move('inner', 6)))).toEqual(['outer@6a', 'inner@6b'])
  })

  test('to another panel with everything that must follow, and never apart from a shared neutral', () => {
    const sub = { ...bare('sub', 'Sub-panel', 8), mark: 'S', supply: 'fed from another panel' as const }
    const pair = applied(
      job([
        circuit(1, { poles: 2 }),
        circuit(2, { neutral: { kind: 'shared', with: 'c4' } }),
        circuit(4, { neutral: { kind: 'shared', with: 'c2' } }),
      ]),
      { op: 'addPanel', panel: { ...sub, feederId: 'c1' } },
    )
    expect(faultsOf(pair, move('c2', 1, 'sub'))[0]).toMatch(
      /cannot part circuit 2 from the circuit that shares its neutral/,
    )
    expect(faultsOf(pair, move('c1', 1, 'sub'))[0]).toMatch(/the breaker that feeds this very panel/)
    const tied = applied(pair, { op: 'tieBreakers', circuitId: 'c2', tie: { with: 'c4', kind: 'handle' } })
    const after = applied(tied, move('c2', 1, 'sub'))
    expect(after.panels.map(p => p.circuits.map(c => `${c.id}@${c.position}`))).toEqual([
      ['c1@1'],
      ['c2@1', 'c4@3'],
    ])
    // the feeder goes: the panel stays, fed from somewhere unknown
    expect(applied(after, { op: 'removeCircuit', circuitId: 'c1' }).panels[1]?.feederId).toBeUndefined()
  })
})

test('what no panel can be is refused at the key that causes it', () => {
  const start = job([circuit(1, { poles: 2 }), circuit(2)])
  const sub = { ...bare('sub', 'Sub-panel', 8), mark: 'S', supply: 'fed from another panel' as const }
  const two = applied(start, { op: 'addPanel', panel: { ...sub, feederId: 'c1' } })
  expect(faultsOf(start, { op: 'addPanel', panel: { ...sub, mark: '' } })[0]).toMatch(/mark must differ/)
  expect(faultsOf(start, { op: 'addPanel', panel: { ...sub, feederId: 'c2' } })[0]).toMatch(
    /must name a two-pole/,
  )
  expect(faultsOf(two, { op: 'setPanel', panelId: 'sub', facts: { supply: 'service' } })[0]).toMatch(
    /feederId must be left out of a service panel/,
  )
  const back = applied(two, { op: 'addCircuit', panelId: 'sub', circuit: circuit(1, { id: 's1', poles: 2 }) })
  expect(
    faultsOf(back, { op: 'setPanel', facts: { supply: 'fed from another panel', feederId: 's1' } })[0],
  ).toMatch(/feed each other in a circle/)
  expect(faultsOf(start, { op: 'setPanel', facts: { busLegs: ['L1', 'L1'] } })[0]).toMatch(
    /each of the 6 rows/,
  )
  expect(
    faultsOf(start, { op: 'setPanel', facts: { busLegs: ['L1', 'L1', 'L2', 'L2', 'L1', 'L2'] } })[0],
  ).toMatch(/both poles on L1/)
  expect(faultsOf(start, { op: 'setPanel', facts: { unusable: [3] } })[0]).toMatch(/marked as unusable/)
  expect(faultsOf(start, { op: 'setPanel', facts: { tandemSpaces: [14] } })[0]).toMatch(
    /tandemSpaces names space 14, but the panel has 12/,
  )
  expect(
    faultsOf(two, {
      op: 'addCircuit',
      panelId: 'sub',
      circuit: circuit(2, { id: 'x', neutral: { kind: 'shared', with: 'c2' } }),
    })[0],
  ).toMatch(/never shared across panels/)
  expect(faultsOf(start, { op: 'addCircuit', circuit: circuit(3, { id: 'h', half: 'b' }) })[0]).toMatch(
    /needs space 3, which circuit 1 takes/,
  )
})

test('a nameplate sets a load: watts as printed, amps × volts, horsepower; a metered figure stays', () => {
  const take = (plate: object, j = job([circuit(1, { poles: 2 })]), loadId: string | null = null) =>
    circuitsOf(
      applied(j, {
        op: 'takePlate',
        circuitId: 'c1',
        loadId,
        newLoadId: 'new',
        name: 'Well pump',
        plate,
        on: '2026-03-01',
      }),
    )[0]?.loads[0]
  expect(take({ watts: 900, amps: 4 })?.runningW).toMatchObject({
    value: 900,
    from: 'nameplate',
    on: '2026-03-01',
    document: '4 A, 900 W',
  })
  expect(take({ amps: 5 })?.runningW.value).toBe(240 * 5)
  expect(take({ volts: 230, amps: 5, lockedRotorA: 40 })).toMatchObject({
    runningW: { value: 230 * 5 * 0.8 },
    nature: 'motor',
    start: { method: 'locked-rotor', lockedRotorA: { value: 40 } },
  })
  expect(take({ horsepower: 0.5 })?.runningW.value).toBeCloseTo((0.5 * 746) / 0.65, 9)
  const metered = job([circuit(1, { loads: [load(700)] })])
  expect(take({ watts: 900, lockedRotorA: 30 }, metered, 'load')).toMatchObject({
    runningW: { value: 700, from: 'metered' },
    start: { lockedRotorA: { value: 30 } },
  })
})
