import { alderHollow, quarryRidge, saltmarshLane } from '@/server/seeds/jobs'
import type { Read } from '../job/test-log'
import { testList } from './index'
import { judgeTest, type Verdict } from './judge'
import type { Test } from './tests'

const lists = { alder: testList(alderHollow), salt: testList(saltmarshLane), quarry: testList(quarryRidge) }
const of = (list: keyof typeof lists, id: string): Test => {
  const found = lists[list].tests.find(t => t.id === id)
  if (!found) throw new Error(`no test ${id}`)
  return found
}
const verdict = (test: Test, figures: Record<string, Read['value']>, ran?: readonly string[]): Verdict =>
  judgeTest(
    test,
    Object.entries(figures).map(([key, value]) => ({ key, value })),
    ran,
  )

/** Each at its thresholds, just inside and just outside. */
test.each([
  // list, test, what else was read, the figure, its values with what they come to
  [
    'alder',
    'ground:c5',
    {},
    'ohms',
    [
      [0, 'passed'],
      [1, 'passed'],
      [1.01, 'failed'],
      ['OL', 'failed'],
    ],
  ],
  [
    'quarry',
    'apart:new-panel',
    {},
    'ohms',
    [
      ['OL', 'passed'],
      [100_000, 'passed'],
      [99_000, 'doubtful'],
      [1000, 'doubtful'],
      [999, 'failed'],
      [0.2, 'failed'],
    ],
  ],
  [
    'quarry',
    'insulation:r1',
    {},
    'megohms',
    [
      [1, 'passed'],
      ['OL', 'passed'],
      [0.9, 'doubtful'],
      [0.5, 'doubtful'],
      [0.49, 'failed'],
    ],
  ],
  [
    'quarry',
    'crossed:s1',
    { open: 'OL' },
    'clipped',
    [
      [2, 'passed'],
      [2.1, 'failed'],
      ['OL', 'failed'],
    ],
  ],
  [
    'quarry',
    'crossed:s1',
    { clipped: 0.5 },
    'open',
    [
      ['OL', 'passed'],
      [50_000, 'doubtful'],
      [0.5, 'failed'],
    ],
  ],
  [
    'alder',
    'ground:current',
    { load: 9 },
    'way',
    [
      [0.1, 'passed'],
      [0.11, 'doubtful'],
      [0.3, 'doubtful'],
      [0.31, 'failed'],
      ['OL', 'failed'],
    ],
  ],
  [
    'alder',
    'pins',
    { 'L2–G': 0, known: 121 },
    'L1–G',
    [
      [3, 'passed'],
      [3.1, 'doubtful'],
      [30, 'doubtful'],
      [31, 'failed'],
      [121, 'failed'],
    ],
  ],
  [
    'alder',
    'apart:tried',
    {},
    'throws',
    [
      ['line, off, source: never two at once', 'passed'],
      ['one of them touches both', 'failed'],
    ],
  ],
  [
    'alder',
    'utility:c5',
    {},
    'V',
    [
      [114, 'passed'],
      [126, 'passed'],
      [113.9, 'doubtful'],
      [110, 'doubtful'],
      [109.9, 'failed'],
      [126.1, 'doubtful'],
      [132.1, 'failed'],
      [0, 'failed'],
      [240, 'failed'],
    ],
  ],
  [
    'alder',
    'off:c5',
    {},
    'V',
    [
      [0, 'passed'],
      [3, 'passed'],
      [12, 'doubtful'],
      [121, 'failed'],
    ],
  ],
  [
    'alder',
    'dead:c17',
    {},
    'V',
    [
      [0.4, 'passed'],
      [119, 'failed'],
    ],
  ],
  // 118 W: 15 % of it, at least 10 W
  [
    'alder',
    'watts:c5',
    { V: 119 },
    'W',
    [
      [118, 'passed'],
      [136, 'doubtful'],
      [135, 'passed'],
      [101, 'passed'],
      [100, 'doubtful'],
    ],
  ],
  [
    'alder',
    'watts:c5',
    { W: 118 },
    'V',
    [
      [110, 'passed'],
      [126, 'passed'],
      [109, 'doubtful'],
      [103, 'failed'],
      [0, 'failed'],
    ],
  ],
  [
    'alder',
    'start:kitchen-refrigerator',
    { amps: 11 },
    'volts',
    [
      [96, 'passed'],
      [95, 'doubtful'],
      [90, 'doubtful'],
      [89, 'failed'],
    ],
  ],
  // 11.4 A as measured by clamp
  [
    'alder',
    'start:kitchen-refrigerator',
    { volts: 112 },
    'amps',
    [
      [13.1, 'passed'],
      [13.2, 'doubtful'],
      [40, 'doubtful'],
    ],
  ],
  [
    'quarry',
    'auto:closed',
    {},
    'closed',
    [
      ['closed', 'passed'],
      ['one is off', 'failed'],
    ],
  ],
  [
    'quarry',
    'auto:loss',
    { V: 120 },
    's',
    [
      [0.5, 'passed'],
      [0.6, 'doubtful'],
    ],
  ],
  [
    'quarry',
    'auto:loss',
    { s: 0.1 },
    'V',
    [
      [114, 'passed'],
      [0, 'failed'],
    ],
  ],
  [
    'quarry',
    'solar:h2',
    { back: 6 },
    'island',
    [
      [5, 'passed'],
      [6, 'failed'],
    ],
  ],
  [
    'quarry',
    'solar:h2',
    { island: 0 },
    'back',
    [
      [3.9, 'failed'],
      [4, 'passed'],
      [15, 'passed'],
      [16, 'failed'],
    ],
  ],
  [
    'salt',
    'generator',
    { co: 'tested, silent now', V: 120, fuel: 0.35 },
    'Hz',
    [
      [57, 'passed'],
      [56, 'doubtful'],
      [54, 'failed'],
      [63, 'passed'],
      [66, 'failed'],
    ],
  ],
  [
    'salt',
    'generator',
    { V: 120, Hz: 60, fuel: 0.35 },
    'co',
    [
      ['tested, silent now', 'passed'],
      ['missing or not tested', 'failed'],
    ],
  ],
  [
    'alder',
    'drill',
    { alive: 'all of it', off: 'stayed off', back: 4 },
    'there',
    [
      [15, 'passed'],
      [16, 'doubtful'],
      [61, 'failed'],
    ],
  ],
] as const)('%s %s: %j, %s', (list, id, others, key, expected) => {
  const test = of(list, id)
  for (const [value, state] of expected)
    expect([value, verdict(test, { ...others, [key]: value }).state]).toEqual([value, state])
})

const inlet = {
  'L1–N': 119,
  'L1–G': 119,
  'L2–N': 119,
  'L2–G': 119,
  'N–G': 0.1,
  'L1–L2': 0.1,
  'L1–L2 again': 0.1,
}

test('three readings and two legs mean what the bench says they mean; what is wanted follows from bond and arrangement', () => {
  const legs = of('alder', 'legs')
  expect(verdict(legs, inlet)).toMatchObject({ state: 'passed' })
  // tied legs show nothing between them: 240 V is another source
  expect(verdict(legs, { ...inlet, 'L1–L2': 238, 'L1–L2 again': 238 })).toMatchObject({
    state: 'failed',
    name: 'Split phase',
  })
  expect(verdict(legs, { ...inlet, 'L2–N': 0, 'L2–G': 0 })).toMatchObject({ state: 'failed' })
  // a neutral that does not reach the house: the source floats
  expect(verdict(legs, { ...inlet, 'N–G': 54, 'L1–G': 65, 'L2–G': 65 })).toMatchObject({
    state: 'failed',
    text: expect.stringMatching(/apart, where the plan has them joined/),
  })
  const two = of('salt', 'legs')
  const split = { ...inlet, 'L1–L2': 238, 'L1–L2 again': 238, 'L1–L2 loaded': 237 }
  expect(verdict(two, split).state).toBe('passed')
  expect(verdict(two, { ...split, 'L1–L2 again': 190 })).toMatchObject({ name: 'Not synchronised' })
  expect(verdict(two, { ...split, 'L1–L2': 0.2, 'L1–L2 again': 0.2, 'L1–L2 loaded': 0.2 })).toMatchObject({
    name: 'Same phase',
  })
})

test.each([
  [4, 'passed'],
  [4.1, 'failed'],
])('a kilowatt on one leg moves the legs %d V apart: %s', (apart, state) => {
  const spread = of('salt', 'neutral:spread')
  expect(
    verdict(spread, { L1: 119, L2: 119, 'L1 loaded': 119 - apart / 2, 'L2 loaded': 119 + apart / 2, amps: 8 })
      .state,
  ).toBe(state)
})

describe('the far outlet, loaded', () => {
  // 55 ft of 12 AWG and the way in: 0.30 Ω there and back; 2.4 V at 8 A
  const far = of('alder', 'far:c5')
  const read = (loaded: number, amps = 8) =>
    verdict(far, { 'H–N': 119, 'N–G': 0.2, 'H–G': 119, loaded, amps })
  const ohms = far.together.find(t => t.by === 'drop')?.ohms ?? 0

  test('its wires explain what it loses, within 2 V', () => {
    expect(ohms).toBeGreaterThan(0.2)
    expect(read(119 - 8 * ohms - 1.9).state).toBe('passed')
    expect(read(119 - 8 * ohms - 2.1)).toMatchObject({
      state: 'doubtful',
      name: 'Less than its wires explain',
    })
  })
  test('never below 5 % nor 110 V; and volts that rise come from a lost neutral', () => {
    expect(read(113.1).state).not.toBe('failed')
    expect(read(113).state).toBe('failed')
    expect(read(122)).toMatchObject({ state: 'failed', text: expect.stringMatching(/lost neutral/) })
  })
  test('where the length is not known, more ohms than 150 ft have is a joint until it is found to be length', () => {
    const unknown = of('alder', 'far:c2')
    const at = (loaded: number) =>
      verdict(unknown, { 'H–N': 119, 'N–G': 0.2, 'H–G': 119, loaded, amps: 1 }).state
    const most = unknown.together.find(t => t.by === 'drop')?.mostOhms ?? 0
    expect([at(119 - most + 0.01), at(119 - most - 0.01)]).toEqual(['passed', 'doubtful'])
  })
})

test('capacity: expected by the run-time calculator; passed from nine tenths, failed below eight; never more out than in', () => {
  const capacity = of('alder', 'capacity:u1')
  // 3,800 Wh, 16 W of its own, 89 %: at 900 W 3,328 Wh
  const delivered = (3800 / (16 + 900 / 0.89)) * 900
  const read = (out: number, back?: number) =>
    verdict(capacity, { loadW: 900, from: 100, to: 0, 'Wh out': out, ...(back && { 'Wh back': back }) })
  expect(delivered).toBeCloseTo(3328.9, 0)
  expect([0.91, 0.89, 0.81, 0.79].map(share => read(share * delivered).state)).toEqual([
    'passed',
    'doubtful',
    'doubtful',
    'failed',
  ])
  expect(read(delivered, 0.9 * delivered)).toMatchObject({ state: 'failed', name: 'More out than in' })
  expect(read(delivered, delivered / 0.59).state).toBe('doubtful')
  expect(verdict(capacity, { loadW: 900, from: 20, to: 40, 'Wh out': 900 }).state).toBe('failed')
})

test('what did not run is not missed, and what ran is told', () => {
  const watts = of('alder', 'watts:c11')
  expect(verdict(watts, { V: 119, W: 8 }, ['monitors']).state).toBe('passed')
  expect(verdict(watts, { V: 119, W: 8 })).toMatchObject({
    state: 'doubtful',
    text: expect.stringMatching(/draws 8 W; the plan has 81 W for Baby monitors and Formula refrigerator/),
  })
})

test('readings at each other’s points are told as that, but a reversal is never explained away', () => {
  const far = of('alder', 'far:c5')
  const loaded = { loaded: 117, amps: 8 }
  expect(verdict(far, { 'H–N': 0.2, 'N–G': 119, 'H–G': 119, ...loaded }).text).toMatch(
    /Hot–N and N–ground were read the other way round/,
  )
  const reversed = verdict(far, { 'H–N': 119, 'N–G': 119, 'H–G': 0.2, ...loaded })
  expect(reversed).toMatchObject({ state: 'failed', name: 'Reversed polarity' })
  expect(reversed.text).not.toMatch(/other way round/)
})

test('OL is no volts, and what is not read yet is asked for by name', () => {
  expect(verdict(of('alder', 'legs'), { ...inlet, 'L1–N': 'OL' })).toMatchObject({
    state: 'failed',
    name: 'No reading',
  })
  expect(verdict(of('alder', 'watts:c5'), { V: 119 })).toMatchObject({
    state: 'open',
    next: 'Still to be read: Watts as it comes on.',
  })
})

test('without its load nothing is proven: no heater on, nothing that ran, a start that was missed, a tester that is dead', () => {
  const far = { 'H–N': 119, 'N–G': 0.1, 'H–G': 119, loaded: 119 }
  expect(verdict(of('alder', 'far:c5'), { ...far, amps: 0 })).toMatchObject({
    state: 'doubtful',
    name: 'No load flowed',
  })
  const spread = { L1: 119, L2: 119, 'L1 loaded': 119, 'L2 loaded': 119 }
  expect(verdict(of('salt', 'neutral:spread'), { ...spread, amps: 0.2 }).state).toBe('doubtful')
  expect(verdict(of('alder', 'ground:current'), { load: 0.1, way: 0 }).state).toBe('doubtful')
  expect(verdict(of('alder', 'watts:c11'), { V: 119, W: 0 }, [])).toMatchObject({
    state: 'doubtful',
    name: 'Nothing ran',
  })
  expect(verdict(of('alder', 'start:kitchen-refrigerator'), { volts: 118, amps: 1 }).state).toBe('doubtful')
  expect(verdict(of('alder', 'pins'), { 'L1–G': 0, 'L2–G': 0, known: 0 }).state).toBe('failed')
})
