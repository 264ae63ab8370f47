import { compareMethods } from '@/core/assess/compare-methods'
import { hookupDevices } from '@/core/hookup/design'
import { applied } from '@/core/job/fixtures/jobs'
import { conductorRow } from '@/core/units/tables/conductors'
import { conduits } from '@/core/units/tables/conduit'
import { ampacity } from '@/core/wiring/ampacity'
import { wiringPlan } from '@/core/work/wiring'
import { made } from '@/core/work/wiring/fixtures/made'
import { scheduleOf } from '@/core/work/wiring/schedule'
import { fillWorking, sizeWorking } from '@/core/work/wiring/sizes'
import { catalogue } from './catalogue'
import { demoJobs } from './jobs'

/** The wiring plans of the demo jobs: whole for every method, and of each job as designed how many of what. */

const jobs = demoJobs.map(({ job }) => [job.title, job] as const)
const leaving = [...hookupDevices, 'backfed', 'path', 'positions', 'intercepts'] as const

test.each(jobs)('%s: every method gives a plan whose wires end where they are held', (_, job) => {
  for (const here of compareMethods(job, catalogue)) {
    const chosen = applied(job, {
      op: 'setHookup',
      facts: here.facts,
      clear: here.chosen ? [] : leaving.filter(key => !(key in here.facts)),
    })
    const plan = wiringPlan(chosen)
    made(plan)
    expect(JSON.stringify(scheduleOf(plan))).not.toMatch(/NaN|Infinity|undefined/)
    // every circuit that is led somewhere is led from its own wire
    const led = chosen.planned.flatMap(c =>
      c.kind === 'lead' ? [c.circuitId] : c.kind === 'land' ? c.places.map(p => p.circuitId) : [],
    )
    const spliced = new Set(
      plan.conductors.filter(c => c.to.device.startsWith('circuit-')).map(c => c.circuitId),
    )
    expect([here.method, led.filter(id => !spliced.has(id))]).toEqual([here.method, []])
    for (const r of plan.routes) {
      const fits = !r.raceway || (r.fillFraction ?? 9) <= (r.mayFillFraction ?? 0)
      expect([r.name, fits || plan.open.some(o => o.text.startsWith(`${r.name}: trade size`))]).toEqual([
        r.name,
        true,
      ])
    }
  }
})

const planOf = (n: number) => {
  const job = demoJobs[n]?.job
  if (!job) throw new Error(`no demo job ${n}`)
  return { job, plan: wiringPlan(job), rows: scheduleOf(wiringPlan(job)) }
}
const ends = (r: { mark: string; from: string; to: string; sizeAwg: string }) =>
  `${r.mark}: ${r.from} → ${r.to}, ${r.sizeAwg}`

test('job 1: six circuits through six positions by the switch’s own leads, a neutral and a ground, and nothing to buy', () => {
  const { job, plan, rows } = planOf(0)
  const fed =
    job.hookup.positions?.filter(p =>
      job.planned.some(c => c.kind === 'lead' && c.circuitId === p.circuitId),
    ) ?? []
  for (const { position, circuitId } of fed) {
    const leads = plan.conductors.filter(c => c.circuitId === circuitId && c.route === 'whip-switch')
    expect(leads.map(c => c.mark)).toEqual([`${position} in`, `${position} out`])
    // in from the breaker, out to the wire that was lifted from it
    expect(leads[0]?.from.device).toBe(`breaker-${circuitId}`)
    expect(plan.conductors.find(c => c.from.device === leads[1]?.to.device)?.to.device).toBe(
      `circuit-${circuitId}`,
    )
  }
  expect(rows.filter(r => r.comes === 'bought')).toEqual([])
  expect(rows.map(ends)).toContain('N: Riffle 6: neutral → Neutral bar of Main panel, garage: hole 1, 10')
  expect(plan.routes.find(r => r.id === 'whip-switch')).toMatchObject({ lengthFt: 1.5, nipple: true })
})

test('job 2: the inlet’s run along the wall, four wires to the backfed breaker and the bars', () => {
  const { plan, rows } = planOf(1)
  expect(rows.map(ends)).toEqual([
    'IN L1: Sill L14-30: L1 → Backfed 30 A breaker: L1 pole, 10',
    'IN L2: Sill L14-30: L2 → Backfed 30 A breaker: L2 pole, 10',
    expect.stringMatching(/^IN N: Sill L14-30: neutral → Neutral bar of .*: hole 1, 10$/),
    expect.stringMatching(/^IN G: Sill L14-30: ground → Ground bar of .*: hole 1, 10$/),
  ])
  expect(rows.map(r => r.colour)).toEqual(['black', 'red', 'white', 'green'])
  expect(plan.routes[0]).toMatchObject({
    raceway: { kind: 'PVC40', tradeSize: '3/4' },
    lengthFt: 17.375,
    lengthFrom: 'sketch',
    bendsDeg: 90,
  })
  // and 3 ft at each end
  expect(new Set(rows.map(r => r.cutFt))).toEqual(new Set([23.375]))
})

test('job 3: utility to the inverter and on to the new panel, battery cables doubled, each circuit by one splice', () => {
  const { job, plan } = planOf(2)
  const marks = plan.conductors.map(c => c.mark)
  for (const mark of [
    'AC IN L1',
    'AC IN N',
    'AC OUT L2',
    'AC OUT G',
    'B1+, 1 of 2',
    'B2−, 2 of 2',
    'B+, 2 of 2',
  ])
    expect(marks).toContain(mark)
  // 1.25 × 8,000 W ÷ (0.9 × 51.2 V × 0.89) = 244 A behind fuses of 250: 4/0 at 75 °C carries 230, two of 1/0 300
  const cables = plan.conductors.filter(c => c.route === 'battery')
  expect([cables.length, ...new Set(cables.map(c => c.size))]).toEqual([10, '1/0'])
  const landed = job.planned.flatMap(c => (c.kind === 'land' ? c.places.map(p => p.circuitId) : []))
  expect(landed.length).toBeGreaterThan(5)
  for (const id of landed)
    expect(
      plan.conductors.filter(c => c.circuitId === id && c.function === 'hot' && c.route === 'led-over')
        .length,
    ).toBeGreaterThan(0)
  // what stands beside so many is thicker than its breaker alone would ask
  const led = plan.conductors.filter(c => c.route === 'led-over' && c.function === 'hot')
  expect(led.every(c => (c.breakerA === 20 ? c.size === '10' : true))).toBe(true)
})

test('job 5: the appliance’s own wires end on a receptacle, and the cord is asked of its maker', () => {
  const { plan } = planOf(4)
  const bought = plan.conductors.filter(c => c.comes === 'bought')
  expect(new Set(bought.map(c => c.to.device.split('-')[0]))).toEqual(new Set(['receptacle']))
  expect(bought.length % 3).toBe(0)
  expect(plan.open.some(o => o.text.includes('its maker must allow cord and plug'))).toBe(true)
})

test.each(jobs)('%s: every size, ground and fill opens its working, and that comes to the same', (_, job) => {
  const plan = wiringPlan(job)
  for (const c of plan.conductors.filter(c => c.comes === 'bought' && c.breakerA !== null)) {
    const working = sizeWorking(c, job.edition)
    expect([c.mark, working?.references.join()]).toEqual([
      c.mark,
      expect.stringMatching(/310\.1[56]|250\.122/),
    ])
    if (c.asked && c.size)
      expect(
        ampacity.solve({ size: c.size, insulationC: 90, terminationC: 60, ...c.asked }).maxBreakerA,
      ).toBeGreaterThanOrEqual(c.breakerA ?? 0)
  }
  for (const r of plan.routes.filter(r => r.raceway)) {
    const fill = fillWorking(plan, r, job.edition)
    expect(fill?.title).toMatch(/fill/i)
    const counts = plan.conductors.filter(c => c.route === r.id && c.size)
    const areaIn2 = counts.reduce((sum, c) => sum + (c.size ? (conductorRow(c.size)?.areaIn2 ?? 0) : 0), 0)
    const insideIn2 = conduits.find(s => s.tradeSize === r.raceway?.tradeSize)?.areaIn2[
      r.raceway?.kind ?? 'EMT'
    ]
    expect(r.fillFraction).toBeCloseTo(areaIn2 / (insideIn2 ?? 1), 9)
  }
})

test('job 1: no inlet is planned, so the cord goes into the switch; job 4: one leg is fed, and the other is told', () => {
  const said = (n: number) =>
    planOf(n)
      .plan.open.map(o => o.text)
      .join('\n')
  expect(said(0)).toMatch(/Riffle 6: no inlet is planned: the source’s cord goes into its own/)
  expect(said(3)).toMatch(/the source feeds L[12] alone; the other pole stays empty/)
  expect(said(5)).toMatch(/where the source’s 20 A breaker stands is not said yet/)
})

test('job 2 made ready for 50 A: the run that was entered for 30 grows with it, its raceway too, and nothing is too thin', () => {
  const { job } = planOf(1)
  const plan = wiringPlan(applied(job, { op: 'setHabits', facts: { growth: true } }))
  made(plan)
  expect(plan.conductors.find(c => c.mark === 'IN L1')?.size).toBe('6')
  expect(plan.open.map(o => o.text).join()).not.toMatch(/too thin|may be: take/)
})
