import { evaluate } from '../assess/evaluate'
import { freshet18 } from '../equipment/fixtures/parts'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { deskFor } from './chance'
import { onAverage } from './on-average'
import { planOf } from './plan'
import { traceOf } from './trace'

/** What the balance says with sun and generator, against the mean course in full. */

const house = (facts: Partial<NonNullable<Job['source']>>, outage: Partial<Job['outage']> = {}): Job => {
  const base = job([circuit(1, { tier: 1, loads: [load(300)] })], {
    source: { station: station({ energyWh: 3000, acInputW: 900 }) },
    outage: {
      hours: 36,
      startFraction: 1,
      reserveFraction: 0.1,
      deratingFraction: 1,
      beginsH: 18,
      ...outage,
    },
  })
  return { ...base, source: base.source && { ...base.source, ...facts } }
}
const generator = (gallons: number) => ({
  equipment: freshet18,
  gallons,
  where: 'outdoors' as const,
  owned: false,
})
const findings = (of: Job) => evaluate(of).findings.filter(f => f.id === 'energy.short')
const line = (of: Job, id: string) => evaluate(of).balance.find(l => l.id === id)

test('a generator with fuel for it outlasts what the store alone does not, and nothing is called short', () => {
  const of = house({ generator: generator(10) })
  expect(onAverage(house({}), 340)).toBeNull()
  expect(findings(house({}))).toHaveLength(1)
  expect(findings(of)).toEqual([])
  expect(line(of, 'hours')).toMatchObject({ verdict: 'enough' })
  expect(line(of, 'hours')?.sentence).toMatch(
    /^With the generator it lasts the 36 h asked, on average; the store alone 7\.\d+ h\.$/,
  )
  expect(line(of, 'energy')?.verdict).not.toBe('short')
  expect(evaluate(of).headline.hoursHad).toBeGreaterThan(36)
})

test('with too little fuel it is short by what the mean course says, to within its steps', () => {
  const of = house({ generator: generator(0.6) })
  const plan = planOf(of)
  if (!plan.ok) throw new Error('no plan')
  const whole = traceOf(plan.value, deskFor(plan.value), 1).outcome.emptyH
  const had = evaluate(of).headline.hoursHad ?? 0
  expect(Math.abs(had - whole)).toBeLessThan(0.5)
  expect(findings(of)[0]?.sentence).toMatch(/h of the 36 h asked on average, with the generator\.$/)
})

test('what the source cannot carry, or what does not work in that cold, does not last for all its fuel', () => {
  const of = house({ generator: generator(10) })
  const heavy = {
    ...of,
    panels: of.panels.map(p => ({ ...p, circuits: [circuit(1, { tier: 1, loads: [load(5000)] })] })),
  }
  const [unit] = of.source?.units ?? []
  if (!of.source || unit?.equipment.kind !== 'station') throw new Error('no station')
  const cold: Job = {
    ...of,
    source: {
      ...of.source,
      units: [{ ...unit, equipment: { ...unit.equipment, dischargeAboveC: -10, chargeAboveC: 0 } }],
      stands: { exposure: 'wet', coldestC: -30 },
    },
  }
  for (const j of [heavy, cold]) {
    expect(evaluate(j).headline.hoursHad).toBe(0)
    expect(findings(j)).toHaveLength(1)
  }
})

test('where circuits are let go, the must-run ones count', () => {
  const heavy = circuit(3, { tier: 3, loads: [load(900, { id: 'heavy' })] })
  const of = house({}, { hours: 8, shedding: { policy: 'by tier', tier3BelowFraction: 0.7 } })
  const both = { ...of, panels: of.panels.map(p => ({ ...p, circuits: [...p.circuits, heavy] })) }
  const never = { ...both, outage: { ...both.outage, shedding: { policy: 'none' as const } } }
  const [with_, without] = [both, never].map(j => evaluate(j).headline.hoursHad ?? 0)
  expect(with_).toBeGreaterThan((without ?? 0) * 1.5)
  expect(line(both, 'hours')?.sentence).toContain('With circuits let go')
})
