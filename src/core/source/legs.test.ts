import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { legs } from './legs'

describe('legs', () => {
  const circuits = [
    { id: 'a', leg: 'L1', VA: 1200 },
    { id: 'b', leg: 'L2', VA: 600 },
    { id: 'pump', leg: 'both', VA: 2400 },
  ]

  test.each([
    // 1200 ÷ 120 = 10, 600 ÷ 120 = 5, the pump 2400 ÷ 240 = 10 on each leg
    ['split-phase', 'L1', 20, 15, 5, ['a', 'b', 'pump'], 0.25],
    ['tied', 'L1', 10, 5, 15, ['a', 'b'], 0.5],
    ['independent', 'L1', 10, 5, 15, ['a', 'b'], 0.5],
    ['one-leg', 'L2', 0, 5, 5, ['b'], 1],
  ])('%s, live %s', (arrangement, liveLeg, L1A, L2A, neutralA, served, imbalanceFraction) => {
    expect(result(legs, { arrangement, liveLeg, circuits })).toEqual({
      L1A,
      L2A,
      neutralA,
      served,
      unserved: circuits.map(c => c.id).filter(id => !served.includes(id)),
      imbalanceFraction,
    })
  })

  test('nothing on either leg is in balance; an empty list and a bad leg are faults at their place', () => {
    expect(
      result(legs, { arrangement: 'tied', circuits: [{ id: 'x', leg: 'L1', VA: 0 }] }).imbalanceFraction,
    ).toBe(0)
    expect(faultPaths(legs, { arrangement: 'tied', circuits: [] })).toEqual(['circuits'])
    expect(faultPaths(legs, { arrangement: 'tied', circuits: [{ id: 'x', leg: 'L3', VA: 1 }] })).toEqual([
      'circuits[0].leg',
    ])
  })

  test('the tied neutral never carries less than the split one', () => {
    const circuit = fc.record({
      id: fc.string(),
      leg: fc.constantFrom('L1', 'L2'),
      VA: fc.double({ min: 0, max: 1e5, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.array(circuit, { minLength: 1, maxLength: 20 }), list => {
        const neutralA = (arrangement: string) => result(legs, { arrangement, circuits: list }).neutralA
        expect(neutralA('tied')).toBeGreaterThanOrEqual(neutralA('split-phase'))
      }),
    )
  })
})
