import { compareMethods } from '@/core/assess/compare-methods'
import { evaluate } from '@/core/assess/evaluate'
import { planTold } from '@/core/assess/plan-told'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import { hookupDevices } from '@/core/hookup/design'
import { methodIds } from '@/core/hookup/method'
import { asPlanned, houseOf, standing } from '@/core/job/as-planned'
import { applied } from '@/core/job/fixtures/jobs'
import { readJobText } from '@/core/job/read'
import type { Job } from '@/core/job/schema'
import { changeId } from '@/core/plan/change'
import { directoryOf } from '@/core/work/directory'
import { oneLineOf } from '@/core/work/one-line'
import { catalogue } from './catalogue'
import { demoJobs } from './jobs'

/** What is planned on the demo jobs: fixes, methods, pictures of the house. */

const jobs = demoJobs.map(({ job }) => [job.title, job] as const)
const survey = (job: Job) => JSON.stringify(job.panels)
/** What belongs to another method goes with it, as on the screen. */
const leaving = [...hookupDevices, 'backfed', 'path', 'positions', 'intercepts'] as const
const facts = { firm: 'Firm', revision: 1, on: '2026-01-01' }

describe.each(jobs)('%s', (_, job) => {
  test('its plan can be done, is said in words, and survives a file', () => {
    const told = planTold(job)
    expect(told.length).toBeGreaterThan(0)
    expect(told.filter(c => c.hindered !== null)).toEqual([])
    for (const { text } of told) expect(text).not.toMatch(/undefined|gone|NaN|\[object/)
    // each stands after what it rests on
    told.forEach((c, n) => {
      for (const id of c.restsOn) expect(told.findIndex(o => o.id === id)).toBeLessThan(n)
    })
    const read = readJobText(JSON.stringify(job))
    expect(read.ok && read.value).toEqual(job)
  })

  const fixable = evaluate(job).findings.flatMap(f => f.fixes.map(fix => [f.id, fix.label, f, fix] as const))
  test.each(fixable)(
    '%s: “%s” removes the finding, and leaves the survey as it was found',
    (id, label, finding, fix) => {
      const mended = applied(job, {
        op: 'applyFix',
        label,
        operations: fix.operations,
        planned: { settles: finding.key, by: 'Tester', on: '2026-01-01' },
      })
      const left = evaluate(mended)
      expect(left.findings.map(f => f.key)).not.toContain(finding.key)
      // nothing of the house changes but what is picked
      const unpicked = (j: Job) =>
        survey({
          ...j,
          panels: j.panels.map(p => ({ ...p, circuits: p.circuits.map(c => ({ ...c, picked: true })) })),
        })
      expect(unpicked(mended)).toBe(unpicked(job))
      for (const change of mended.planned.filter(c => !job.planned.some(w => changeId(w) === changeId(c))))
        expect(change.origin === 'hook-up' || change.settles === finding.key).toBe(true)
      for (const s of left.settled) expect(s.text).toMatch(/^settled by the plan: ./)
      expect(id).toBe(finding.id)
    },
  )

  test('every method plans what it needs, and leaving it takes exactly that back', () => {
    const compared = compareMethods(job, catalogue)
    expect(compared.filter(m => m.recommended)).toHaveLength(1)
    const picked = job.panels.flatMap(p => p.circuits).filter(c => c.picked)
    for (const here of compared) {
      expect(here.served.length + here.unserved.length).toBe(picked.length)
      const chosen = applied(job, {
        op: 'setHookup',
        facts: here.facts,
        clear: here.chosen ? [] : leaving.filter(key => !(key in here.facts)),
      })
      expect(survey(chosen)).toBe(survey(job))
      expect(planTold(chosen).filter(c => c.hindered !== null)).toEqual([])
      const back = applied({ ...chosen, hookup: job.hookup }, { op: 'setJobFacts', facts: {} })
      expect(back.planned.map(changeId).sort()).toEqual(job.planned.map(changeId).sort())
    }
    expect(compared.map(m => m.method).every(m => methodIds.includes(m))).toBe(true)
  })

  test('as found nothing is connected that is only planned; as planned every part hangs together', () => {
    for (const [house, shown] of [
      ['found', standing(job)],
      ['planned', job],
    ] as const) {
      const { parts, lines } = oneLineOf(shown)
      const ids = new Set(parts.map(p => p.id))
      for (const line of lines) expect([ids.has(line.from), ids.has(line.to)]).toEqual([true, true])
      const panels = houseOf(job, house).panels.map(p => p.name)
      const titles = parts.map(p => p.title.replace(/^\+ /, ''))
      expect(titles).toEqual(expect.arrayContaining(panels))
      expect(oneLineSvg(shown, facts)).toMatch(/^<svg[\s\S]*<\/svg>\s*$/)
    }
    expect(oneLineOf(standing(job)).parts.some(p => p.kind === 'inverter' || p.kind === 'inlet')).toBe(false)
    // every circuit stands in one directory, as found and as planned
    for (const house of [houseOf(job, 'found'), asPlanned(job).job]) {
      const listed = house.panels.flatMap(p =>
        directoryOf(house, p)
          .flat()
          .flatMap(place => place.entries),
      )
      const once = listed.filter(e => !e.continued).map(e => e.need.circuit.id)
      expect(once.sort()).toEqual(house.panels.flatMap(p => p.circuits.map(c => c.id)).sort())
    }
  })
})
