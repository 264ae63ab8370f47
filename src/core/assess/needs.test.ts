import fc from 'fast-check'
import { circuit, job, load, splitStation } from '../job/fixtures/jobs'
import type { Circuit } from '../panel/schema'
import {
  circuitNeeds,
  coincidence,
  coincidenceWorking,
  conditionsText,
  feedUnder,
  loadsOf,
  meanLoad,
  positionsOf,
  startNeeds,
  supplyOf,
} from './needs'

const served = (circuits: Circuit[], facts = {}) => loadsOf(circuitNeeds(job(circuits, facts)))
const byHand = (W: number, id = `hand${W}`) => load(W, { id, byHand: true })
const motor = (W: number, lockedRotorA: number, facts = {}) =>
  load(W, {
    id: `m${W}`,
    nature: 'motor',
    start: { method: 'locked-rotor', lockedRotorA: { value: lockedRotorA, from: 'nameplate' } },
    ...facts,
  })

test.each([
  [null, 'L1', 'no-source'],
  [{ arrangement: 'tied', liveLeg: 'L1' }, 'L2', 'live'],
  [{ arrangement: 'tied', liveLeg: 'L1' }, 'both', 'no-240'],
  [{ arrangement: 'one-leg', liveLeg: 'L1' }, 'L1', 'live'],
  [{ arrangement: 'one-leg', liveLeg: 'L1' }, 'L2', 'dead'],
  [{ arrangement: 'one-leg', liveLeg: 'L2' }, 'both', 'bridge'],
  [{ arrangement: 'split-phase', liveLeg: 'L1' }, 'both', 'live'],
  [{ arrangement: 'independent', liveLeg: 'L1' }, 'both', 'no-phase'],
  [{ arrangement: 'independent', liveLeg: 'L1' }, 'L2', 'live'],
] as const)('under %j a breaker on %s sees: %s', (supply, leg, feed) => {
  expect(feedUnder(supply, leg)).toBe(feed)
})

test('an appliance plugged into the unit has no part in the legs of the panel', () => {
  const plugged = job([circuit(3)], {
    source: { arrangement: 'one-leg' },
    hookup: { method: 'cord-and-plug', bondingPlug: false },
  })
  expect(supplyOf(plugged)).toMatchObject({ throughPanel: false, arrangement: 'tied' })
  expect(circuitNeeds(plugged)[0]?.feed).toBe('live')
})

test('by cords what is wired in is not reached', () => {
  const loads = [load(100, { id: 'a', connection: 'hard-wired' }), load(50, { id: 'b', connection: 'plug' })]
  const ids = (method: 'extension-cords' | 'multi-circuit-switch') =>
    served([circuit(1, { loads })], { hookup: { method, bondingPlug: false } }).map(l => l.load.id)
  expect(ids('extension-cords')).toEqual(['b'])
  expect(ids('multi-circuit-switch')).toEqual(['a', 'b'])
})

describe('what runs together', () => {
  const circuits = [
    circuit(1, { loads: [load(300), byHand(1000)] }),
    circuit(3, { loads: [byHand(1200)] }),
    circuit(2, { poles: 2, loads: [load(2000, { id: 'pump' })] }),
  ]
  const split = { source: { station: splitStation(), arrangement: 'split-phase' } }

  test('by hand: all that comes on by itself and the largest switched by hand', () => {
    const both = coincidence(served(circuits, split), 'both')
    expect(both).toMatchObject({
      W: 300 + 2000 + 1200,
      everythingVA: 4500,
      byHand: { load: { id: 'hand1200' } },
    })
    // half of the 240 V load on each leg
    expect(coincidence(served(circuits, split), 'L1')).toMatchObject({ VA: 300 + 1000 + 1000 })
    expect(coincidence(served(circuits, split), 'L2')).toMatchObject({ VA: 1000 + 1200 })
  })

  test('volt-amps follow the power factor, watts do not', () => {
    const half = load(500, { powerFactor: { value: 0.5, from: 'metered' } })
    expect(coincidence(served([circuit(1, { loads: [half] })]), 'both')).toMatchObject({ W: 500, VA: 1000 })
  })

  test('its working adds up to it, names who is switched by hand and halves on each leg', () => {
    const loads = served(circuits, split)
    const told = coincidenceWorking('Together', loads, 'L2')
    const sum = told.inputs.reduce((all, i) => all + Number(i.value), 0)
    expect(sum).toBe(coincidence(loads, 'L2').VA)
    expect(told.inputs.map(i => i.label).join(' | ')).toMatch(/half on each leg.*|.*\(by hand\)/)
    expect(told.steps[0]?.value).toBe(sum)
  })

  test('property: legs add to the whole but for the one by hand, and more loads never need less', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            W: fc.integer({ min: 1, max: 3000 }),
            hand: fc.boolean(),
            at: fc.integer({ min: 1, max: 8 }),
          }),
          {
            minLength: 1,
            maxLength: 8,
          },
        ),
        rows => {
          const of = (some: typeof rows) =>
            served(
              [...new Set(some.map(r => r.at))].map(at =>
                circuit(at, {
                  loads: some.flatMap((r, i) =>
                    r.at === at ? [load(r.W, { id: `l${i}`, byHand: r.hand })] : [],
                  ),
                }),
              ),
              split,
            )
          const all = of(rows)
          const [whole, l1, l2] = (['both', 'L1', 'L2'] as const).map(leg => coincidence(all, leg).VA)
          expect(whole).toBeLessThanOrEqual((l1 ?? 0) + (l2 ?? 0) + 1e-9)
          expect(Math.max(l1 ?? 0, l2 ?? 0)).toBeLessThanOrEqual((whole ?? 0) + 1e-9)
          expect(coincidence(of(rows.slice(1)), 'both').VA).toBeLessThanOrEqual((whole ?? 0) + 1e-9)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('starts', () => {
  const surge = { totalVA: 10_000, legVA: 5000 }

  test('on top of what runs, without the motor’s own running; the worst by its share stands first', () => {
    const loads = served([circuit(1, { loads: [load(300), motor(500, 20), motor(200, 5)] })])
    const [first, second] = startNeeds(loads, false, surge)
    expect(first).toMatchObject({
      load: { load: { id: 'm500' } },
      startVA: 2400,
      runningVA: 500,
      needVA: 2900,
    })
    expect(second).toMatchObject({ load: { load: { id: 'm200' } }, needVA: 300 + 500 + 600 })
  })

  test('under split phase a 240 V motor is judged on the whole and on each leg, where half of it starts', () => {
    const loads = served(
      [circuit(2, { poles: 2, loads: [motor(1000, 25)] }), circuit(1, { loads: [load(2200)] })],
      { source: { station: splitStation(), arrangement: 'split-phase' } },
    )
    // 25 A × 240 V = 6,000 VA; half on L1 beside 2,200: 5,200 of 5,000, against 8,200 of 10,000 on the whole
    expect(startNeeds(loads, true, surge)[0]).toMatchObject({ scope: 'L1', needVA: 5200, haveVA: 5000 })
  })

  test('two motors switched by hand are not started beside each other', () => {
    const loads = served([
      circuit(1, { loads: [motor(500, 20, { byHand: true }), motor(800, 30, { byHand: true })] }),
    ])
    expect(startNeeds(loads, false, surge).map(s => s.runningVA)).toEqual([0, 0])
  })

  test('what is no motor has no start', () => {
    expect(startNeeds(served([circuit(1, { loads: [load(3000)] })]), false, surge)).toEqual([])
  })
})

test('the average by hand: share of time × running + the rest × idle; its working names each part', () => {
  const loads = served([
    circuit(1, {
      loads: [
        load(100, {
          id: 'a',
          dutyFraction: { value: 0.25, from: 'metered' },
          idleW: { value: 8, from: 'metered' },
        }),
        load(40, { id: 'b' }),
      ],
    }),
  ])
  const { W, working } = meanLoad(loads, {})
  expect(W).toBeCloseTo(0.25 * 100 + 0.75 * 8 + 40, 9)
  expect(working.inputs.reduce((sum, i) => sum + Number(i.value), 0)).toBeCloseTo(W, 9)
})

test('conditions are told only as far as they are known', () => {
  expect(conditionsText({})).toBe('')
  expect(conditionsText({ season: 'winter', beginsH: 17.5 })).toMatch(
    /^winter, a beginning at 5:30 ?pm$|17:30/i,
  )
})

test('positions are those of the switch while it has any set; other ways have none', () => {
  const set = [{ position: 1, circuitId: 'c1', pinned: false }]
  const at = (method: 'multi-circuit-switch' | 'interlocked-inlet', positions = set) =>
    positionsOf(job([circuit(1)], { hookup: { method, bondingPlug: false, positions } }))
  expect(at('multi-circuit-switch')).toEqual(set)
  expect(at('multi-circuit-switch', [])).toBeNull()
  expect(at('interlocked-inlet')).toBeNull()
})
