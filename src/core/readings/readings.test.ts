import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { groundOnLine, outletReadings } from './outlet-readings'
import { legAngleDegrees, splitReadings } from './split-readings'

test.each([
  // hot–neutral, neutral–ground, hot–ground
  [0, 0, 120, 'open-neutral'],
  [29.9, 60, 90, 'open-neutral'],
  [0, 0, 0, 'no-voltage'],
  [29.9, 0, 89.9, 'no-voltage'],
  [132.1, 0, 132, 'high-voltage'],
  [103.9, 0, 104, 'low-voltage'],
  [30, 0, 30, 'low-voltage'],
  [120, 120, 0.5, 'reversed-polarity'],
  [120, 3, 115, 'bonded'],
  [121, 0.2, 121, 'bonded'],
  [118, 5, 123, 'neutral-rise'],
  [118, 12, 127, 'neutral-rise'],
  [120, 2, 6, 'open-ground'],
  [120, 54, 63, 'floating'],
  [120, 60, 69.6, 'floating'],
  [4, 48, 50, 'leakage'],
  [20, 20, 45, 'leakage'],
  [20, 20, 45.1, 'no-voltage'],
  [4, 19.9, 20, 'no-voltage'],
  [4, 90, 89, 'no-voltage'],
  [120, 60, 69.7, 'inconsistent'],
  [120, 120, 120, 'inconsistent'],
])(
  'hot–neutral %d V, neutral–ground %d V, hot–ground %d V: %s',
  (hotNeutralV, neutralGroundV, hotGroundV, verdict) => {
    const r = result(outletReadings, { hotNeutralV, neutralGroundV, hotGroundV })
    expect(r.verdict).toBe(verdict)
    expect(r.meaning && r.next).toBeTruthy()
  },
)

test('where it was read decides what odd volts to ground mean', () => {
  const odd = { hotNeutralV: 120, neutralGroundV: 54, hotGroundV: 63 }
  for (const at of ['unit-alone', 'unit-with-plug', 'inlet', 'unknown'] as const)
    expect(result(outletReadings, { ...odd, at }).verdict).toBe('floating')
  const lost = result(outletReadings, { ...odd, at: 'house-outlet' })
  expect(lost).toMatchObject({ verdict: 'open-ground', meaning: expect.stringMatching(/lost on the way/) })
  const sound = { hotNeutralV: 121, neutralGroundV: 0.2, hotGroundV: 121, at: 'house-outlet' } as const
  expect(result(outletReadings, sound)).toMatchObject({
    verdict: 'bonded',
    next: expect.stringMatching(/clamp/),
  })
  expect(faultPaths(outletReadings, { ...odd, at: 'somewhere' })).toEqual(['at'])
})

test('any three readings have a verdict; negative ones are refused', () => {
  const volts = fc.double({ min: 0, max: 600, noNaN: true })
  fc.assert(
    fc.property(volts, volts, volts, (hotNeutralV, neutralGroundV, hotGroundV) => {
      expect(result(outletReadings, { hotNeutralV, neutralGroundV, hotGroundV }).next.length).toBeGreaterThan(
        20,
      )
    }),
  )
  expect(faultPaths(outletReadings, { hotNeutralV: -1, neutralGroundV: 0, hotGroundV: 0 })).toEqual([
    'hotNeutralV',
  ])
})

test('the ground stands between the conductors when floating, beyond the neutral when it rises', () => {
  expect(groundOnLine({ hotNeutralV: 120, neutralGroundV: 50, hotGroundV: 70 })).toBe(50)
  expect(groundOnLine({ hotNeutralV: 118, neutralGroundV: 5, hotGroundV: 123 })).toBe(-5)
  expect(groundOnLine({ hotNeutralV: 120, neutralGroundV: 120, hotGroundV: 0 })).toBe(120)
})

const legsAt = (l1V: number, l2V: number, l1l2V: number, l1l2AgainV?: number[]) =>
  result(splitReadings, { l1V, l2V, l1l2V, ...(l1l2AgainV && { l1l2AgainV }) })

test.each([
  [120, 29, 120, [], 'leg-dead'],
  [120, 103, 223, [], 'leg-out-of-range'],
  [133, 120, 253, [], 'leg-out-of-range'],
  [120, 120, 240, [231], 'not-synchronised'],
  [120, 120, 240, [232, 236], 'split-phase'],
  [120, 118, 12, [], 'same-phase'],
  [120, 120, 232, [], 'split-phase'],
  [128, 112, 240, [], 'loose-neutral'],
  [124, 116, 240, [], 'split-phase'],
  [112, 128, 248, [], 'loose-neutral'],
  [120, 120, 208, [207], 'three-phase-legs'],
  [120, 120, 150, [], 'not-synchronised'],
])('L1 %d V, L2 %d V, between %d V, again %j: %s', (l1V, l2V, l1l2V, again, verdict) => {
  expect(legsAt(l1V, l2V, l1l2V, again).verdict).toBe(verdict)
})

test('one reading cannot prove split phase: it asks for more, until they are there', () => {
  expect(legsAt(120, 120, 240).next).toMatch(/ten seconds/)
  expect(legsAt(120, 120, 240, [239]).next).not.toMatch(/ten seconds/)
  expect(legsAt(120, 120, 208).next).not.toMatch(/ten seconds/)
  expect(faultPaths(splitReadings, { l1V: 1, l2V: 1, l1l2V: 1, l1l2AgainV: [1, -1] })).toEqual([
    'l1l2AgainV[1]',
  ])
})

test('the angle between the legs, by the law of cosines', () => {
  const angle = (l1l2V: number) => legAngleDegrees({ l1V: 120, l2V: 120, l1l2V, l1l2AgainV: [] })
  expect(angle(0)).toBe(0)
  expect(angle(240)).toBe(180)
  // 2 × 120 × sin(60°)
  expect(angle(120 * Math.sqrt(3))).toBeCloseTo(120, 9)
  expect(legAngleDegrees({ l1V: 0, l2V: 120, l1l2V: 120, l1l2AgainV: [] })).toBeNull()
})
