import { testList } from '@/core/commission'
import { heaterAt, heaterOn } from '@/core/commission/legs'
import { type Proof, proofOf } from '@/core/commission/scene'
import { applied } from '@/core/job/fixtures/jobs'
import type { Job } from '@/core/job/schema'
import { braid12 } from '@/server/seeds/catalogue'
import {
  alderHollow,
  fernbrook,
  millStreet,
  ospreyPoint,
  quarryRidge,
  saltmarshLane,
} from '@/server/seeds/jobs'
import { instrumentsOf, type Question, questionOf } from './instruments'
import { truthOf } from './truth'

const seed = 4
const made = (job: Job, ...faults: string[]) => {
  const p = proofOf(job)
  const truth = truthOf(p, seed, faults)
  const { read } = instrumentsOf(p, truth)
  const ask = (
    q: Partial<Question> & Pick<Question, 'place' | 'points'>,
    supply: keyof Proof['states'] = 'source',
  ) => read({ instrument: 'volts', state: p.states[supply], on: [], ...q })
  const volts = (place: string, a: string, b: string, supply?: keyof Proof['states']) =>
    Number(ask({ place, points: [a, b] }, supply))
  return { p, truth, read, ask, volts }
}
const braided = applied(alderHollow, {
  op: 'setHookup',
  facts: { method: 'managed-panel', managed: braid12 },
})

describe('a multimeter', () => {
  test('shows the source at an outlet of the house, bonded by the house; less under a load', () => {
    const { volts, ask, truth } = made(alderHollow)
    expect(volts('far c5', 'H', 'N')).toBeCloseTo(truth.sourceV, 0)
    expect(volts('far c5', 'N', 'G')).toBeLessThan(0.5)
    expect(volts('far c5', 'H', 'G')).toBeCloseTo(volts('far c5', 'H', 'N'), 0)
    const loaded = Number(ask({ place: 'far c5', points: ['H', 'N'], on: [heaterAt('c5')] }))
    expect(volts('far c5', 'H', 'N') - loaded).toBeGreaterThan(1)
  })

  test('shows phantoms on a unit that floats, which a two-pole tester lets collapse', () => {
    const { p, volts, ask } = made(alderHollow)
    const state = { ...p.states.dead, 'unit u1': 'on' }
    const at = (instrument: 'volts' | 'tester', a: string, b: string) =>
      Number(ask({ place: 'unit u1', points: [a, b], state, instrument }))
    expect(volts('unit u1', 'H', 'N')).toBeGreaterThan(110)
    expect(at('volts', 'N', 'G')).toBeGreaterThan(30)
    expect(at('volts', 'N', 'G') + at('volts', 'H', 'G')).toBeCloseTo(at('volts', 'H', 'N'), 0)
    expect(at('tester', 'H', 'G')).toBeLessThan(10)
  })

  test('puts the ground of two units that make a leg each at their neutral, by symmetry, though they float', () => {
    const { p, ask } = made(saltmarshLane)
    const state = { ...p.states.dead, 'unit u1': 'on', 'unit u2': 'on' }
    expect(Number(ask({ place: 'unit u1', points: ['N', 'G'], state }))).toBeLessThan(2)
    const one = { ...p.states.dead, 'unit u1': 'on' }
    expect(Number(ask({ place: 'unit u1', points: ['N', 'G'], state: one }))).toBeGreaterThan(30)
  })

  test('shows 240 V between opposed legs, nothing between tied ones, one leg alone where only one is fed', () => {
    expect(made(saltmarshLane).volts('inlet', 'L1', 'L2')).toBeGreaterThan(230)
    expect(made(ospreyPoint).volts('inlet', 'L1', 'L2')).toBeGreaterThan(230)
    expect(made(alderHollow).volts('inlet', 'L1', 'L2')).toBeLessThan(1)
    const { volts, p } = made(millStreet)
    const [live] = p.legs
    expect(volts('inlet', live === 'L1' ? 'L1' : 'L2', 'N')).toBeGreaterThan(110)
    expect(volts('inlet', live === 'L1' ? 'L2' : 'L1', 'N')).toBeLessThan(5)
  })

  test('sees two units that nothing synchronises drift between two looks', () => {
    const apart = applied(saltmarshLane, { op: 'setArrangement', arrangement: 'independent' })
    const { ask } = made(apart)
    const look = (later: boolean) => Number(ask({ place: 'inlet', points: ['L1', 'L2'], later }))
    expect(Math.abs(look(false) - look(true))).toBeGreaterThan(8)
  })

  test.each([
    [
      'an open ground',
      'ground-open:c5',
      (v: Volts) => v('H', 'G') + v('N', 'G') < 1.2 * v('H', 'N') && v('N', 'G') > 20,
    ],
    ['hot and neutral reversed', 'polarity:c5', (v: Volts) => v('H', 'G') < 2 && v('N', 'G') > 110],
    ['a breaker of the position that is off', 'left-off:c5', (v: Volts) => v('H', 'N') < 5],
  ])('shows %s', (_, fault, is) => {
    const { volts } = made(alderHollow, fault)
    expect(is((a, b) => volts('far c5', a, b))).toBe(true)
  })
  type Volts = (a: string, b: string) => number

  test('shows the neutral rise where its joint is poor, and only under load', () => {
    const { volts, ask } = made(alderHollow, 'neutral-loose:c5')
    expect(volts('far c5', 'N', 'G')).toBeLessThan(0.5)
    const on = [heaterAt('c5')]
    expect(Number(ask({ place: 'far c5', points: ['N', 'G'], on }))).toBeGreaterThan(15)
  })

  test('on ohms: a ground has few, a broken one none; neutral and ground meet at the service, and nowhere in a panel behind it', () => {
    const ohms = (
      job: Job,
      place: string,
      points: [string, string],
      extra: object = {},
      ...faults: string[]
    ) => {
      const { p, ask } = made(job, ...faults)
      return ask({ instrument: 'ohms', place, points, state: { ...p.states.dead, ...extra } }, 'dead')
    }
    expect(Number(ohms(alderHollow, 'box c5', ['G bar', 'G']))).toBeLessThan(0.6)
    expect(ohms(alderHollow, 'box c5', ['G bar', 'G'], {}, 'ground-open:c5')).toBe('OL')
    expect(Number(ohms(alderHollow, 'bus main', ['N', 'G']))).toBeLessThan(0.5)
    const lifted = { 'neutral new-panel': 'lifted' }
    expect(ohms(quarryRidge, 'bus new-panel', ['N', 'G'], lifted)).toBe('OL')
    expect(Number(ohms(quarryRidge, 'bus new-panel', ['N', 'G']))).toBeLessThan(0.5)
    expect(
      Number(ohms(quarryRidge, 'bus new-panel', ['N', 'G'], lifted, 'bond-second:new-panel')),
    ).toBeLessThan(0.5)
  })

  test('on ohms where something is live shows nothing that counts', () => {
    const { ask } = made(alderHollow)
    expect(ask({ instrument: 'ohms', place: 'far c5', points: ['H', 'N'] })).toBe('OL')
  })
})

describe('a clamp', () => {
  const on = ['kitchen-refrigerator', 'microwave']

  test('finds the load on its hot, and nothing on a ground; with a second bond a share of it', () => {
    const at = (place: string, ...faults: string[]) =>
      Number(made(alderHollow, ...faults).ask({ instrument: 'clamp', place, points: ['G'], on }))
    expect(at('load way')).toBeGreaterThan(8)
    expect(at('ground way')).toBe(0)
    expect(at('ground way', 'bond-second:inlet')).toBeGreaterThan(1)
    expect(at('ground cord', 'bond-second:u1')).toBeGreaterThan(1)
  })

  test('holds the inrush of a start, and the volts dip meanwhile', () => {
    const { ask, truth, volts } = made(alderHollow)
    const start = (instrument: 'inrush' | 'volts', place: string) =>
      Number(ask({ instrument, place, points: ['H', 'N'] }))
    const amps = start('inrush', 'inrush kitchen-refrigerator')
    expect(amps).toBeCloseTo(truth.loads.get('kitchen-refrigerator')?.startA ?? 0, -0.5)
    expect(start('volts', 'dip kitchen-refrigerator')).toBeLessThan(volts('far c5', 'H', 'N'))
    const hard = made(alderHollow, 'start-hard')
    expect(
      Number(hard.ask({ instrument: 'inrush', place: 'inrush kitchen-refrigerator', points: ['H'] })),
    ).toBeGreaterThan(1.8 * amps)
  })
})

describe('displays and sensors', () => {
  test('a display rises by what runs, and by nothing where its circuit is not fed', () => {
    const { ask, p, truth } = made(alderHollow)
    const W = Number(
      ask({ instrument: 'display', place: 'draw c5', points: ['W'], on: ['kitchen-refrigerator'] }),
    )
    expect(W / (truth.loads.get('kitchen-refrigerator')?.W ?? 1)).toBeCloseTo(1, 1)
    const off = { ...p.states.source, 'position 3': 'off' }
    expect(
      Number(
        ask({
          instrument: 'display',
          place: 'draw c5',
          points: ['W'],
          on: ['kitchen-refrigerator'],
          state: off,
        }),
      ),
    ).toBeLessThan(2)
  })

  test.each([
    ['a sound sensor', [], 1000, 0],
    ['a reversed one', ['ct-reversed:L1'], -1000, 0],
    ['two on each other’s leg', ['ct-crossed'], 0, 1000],
  ] as const)('%s', (_, faults, own, other) => {
    const { ask } = made(braided, ...faults)
    const at = (leg: string) =>
      Number(
        ask({ instrument: 'display', place: `ct ${leg}`, points: ['W'], on: [heaterOn('L1')] }, 'utility'),
      )
    expect(at('L1') / 100).toBeCloseTo(own / 100, -0.5)
    expect(at('L2') / 100).toBeCloseTo(other / 100, -0.5)
  })

  test('a capacity test gives what the store holds, and a weak cell less', () => {
    const out = (...faults: string[]) =>
      Number(made(alderHollow, ...faults).ask({ instrument: 'plug', place: 'capacity u1', points: ['out'] }))
    expect(out()).toBeGreaterThan(3100)
    expect(out('cell-weak:u1') / out()).toBeCloseTo(0.72, 2)
  })
})

test('eyes find what the house is: what must live in an outage lives, what must not does not, and what is wrong shows', () => {
  const seen = (job: Job, test: string, key: string, ...faults: string[]) => {
    const { p, read } = made(job, ...faults)
    const t = testList(job).tests.find(x => x.id === test)
    const a = t?.asks.find(x => x.key === key)
    if (!t || !a) throw new Error(`${p.job.title} has no ${test} ${key}`)
    return read(questionOf(t, a))
  }
  expect(seen(quarryRidge, 'drill', 'alive')).toBe('all of it')
  expect(seen(quarryRidge, 'drill', 'alive', 'left-off:way')).toBe('something stayed dark')
  expect(seen(quarryRidge, 'auto:closed', 'closed', 'left-off:way')).toBe('one is off')
  expect(seen(quarryRidge, 'auto:return', 'back', 'return-off')).toBe('stays on the battery')
  expect(seen(saltmarshLane, 'apart:tried', 'over', 'interlock-idle')).toBe('closes')
  expect(seen(alderHollow, 'guard:c7', 'opened', 'guard-dead:c7')).toBe('did not open')
  expect(seen(braided, 'auto:shed', 'order', 'shed-order')).toBe('in another order')
})

test('an appliance that is plugged into the source lives by it alone, and its plug’s blades tell which is hot', () => {
  const { p, volts } = made(fernbrook)
  expect(volts('far c1', 'H', 'N')).toBeGreaterThan(110)
  const house = { ...p.states.source, 'plug c1': 'out' }
  expect(Number(made(fernbrook).ask({ place: 'far c1', points: ['H', 'N'], state: house }))).toBeLessThan(5)
  const blade = (...faults: string[]) =>
    made(fernbrook, ...faults).ask({ instrument: 'ohms', place: 'blade c1', points: ['H', 'hot'] }, 'dead')
  expect([blade(), blade('polarity:c1')]).toEqual([0.2, 'OL'])
})

test('an inverter with its own transfer passes the utility through, and takes over without it', () => {
  const { volts, truth } = made(quarryRidge)
  expect(volts('line new-panel', 'L1', 'N', 'utility')).toBeCloseTo(truth.lineV, 0)
  expect(volts('line new-panel', 'L1', 'N', 'source')).toBeCloseTo(truth.sourceV, 0)
  expect(volts('line new-panel', 'L1', 'N', 'dead')).toBeLessThan(3)
})

test('the same seed is the same house; another differs, within what a sound one may', () => {
  const p = proofOf(alderHollow)
  expect(truthOf(p, 7)).toEqual(truthOf(p, 7))
  const [a, b] = [truthOf(p, 7), truthOf(p, 8)]
  expect(a.lineV).not.toBe(b.lineV)
  for (const t of [a, b]) {
    expect([t.lineV, t.sourceV].every(v => v > 116 && v < 124)).toBe(true)
    for (const [id, { W }] of t.loads) {
      const load = p.needs.flatMap(n => n.circuit.loads).find(l => l.id === id)
      expect(W / (load?.runningW.value ?? W)).toBeGreaterThan(0.9)
    }
  }
})
