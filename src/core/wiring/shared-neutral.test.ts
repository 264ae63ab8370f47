import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { sharedNeutral } from './shared-neutral'

describe('shared-neutral', () => {
  const pair = { breakerAA: 20, breakerBA: 20, neutral: { material: 'cu', size: '12' }, sourceBreakerA: 30 }

  test.each([
    ['split-phase', 20, true],
    ['one-leg', 20, true],
    ['tied', 30, false],
    ['independent', 40, false],
  ])('%s: worst %d A in a neutral good for 20 A', (arrangement, worstNeutralA, ok) => {
    expect(result(sharedNeutral, { ...pair, arrangement })).toEqual({ worstNeutralA, neutralA: 20, ok })
  })

  test('a size that the metal does not have is a fault on it', () => {
    expect(
      faultPaths(sharedNeutral, { ...pair, arrangement: 'tied', neutral: { material: 'al', size: '14' } }),
    ).toEqual(['neutral.size'])
  })
  test('tied is never better than split phase, independent never better than tied', () => {
    const amps = fc.double({ min: 1, max: 400, noNaN: true })
    fc.assert(
      fc.property(amps, amps, amps, (breakerAA, breakerBA, sourceBreakerA) => {
        const worst = (arrangement: string) =>
          result(sharedNeutral, { ...pair, breakerAA, breakerBA, sourceBreakerA, arrangement }).worstNeutralA
        expect(worst('tied')).toBeGreaterThanOrEqual(worst('split-phase'))
        expect(worst('independent')).toBeGreaterThanOrEqual(worst('tied'))
      }),
    )
  })
})
