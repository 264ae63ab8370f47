import * as fc from 'fast-check'
import { wiringDrawing } from '../../formats/wiring-drawing'
import { wiringSvg } from '../../formats/wiring-svg'
import { jobSchema } from '../../job/schema'
import { partsOfJob } from '../parts'
import { workOfJob } from '../parts/tasks'
import { wiringPlan } from '.'
import { house } from './fixtures/house'
import { made } from './fixtures/made'
import { scheduleOf } from './schedule'

test('any house: a valid document whose wires end where they are held, in raceways that hold them or are told', () => {
  fc.assert(
    fc.property(house, j => {
      expect(jobSchema.safeParse(j).success).toBe(true)
      const plan = wiringPlan(j)
      made(plan)
      expect(new Set(plan.conductors.map(c => c.id)).size).toBe(plan.conductors.length)
      expect(JSON.stringify([plan, scheduleOf(plan)])).not.toMatch(/NaN|Infinity|undefined/)
      for (const r of plan.routes) {
        const fits = !r.raceway || (r.fillFraction ?? 9) <= (r.mayFillFraction ?? 0) + 1e-9
        expect([r.id, fits || plan.open.some(o => o.at === r.id && /full/.test(o.text))]).toEqual([
          r.id,
          true,
        ])
        expect([r.id, r.bendsDeg <= 360 || !r.raceway || r.pullPoints > 0]).toEqual([r.id, true])
      }
      // what protects a bought hot is no more than it carries there, or it was chosen by hand
      for (const c of plan.conductors)
        if (c.function === 'hot' && c.comes === 'bought' && c.cutFt > 0) expect(c.size).not.toBeNull()
    }),
    { numRuns: 150 },
  )
})

test('any house: every foot of bought wire and every splice is on the list once, and the list says why', () => {
  fc.assert(
    fc.property(house, j => {
      const plan = wiringPlan(j)
      const parts = partsOfJob(j)
      const sum = (kind: string) =>
        parts.filter(p => p.kind === kind).reduce((total, p) => total + p.quantity, 0)
      const feet = plan.conductors.filter(c => c.comes === 'bought').reduce((total, c) => total + c.cutFt, 0)
      expect(Math.abs(sum('wire') - feet)).toBeLessThan(1e-6)
      expect(sum('connector')).toBe(plan.splices.length)
      expect(parts.every(p => p.why.length > 0 && p.needed >= p.quantity - 1e-9)).toBe(true)
      expect(workOfJob(j).tasks.every(t => Number.isFinite(t.minutes) && t.minutes >= 0)).toBe(true)
    }),
    { numRuns: 100 },
  )
})

test('any house: the drawing has every wire on it, and its file is whole', () => {
  fc.assert(
    fc.property(house, j => {
      const plan = wiringPlan(j)
      const wires = wiringDrawing(plan).shapes.filter(s => s.kind === 'wire')
      expect(wires).toHaveLength(plan.conductors.length)
      expect(wiringSvg(plan, j.title)).toMatch(/^<svg [\s\S]*<\/svg>\n$/)
    }),
    { numRuns: 40 },
  )
})
