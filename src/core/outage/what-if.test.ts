import { saltmarshWeather, weatherOf } from '@/simulators/weather'
import { packYear } from '../ask/weather-year'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { deskFor } from './chance'
import { planOf } from './plan'
import { planWhatIf } from './plan-what-if'
import { type CourseTrace, traceOf } from './trace'
import { asItIs, isAsItIs, type WhatIf } from './what-if'

/** Every knob moves the mean the way it must, with a weather file and without one, and nothing when it is let go. */

const { latitudeDeg, longitudeDeg, zoneH, name } = saltmarshWeather
const weather = { name, latitudeDeg, longitudeDeg, zoneH, hours: packYear(weatherOf(saltmarshWeather)) }
const house = (outage: Partial<Job['outage']>, energyWh = 40_000): Job =>
  job(
    [
      circuit(1, {
        tier: 1,
        loads: [
          load(400, {
            dutyFraction: { value: 0.3, from: 'metered', atC: 5 },
            weather: { mode: 'heating', balanceC: 18 },
            pattern: { kind: 'cycling', cycleMinutes: 20 },
          }),
        ],
      }),
    ],
    {
      source: {
        units: [
          {
            id: 'u1',
            equipment: station({ energyWh, solar: { count: 1, minV: 10, maxV: 60, maxW: 400 } }),
            expansionUnits: 0,
            owned: false,
          },
        ],
        arrays: [
          {
            id: 'a',
            unitId: 'u1',
            module: {
              kind: 'solar-module',
              id: 'm',
              name: 'Module',
              version: 1,
              stcW: 300,
              vocV: 24,
              vmpV: 20,
              iscA: 10,
              vocPctPerC: -0.3,
              folding: false,
            },
            series: 1,
            parallel: 1,
            owned: false,
          },
        ],
      },
      outage: {
        hours: 48,
        startFraction: 0.9,
        reserveFraction: 0.1,
        deratingFraction: 1,
        season: 'winter',
        beginsH: 6,
        ...outage,
      },
    },
  )
const skies: [string, Partial<Job['outage']>][] = [
  ['a weather file', { weather }],
  ['a weather file and a temperature', { weather, outdoorC: -3 }],
  ['closed form', { outdoorC: -3, latitudeDeg: 40 }],
]
const mean = (of: Job, whatIf: Partial<WhatIf> = {}): CourseTrace => {
  const plan = planWhatIf(of, { ...asItIs, ...whatIf })
  if (!plan.ok) throw new Error(plan.faults.map(f => f.message).join('; '))
  return traceOf(plan.value, deskFor(plan.value), 1)
}

describe.each(skies)('under %s', (_, sky) => {
  const of = house(sky)
  const loadsWh = (whatIf: Partial<WhatIf>) => mean(of, whatIf).account.loadsWh
  const sunWh = (whatIf: Partial<WhatIf>) => {
    const { sunWh: used, sunUnusedWh } = mean(of, whatIf).account
    return used + sunUnusedWh
  }

  test('as it is, the plan is the job’s own', () => {
    expect(planWhatIf(of, asItIs)).toEqual(planOf(of))
    expect(isAsItIs({ ...asItIs, kettle: true })).toBe(false)
  })
  test('colder takes more for heating', () => {
    const at = [-8, -4, 0, 4, 8].map(colderC => loadsWh({ colderC }))
    expect(at).toEqual([...at].sort((a, b) => a - b))
    expect(at[4]).toBeGreaterThan((at[0] ?? 0) * 1.3)
  })
  test('cloudier brings less sun, and clearer more', () => {
    const at = [-0.5, -0.2, 0, 0.2, 0.5].map(cloudierFraction => sunWh({ cloudierFraction }))
    expect(at).toEqual([...at].sort((a, b) => b - a))
    expect(at[4]).toBeLessThan((at[0] ?? 0) * 0.8)
    expect(sunWh({ cloudierFraction: 0.05 })).toBeLessThan(sunWh({}))
  })
  test('one battery more, and less in reserve, last longer; a kettle and a summer show', () => {
    const emptyH = (whatIf: Partial<WhatIf>) => mean(house(sky, 9000), whatIf).outcome.emptyH
    const short = { colderC: 12, cloudierFraction: 0.3 }
    expect(emptyH({ ...short, moreExpansions: 1 })).toBeGreaterThan(emptyH(short))
    expect(emptyH({ ...short, reserveFraction: 0 })).toBeGreaterThan(emptyH(short))
    expect(emptyH({ ...short, reserveFraction: 0.5 })).toBeLessThan(emptyH(short))
    expect(loadsWh({ kettle: true }) - loadsWh({})).toBeCloseTo(2 * 1500 * (4 / 60), 0)
    expect(sunWh({ season: 'summer' })).toBeGreaterThan(sunWh({}) * 1.15)
  })
})

test('the quick mean in steps of five minutes lies within a hundredth of the store of the whole one', () => {
  for (const [, sky] of skies) {
    const plan = planWhatIf(house(sky, 9000), { ...asItIs, colderC: 10 }, 300)
    if (!plan.ok) throw new Error('no plan')
    const quick = traceOf(plan.value, deskFor(plan.value), 1)
    const whole = mean(house(sky, 9000), { colderC: 10 })
    quick.points.levelWh.forEach((Wh, p) => {
      const at = whole.points.hour.indexOf(quick.points.hour[p] ?? -1)
      if (at >= 0) expect(Math.abs((whole.points.levelWh[at] ?? 0) - Wh)).toBeLessThan(90)
    })
  }
})

test('a reserve above the charge, batteries below none and a night of 30° less are answered, not refused', () => {
  const wild = mean(house({ weather }), {
    reserveFraction: 0.9,
    moreExpansions: -20,
    colderC: 30,
    beginsH: 23.99,
  })
  expect(wild.points.levelWh.every(Number.isFinite)).toBe(true)
  expect(wild.account.residualFraction).toBeLessThan(1e-9)
})
