import { alderHollow, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { applied } from '../job/fixtures/jobs'
import { operationSchema } from '../job/operations'
import type { Job } from '../job/schema'
import type { Entry } from '../job/work-log'
import { changeId, toPlan } from '../plan/change'
import { workOrder } from '.'
import { type Evidence, type Hold, judge } from './holds'
import { simulatedReadings } from './meter'
import { buildsOf, hinders, hindersBack, standOf } from './stand'
import { holdText } from './words'

type Facts = Record<string, unknown> & { kind: Entry['kind']; task: string }
let n = 0
/** As the field writes it: checked by its schema, then applied. */
function record(job: Job, ...facts: Facts[]): Job {
  const { tasks } = workOrder(job)
  const entries = facts.map(f => {
    const task = tasks.find(t => t.id === f.task)
    return {
      id: `e${++n}`,
      by: 'Ada',
      at: '2026-03-02T10:00:00Z',
      ...f,
      ...(f.kind === 'done' && { on: '2026-03-02', ...(task && { builds: buildsOf(task, tasks) }) }),
    }
  })
  const operation = operationSchema.parse({ op: 'recordWork', entries, about: 'work' })
  return applied(job, operation)
}
const stand = (job: Job) => standOf(job, workOrder(job))
const task = (job: Job, id: string) => stand(job).tasks.get(id)
const holdsOf = (job: Job, id: string): Hold[] => workOrder(job).tasks.find(t => t.id === id)?.holds ?? []
/** Whatever a hold point asks, as it should be. */
const good = (job: Job, hold: Hold): Facts => ({
  kind: 'evidence',
  task: hold.id.split('#')[0] ?? '',
  hold: hold.id,
  readings: simulatedReadings(job, workOrder(job), stand(job), hold),
  text: 'AL',
  tool: 'T-7',
  with: 'Ben',
})
const finish = (job: Job, ...ids: string[]): Job =>
  ids.reduce((now, id) => {
    const passed = holdsOf(now, id).reduce((j, h) => record(j, good(j, h)), now)
    return record(passed, { kind: 'done', task: id, minutes: 10 })
  }, job)
const until = (job: Job, id: string) => {
  const ids = workOrder(job).tasks.map(t => t.id)
  return finish(job, ...ids.slice(0, ids.indexOf(id)))
}

const panel: Hold = {
  id: 'prove:w1#prove:main',
  kind: 'prove',
  text: '',
  could: ['the utility by the main'],
  readings: [
    { key: 'before', name: 'before', unit: 'V', role: 'known' },
    { key: 'L1–N', name: 'L1–N', unit: 'V', role: 'dead' },
    { key: 'after', name: 'after', unit: 'V', role: 'known' },
  ],
}
const one = (
  kind: Hold['kind'],
  role: Hold['readings'][number]['role'],
  unit: 'V' | 'Ω' | 'in·lb',
): Hold => ({
  ...panel,
  kind,
  size: '12',
  readings: [{ key: 'x', name: 'x', unit, role }],
})
const read = (...values: (number | 'OL')[]): Evidence => ({
  by: 'Ada',
  readings: ['before', 'L1–N', 'after'].map((key, i) => ({ key, value: values[i] ?? 0 })),
})
const x = (value: number | 'OL', more: Partial<Evidence> = {}): Evidence => ({
  by: 'Ada',
  readings: [{ key: 'x', value }],
  ...more,
})

test.each<[string, Hold, Evidence | null, string, RegExp]>([
  ['dead', panel, read(121, 0.2, 121), 'passed', /^/],
  ['live', panel, read(121, 119.8, 121), 'refused', /It is live.*the utility by the main/],
  ['coupled in', panel, read(121, 17, 121), 'doubtful', /low impedance/],
  ['ohms instead of volts', panel, read(121, 'OL', 121), 'refused', /AC volts/],
  ['an instrument that died on the way', panel, read(121, 0, 0), 'refused', /not proven/],
  ['half read', panel, { by: 'Ada', readings: [{ key: 'before', value: 121 }] }, 'open', /L1–N, after/],
  ['nothing yet', panel, null, 'open', /^/],
  ['apart', one('apart', 'apart', 'Ω'), x('OL'), 'passed', /^/],
  ['joined', one('apart', 'apart', 'Ω'), x(0.3), 'refused', /bonding screw/],
  ['a wet bar', one('apart', 'apart', 'Ω'), x(40_000), 'doubtful', /damp/],
  ['torque without its tool', one('torque', 'torque', 'in·lb'), x(25), 'open', /Which torque tool/],
  ['torque', one('torque', 'torque', 'in·lb'), x(25, { tool: 'T-7' }), 'passed', /^/],
  ['foot-pounds', one('torque', 'torque', 'in·lb'), x(3, { tool: 'T-7' }), 'doubtful', /Annex I.*label/],
  [
    'as the label says',
    one('torque', 'torque', 'in·lb'),
    x(70, { tool: 'T-7', text: 'label: 70' }),
    'passed',
    /Annex I/,
  ],
  ['a lifted neutral', one('volts', 'leg', 'V'), x(163), 'refused', /neutral first/],
  ['a low utility', one('volts', 'leg', 'V'), x(111), 'doubtful', /incoming lugs/],
  [
    'one’s own second pair of eyes',
    { ...panel, kind: 'template' },
    { by: 'Ada', with: 'Ada' },
    'open',
    /Somebody else/,
  ],
  ['no camera allowed', { ...panel, kind: 'lock' }, { by: 'Ada', text: 'tag 14' }, 'passed', /^/],
])('a hold point: %s', (_, hold, evidence, state, words) => {
  const judged = judge(hold, evidence)
  expect(judged.state).toBe(state)
  expect(`${judged.text} ${judged.next}`).toMatch(words)
})

test('nothing is finished before what comes first, nor with a hold point open; to prove dead is never left out', () => {
  const order = workOrder(alderHollow)
  const prove = order.tasks.find(t => t.phase === 'prove')
  if (!prove) throw new Error('no window')
  const job = until(alderHollow, 'prove:w1')
  expect(hinders(stand(alderHollow), prove, order.tasks)).toMatch(/^Comes first: Switch off/)
  expect(hinders(stand(job), prove, order.tasks)).toMatch(/known source/)
  const [hold] = prove.holds
  const live = record(job, {
    kind: 'evidence',
    task: prove.id,
    hold: hold?.id,
    readings: hold?.readings.map(r => ({ key: r.key, value: 121 })),
  })
  expect(hinders(stand(live), prove, order.tasks)).toMatch(/It is live/)
  // who writes it down as done all the same is told, and nothing goes on
  const said = record(live, { kind: 'done', task: prove.id })
  expect(task(said, 'prove:w1')).toMatchObject({
    state: 'held',
    troubles: [expect.stringMatching(/hold point is open/)],
  })
  expect(stand(said).next).toBe('prove:w1')
  const skip = {
    op: 'recordWork',
    about: 'x',
    entries: [
      {
        id: 'a',
        by: 'Ada',
        at: '2026-03-02T10:00:00Z',
        kind: 'skipped',
        task: prove.id,
        hold: hold?.id,
        why: 'in a hurry',
      },
    ],
  }
  expect(operationSchema.safeParse(skip).error?.issues.map(i => i.message)).toEqual(['cannot be left out'])
  expect(stand(finish(job, 'prove:w1')).off).toEqual(['w1'])
})

test('a hold point is gone past by a named person with a reason, and that stays', () => {
  const [lock, cord] = holdsOf(alderHollow, 'isolate:w1')
  const start = until(alderHollow, 'isolate:w1')
  const job = record(
    cord ? record(start, good(start, cord)) : start,
    { kind: 'skipped', task: 'isolate:w1', hold: lock?.id, why: 'no lock fits' },
    { kind: 'done', task: 'isolate:w1' },
  )
  expect(task(job, 'isolate:w1')).toMatchObject({
    state: 'done',
    holds: [{ skipped: { by: 'Ada', why: 'no lock fits' } }, { skipped: null }],
  })
})

test('the simulated meter answers from the house as it stands: live until it is switched off, and again after', () => {
  const [hold] = holdsOf(alderHollow, 'prove:w1')
  const shows = (job: Job) =>
    hold && simulatedReadings(job, workOrder(job), stand(job), hold).find(r => r.key === 'L1–L2')?.value
  const off = until(alderHollow, 'prove:w1')
  expect(shows(until(alderHollow, 'isolate:w1'))).toBeGreaterThan(200)
  expect(shows(off)).toBeLessThan(1)
  expect(
    shows(
      finish(
        off,
        ...workOrder(off)
          .tasks.filter(t => t.window === 'w1' && t.phase !== 'isolate')
          .map(t => t.id),
      ),
    ),
  ).toBeGreaterThan(200)
})

test('what is done is built once all of it is done, whoever did which part; taken back, it is not', () => {
  const isBuilt = (job: Job, kind: string) => job.planned.some(c => c.kind === kind && c.built)
  const before = until(quarryRidge, 'hots:s1')
  const one = finish(before, 'hots:s1')
  expect(one.planned.find(c => c.kind === 'land' && c.places[0]?.circuitId === 's1')?.built).toMatchObject({
    by: 'Ada',
    on: '2026-03-02',
  })
  // the pair on one neutral is one change of three tasks
  const half = finish(one, 'hots:s16')
  const pair = (job: Job) => job.planned.find(c => c.kind === 'land' && c.places.length > 1)?.built
  expect(pair(half)).toBeUndefined()
  expect(pair(finish(half, 'hots:s11'))).toBeDefined()
  expect(pair(record(finish(half, 'hots:s11'), { kind: 'taken back', task: 'neutral:s16' }))).toBeUndefined()
  // a panel stands, and is built only when it is fed
  const unfed = until(quarryRidge, 'add:new-panel-feeder')
  expect(stand(unfed).tasks.get('wall:new-panel')?.state).toBe('done')
  expect(isBuilt(unfed, 'panel')).toBe(false)
  expect(isBuilt(finish(unfed, 'add:new-panel-feeder', 'hots:feeder-in'), 'panel')).toBe(true)
})

test('two people finish one task: both are kept, one counts; an entry that comes twice is written once', () => {
  const job = until(alderHollow, 'hots:c2')
  const twice = record(finish(job, 'hots:c2'), { kind: 'done', task: 'hots:c2', by: 'Ben', minutes: 9 })
  expect(task(twice, 'hots:c2')).toMatchObject({ state: 'done', doneBy: 'Ada', alsoBy: ['Ben'], minutes: 19 })
  const entry = { kind: 'note' as const, task: 'hots:c2', text: 'warm', id: 'same' }
  expect(record(record(twice, entry), entry).work?.log.filter(e => e.id === 'same')).toHaveLength(1)
})

test('a task is not taken back under what was done on top of it; where it was, apart, that is told', () => {
  const job = until(alderHollow, 'hots:c2')
  const order = workOrder(job)
  const ground = order.tasks.find(t => t.id === 'ground:whip-switch')
  expect(ground && hindersBack(stand(job), ground, order.tasks)).toMatch(/^Neutral.*take that back first/)
  const back = record(job, { kind: 'taken back', task: 'ground:whip-switch', why: 'wrong bar' })
  expect(task(back, 'neutral:whip-switch')?.troubles).toEqual([
    expect.stringMatching(/before what comes first: Ground/),
  ])
  expect(stand(back).next).toBe('ground:whip-switch')
})

test('once power was back nothing counts of what was locked and proven before, if hands go in again', () => {
  const whole = finish(until(alderHollow, 'energise:w1'), 'energise:w1')
  expect([...stand(whole).tasks.values()].flatMap(t => t.troubles)).toEqual([])
  const back = record(whole, { kind: 'taken back', task: 'energise:w1' })
  expect(stand(back)).toMatchObject({ next: 'isolate:w1', off: [] })
  expect(task(back, 'prove:w1')).toMatchObject({
    state: 'waiting',
    troubles: [expect.stringMatching(/^Power was back/)],
    holds: [{ evidence: null }],
  })
  // what was made up inside stays made up, and is not blamed
  expect(task(back, 'hots:c2')).toMatchObject({ state: 'done', troubles: [] })
  const anew = finish(back, 'isolate:w1', 'prove:w1')
  expect(stand(anew)).toMatchObject({ off: ['w1'] })
  expect(task(anew, 'prove:w1')).toMatchObject({ state: 'done', troubles: [] })
})

test('a plan that grows after the power was back: no hand is let in on the proof of then', () => {
  const whole = finish(until(saltmarshLane, 'directory:main'))
  const grown = applied(whole, toPlan({ kind: 'exchange', circuitId: 'c1', breakerA: 15 }))
  const { tasks } = workOrder(grown)
  const inside = tasks.filter(t => t.changes.includes('exchange:c1') && t.window !== null)
  expect(inside.map(t => task(grown, t.id)?.state)).toEqual(inside.map(() => 'waiting'))
  expect(inside.length).toBeGreaterThan(0)
  expect(stand(grown)).toMatchObject({ off: [], next: expect.stringMatching(/^isolate:/) })
})

test('what was read before the last lock was on proves nothing; what was read live is told all the same', () => {
  const start = until(alderHollow, 'isolate:w1')
  const locks = holdsOf(start, 'isolate:w1')
  const [hold] = holdsOf(start, 'prove:w1')
  if (!hold) throw new Error('no window')
  const live = record(start, good(start, hold))
  expect(task(live, 'prove:w1')?.holds[0]?.judged).toMatchObject({
    state: 'refused',
    text: expect.stringMatching(/It is live/),
  })
  const early = finish(record(start, { kind: 'done', task: 'isolate:w1' }), 'prove:w1')
  const locked = record(early, ...locks.map(l => good(early, l)))
  expect(task(locked, 'isolate:w1')?.state).toBe('done')
  expect(task(locked, 'prove:w1')).toMatchObject({
    state: 'ready',
    troubles: [expect.stringMatching(/before every lock/)],
  })
  expect(task(finish(locked, 'prove:w1'), 'prove:w1')?.state).toBe('done')
})

test('what is taken back is torqued anew; with the power back a hold point that was left out keeps hands out', () => {
  const torqued = finish(until(alderHollow, 'hots:c2'), 'hots:c2')
  const back = record(torqued, { kind: 'taken back', task: 'hots:c2' })
  expect(task(back, 'hots:c2')?.holds.map(h => h.evidence)).toEqual(holdsOf(back, 'hots:c2').map(() => null))
  const ids = workOrder(back).tasks.map(t => t.id)
  const paper = finish(
    record(back, { kind: 'done', task: 'hots:c2' }),
    ...ids.slice(ids.indexOf('hots:c2') + 1, ids.indexOf('energise:w1') + 1),
  )
  expect(task(paper, 'hots:c2')).toMatchObject({
    state: 'held',
    troubles: expect.arrayContaining([expect.stringMatching(/^Power is back here/)]),
  })
})

test('a note does not undo what was recorded under Plan; a simulated reading says what it is', () => {
  const [change] = saltmarshLane.planned
  if (!change) throw new Error('nothing planned')
  const built = applied(saltmarshLane, {
    op: 'recordBuilt',
    id: changeId(change),
    built: { by: 'Ada', on: '2026-03-02' },
  })
  const of = workOrder(built).tasks.filter(t => t.changes.length === 1 && t.changes[0] === changeId(change))
  const noted = of.reduce((j, t) => record(j, { kind: 'note', task: t.id, text: 'warm' }), built)
  expect(of.map(t => task(noted, t.id)?.state)).toEqual(of.map(() => 'done'))
  expect(of.length).toBeGreaterThan(0)
  const start = until(alderHollow, 'prove:w1')
  const [hold] = holdsOf(start, 'prove:w1')
  const [shown] = hold
    ? (task(record(start, { ...good(start, hold), simulated: true }), 'prove:w1')?.holds ?? [])
    : []
  expect(shown && holdText(shown)).toMatch(/proves nothing in a house/)
})

test('who is where, a clock that jumped, and what the plan no longer has', () => {
  const began = record(
    alderHollow,
    { kind: 'began', task: 'arrive:found' },
    { kind: 'began', task: 'arrive:lay-out', by: 'Ben', at: '2031-01-01T00:00:00Z' },
    { kind: 'put down', task: 'arrive:lay-out', by: 'Ben', at: '2026-03-02T10:05:00Z', minutes: 3 },
  )
  expect(stand(began)).toMatchObject({ people: [{ by: 'Ada', task: 'arrive:found' }], clocks: ['Ben'] })
  const done = finish(until(alderHollow, 'hots:c9'), 'hots:c9')
  const changed = applied(done, { op: 'setHookup', facts: { method: 'cord-and-plug' } })
  expect(stand(changed).gone.map(g => g.text)).toEqual(
    expect.arrayContaining([expect.stringMatching(/hots:c9.*was done, and the plan no longer has it/)]),
  )
})
