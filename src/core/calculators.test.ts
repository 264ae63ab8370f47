import fc from 'fast-check'
import { type Calculator, calculate } from './calculator'
import { calculators } from './calculators'
import { start } from './loads/start'
import { legs } from './source/legs'
import { runtime } from './source/runtime'
import { sharedNeutral } from './wiring/shared-neutral'

function result<I, O>(calculator: Calculator<I, O>, raw: unknown): O {
  const outcome = calculate(calculator, raw)
  if (!outcome.ok) throw new Error(outcome.faults.map(f => `${f.path}: ${f.message}`).join('; '))
  return outcome.value.result
}
function faultPaths<I, O>(calculator: Calculator<I, O>, raw: unknown): string[] {
  const outcome = calculate(calculator, raw)
  return outcome.ok ? [] : outcome.faults.map(f => f.path)
}

describe('runtime', () => {
  const given = { capacityWh: 3800, idleW: 16, efficiencyFraction: 0.8, loadW: 120 }

  test('by hand: 3,800 Wh, a tenth kept, 120 W behind 80 %', () => {
    // usable 3800 × (1 − 0.1) = 3420; battery 16 + 120 ÷ 0.8 = 166; 3420 ÷ 166 = 20.6024…
    const r = result(runtime, { ...given, reserveFraction: 0.1 })
    expect(r.usableWh).toBeCloseTo(3420, 9)
    expect(r.batteryW).toBeCloseTo(166, 9)
    expect(r.hours).toBeCloseTo(3420 / 166, 9)
    expect(r.deliveredWh).toBeCloseTo((3420 / 166) * 120, 9)
    expect(r.effectiveFraction).toBeCloseTo(120 / 166, 9)
  })

  test('refuses by key: what is out of range, unknown, null, missing, or ends in a division by zero', () => {
    expect(faultPaths(runtime, { ...given, capacityWh: 0 })).toEqual(['capacityWh'])
    expect(faultPaths(runtime, { ...given, efficiencyFraction: 0 })).toEqual(['efficiencyFraction'])
    expect(faultPaths(runtime, { ...given, startFraction: null })).toEqual(['startFraction'])
    expect(faultPaths(runtime, { ...given, watts: 1 })).toEqual(['watts'])
    expect(faultPaths(runtime, { capacityWh: 1, idleW: 1, efficiencyFraction: 1 })).toEqual(['loadW'])
    expect(faultPaths(runtime, { ...given, startFraction: 0.3, reserveFraction: 0.3 })).toEqual([
      'reserveFraction',
    ])
    expect(faultPaths(runtime, { ...given, idleW: 0, loadW: 0 })).toEqual(['loadW'])
    expect(faultPaths(runtime, { ...given, capacityWh: Number.POSITIVE_INFINITY })).toEqual(['capacityWh'])
    expect(faultPaths(runtime, 'runtime')).toEqual(['$'])
  })

  test('energy in is what is delivered plus what is lost; more load never lasts longer', () => {
    const positive = fc.double({ min: 1, max: 1e5, noNaN: true })
    fc.assert(
      fc.property(
        positive,
        positive,
        positive,
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        (capacityWh, idleW, loadW, efficiencyFraction) => {
          const r = result(runtime, { capacityWh, idleW, loadW, efficiencyFraction })
          const lossWh = r.hours * (idleW + loadW * (1 / efficiencyFraction - 1))
          expect(Math.abs(r.deliveredWh + lossWh - r.usableWh)).toBeLessThanOrEqual(1e-9 * r.usableWh)
          const more = result(runtime, { capacityWh, idleW, loadW: loadW * 1.5, efficiencyFraction })
          expect(more.hours).toBeLessThanOrEqual(r.hours)
        },
      ),
    )
  })
})

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
})

test('every calculator has a name of its own, a question, and a working with formula and steps', () => {
  expect(new Set(calculators.map(c => c.name)).size).toBe(calculators.length)
  const { working } = runtime.compute({
    capacityWh: 1,
    startFraction: 1,
    reserveFraction: 0,
    deratingFraction: 1,
    idleW: 1,
    efficiencyFraction: 1,
    loadW: 1,
  })
  expect(working.formula.length).toBeGreaterThan(0)
  expect(working.inputs).toHaveLength(7)
  expect(working.steps.at(2)).toMatchObject({ label: 'Run time', value: 0.5, unit: 'h' })
})

test('a result too large for a double is a fault, not Infinity', () => {
  expect(faultPaths(start, { method: 'inrush', inrushA: 1e300, volts: 1e300 })).toEqual(['$'])
})
