import { faultPaths, result } from '../fixtures/calculating'
import { start } from './start'

describe('start', () => {
  test('each method by hand', () => {
    expect(result(start, { method: 'inrush', inrushA: 11.4, volts: 120 })).toEqual({
      startA: 11.4,
      startVA: 11.4 * 120,
    })
    // 62 A × 0.4 = 24.8 A; × 240 V = 5,952 VA
    const soft = result(start, {
      method: 'locked-rotor',
      lockedRotorA: 62,
      volts: 240,
      softStartFraction: 0.4,
    })
    expect(soft.startA).toBeCloseTo(24.8, 9)
    expect(soft.startVA).toBeCloseTo(5952, 9)
    expect(result(start, { method: 'multiple', runningVA: 600, multiple: 5, volts: 120 })).toEqual({
      startA: 25,
      startVA: 3000,
    })
  })

  test('an unknown method, and a key of another method, are faults', () => {
    expect(faultPaths(start, { method: 'guess', volts: 120 })).toEqual(['method'])
    expect(faultPaths(start, { method: 'inrush', inrushA: 5, volts: 120, multiple: 3 })).toEqual(['multiple'])
    expect(faultPaths(start, { method: 'multiple', runningVA: 5, multiple: 0.5, volts: 120 })).toEqual([
      'multiple',
    ])
  })
})
