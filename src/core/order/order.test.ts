import fc from 'fast-check'
import { alderHollow, demoJobs, fernbrook, millStreet, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { methodIds } from '../hookup/method'
import { houseOfJob } from '../isolation/house'
import { asPlanned, standing } from '../job/as-planned'
import { applied } from '../job/fixtures/jobs'
import { withHookupChanges } from '../job/hookup-changes'
import type { Job } from '../job/schema'
import { restsOn } from '../plan/apply'
import { changeId, toPlan, type Unplanned } from '../plan/change'
import { workOfJob } from '../work/parts/tasks'
import { house } from '../work/wiring/fixtures/house'
import { workOrder } from '.'
import { buildsOf } from './stand'
import { phases, type Task } from './task'
import { reachable } from './windows'

const jobs: Job[] = demoJobs.flatMap(({ job }) =>
  methodIds.map(method =>
    method === job.hookup.method
      ? job
      : withHookupChanges({ ...job, hookup: { ...job.hookup, method }, planned: [] }),
  ),
)
const plan = (job: Job, ...changes: Unplanned[]) => applied(job, ...changes.map(toPlan))
const at = (tasks: readonly Task[], id: string) => tasks.findIndex(t => t.id === id)
const each = (f: (job: Job) => void) => {
  for (const job of jobs)
    try {
      f(job)
    } catch (error) {
      throw new Error(`${job.title}, ${job.hookup.method}: ${error}`)
    }
}

/** Walks the order as hands do, and asks the model at each task whether what they meet can be live. */
function keepsHandsOut(job: Job) {
  const { tasks, windows } = workOrder(job)
  const ahead = restsOn(job.panels, job.planned)
  const finished = new Set<string>()
  const built = new Set<string>()
  const found = houseOfJob(standing(job))
  let open: string[] = []
  for (const t of tasks) {
    const window = windows.find(w => w.id === t.window)
    if (t.phase === 'prove') open = [...(window?.opened ?? []), ...(window?.keptOpen ?? [])].map(o => o.id)
    // what leads to these hands by then, and could be closed by somebody, is locked
    if (t.phase === 'isolate' && window) {
      const locked = new Set(t.holds.map(h => h.id.split('lock:')[1]))
      const all = [...window.opened, ...window.keptOpen].map(o => o.id)
      const hands = tasks.filter(o => o.window === window.id).flatMap(o => o.places.map(p => p.id))
      const leads = window.keptOpen.filter(k => {
        const live = reachable(houseOfJob(job, built), new Set(all.filter(id => id !== k.id)))
        return hands.some(place => live.has(place))
      })
      expect([t.id, leads.filter(k => !locked.has(k.id)).map(k => k.name)]).toEqual([t.id, []])
    }
    if (t.window === null) open = t.keptOpen.map(o => o.id)
    for (const house of [found, houseOfJob(job, built), ...(t.window ? [houseOfJob(job)] : [])]) {
      const live = reachable(house, new Set(open))
      expect([t.id, t.places.filter(p => live.has(p.id)).map(p => p.name)]).toEqual([t.id, []])
    }
    expect([t.id, t.restsOn.filter(id => tasks.some(o => o.id === id) && !finished.has(id))]).toEqual([
      t.id,
      [],
    ])
    finished.add(t.id)
    for (let grew = true; grew; ) {
      const more = job.planned
        .map(changeId)
        .filter(
          c =>
            !built.has(c) &&
            tasks.some(o => o.changes.includes(c)) &&
            tasks.every(o => !o.changes.includes(c) || finished.has(o.id)) &&
            ahead.get(c)?.every(a => built.has(a)),
        )
      for (const c of more) built.add(c)
      grew = more.length > 0
    }
    if (t.phase === 'energise') open = []
  }
  expect(job.planned.map(changeId).filter(c => !built.has(c))).toEqual(
    asPlanned(job).undone.map(u => changeId(u.change)),
  )
}

test('no task touches a place that the model says is live, whatever anybody does to what is not locked', () => {
  each(keepsHandsOut)
})

test('any house: nor there', () => {
  fc.assert(fc.property(house, keepsHandsOut), { numRuns: 80 })
})

test('each comes after what it rests on; ground before neutral before hots; proven before touched, closed before energised', () => {
  each(job => {
    const { tasks, windows } = workOrder(job)
    expect(new Set(tasks.map(t => t.id)).size).toBe(tasks.length)
    tasks.forEach((t, n) => {
      expect([t.id, t.restsOn.filter(id => at(tasks, id) >= n)]).toEqual([t.id, []])
    })
    for (const w of windows) {
      const turns = tasks.filter(t => t.window === w.id).map(t => phases[t.phase].turn)
      expect(turns).toEqual([...turns].sort((a, b) => a - b))
      expect(turns).toEqual(expect.arrayContaining([3, 4, 10, 11]))
      expect(w.opened.length).toBeGreaterThan(0)
    }
    // prepare first, cut last
    const cut = tasks.findIndex(t => t.phase === 'isolate')
    const late = tasks.slice(Math.max(0, cut)).filter(t => t.window === null && t.phase === 'mount')
    expect(cut < 0 ? [] : late).toEqual([])
  })
})

test('by hand it is put in another order, within what is allowed', () => {
  fc.assert(
    fc.property(fc.constantFrom(...demoJobs.map(d => d.job)), fc.infiniteStream(fc.nat()), (job, stream) => {
      const ids = workOrder(job).tasks.map(t => t.id)
      const weights = new Map(ids.map(id => [id, stream.next().value]))
      const order = [...ids].sort((a, b) => (weights.get(a) ?? 0) - (weights.get(b) ?? 0))
      const { tasks } = workOrder(applied(job, { op: 'orderWork', order }))
      expect(tasks.map(t => t.id).sort()).toEqual([...ids].sort())
      expect(tasks.filter((t, n) => t.restsOn.some(id => at(tasks, id) >= n))).toEqual([])
    }),
    { numRuns: 30 },
  )
  const { tasks } = workOrder(
    applied(saltmarshLane, { op: 'orderWork', order: ['wall:combiner', 'wall:inlet'] }),
  )
  expect(at(tasks, 'wall:combiner')).toBeLessThan(at(tasks, 'wall:inlet'))
})

test('what is done by one breaker alone is not done in the dark of the whole house', () => {
  const job = plan(alderHollow, { kind: 'guard', circuitId: 'c9' })
  const { windows, tasks, dark } = workOrder(job)
  expect(windows.map(w => [w.opened.map(o => o.id), w.dark.length])).toEqual([
    [['breaker c9'], 1],
    [['main main'], 23],
  ])
  expect(tasks[at(tasks, 'guard:c9')]?.window).toBe('w1')
  // it is dark in both
  expect(dark[0]).toMatchObject({
    circuitId: 'c9',
    minutes: windows[0] && windows[1] && windows[0].minutes + windows[1].minutes,
  })
})

test('what stays live is named, and so is what a main alone leaves', () => {
  const of = (job: Job) => workOrder(job).windows[0]
  expect(of(alderHollow)?.staysLive.map(p => p.name)).toEqual([
    expect.stringMatching(/^the line side of Main panel/),
  ])
  expect(of(saltmarshLane)?.opened.map(o => o.id)).toEqual(['main main', 'breaker c37'])
  expect(of(saltmarshLane)?.mainsOnly.could.map(s => s.kind)).toContain('solar')
  expect(of(fernbrook)?.opened.map(o => o.id)).toEqual(['breaker c1'])
  // what is led behind the inverter waits for it
  expect(workOrder(quarryRidge).waiting.length).toBe(9)
  expect(workOrder(alderHollow).waiting).toEqual([])
})

test('a source that could meet the utility is not let in without its interlock', () => {
  const kinds = (job: Job) => workOrder(job).tasks.flatMap(t => t.holds.map(h => h.kind))
  expect(kinds(millStreet)).toContain('interlock')
  expect(kinds(saltmarshLane)).not.toContain('interlock')
})

test('it stays as it is while the work goes on, and comes to what was estimated', () => {
  for (const { job } of demoJobs) {
    const { tasks, minutes } = workOrder(job)
    const built = tasks.reduce((now, task, n) => {
      const common = { id: `e${n}`, task: task.id, by: 'A', at: '2026-03-01T10:00:00Z' }
      const entries = [{ ...common, kind: 'done' as const, on: '2026-03-01', builds: buildsOf(task, tasks) }]
      return applied(now, { op: 'recordWork', entries, about: task.text })
    }, job)
    expect(built.planned.filter(c => !c.built).map(changeId)).toEqual([])
    expect(workOrder(built).tasks).toEqual(tasks)
    const estimated = workOfJob(job).hours * 60
    expect([job.title, Math.abs(minutes / estimated - 1) < 0.25]).toEqual([job.title, true])
  }
})
