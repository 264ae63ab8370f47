import { compareMethods } from '@/core/assess/compare-methods'
import { hookupDevices } from '@/core/hookup/design'
import { applied } from '@/core/job/fixtures/jobs'
import { wiringPlan } from '@/core/work/wiring'
import { made } from '@/core/work/wiring/fixtures/made'
import { scheduleOf } from '@/core/work/wiring/schedule'
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
      expect([r.name, fits || plan.open.some(o => o.startsWith(`${r.name}: trade size`))]).toEqual([
        r.name,
        true,
      ])
    }
  }
})
