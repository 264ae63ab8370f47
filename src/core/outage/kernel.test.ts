import fc from 'fast-check'
import { evaluate } from '../assess/evaluate'
import { freshet18 } from '../equipment/fixtures/parts'
import { circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import type { Load } from '../loads/load'
import { refillWorked } from '../source/inputs'
import { deskFor, runDraws, simulate } from './chance'
import { type Plan, planOf } from './plan'
import { type CourseTrace, traceOf } from './trace'

/** The kernel against closed form, and what must hold of any course. */

const outage = (facts: Partial<Job['outage']> = {}): Job['outage'] => ({
  hours: 24,
  startFraction: 1,
  reserveFraction: 0,
  deratingFraction: 1,
  ...facts,
})
const planned = (of: Job, change: (plan: Plan) => Plan = p => p): Plan => {
  const plan = planOf(of)
  if (!plan.ok) throw new Error(plan.faults.map(f => `${f.path} ${f.message}`).join('; '))
  return change(plan.value)
}
const meanOf = (plan: Plan): CourseTrace => traceOf(plan, deskFor(plan), 1)

describe('the mean course', () => {
  const steady = (W: number, facts: Partial<Job['outage']> = {}) =>
    job([circuit(1, { tier: 1, loads: [load(W)] })], { outage: outage(facts) })

  test('lasts as long as `runtime` says, to within a step, whatever load, reserve and cold', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 900 }),
        fc.integer({ min: 0, max: 50 }),
        fc.integer({ min: 60, max: 100 }),
        (W, reserve, derating) => {
          const of = steady(W, {
            reserveFraction: reserve / 100,
            deratingFraction: derating / 100,
            hours: 200,
          })
          const closed = evaluate(of).headline.hoursHad ?? 0
          expect(Math.abs(meanOf(planned(of)).outcome.emptyH - closed)).toBeLessThan(1 / 60)
        },
      ),
      { numRuns: 20 },
    )
  })

  test('follows the inverter’s curve between its best and its full load', () => {
    const bent = station({ efficiencyFraction: 0.9, fullLoadEfficiencyFraction: 0.8, energyWh: 4000 })
    for (const W of [100, 900, 2000]) {
      const of = job([circuit(1, { tier: 1, loads: [load(W)] })], {
        source: { station: bent },
        outage: outage({ hours: 100 }),
      })
      // 2,000 W at full load: W ÷ 0.8 in all; below it the bend falls with the square
      const batteryW = 10 + W / 0.9 + (W / 2000) ** 2 * (2000 / 0.8 - 2000 / 0.9)
      expect(meanOf(planned(of)).outcome.emptyH).toBeCloseTo(4000 / batteryW, 9)
    }
  })

  test('drains two batteries apart as `two-batteries` says, and leaves the same stranded', () => {
    const unit = (id: string) => ({ id, equipment: station(), expansionUnits: 0, owned: false })
    const of = job(
      [
        circuit(1, { tier: 1, loads: [load(260)] }),
        circuit(3, { tier: 1, loads: [load(90, { id: 'other' })] }),
      ],
      {
        hookup: { method: 'interlocked-inlet', bondingPlug: false },
        source: { units: [unit('u1'), unit('u2')], arrangement: 'independent' },
        outage: outage({ hours: 12 }),
      },
    )
    const trace = meanOf(planned(of))
    const closed = evaluate(of).headline.hoursHad ?? 0
    expect(Math.abs(trace.outcome.emptyH - closed)).toBeLessThan(1 / 60)
    expect(trace.outcome.emptyStore).toBe(0)
  })

  test('is filled by a generator that carries the house as `refill` says', () => {
    const of: Job = {
      ...steady(200, { startFraction: 0.5, reserveFraction: 0.49, hours: 12 }),
      source: {
        ...(steady(200).source as NonNullable<Job['source']>),
        units: [{ id: 'u1', equipment: station({ acInputW: 900 }), expansionUnits: 0, owned: false }],
        generator: { equipment: freshet18, gallons: 20, where: 'outdoors', owned: false, startAtFraction: 1 },
      },
    }
    const closed = refillWorked({ ...of, outage: { ...of.outage, reserveFraction: 0.5 } }, 200)
    const plan = planned(of, p => ({
      ...p,
      stores: p.stores.map(s => ({ ...s, taperFromFraction: 1 })),
      generator: p.generator && { ...p.generator, stopAtFraction: 1 },
    }))
    const trace = meanOf(plan)
    const off = trace.marks.find(m => m.kind === 'generator off')
    expect(Math.abs((off?.hour ?? 0) - (closed?.result.hours ?? -1))).toBeLessThanOrEqual(1.01 / 60)
    expect(trace.marks.find(m => m.kind === 'full')).toBeDefined()
  })

  test('carries nothing where the loads are above the source even on average, and says why', () => {
    const trace = meanOf(planned(steady(5000)))
    expect(trace.outcome.cause[0]).toBe('cannot carry')
    expect(trace.outcome.firstDarkH[0]).toBe(0)
    expect(trace.account.loadsWh).toBe(0)
  })
})

/** Any load an installer could enter. */
const anyLoad = fc.record({
  W: fc.integer({ min: 5, max: 1800 }),
  duty: fc.integer({ min: 0, max: 100 }),
  idle: fc.integer({ min: 0, max: 8 }),
  tier: fc.constantFrom(1 as const, 2 as const, 3 as const),
  byHand: fc.boolean(),
  motor: fc.boolean(),
  kind: fc.constantFrom('cycling', 'event', 'scheduled', 'none'),
})
const anyDesign = fc.record({
  loads: fc.array(anyLoad, { minLength: 1, maxLength: 6 }),
  apart: fc.boolean(),
  policy: fc.constantFrom('none', 'by tier', 'by schedule', 'by hand'),
  generator: fc.boolean(),
  sun: fc.boolean(),
  reserve: fc.integer({ min: 0, max: 40 }),
  bent: fc.boolean(),
  blind: fc.boolean(),
  breaker: fc.boolean(),
  /** what charging takes, W: below the sun, or above it */
  acceptsW: fc.constantFrom(60, 940),
  seed: fc.integer(),
})

const example: typeof anyDesign extends fc.Arbitrary<infer T> ? T : never = {
  loads: [{ W: 21, duty: 10, idle: 3, tier: 1, byHand: false, motor: false, kind: 'scheduled' }],
  apart: false,
  policy: 'none',
  generator: false,
  sun: true,
  reserve: 0,
  bent: false,
  blind: false,
  breaker: false,
  acceptsW: 940,
  seed: 1,
}

const moduleOf = {
  kind: 'solar-module' as const,
  id: 'm',
  name: 'Module',
  version: 1,
  stcW: 200,
  vocV: 24,
  vmpV: 20,
  iscA: 10,
  vocPctPerC: -0.3,
  folding: false,
}

function designed(d: typeof anyDesign extends fc.Arbitrary<infer T> ? T : never): Job {
  const patternOf = (kind: string): Load['pattern'] =>
    kind === 'cycling'
      ? { kind: 'cycling', cycleMinutes: 20 }
      : kind === 'event'
        ? { kind: 'event', timesPerDay: 4, minutes: 10 }
        : kind === 'scheduled'
          ? { kind: 'scheduled', days: 'every day', spans: [{ fromH: 18, toH: 23 }] }
          : undefined
  const circuits = d.loads.map((l, n) => {
    const pattern = patternOf(l.kind)
    return circuit(n + 1, {
      tier: l.tier,
      loads: [
        load(l.W, {
          id: `l${n}`,
          dutyFraction: { value: l.duty / 100, from: 'assumed' },
          idleW: { value: l.idle, from: 'metered' },
          byHand: l.byHand,
          nature: l.motor ? 'motor' : 'plain',
          ...(pattern && { pattern }),
        }),
      ],
    })
  })
  const unit = (id: string) => ({
    id,
    equipment: station({
      acInputW: 600,
      solar: { count: 1, minV: 10, maxV: 60, maxW: 400 },
      ...(d.bent && { fullLoadEfficiencyFraction: 0.82 }),
    }),
    expansionUnits: 0,
    owned: false,
  })
  return job(circuits, {
    hookup: {
      method: 'interlocked-inlet',
      bondingPlug: false,
      // a small one, that warms and opens by its curve
      ...(d.breaker && { path: [{ id: 'b', kind: 'breaker' as const, ratingA: 10 }] }),
    },
    source: {
      units: d.apart ? [unit('u1'), unit('u2')] : [unit('u1')],
      arrangement: d.apart ? 'independent' : 'tied',
      ...(d.generator && {
        generator: { equipment: freshet18, gallons: 0.4, where: 'outdoors' as const, owned: false },
      }),
      ...(d.sun && {
        arrays: [{ id: 'a', unitId: 'u1', module: moduleOf, series: 1, parallel: 2, owned: false }],
      }),
    },
    outage: outage({
      hours: 30,
      reserveFraction: d.reserve / 100,
      beginsH: 16.5,
      season: 'summer',
      shedding: { policy: d.policy as 'none' },
    }),
  })
}

describe('of any course', () => {
  test('energy is conserved to 1e-9 of what went through, and every circuit’s watt-hours are the loads’', () => {
    fc.assert(
      fc.property(anyDesign, d => {
        const plan = planned(designed(d))
        const desk = deskFor(plan)
        for (const draw of [-1, 0, 1]) {
          const { account, points } = traceOf(plan, desk, d.seed, draw)
          expect(account.residualFraction).toBeLessThan(1e-9)
          const byCircuit = account.byCircuitWh.reduce((a, b) => a + b, 0)
          expect(Math.abs(byCircuit - account.loadsWh)).toBeLessThanOrEqual(
            1e-9 * Math.max(1, account.loadsWh) + 1e-7,
          )
          expect(points.levelWh.every(Number.isFinite)).toBe(true)
          const tiersWh = points.tierW
            .flatMap(W =>
              [...W].map((w, p) => w * ((points.hour[p + 1] ?? plan.hours) - (points.hour[p] ?? 0))),
            )
            .reduce((a, b) => a + b, 0)
          expect(Math.abs(tiersWh - account.loadsWh)).toBeLessThanOrEqual(1e-6 * Math.max(1, account.loadsWh))
        }
      }),
      { numRuns: 25 },
    )
  })

  test('the quick way through quiet steps comes to the same as every step in full', () => {
    fc.assert(
      fc.property(anyDesign, d => {
        // where overloads are looked at, and where they are not
        const whole = planned(designed(d))
        const stores = whole.stores.map(s => ({ ...s, acceptsW: Math.min(s.acceptsW, d.acceptsW) }))
        const plan = { ...whole, stores, ...(d.blind && { mayTrip: false }) }
        const desk = deskFor(plan)
        const quick = runDraws(plan, d.seed, 0, 3, desk)
        for (const draw of [0, 1, 2]) {
          const { outcome, account } = traceOf(plan, desk, d.seed, draw)
          expect(quick.endWh[draw]).toBeCloseTo(outcome.endWh, 6)
          expect(quick.trips[draw]).toBe(outcome.trips.length)
          expect(quick.sunWh[draw]).toBeCloseTo(account.sunWh, 6)
          expect(quick.gallons[draw]).toBeCloseTo(outcome.gallons, 6)
          expect(quick.generatorH[draw]).toBeCloseTo(outcome.generatorH, 6)
          expect(quick.residual[draw]).toBeLessThan(1e-9)
          outcome.firstDarkH.forEach((h, t) => {
            const quickH = quick.firstDarkH[3 * draw + t] ?? 0
            expect(quickH === h || Math.abs(quickH - h) < 1e-9).toBe(true)
          })
          const emptyH = quick.emptyH[draw] ?? 0
          expect(emptyH === outcome.emptyH || Math.abs(emptyH - outcome.emptyH) < 1e-9).toBe(true)
        }
      }),
      {
        numRuns: 20,
        examples: [
          // the sun lifts the level over the generator's start in the step that starts it
          [
            {
              ...example,
              loads: [
                { W: 915, duty: 89, idle: 8, tier: 1, byHand: true, motor: false, kind: 'none' },
                { W: 364, duty: 42, idle: 0, tier: 1, byHand: false, motor: false, kind: 'cycling' },
              ],
              generator: true,
              bent: true,
              breaker: true,
              seed: -967844086,
            },
          ],
          // it brings more than the battery accepts
          [{ ...example, apart: true, acceptsW: 60, seed: -422192538 }],
        ],
      },
    )
  })

  test('a store that cannot carry its loads is cut off at that moment, sun or not', () => {
    fc.assert(
      fc.property(anyDesign, d => {
        const plan = { ...planned(designed({ ...d, policy: 'none', generator: false })), mayTrip: false }
        for (const draw of [-1, 0, 1]) {
          const { outcome } = traceOf(plan, deskFor(plan), d.seed, draw)
          const darkH = Math.min(...outcome.firstDarkH)
          if (outcome.cause.includes('store empty') && plan.storeFeeds.every(Boolean))
            expect(outcome.emptyH).toBeCloseTo(darkH, 9)
        }
      }),
      { numRuns: 25 },
    )
  })

  test('no level leaves the store, and a store that is cut off is back only above its reserve', () => {
    fc.assert(
      fc.property(anyDesign, d => {
        const plan = planned(designed(d))
        const { points, capacityWh, reserveWh, marks } = traceOf(plan, deskFor(plan), d.seed, 0)
        for (const Wh of points.levelWh) {
          expect(Wh).toBeGreaterThanOrEqual(reserveWh - 1e-6)
          expect(Wh).toBeLessThanOrEqual(capacityWh + 1e-6)
        }
        let on = true
        for (const { kind } of marks.filter(m => m.about <= 0 && m.kind.startsWith('store'))) {
          if (d.apart) break
          expect(kind === 'store back').toBe(!on)
          on = !on
        }
      }),
      { numRuns: 20 },
    )
  })
})

describe('overloads', () => {
  const kitchen = (heed: number): Job =>
    job(
      [
        circuit(1, {
          tier: 1,
          loads: [
            load(700, {
              id: 'fridge',
              name: 'Refrigerator',
              nature: 'compressor',
              dutyFraction: { value: 0.5, from: 'metered' },
              pattern: { kind: 'cycling', cycleMinutes: 20 },
            }),
          ],
        }),
        circuit(2, {
          loads: [
            load(1500, {
              id: 'microwave',
              name: 'Microwave',
              byHand: true,
              dutyFraction: { value: 0.05, from: 'metered' },
              pattern: { kind: 'event', timesPerDay: 10, minutes: 7 },
            }),
          ],
        }),
        circuit(3, {
          loads: [
            load(1200, {
              id: 'kettle',
              name: 'Kettle',
              byHand: true,
              dutyFraction: { value: 0.05, from: 'metered' },
              pattern: { kind: 'event', timesPerDay: 10, minutes: 7 },
            }),
          ],
        }),
      ],
      {
        source: { station: station({ energyWh: 50_000, surgeW: 9000 }), arrangement: 'tied' },
        outage: outage({ heedFraction: heed }),
      },
    )

  test('the microwave while the refrigerator runs trips the source, and the pair is named', () => {
    const plan = planned(kitchen(1))
    const draws = runDraws(plan, 5, 0, 60)
    const tripped = [...draws.trips].filter(n => n > 0).length
    expect(tripped).toBeGreaterThan(20)
    const pairs = new Set([...draws.trigger].flatMap((t, d) => (t < 0 ? [] : [`${t}+${draws.beside[d]}`])))
    expect([...pairs].filter(p => !p.includes('0'))).toEqual([])
  })

  test('people who mind the card trip it less often', () => {
    const trips = (heed: number) =>
      runDraws(planned(kitchen(heed)), 5, 0, 60).trips.reduce((a, b) => a + b, 0)
    expect(trips(0)).toBeGreaterThan(trips(1))
  })

  test('a start above the surge trips it, and the motor is left off in the end', () => {
    const of = job(
      [
        circuit(1, {
          tier: 1,
          loads: [load(500, { nature: 'motor', dutyFraction: { value: 0.2, from: 'metered' } })],
        }),
      ],
      { source: { station: station({ surgeW: 2100 }) }, outage: outage({ restartMinutes: 10 }) },
    )
    const { outcome, marks } = traceOf(planned(of), deskFor(planned(of)), 3, 0)
    expect(outcome.trips).toHaveLength(2)
    expect(outcome.leftOff).toEqual([0])
    expect(outcome.cause[0]).toBe('trip')
    expect(marks.filter(m => m.kind === 'reset')).toHaveLength(2)
  })
})

describe('a generator', () => {
  const unit = (id: string, facts: Partial<ReturnType<typeof station>> = {}) => ({
    id,
    equipment: station({ acInputW: 2000, ...facts }),
    expansionUnits: 0,
    owned: false,
  })
  const fed = (of: Partial<Job['source']>, L1W: number, L2W: number): Plan =>
    planned(
      job(
        [
          circuit(1, { tier: 1, loads: [load(L1W)] }),
          circuit(3, { tier: 1, loads: [load(L2W, { id: 'other' })] }),
        ],
        {
          hookup: { method: 'interlocked-inlet', bondingPlug: false },
          source: {
            units: [unit('u1'), unit('u2')],
            arrangement: 'independent',
            generator: {
              equipment: freshet18,
              gallons: 20,
              where: 'outdoors',
              owned: false,
              startAtFraction: 0.9,
            },
            ...of,
          },
          outage: outage({ hours: 6, startFraction: 0.95 }),
        },
      ),
    )

  test('gives what a full battery does not take to the other one', () => {
    // 1,000 W on L1 take more than half of the generator’s 1,800 W; L2 takes next to nothing
    const { account, outcome, points } = meanOf(fed({}, 1000, 5))
    expect(outcome.emptyH).toBe(Number.POSITIVE_INFINITY)
    expect(account.generatorChargeWh / outcome.generatorH).toBeGreaterThan(1000)
    expect(points.storesWh[0]?.at(-1)).toBeGreaterThan(1000)
  })

  test('that only charges does not save the source from an overload', () => {
    const draws = runDraws(fed({}, 2600, 5), 1, 0, 3)
    expect([...draws.trips].every(n => n > 0)).toBe(true)
  })

  test('is waited for by a source that stores nothing: dark in quiet hours is no lasting', () => {
    const generator = {
      equipment: freshet18,
      gallons: 20,
      where: 'outdoors' as const,
      owned: false,
      quietFromH: 22,
      quietToH: 6,
    }
    const plan = fed({ units: [unit('u1')], arrangement: 'tied', generator }, 300, 5)
    const dead = { ...plan, beginsH: 18, stores: plan.stores.map(s => ({ ...s, capacityWh: 0, startWh: 0 })) }
    const { chance } = simulate(dead, { exactly: 200 })
    expect(chance.lasts.fraction).toBe(0)
    expect(chance.hours.middle).toBeLessThanOrEqual(4)
    expect(chance.causes[0]?.cause).toBe('store empty')
  })
})

test('a plan that is taken not to trip is not tripped where each step is examined', () => {
  fc.assert(
    fc.property(anyDesign, d => {
      const plan = planned(designed({ ...d, loads: d.loads.map(l => ({ ...l, W: l.W / 4, motor: false })) }))
      fc.pre(!plan.mayTrip)
      expect([...runDraws({ ...plan, mayTrip: true }, d.seed, 0, 5).trips]).toEqual([0, 0, 0, 0, 0])
    }),
    { numRuns: 15 },
  )
})

describe('a split source', () => {
  test('is tripped by one leg alone, which the same watts on two legs do not', () => {
    const on = (positions: number[]) =>
      planned(
        job(
          positions.map((p, n) => circuit(p, { tier: 1, loads: [load(2000, { id: `l${n}` })] })),
          {
            hookup: { method: 'interlocked-inlet', bondingPlug: false },
            source: { station: splitStation({ energyWh: 90_000 }), arrangement: 'split-phase' },
            outage: outage({ hours: 2 }),
          },
        ),
      )
    const trips = (positions: number[]) => runDraws(on(positions), 1, 0, 1).trips[0]
    expect(trips([1, 5])).toBeGreaterThan(0)
    expect(trips([1, 3])).toBe(0)
  })
})
