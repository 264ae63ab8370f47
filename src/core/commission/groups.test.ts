import { braid12 } from '@/server/seeds/catalogue'
import {
  alderHollow,
  demoJobs,
  fernbrook,
  millStreet,
  ospreyPoint,
  quarryRidge,
  saltmarshLane,
} from '@/server/seeds/jobs'
import { worked } from '@/server/seeds/worked'
import { applied, circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import type { Job } from '../job/schema'
import { notBuilt, testList } from './index'
import { togetherText } from './judge'
import { loopOhms, mostLoopOhms, wayOhms } from './ohms'
import { carriedTogether, proofOf } from './scene'
import { type GroupKey, wantedOf } from './tests'

const by = (j: Job, method: Job['hookup']['method'], facts: object = {}) =>
  applied(j, { op: 'setHookup', facts: { method, ...facts } })
const idsOf = (j: Job, group: GroupKey) => testList(j).tests.flatMap(t => (t.group === group ? t.id : []))
const of = (j: Job, id: string) => {
  const test = testList(j).tests.find(t => t.id === id)
  if (!test) throw new Error(`${j.title} has no ${id}`)
  return test
}
const keys = (j: Job, id: string) => of(j, id).asks.map(a => a.key)
const braided = by(alderHollow, 'managed-panel', { managed: braid12 })

describe('what is proven by each way of connecting', () => {
  test.each<[GroupKey, string, Job, string[]]>([
    ['manual', 'a switch', alderHollow, ['apart:tried', 'pins']],
    ['manual', 'an interlock', saltmarshLane, ['apart:tried', 'pins']],
    ['manual', 'an inverter that takes over by itself', quarryRidge, []],
    ['manual', 'a plug', fernbrook, []],
    ['automatic', 'a switch', alderHollow, []],
    [
      'automatic',
      'an inverter',
      quarryRidge,
      ['auto:closed', 'auto:loss', 'auto:return', 'auto:sign', 'solar:h2'],
    ],
    [
      'automatic',
      'a managed panel',
      braided,
      ['auto:closed', 'auto:loss', 'auto:return', 'auto:shed', 'ct:L1', 'ct:L2'],
    ],
    ['generator', 'one that charges', saltmarshLane, ['generator']],
    ['generator', 'none', alderHollow, []],
    ['capacity', 'two stations', saltmarshLane, ['capacity:u1', 'capacity:u2']],
    ['capacity', 'a vehicle, which nobody empties', millStreet, []],
    [
      'start',
      'a motor, and more than the source gives',
      alderHollow,
      ['start:kitchen-refrigerator', 'overload'],
    ],
    ['drill', 'every one of them', ospreyPoint, ['drill']],
  ])('%s, with %s', (group, _, j, ids) => {
    expect(idsOf(j, group)).toEqual(ids)
  })

  test('legs are read where the source comes in: at its inlet, at the lugs behind an inverter, at its own outlet', () => {
    const at = (j: Job) => of(j, 'legs').asks[0]?.probe.place
    expect([alderHollow, quarryRidge, fernbrook].map(at)).toEqual(['inlet', 'line new-panel', 'unit u1'])
    expect(keys(saltmarshLane, 'legs')).toEqual([
      'L1–N',
      'L1–G',
      'L2–N',
      'L2–G',
      'N–G',
      'L1–L2',
      'L1–L2 again',
      'L1–L2 loaded',
    ])
    // one leg alone: the other is seen dead
    const one = of(millStreet, 'legs')
    expect(one.asks.filter(a => a.expected?.to === 3).map(a => a.key)).toEqual([
      proofOf(millStreet).legs[0] === 'L1' ? 'L2–N' : 'L1–N',
    ])
  })

  test('what three volts must mean follows from the bonds', () => {
    const wanted = (j: Job, id: string) =>
      of(j, id).together.flatMap(t => (t.by === 'outlet' ? [t.wanted] : []))
    // the house’s bond is in force
    expect(wanted(alderHollow, 'legs')).toEqual([['bonded'], ['bonded']])
    expect(wanted(alderHollow, 'far:c5')).toEqual([['bonded']])
    // standing alone: as the unit is, or as its plug makes it
    expect(wanted(alderHollow, 'bond:u1')).toEqual([['floating']])
    const plugged = by(fernbrook, 'cord-and-plug', { bondingPlug: true })
    expect(wanted(plugged, 'legs')).toEqual([['bonded']])
    // a burner wants a bond though the plan has none: the test fails, as the burner will
    expect(wanted(fernbrook, 'legs')).toEqual([['bonded']])
    // floating with two hots three volts tell nothing: low impedance does
    const two = by(
      job([circuit(1, { loads: [load(100)] })], {
        source: { station: splitStation(), arrangement: 'split-phase' },
      }),
      'extension-cords',
    )
    expect(wanted(two, 'legs')).toEqual([])
    expect(of(two, 'bond:u1').asks.find(a => a.key === 'low')?.expected).toMatchObject({ to: 30 })
    const silent = by(
      job([circuit(1, { loads: [load(100)] })], { source: { station: station({ neutral: 'not stated' }) } }),
      'extension-cords',
    )
    expect(wanted(silent, 'bond:u1')).toEqual([['bonded', 'floating']])
    expect(
      togetherText({
        by: 'outlet',
        keys: { hotNeutralV: '', neutralGroundV: '', hotGroundV: '' },
        at: 'unknown',
        wanted: ['bonded', 'floating'],
      }),
    ).toMatch(/does not say which/)
  })
})

describe('how the house stands for a test', () => {
  test('dead, nothing is on; on the utility it is an ordinary day; on the source the utility is opened and what cannot be served stays off', () => {
    const { states } = proofOf(saltmarshLane)
    expect(states.dead).toMatchObject({ 'main main': 'off', 'unit u1': 'off', cord: 'out', backfed: 'off' })
    expect(states.utility).toMatchObject({ 'main main': 'on', 'unit u1': 'off', backfed: 'off' })
    expect(states.source).toMatchObject({ 'main main': 'off', 'unit u1': 'on', cord: 'in', backfed: 'on' })
    const { states: one, needs, served } = proofOf(millStreet)
    const bridged = needs.find(n => n.feed === 'bridge')
    expect(bridged && one.source[`breaker ${bridged.circuit.id}`]).toBe('off')
    expect(one.source[`breaker ${served[0]?.circuit.id}`]).toBe('on')
  })

  test('a circuit that comes on does so alone, and off is only itself', () => {
    const watts = of(alderHollow, 'watts:c5').setUp.state
    expect([watts['position 3'], watts['position 4'], watts['position 1']]).toEqual(['source', 'off', 'off'])
    const off = of(alderHollow, 'off:c5').setUp.state
    expect([off['position 3'], off['position 4'], off['main main']]).toEqual(['off', 'line', 'on'])
    expect(of(fernbrook, 'watts:c1').setUp.state).toMatchObject({ 'plug c1': 'source', 'plug c3': 'house' })
  })

  test('a reading that wants something else says so: a heater on, a clip at the far end', () => {
    const far = of(alderHollow, 'far:c5')
    const loaded = far.asks.find(a => a.key === 'loaded')
    expect(loaded && wantedOf(far, loaded).on).toEqual(['heater 1000 far c5'])
    // where the source is small, half of it; where the appliance is wired in, the appliance itself
    const small = of(fernbrook, 'far:c3')
    expect(small.asks.find(a => a.key === 'loaded')?.when?.says).toMatch(/about 500 W/)
    expect(of(alderHollow, 'far:c2').asks.find(a => a.key === 'loaded')?.when).toMatchObject({
      on: ['boiler', 'circulators'],
    })
    const crossed = of(quarryRidge, 'crossed:s1')
    expect(crossed.setUp.state['lifted s1']).toBe('yes')
    expect(crossed.asks[0]?.when?.state).toEqual({ 'clip s1': 'yes' })
  })

  test('what is on while a current is looked for is never more than the source carries', () => {
    for (const { job: demo } of demoJobs) {
      const p = proofOf(demo)
      const on = new Set(carriedTogether(p))
      const VA = p.loads.filter(l => on.has(l.load.id)).reduce((sum, l) => sum + l.VA, 0)
      expect(VA).toBeLessThanOrEqual(p.output?.totalW ?? 0)
    }
    const heavy = job([1, 3, 5].map(n => circuit(n, { loads: [load(900, { id: `l${n}` })] })))
    expect(carriedTogether(proofOf(by(heavy, 'extension-cords')))).toHaveLength(2)
  })
})

describe('what is expected', () => {
  test('ohms of the whole way: by its wires, or as they were read; of unknown length at most those of 150 ft', () => {
    const p = proofOf(alderHollow)
    const need = (id: string) => {
      const found = p.needs.find(n => n.circuit.id === id)
      if (!found) throw new Error(`no ${id}`)
      return found
    }
    const way = wayOhms(p.job)
    expect(way).toBeGreaterThan(0.02)
    // 2 × 55 ft of 12 AWG: 0.218 Ω at 75 °C, 0.186 at 30
    expect(loopOhms(need('c5'), p.job)).toBeCloseTo(way + 0.186, 2)
    expect(loopOhms(need('c9'), p.job)).toBeNull()
    // 2 × 150 ft of 14 AWG, and 0.2 for joints
    expect(mostLoopOhms(need('c9'), p.job)).toBeCloseTo(way + 0.2 + 0.8055, 2)
    const read = applied(alderHollow, {
      op: 'takeLoop',
      circuitId: 'c5',
      loopOhms: { value: 0.9, from: 'commissioned' },
    })
    expect(of(read, 'far:c5').together.find(t => t.by === 'drop')).toMatchObject({ ohms: 0.9 })
  })

  test('a transfer: half as much again as its sheet, or as it was timed', () => {
    const to = (j: Job) => of(j, 'auto:loss').asks.find(a => a.key === 's')?.expected?.to
    expect(to(quarryRidge)).toBeCloseTo(0.52, 2)
    const timed = applied(quarryRidge, { op: 'timeTransfer', transferS: { value: 4, from: 'commissioned' } })
    expect(to(timed)).toBe(6)
  })

  test('fuel by the charger’s draw, the overload by what limits: electronics in seconds, a breaker by its curve', () => {
    const fuel = of(saltmarshLane, 'generator').asks.find(a => a.key === 'fuel')?.expected
    expect(fuel && (fuel.from + fuel.to) / 2).toBeCloseTo(1800 / 5100, 2)
    const overload = of(alderHollow, 'overload')
    expect(overload.asks[0]?.choices?.[0]).toBe('the Sluice 22')
    expect(overload.lines[0]).toMatch(/Microwave on 7.*a heater of 1,000 W at an outlet of .*against 2,200 W/)
    const behind = applied(alderHollow, {
      op: 'setHookup',
      facts: {
        path: (alderHollow.hookup.path ?? []).map(l => (l.kind === 'breaker' ? { ...l, ratingA: 15 } : l)),
      },
    })
    const breaker = of(behind, 'overload')
    expect(breaker.asks[0]?.choices?.[0]).toMatch(/^15 A/)
    expect(breaker.asks[1]?.expected?.to).toBe(3600)
  })

  test('what is expected together is said in a sentence, whatever it is', () => {
    const said = demoJobs.flatMap(({ job: demo }) =>
      testList(demo).tests.flatMap(t => t.together.map(x => togetherText(x))),
    )
    for (const sentence of said) expect(sentence).toMatch(/^[A-Z].*\.$/)
    expect(said.join(' ')).toMatch(/Bonded:.*at most 3 V.*nothing between them: they are tied.*within 2 V/s)
    expect(
      togetherText({ by: 'watts', key: 'W', loads: [{ id: 'a', name: 'A', W: 400, idleW: 4 }] }, ['a']),
    ).toBe('About 400 W (340 W to 460 W) with what is ticked running.')
  })
})

test('torque is sampled from what was written down at the work, by what was tightened', () => {
  expect(idsOf(alderHollow, 'dead')).not.toContain('torque:sample')
  const built = worked(alderHollow, ['Ann', 'Ben'])
  const sample = of(built, 'torque:sample')
  expect(sample.asks).toHaveLength(3)
  expect(sample.asks.map(a => a.name).join(' ')).toMatch(/At position 2 fit a 15 A breaker.*in·lb/)
  expect(notBuilt(built)).toEqual([])
  expect(notBuilt(alderHollow).length).toBeGreaterThan(5)
})

test('only protection that stands in the way on the source is pressed there', () => {
  expect(idsOf(alderHollow, 'far').filter(id => id.startsWith('guard'))).toEqual(['guard:c7'])
  // whole panel: its own breakers protect on the source too
  const whole = by(job([circuit(1, { protection: 'arc-fault', loads: [load(100)] })]), 'interlocked-inlet')
  expect(idsOf(whole, 'far')).toContain('guard:c1')
})
