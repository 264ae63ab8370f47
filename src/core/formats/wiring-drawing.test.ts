import { demoJobs } from '@/server/seeds/jobs'
import { wiringPlan } from '../work/wiring'
import { wiringDrawing } from './wiring-drawing'
import { drawingSvg, wiringSvg } from './wiring-svg'

test.each(demoJobs.map(({ job }) => [job.title, job] as const))(
  '%s: every conductor is one line from terminal to terminal, within the sheet, beginning and ending at a box',
  (_, job) => {
    const plan = wiringPlan(job)
    const { width, height, shapes } = wiringDrawing(plan)
    const wires = shapes.flatMap(s => (s.kind === 'wire' ? [s] : []))
    expect(wires.map(w => w.id).sort()).toEqual(plan.conductors.map(c => c.id).sort())
    const frames = shapes.flatMap(s => (s.kind === 'box' && s.weight === 'enclosure' ? [s] : []))
    for (const { points, pulls } of wires) {
      expect(pulls).toHaveLength(points.length - 1)
      for (const p of points)
        expect([p.x >= 0, p.x <= width, p.y >= 0, p.y <= height]).toEqual([true, true, true, true])
      for (const end of [points[0], points.at(-1)])
        expect(frames.some(f => end && (end.x === f.x || Math.abs(end.x - f.x - f.w) < 1e-6))).toBe(true)
    }
    // no two marks lie over each other at one end
    const marks = shapes.flatMap(s => (s.kind === 'text' && s.rimmed ? [`${s.x} ${s.y}`] : []))
    expect(new Set(marks).size).toBe(marks.length)
    // no two enclosures lie over each other
    frames.forEach((a, n) => {
      for (const b of frames.slice(n + 1))
        expect(a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y).toBe(true)
    })
  },
)

test('as SVG each wire bears its circuit and its way; names are text, whatever they hold; nothing is drawn of nothing', () => {
  const { job } = demoJobs[0] ?? {}
  if (!job) throw new Error('no demo job')
  const svg = wiringSvg(wiringPlan(job), '<b>"job"</b>')
  expect(svg).toMatch(/aria-label="Wiring plan of &lt;b&gt;&quot;job&quot;&lt;\/b&gt;"/)
  expect(svg.match(/data-wire="/g)).toHaveLength(wiringPlan(job).conductors.length)
  expect(svg).toMatch(/data-route="whip-switch" data-circuit="c/)
  expect(drawingSvg(wiringDrawing({ ...wiringPlan(job), conductors: [] }), 'x')).not.toMatch(/data-wire/)
})
