import Papa from 'papaparse'
import { ripple410 } from '../equipment/fixtures/parts'
import { circuit, job, load, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { deskFor, simulate } from '../outage/chance'
import { planOf } from '../outage/plan'
import { traceOf } from '../outage/trace'
import { traceCsv } from './outage-csv'

const rowsOf = (j: Job, withBands = false) => {
  const plan = planOf(j)
  if (!plan.ok) throw new Error(plan.faults.map(f => f.message).join())
  const mean = traceOf(plan.value, deskFor(plan.value), 1)
  const chance = withBands ? simulate(plan.value, { seed: 1, exactly: 20 }).chance : null
  const { data } = Papa.parse<Record<string, number>>(traceCsv(plan.value, mean, chance).trim(), {
    header: true,
    dynamicTyping: true,
  })
  return data
}
const house = [
  circuit(1, { tier: 1, loads: [load(60)] }),
  circuit(3, { tier: 3, loads: [load(30, { id: 'other' })] }),
]

test('every row accounts for its own: what the store loses is what the loads and the losses took', () => {
  const rows = rowsOf(job(house))
  expect(Object.keys(rows[0] ?? {})).toEqual([
    'hour',
    'store_Wh',
    'sun_W',
    'generator_W',
    'battery_W',
    'must_run_W',
    'should_run_W',
    'may_go_W',
    'lost_W',
  ])
  expect(rows[0]).toMatchObject({ hour: 0, store_Wh: 2000 })
  rows.slice(1).forEach((row, n) => {
    const before = rows[n]
    if (!before || row.store_Wh === undefined) return
    const asked =
      ((before.must_run_W ?? 0) +
        (before.should_run_W ?? 0) +
        (before.may_go_W ?? 0) +
        (before.lost_W ?? 0)) *
      ((row.hour ?? 0) - (before.hour ?? 0))
    expect((before.store_Wh ?? 0) - row.store_Wh).toBeCloseTo(asked, -1)
  })
  expect(rows.map(r => r.hour)).toEqual([...rows.map(r => r.hour ?? 0)].sort((a, b) => a - b))
})

test('bands stand in order in every row, and only where there are draws', () => {
  for (const row of rowsOf(job(house), true)) {
    expect(row.store_p5_Wh).toBeLessThanOrEqual(row.store_p50_Wh ?? 0)
    expect(row.store_p50_Wh).toBeLessThanOrEqual(row.store_p95_Wh ?? 0)
  }
  expect(rowsOf(job(house))[0]).not.toHaveProperty('store_p5_Wh')
})

test('two stores have a column each, which add up; the sun has its own', () => {
  const j = job(house, {
    source: {
      station: station({ solar: { count: 1, minV: 12, maxV: 60, maxA: 15, maxW: 400 } }),
      arrangement: 'independent',
      arrays: [{ id: 'a', unitId: 'u1', module: ripple410, series: 1, parallel: 1, owned: true }],
    },
  })
  const [first] = j.source?.units ?? []
  if (!j.source || !first) throw new Error('no unit')
  const rows = rowsOf({ ...j, source: { ...j.source, units: [first, { ...first, id: 'u2' }] } })
  for (const row of rows)
    expect((row.store_1_Wh ?? 0) + (row.store_2_Wh ?? 0)).toBeCloseTo(row.store_Wh ?? 0, 0)
  expect(Math.max(...rows.map(r => r.sun_W ?? 0))).toBeGreaterThan(0)
})
