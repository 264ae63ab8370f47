import {
  alderHollow,
  fernbrook,
  millStreet,
  ospreyPoint,
  quarryRidge,
  saltmarshLane,
} from '@/server/seeds/jobs'
import { worked } from '@/server/seeds/worked'
import { oneLineSvg } from '../formats/one-line-svg'
import { inkOf } from '../formats/wire-inks'
import { applied } from '../job/fixtures/jobs'
import { withHookupChanges } from '../job/hookup-changes'
import type { Job } from '../job/schema'
import { toPlan, type Unplanned } from '../plan/change'
import { aboutText, minutesText } from '../units/format'
import { noticesOf } from '../work/notices'
import { workOrder } from '.'
import { judge } from './holds'
import { isHeld, standOf } from './stand'
import { phases, type Task } from './task'
import { waterOf } from './water'
import { offText } from './words'

/** The order as an electrician reads it: for each kind of work what is in it, and where. */

const plan = (job: Job, ...changes: Unplanned[]) => applied(job, ...changes.map(toPlan))
const by = (job: Job, method: Job['hookup']['method'], facts: Partial<Job['hookup']> = {}) =>
  withHookupChanges({ ...job, planned: [], hookup: { ...job.hookup, method, ...facts } })
const task = (job: Job, id: string): Task => {
  const found = workOrder(job).tasks.find(t => t.id === id)
  if (!found)
    throw new Error(
      `no ${id} in ${workOrder(job)
        .tasks.map(t => t.id)
        .join(' ')}`,
    )
  return found
}
const words = (t: Task) => [t.text, ...t.lines].join(' ')
const kinds = (t: Task) => t.holds.map(h => h.kind)
const place = (job: Job, id: string) => workOrder(job).tasks.findIndex(t => t.id === id)

test('a battery is joined with its disconnect open and locked, posts covered, and up before the power is cut', () => {
  const battery = task(quarryRidge, 'dc:battery')
  expect(words(battery)).toMatch(/posts of a battery are live whatever is switched.*Minus first, then plus/)
  expect(kinds(battery)).toEqual(['torque', 'lock'])
  expect(battery).toMatchObject({ window: null, people: 2 })
  expect(place(quarryRidge, 'dc:battery')).toBeLessThan(place(quarryRidge, 'isolate:w1'))
})

test('a new panel is read apart before anything is landed in it, and its bars are seen again before its cover', () => {
  const wall = task(quarryRidge, 'wall:new-panel')
  expect(words(wall)).toMatch(/bonding screw or strap stays out/)
  expect(kinds(wall)).toEqual(['apart'])
  expect(kinds(task(quarryRidge, 'close:w1:new-panel'))).toEqual(['empty', 'bars', 'cover'])
  expect(kinds(task(alderHollow, 'close:w1:main'))).toEqual(['empty', 'cover'])
})

test('what is heavy takes two; what is fire-rated is sealed; bends are told where they are', () => {
  expect(words(task(quarryRidge, 'wall:inverter'))).toMatch(/two lift/)
  const rated = applied(saltmarshLane, {
    op: 'setRoute',
    facts: { id: 'inlet', through: 'fire-rated', wet: true },
  })
  expect(words(task(rated, 'raceway:inlet'))).toMatch(/fire-rated wall.*300\.21.*Wet place.*300\.9/)
  expect(words(task(saltmarshLane, 'raceway:inlet'))).toMatch(/90° of bends/)
})

test('the two hots of one neutral are told at both, and never at a ground', () => {
  for (const id of ['hots:c5', 'hots:c7'])
    expect(words(task(alderHollow, id))).toMatch(/shares its neutral.*300\.13\(B\)/)
  expect(words(task(alderHollow, 'ground:whip-switch'))).not.toMatch(/shares its neutral/)
  expect(words(task(alderHollow, 'hots:c2'))).not.toMatch(/shares its neutral/)
})

test('every splice is tugged by somebody who signs; every screw has its torque', () => {
  for (const job of [alderHollow, quarryRidge, fernbrook, ospreyPoint]) {
    const holds = workOrder(job).tasks.flatMap(t => t.holds)
    expect(holds.filter(h => h.kind === 'tug').length).toBe(
      new Set(holds.filter(h => h.kind === 'tug').map(h => h.id)).size,
    )
    for (const t of workOrder(job).tasks.filter(o => o.phase === 'ground' || o.phase === 'hots'))
      expect([t.id, kinds(t).some(k => k === 'torque' || k === 'tug')]).toEqual([t.id, true])
  }
})

test('current transformers go round insulation, by leg and arrow; where lugs would be bared the utility cuts off', () => {
  const managed = by(quarryRidge, 'managed-panel', {
    managed: {
      kind: 'managed-panel',
      id: 'm',
      version: 1,
      name: 'Sorter 12',
      circuits: 12,
      inputA: 50,
    } as never,
    panelId: 'house',
  })
  const cts = task(managed, 'device:cts')
  expect(words(cts)).toMatch(/what is ahead of the main is live.*the utility cuts off first.*arrow/)
  expect(kinds(cts)).toEqual(['arrow'])
  expect(cts.staysLive.map(p => p.name)).toEqual([expect.stringMatching(/^the line side of House panel/)])
  expect(
    noticesOf(managed)
      .notices.filter(n => n.id.startsWith('ct:'))
      .map(n => n.head),
  ).toEqual(['CT L1', 'CT L2'])
})

test('what is there already is switched as it stands: its cord is pulled and kept, with a tag', () => {
  const later = by(alderHollow, 'multi-circuit-switch', { exists: ['switch'] })
  const isolate = task(later, 'isolate:w2')
  expect(isolate.holds.map(h => h.text)).toContainEqual(
    expect.stringMatching(/^The cord at the inlet: out, kept/),
  )
  expect(words(isolate)).toMatch(/The cord at the inlet: stays out, kept in your own hands/)
  expect(workOrder(later).tasks.some(t => t.id === 'wall:switch')).toBe(false)
  // a breaker of a switch that is connected is no work for the bench
  expect(task(later, 'position-breaker:2').window).not.toBeNull()
  expect(task(alderHollow, 'position-breaker:2').window).toBeNull()
})

test('a supply that no handle of the house cuts off is cut off by its owner, and never by a cut seal', () => {
  const between = by(millStreet, 'sub-panel-interlock', { intercepts: true })
  const { windows } = workOrder(between)
  const opened = windows.flatMap(w => w.opened)
  expect(opened.map(o => o.name)).toContainEqual(expect.stringMatching(/^the utility, by its own cut-off/))
  expect(opened.find(o => o.id === 'utility')?.lock).toMatch(/never a cut seal/)
})

test('bonds and grounds come before neutrals and hots, a filler before the cover, a lock stays', () => {
  const job = plan(
    quarryRidge,
    { kind: 'bond', panelId: 'studio', joined: false },
    { kind: 'filler', panelId: 'studio', space: 21 },
    { kind: 'lock', circuitId: 's2' },
  )
  const at = (id: string) => place(job, id)
  expect(at('bond:studio')).toBeGreaterThan(at('ground:feeder-in'))
  expect(at('bond:studio')).toBeLessThan(at('hots:s1'))
  expect(at('filler:studio:21')).toBeGreaterThan(at('prove:w1'))
  expect(at('filler:studio:21')).toBeLessThan(at('close:w1:studio'))
  expect(words(task(job, 'bond:studio'))).toMatch(/parted onto bars of their own/)
  expect(noticesOf(job).notices.find(n => n.id === 'lock:s2')?.head).toBe('KEEP OFF ON BATTERY')
})

test('an appliance gets its box first, then ground, neutral, hot, and is proven dead at its own wires', () => {
  const { tasks, windows } = workOrder(fernbrook)
  expect(windows.map(w => w.dark.map(d => d.name))).toEqual([['1 Unit heater']])
  expect(tasks.filter(t => t.window === 'w1').map(t => t.id)).toEqual([
    'isolate:w1',
    'prove:w1',
    'receptacle:c1',
    'ground:c1',
    'neutral:c1',
    'hots:c1',
    'cord:c1:heater',
    'close:w1:c1',
    'energise:w1',
  ])
  expect(task(fernbrook, 'prove:w1').holds[0]?.readings.map(r => r.name)).toEqual([
    'Known source, before',
    'H–N',
    'H–ground',
    'N–ground',
    'Known source, after',
  ])
})

test('the source comes up plugs first, its output last, and is read by what it gives', () => {
  const source = (job: Job) => task(job, 'source:energise')
  expect(
    source(saltmarshLane)
      .lines.filter(l => /^The (cord|output)/.test(l))
      .map(l => l.slice(0, 10)),
  ).toEqual(['The cord a', 'The output', 'The output'])
  expect(source(saltmarshLane).holds[0]?.readings.map(r => r.role)).toEqual(['leg', 'leg', 'legs'])
  expect(source(alderHollow).holds[0]?.readings.map(r => r.role)).toEqual(['leg'])
  expect(words(source(quarryRidge))).toMatch(/Breaker S 17·19 Feeder.*from off to on/)
  expect(words(source(fernbrook))).not.toMatch(/Nothing of the house/)
})

test('who lives there is told what goes dark, cold food among it, and a medical device first', () => {
  expect(words(task(saltmarshLane, 'arrive:tell'))).toMatch(
    /Cold food among it \(5 Refrigerator.*Oxygen concentrator: it runs on a second way/,
  )
  expect(kinds(task(saltmarshLane, 'arrive:tell'))).toEqual(['told'])
  expect(kinds(task(alderHollow, 'arrive:tell'))).toEqual([])
})

test('a plan that this house does not bear is left out, and told; none at all is an empty order', () => {
  const taken = plan(saltmarshLane, { kind: 'tie', circuitId: 'c1', with: 'c3', tie: 'handle' })
  const bad = {
    ...taken,
    panels: taken.panels.map(p => ({ ...p, circuits: p.circuits.filter(c => c.id !== 'c3') })),
  }
  expect(workOrder(bad).open).toContainEqual(
    expect.stringMatching(/^Not in the order, since this house does not bear it/),
  )
  const none = { ...alderHollow, planned: [], hookup: { method: 'undecided' as const, bondingPlug: false } }
  expect(workOrder(none)).toMatchObject({ tasks: [], windows: [], offMinutes: 0 })
  expect(offText(workOrder(none))).toBe('No power has to be off.')
})

test('the sentence says how long, what of it is cold, who waits longer, and what preparing saves', () => {
  expect(offText(workOrder(quarryRidge))).toMatch(
    /^Power off for about 6 h\. 9 circuits behind the inverter: dark for about .*until it is up\. All that can be prepared comes first/,
  )
  expect(offText(workOrder(fernbrook))).toBe('Power off for about 1 h 15 min.')
  expect([minutesText(0.4), minutesText(60), minutesText(100), aboutText(12), aboutText(132)]).toEqual([
    '1 min',
    '1 h',
    '1 h 40 min',
    '12 min',
    '2 h 10 min',
  ])
})

test('every hold point of every demo job is passed by what it asks for, and by nothing less', () => {
  for (const job of [alderHollow, saltmarshLane, quarryRidge, millStreet, fernbrook, ospreyPoint]) {
    const order = workOrder(job)
    const done = worked(job, ['Ada', 'Ben'])
    const stand = standOf(done, order)
    expect([
      job.title,
      [...stand.tasks.values()].flatMap(t => t.holds.filter(isHeld).map(h => h.hold.id)),
    ]).toEqual([job.title, []])
    expect(stand.done).toBe(order.tasks.length)
    for (const hold of order.tasks.flatMap(t => t.holds)) expect(judge(hold, null).state).toBe('open')
  }
})

test('phases have one turn each, and what is said of them is short', () => {
  const turns = Object.values(phases).map(p => p.turn)
  expect(turns).toEqual(turns.map((_, n) => n))
  for (const { name } of Object.values(phases)) expect(name.length).toBeLessThan(32)
})

test('the one-line in water: full, half and drained are told by word as well; without a sheet it has no frame', () => {
  const { windows } = workOrder(saltmarshLane)
  const drawn = (open: string[]) =>
    oneLineSvg(saltmarshLane, null, undefined, waterOf(saltmarshLane, windows, open))
  expect(drawn(['w1'])).toMatch(/LINE SIDE LIVE/)
  expect(drawn(['w1'])).toMatch(/>dead</)
  expect(drawn([])).not.toMatch(/>dead</)
  expect(drawn([])).not.toMatch(/One-line diagram · NEC/)
  // a store is live with its output off
  expect(drawn(['w1'])).toMatch(/STORE LIVE/)
})

test.each([
  ['black', 'black'],
  ['white with red tape', 'red'],
  ['green', 'green'],
  ['as it comes', null],
])('a wire that is %s is drawn %s', (colour, ink) => {
  expect(inkOf(colour)).toBe(ink)
})

test('labels of positions follow the solver; an inlet without a decided neutral has no sign, and that is told', () => {
  const moved = applied(alderHollow, {
    op: 'setPositions',
    positions: (alderHollow.hookup.positions ?? []).map(p => ({ ...p, position: 7 - p.position })),
  })
  expect(noticesOf(moved).notices.find(n => n.id === 'position:6')?.lines[0]).toMatch(/^2 Boiler/)
  const apart = by(saltmarshLane, 'cord-and-plug')
  expect(noticesOf(apart).notices.some(n => n.id === 'inlet' || n.id === 'standby')).toBe(false)
  const own = plan(alderHollow, { kind: 'notice', where: 'front door', text: 'Battery in the garage' })
  expect(noticesOf(own).notices.find(n => n.head === 'NOTICE')).toMatchObject({
    lines: ['Battery in the garage'],
    where: 'at the front door',
  })
})
