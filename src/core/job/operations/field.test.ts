import fc from 'fast-check'
import { alderHollow, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { workOrder } from '../../order'
import { buildsOf, standOf } from '../../order/stand'
import { changeId } from '../../plan/change'
import { isStillValid, type Job, jobSchema } from '../schema'
import { type Entry, mostEntries } from '../work-log'
import { applyOperation, describeOperation, type Operation, operationSchema } from '.'

/** What comes from several phones, in any order, in pieces, and more than once. */

const at = '2026-03-02T10:00:00Z'
const apply = (job: Job, ...entries: Entry[]) => {
  const outcome = applyOperation(job, { op: 'recordWork', about: 'work', entries })
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.faults))
  return outcome.value
}
const done = (job: Job, task: string, by: string): Entry => {
  const { tasks } = workOrder(job)
  const found = tasks.find(t => t.id === task)
  return {
    id: `${by} ${task}`,
    task,
    by,
    at,
    kind: 'done',
    on: '2026-03-02',
    builds: found ? buildsOf(found, tasks) : [],
  }
}
const note = (id: string): Entry => ({ id, task: 'arrive:found', by: 'Ada', at, kind: 'note', text: 'x' })
const built = (job: Job) =>
  job.planned
    .filter(c => c.built)
    .map(changeId)
    .sort()

/** Two lists into one, each in its own order, as a server gets them. */
const woven = (a: Entry[], b: Entry[], picks: readonly boolean[]): Entry[] => {
  const [x, y] = [[...a], [...b]]
  const out: Entry[] = []
  for (const first of picks) {
    const next = (first ? x : y).shift()
    if (next) out.push(next)
  }
  return [...out, ...x, ...y]
}

test('two phones, in any order, in pieces and twice over: every entry once, and the same is built', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(alderHollow, quarryRidge, saltmarshLane),
      fc.array(fc.boolean(), { minLength: 90, maxLength: 90 }),
      fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 30 }),
      (job, picks, sizes) => {
        const tasks = workOrder(job).tasks.map(t => t.id)
        const mine = tasks.filter((_, n) => n % 2 === 0).map(t => done(job, t, 'Ada'))
        // the other finishes some of the same
        const theirs = tasks.filter((_, n) => n % 2 || n % 3 === 0).map(t => done(job, t, 'Ben'))
        const all = woven(mine, theirs, picks)
        let now = job
        let from = 0
        for (let n = 0; from < all.length; n++) {
          const batch = all.slice(from, from + (sizes[n % sizes.length] ?? 1))
          now = apply(now, ...batch)
          // its answer was lost on the way, and it is sent again
          if (picks[n]) now = apply(now, ...batch)
          from += batch.length
        }
        expect(now.work?.log.map(e => e.id)).toEqual(all.map(e => e.id))
        expect(built(now)).toEqual(
          built({ ...job, planned: job.planned.map(c => ({ ...c, built: { by: 'x', on: '2026-01-01' } })) }),
        )
        // built by what was said; its hold points stay open all the same
        const stands = [...standOf(now, workOrder(now)).tasks.values()].map(t => t.state)
        expect(stands.filter(s => s !== 'done' && s !== 'held')).toEqual([])
        expect(stands).toContain('held')
      },
    ),
    { numRuns: 25 },
  )
})

test('taken back and done anew, in whatever turn, only what stands at the end is built', () => {
  const tasks = workOrder(saltmarshLane).tasks.map(t => t.id)
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom(...tasks), fc.boolean()), { maxLength: 60 }), acts => {
      let now = saltmarshLane
      const stands = new Set<string>()
      acts.forEach(([task, does], n) => {
        now = apply(
          now,
          does
            ? { ...done(now, task, 'Ada'), id: `e${n}` }
            : { id: `e${n}`, task, by: 'Ada', at, kind: 'taken back' },
        )
        if (does) stands.add(task)
        else stands.delete(task)
      })
      const whole = workOrder(saltmarshLane)
      for (const change of built(now))
        expect(whole.tasks.filter(t => t.changes.includes(change)).every(t => stands.has(t.id))).toBe(true)
    }),
    { numRuns: 60 },
  )
})

test('a log that grows is looked at by what is new; it ends where it is full, and a bad entry names its field', () => {
  const before = apply(saltmarshLane, note('a'))
  expect(isStillValid(before, apply(before, note('b')))).toBe(true)
  expect(
    isStillValid(before, {
      ...before,
      work: { log: [...(before.work?.log ?? []), { ...note('c'), at: 'noon' }] },
    }),
  ).toBe(false)
  const full = {
    ...saltmarshLane,
    work: { log: Array.from({ length: mostEntries }, (_, n) => note(`n${n}`)) },
  }
  expect(jobSchema.safeParse(full).success).toBe(true)
  const over = applyOperation(full, { op: 'recordWork', about: 'work', entries: [note('one more')] })
  expect(over.ok ? [] : over.faults.map(f => `${f.path} ${f.message}`)).toEqual([
    'work.log must hold at most 4,000, not 4,001',
  ])
  const said = (entry: object) =>
    operationSchema
      .safeParse({ op: 'recordWork', about: 'x', entries: [entry] })
      .error?.issues.map(i => `${i.path.join('.')} ${i.message}`)
  expect(said({ ...note('a'), at: 'noon' })).toEqual([
    'entries.0.at must be an instant: YYYY-MM-DDThh:mm:ssZ',
  ])
  expect(said({ ...note('a'), text: ' ' })).toEqual(['entries.0.text must say something'])
  expect(
    said({
      id: 'a',
      task: 't',
      by: 'Ada',
      at,
      kind: 'evidence',
      hold: 'h',
      readings: [{ key: 'x', value: 'high' }],
    })?.[0],
  ).toMatch(/value must be a number, or OL/)
  expect(
    said({
      id: 'a',
      task: 't',
      by: 'Ada',
      at,
      kind: 'skipped',
      hold: 'breaker:backfeed:main#interlock',
      why: 'none here',
    }),
  ).toEqual(['entries.0.hold cannot be left out'])
  expect(
    said({ id: 'a', task: 't', by: 'Ada', at, kind: 'skipped', hold: 'x#torque', why: 'no tool' }),
  ).toBeUndefined()
})

test('the history tells in a line what happened, and the order by hand goes back to the computed one', () => {
  const told = (operation: Operation) => describeOperation(saltmarshLane, operation)
  expect(
    told({ op: 'recordWork', about: 'Mount the inlet', entries: [done(saltmarshLane, 'wall:inlet', 'Ada')] }),
  ).toBe('did Mount the inlet')
  expect(told({ op: 'recordWork', about: 'Mount the inlet', entries: [note('a'), note('b')] })).toBe(
    'wrote down 2 entries of the work: Mount the inlet',
  )
  const put = applyOperation(saltmarshLane, { op: 'orderWork', order: ['wall:combiner'] })
  expect(put.ok && put.value.work).toEqual({ log: [], order: ['wall:combiner'] })
  const back = put.ok && applyOperation(put.value, { op: 'orderWork', order: [] })
  expect(back && 'value' in back && back.value.work).toEqual({ log: [] })
  expect(told({ op: 'orderWork', order: [] })).toMatch(/computed order/)
  expect(told({ op: 'recordPrinted', printed: [{ id: 'a', said: 'b' }] })).toBe('printed 1 label')
})

test('what a plan no longer has, and what was built under Plan, leave the log as it is', () => {
  const half = apply(alderHollow, done(alderHollow, 'wall:switch', 'Ada'))
  expect(built(half)).toEqual(['mount:switch'])
  const other = applyOperation(half, { op: 'setHookup', facts: { method: 'cord-and-plug' } })
  expect(other.ok && other.value.work).toEqual(half.work)
  // what is built stays in the plan
  expect(other.ok && built(other.value)).toEqual(['mount:switch'])
  const underPlan = applyOperation(alderHollow, {
    op: 'recordBuilt',
    id: 'mount:switch',
    built: { by: 'Ada', on: '2026-03-02' },
  })
  expect(
    underPlan.ok && standOf(underPlan.value, workOrder(underPlan.value)).tasks.get('wall:switch'),
  ).toMatchObject({ state: 'done', doneBy: 'Ada' })
})
