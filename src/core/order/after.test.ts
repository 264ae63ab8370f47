import { alderHollow, fernbrook, millStreet, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import { worked } from '@/server/seeds/worked'
import { applied } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { changeId, toPlan } from '../plan/change'
import { countText, noticesOf, saidBy, unprinted } from '../work/notices'
import { workOrder } from '.'
import { learnedFrom } from './learned'
import { otherwiseFacts, otherwiseOperations } from './otherwise'
import { typedHold } from './paper'
import { standOf } from './stand'
import { typedReading } from './typed'
import { waterOf } from './water'

const people = ['Ada', 'Ben'] as const

test('a whole job is done by two, and all of its plan is built; half of one waits where it was put', () => {
  const done = worked(fernbrook, people)
  expect(done.planned.every(c => c.built)).toBe(true)
  const half = worked(alderHollow, people, 'hots:c5')
  const stand = standOf(half, workOrder(half))
  expect(stand).toMatchObject({
    next: 'hots:c5',
    off: ['w1'],
    people: [{ by: 'Ada', task: 'hots:c5' }],
    gone: [],
    clocks: [],
  })
  expect([...stand.tasks.values()].flatMap(t => t.troubles)).toEqual([])
})

test.each([
  ['OL', 'Ω', 'OL'],
  ['1.2 M', 'Ω', 1_200_000],
  ['40k', 'Ω', 40_000],
  ['0.3 Ω', 'Ω', 0.3],
  ['121 V', 'V', 121],
  ['1,5', 'V', 1.5],
  ['35 in·lb', 'in·lb', 35],
] as const)('a meter’s %s in %s is %s', (text, unit, value) => {
  expect(typedReading(text, { unit })).toEqual({ value })
})

test('a line of the booklet is read in its order, or says what it wants', () => {
  const holds = workOrder(alderHollow).tasks.flatMap(t => t.holds)
  const [prove, torque, tug] = (['prove', 'torque', 'tug'] as const).map(k => holds.find(h => h.kind === k))
  if (!prove || !torque || !tug) throw new Error('no such hold')
  const read = typedHold(prove, '121 0 0.1, 0 0 0 0 121')
  expect('facts' in read && read.facts.readings?.map(r => r.value)).toEqual([121, 0, 0.1, 0, 0, 0, 0, 121])
  expect(typedHold(prove, '121 0')).toEqual({
    problem: expect.stringMatching(/wants 8 in this order: Known source, before/),
  })
  expect(typedHold(torque, '25 screwdriver 3')).toMatchObject({ facts: { tool: 'screwdriver 3' } })
  expect(typedHold(tug, 'AL')).toEqual({ facts: { text: 'AL' } })
})

test('done otherwise makes the plan what was done: the hook-up where it follows from that, and the checks see it', () => {
  const backfed = otherwiseOperations(saltmarshLane, 'backfeed:main', { breakerA: 50, space: 2 })
  expect(applied(saltmarshLane, ...backfed).hookup.backfed).toMatchObject({ breakerA: 50, space: 2 })
  const led = applied(alderHollow, ...otherwiseOperations(alderHollow, 'lead:c2', { space: 3 }))
  // who stood there trades places
  expect(
    led.hookup.positions?.filter(p => ['c2', 'c5'].includes(p.circuitId)).map(p => [p.circuitId, p.position]),
  ).toEqual(
    expect.arrayContaining([
      ['c2', 3],
      ['c5', 1],
    ]),
  )
  expect(otherwiseFacts(quarryRidge, 'run:r1')).toMatchObject({ size: '12' })
  const run = applied(quarryRidge, ...otherwiseOperations(quarryRidge, 'run:r1', { lengthFt: 9, size: '10' }))
  expect(run.hookup.runs?.[0]).toMatchObject({ lengthFt: 9, size: '10' })
  expect(
    otherwiseOperations(saltmarshLane, 'backfeed:main', otherwiseFacts(saltmarshLane, 'backfeed:main')),
  ).toEqual([])
  const own = applied(alderHollow, toPlan({ kind: 'exchange', circuitId: 'c9', breakerA: 15 }))
  const [change] = applied(own, ...otherwiseOperations(own, 'exchange:c9', { breakerA: 20 })).planned.filter(
    c => changeId(c) === 'exchange:c9',
  )
  expect(change).toMatchObject({ breakerA: 20 })
})

test('notices say what is true here: bonded or floating, one 120 V supply, two sources; what cannot be said is told', () => {
  const of = (job: Job, id: string) => noticesOf(job).notices.find(n => n.id === id)
  expect(of(saltmarshLane, 'inlet')?.lines[0]).toMatch(/nonseparately derived \(floating neutral\)/)
  const switched = applied(alderHollow, {
    op: 'setHookup',
    facts: { switch: { ...alderHollow.hookup.switch, switchesNeutral: true } as never },
  })
  expect(of(switched, 'inlet')?.lines[0]).toMatch(/separately derived \(bonded neutral\)/)
  expect(of(switched, 'electrode')).toBeUndefined()
  expect(of(alderHollow, 'single:main')?.head).toMatch(/SINGLE 120-VOLT/)
  expect(of(saltmarshLane, 'single:main')).toBeUndefined()
  expect(of(saltmarshLane, 'backfed')?.head).toMatch(/DO NOT RELOCATE/)
  expect(of(quarryRidge, 'fed:new-panel')?.lines[0]).toMatch(
    /^Fed from Studio sub-panel, S 17·19, 50 A, through the inverter/,
  )
  expect(of({ ...quarryRidge, edition: 2017 }, 'battery')?.article).toMatch(/706\.7/)
  expect(noticesOf(fernbrook).notices.filter(n => n.size === 'large')).toEqual([])
  expect(of(alderHollow, 'position:3')).toMatchObject({ head: '3 · L1', where: 'Riffle 6: position 3' })
  // a marker on both ends of every wire that is new
  const markers = noticesOf(millStreet).notices.filter(n => n.size === 'marker')
  expect(markers.map(m => m.head)).toEqual(['IN L1', 'IN L1', 'IN N', 'IN N', 'IN G', 'IN G'])
})

test('only what reads otherwise is printed again', () => {
  const { notices } = noticesOf(saltmarshLane)
  expect(countText(unprinted(saltmarshLane, notices))).toBe(countText(notices))
  const printed = applied(saltmarshLane, {
    op: 'recordPrinted',
    printed: notices.map(n => ({ id: n.id, said: saidBy(n) })),
  })
  expect(unprinted(printed, notices)).toEqual([])
  const other = applied(printed, {
    op: 'setHookup',
    facts: { backfed: { breakerA: 30, heldDown: true, space: 2 } },
  })
  expect(unprinted(other, noticesOf(other).notices).map(n => n.id)).toEqual([
    'backfed',
    'wire:w1:to',
    'wire:w2:to',
  ])
})

test('hours are learned from what was counted, against what was thought then; what was taken back says nothing', () => {
  const done = (task: string, minutes: number, n: number, more: object[] = []) => [
    {
      id: `d${n}`,
      task,
      by: 'A',
      at: '2026-01-01T10:00:00Z',
      kind: 'done' as const,
      on: '2026-01-01',
      minutes,
      estimated: { work: 'mount', minutes: 20 },
    },
    ...more,
  ]
  const back = { id: 'b', task: 'd', by: 'A', at: '2026-01-01T10:00:00Z', kind: 'taken back' as const }
  const logs = [
    [...done('a', 30, 1), ...done('b', 40, 2)],
    [...done('c', 20, 3), ...done('d', 900, 4, [back])],
  ]
  const [learned] = learnedFrom(logs as never, [])
  expect(learned).toMatchObject({
    work: 'mount',
    tasks: 3,
    jobs: 2,
    estimatedMin: 60,
    countedMin: 90,
    middle: 1.5,
    from: 1.25,
    to: 1.75,
    row: { firstMin: 45, eachMin: 45 },
  })
})

test('the picture is full where it is live, drained where it is off, and silent on what it does not know', () => {
  const { windows } = workOrder(saltmarshLane)
  const off = waterOf(saltmarshLane, windows, ['w1'])
  expect(off.parts).toMatchObject({ utility: 'full', 'panel-main': 'half', 'pv-c37': 'dry', inlet: null })
  expect(waterOf(saltmarshLane, windows, []).parts).toMatchObject({ 'panel-main': 'full', 'pv-c37': 'full' })
})

test('what the inspector remarked is a task that waits for nothing, with its own evidence', () => {
  const remarked = applied(alderHollow, {
    op: 'recordTests',
    about: 'Inspection',
    entries: [
      {
        kind: 'remark',
        id: 'r1',
        test: 'inspection',
        by: 'Ann',
        at: '2026-03-01T09:00:00Z',
        on: '2026-03-01',
        text: 'Label missing',
      },
    ],
  })
  const task = workOrder(remarked).tasks.at(-1)
  expect(task).toMatchObject({
    id: 'remark:r1',
    text: 'Label missing',
    phase: 'remarks',
    restsOn: [],
    holds: [{ kind: 'corrected' }],
  })
  // with nothing planned it is the whole of the work
  expect(workOrder({ ...remarked, planned: [] }).tasks.map(t => t.id)).toEqual(['remark:r1'])
})
