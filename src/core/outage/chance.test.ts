import fc from 'fast-check'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { chanceOf, type Draws, deskFor, joined, runDraws, simulate } from './chance'
import { type Plan, planOf } from './plan'
import { shareOf } from './share'
import { streamOf } from './stream'
import { traceOf } from './trace'
import { headline, tripSentence } from './words'

/** Chance: the same bits however the draws are shared out, and nothing better comes out worse. */

const planned = (of: Job): Plan => {
  const plan = planOf(of)
  if (!plan.ok) throw new Error(plan.faults.map(f => f.message).join('; '))
  return plan.value
}
const house = (
  facts: { energyWh?: number; outdoorC?: number; hours?: number; energyUnits?: number } = {},
): Job =>
  job(
    [
      circuit(1, {
        tier: 1,
        loads: [
          load(300, {
            id: 'burner',
            name: 'Burner',
            dutyFraction: { value: 0.3, from: 'metered', atC: 0 },
            weather: { mode: 'heating', balanceC: 16 },
            pattern: { kind: 'cycling', cycleMinutes: 20 },
          }),
        ],
      }),
      circuit(2, {
        tier: 3,
        loads: [
          load(1200, {
            id: 'toaster',
            name: 'Toaster',
            byHand: true,
            dutyFraction: { value: 0.02, from: 'assumed' },
            pattern: { kind: 'event', timesPerDay: 6, minutes: 5 },
          }),
        ],
      }),
    ],
    {
      source: { station: station({ energyWh: facts.energyWh ?? 2600 }) },
      outage: {
        hours: facts.hours ?? 24,
        startFraction: 1,
        reserveFraction: 0.1,
        deratingFraction: 1,
        season: 'winter',
        beginsH: 17,
        outdoorC: facts.outdoorC ?? -5,
      },
    },
  )

const bytes = (draws: Draws) =>
  Object.values(draws).map(v => (typeof v === 'number' ? v : Buffer.from(v.buffer).toString('base64')))

describe('draws', () => {
  test('come out bit for bit the same however they are shared among workers', () => {
    const plan = planned(house())
    const whole = runDraws(plan, 11, 0, 60)
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 59 }), { maxLength: 6 }), cuts => {
        const edges = [0, ...cuts.sort((a, b) => a - b), 60]
        const parts = edges.slice(1).map((to, i) => runDraws(plan, 11, edges[i] ?? 0, to - (edges[i] ?? 0)))
        expect(bytes(joined(parts.reverse()))).toEqual(bytes(whole))
      }),
      { numRuns: 10 },
    )
  })

  test('stay as they were for a seed, and differ for another', () => {
    const plan = planned(house())
    const again = (seed: number) => [...runDraws(plan, seed, 0, 20).endWh]
    expect(again(3)).toEqual(again(3))
    expect(again(3)).not.toEqual(again(4))
  })

  test('of one load do not change with what else is picked', () => {
    const stream = (thing: number) => Array.from({ length: 4 }, streamOf(9, 2, thing).uniform)
    expect(stream(77)).toEqual(stream(77))
    expect(stream(77)).not.toEqual(stream(78))
  })

  test('mean what the mean course means: energy of many draws lies at its own', () => {
    const plan = planned(house({ energyWh: 90_000 }))
    const { draws } = simulate(plan, { seed: 2, exactly: 400 })
    const start = plan.stores[0]?.startWh ?? 0
    const mean = traceOf(plan, deskFor(plan), 2)
    // capacity is unsure by itself: compared is what was taken, by the mean of the draws
    const meanEnd = draws.endWh.reduce((a, b) => a + b, 0) / draws.count
    expect(Math.abs(start - meanEnd - (start - mean.outcome.endWh)) / start).toBeLessThan(0.01)
  })

  test('more battery never lasts shorter in the same draws', () => {
    fc.assert(
      fc.property(fc.integer({ min: 500, max: 6000 }), fc.integer({ min: 1, max: 4000 }), (Wh, more) => {
        const some = runDraws(planned(house({ energyWh: Wh })), 1, 0, 8)
        const plenty = runDraws(planned(house({ energyWh: Wh + more })), 1, 0, 8)
        for (let d = 0; d < 8; d++) expect(plenty.emptyH[d]).toBeGreaterThanOrEqual(some.emptyH[d] ?? 0)
      }),
      { numRuns: 20 },
    )
  })

  test('colder never lasts longer where the load heats', () => {
    fc.assert(
      fc.property(fc.integer({ min: -25, max: 10 }), fc.integer({ min: 1, max: 20 }), (C, colder) => {
        const mild = runDraws(planned(house({ outdoorC: C })), 1, 0, 40)
        const hard = runDraws(planned(house({ outdoorC: C - colder })), 1, 0, 40)
        // longer runs of a burner may lie elsewhere in a single draw: all together never later
        const all = (d: Draws) => d.emptyH.reduce((sum, h) => sum + Math.min(24, h), 0)
        expect(all(hard)).toBeLessThanOrEqual(all(mild) + 1e-9)
      }),
      { numRuns: 20 },
    )
  })
})

describe('chance', () => {
  test('knows its own error, and stops when that is small enough', () => {
    expect(shareOf(0, 0)).toEqual({ fraction: 0, low: 0, high: 1, error: 0.5 })
    expect(shareOf(940, 1000).low).toBeGreaterThan(0.92)
    expect(shareOf(1000, 1000).low).toBeLessThan(1)
    const sure = simulate(planned(house({ energyWh: 60_000 })), { seed: 1, most: 2000 }).chance
    expect(sure.draws).toBe(200)
    expect(sure.lasts.fraction).toBe(1)
    const open = simulate(planned(house({ energyWh: 4000 })), { seed: 1, most: 600 }).chance
    expect(open.draws).toBeGreaterThan(200)
  })

  test('stops between batches when it is told to', () => {
    let asked = 0
    const { chance } = simulate(planned(house({ energyWh: 4000 })), { most: 10_000 }, () => ++asked >= 3)
    expect(chance.draws).toBe(300)
  })

  test('bands lie one above the other, and shares are shares', () => {
    const { chance } = simulate(planned(house()), { seed: 4, exactly: 100 })
    const { p5, p25, p50, p75, p95 } = chance.bands
    p5.forEach((low, i) => {
      const row = [low, p25[i] ?? 0, p50[i] ?? 0, p75[i] ?? 0, p95[i] ?? 0]
      expect([...row].sort((a, b) => a - b)).toEqual(row)
    })
    expect(chance.residual).toBeLessThan(1e-9)
    expect(chance.served.map(s => s === null)).toEqual([false, true, false])
  })

  test('a tier that is let go is said to be let go, and the must-run circuit lasts longer for it', () => {
    const shed: Job = {
      ...house({ energyWh: 4000 }),
      outage: { ...house().outage, shedding: { policy: 'by tier', tier3BelowFraction: 0.95 } },
    }
    const with_ = chanceOf(planned(shed), 1, runDraws(planned(shed), 1, 0, 100))
    const without = chanceOf(
      planned(house({ energyWh: 4000 })),
      1,
      runDraws(planned(house({ energyWh: 4000 })), 1, 0, 100),
    )
    expect(with_.served[2]?.fraction).toBe(0)
    expect(with_.lasts.fraction).toBeGreaterThanOrEqual(without.lasts.fraction)
  })
})

describe('in words', () => {
  const said = (of: Job) => {
    const plan = planned(of)
    const { chance } = simulate(plan, { seed: 1, exactly: 200 })
    return { head: headline(plan, chance, traceOf(plan, deskFor(plan), 1)), trip: tripSentence(plan, chance) }
  }
  test('says how likely, what goes first, and why', () => {
    expect(said(house({ energyWh: 90_000 })).head).toBe('Lasts 24 h in all of 200 winters like this.')
    expect(said(house({ energyWh: 1500 })).head).toMatch(
      /^Does not last 24 h in any of 200 winters like this: after .* h in the middle one, every circuit goes at once, because the store is down to its reserve; circuit 1 circuit 1 takes the most/,
    )
  })

  test('a must-run circuit that is not fed comes first, and no draw serves its tier', () => {
    const of = house({ energyWh: 90_000 })
    const plan = planned(of)
    const dark: Plan = {
      ...plan,
      unserved: [
        { name: '7 Furnace', tier: 1 },
        { name: '9 Den', tier: 3 },
      ],
    }
    const { chance } = simulate(dark, { seed: 1, exactly: 200 })
    expect(headline(dark, chance, traceOf(dark, deskFor(dark), 1))).toBe(
      'Circuit 7 Furnace must run and is not fed at all. What is fed lasts 24 h in all of 200 winters like this. Dark too: circuit 9 Den.',
    )
    expect(chance.served[0]?.fraction).toBe(0)
    expect(chance.served[2]?.fraction).toBe(0)
  })

  test('an overload that ends it is named with its minutes, and what the other battery still holds is told', () => {
    const pump = load(500, { nature: 'motor', name: 'Pump', dutyFraction: { value: 0.5, from: 'metered' } })
    const trips = {
      ...house(),
      ...job([circuit(1, { tier: 1, loads: [pump] })], {
        source: { station: station({ surgeW: 2100 }) },
        outage: { ...house().outage, restartMinutes: 720 },
      }),
    }
    expect(said(trips).head).toMatch(
      /^Does not last 24 h in any of 200 winters like this: after \d+ min in the middle one, circuit 1 circuit 1 goes dark, because an overload trips the source, mostly Pump starting by itself\.$/,
    )
    const unit = (id: string) => ({ id, equipment: station(), expansionUnits: 0, owned: false })
    const uneven = job(
      [circuit(1, { tier: 1, loads: [load(300)] }), circuit(3, { tier: 1, loads: [load(60, { id: 'b' })] })],
      {
        hookup: { method: 'interlocked-inlet', bondingPlug: false },
        source: { units: [unit('u1'), unit('u2')], arrangement: 'independent' },
        outage: house().outage,
      },
    )
    expect(said(uneven).head).toMatch(
      /L1’s battery is empty first while L2’s battery still holds 7\d(\.\d)? %/,
    )
  })

  test('a store of nothing, no source, and steps too fine are told, not simulated', () => {
    const { source, ...none } = house()
    expect(planOf(none)).toMatchObject({ ok: false, faults: [{ path: 'source' }] })
    expect(planOf(house({ hours: 720 }), { stepS: 1 })).toMatchObject({
      ok: false,
      faults: [{ path: 'stepS' }],
    })
    const generator = { ...(source as NonNullable<typeof source>) }
    expect(generator.units).toHaveLength(1)
    const [unit] = generator.units
    const empty: Job = {
      ...none,
      source: {
        ...generator,
        units: unit
          ? [{ ...unit, equipment: { ...unit.equipment, energyWh: 0 } as typeof unit.equipment }]
          : [],
      },
    }
    expect(planOf(empty)).toMatchObject({ ok: false, faults: [{ message: expect.stringContaining('0 Wh') }] })
  })
})

test('of none and of all the bound is exact', () => {
  for (const draws of [1, 7, 200, 1000]) {
    expect(shareOf(0, draws).low).toBe(0)
    expect(shareOf(draws, draws).high).toBe(1)
  }
})
