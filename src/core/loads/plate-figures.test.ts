import fc from 'fast-check'
import { plateSchema } from './nameplate'
import { derivation } from './plate-figures'

test('the rest is derived from what is printed, with how', () => {
  const pump = derivation(
    { volts: 230, ratedLoadA: 7.8, lockedRotorA: 38, minCircuitA: 10.4, maxBreakerA: 15 },
    240,
  )
  expect(pump.runningVA?.value).toBe(230 * 7.8)
  expect(pump.runningW).toMatchObject({ value: 230 * 7.8 * 0.8, how: '1,794 VA × power factor 0.8, assumed' })
  expect(pump.notes.join(' ')).toMatch(
    /MCA 10.4 A is what the wire must carry.*runs on about 7.8 A.*MOP 15 A is the largest breaker/,
  )
  expect(pump.impossible).toEqual([])
  expect(derivation({ watts: 900, volts: 120, amps: 10 }, 120).powerFactor).toMatchObject({
    value: 0.75,
    how: 'watts ÷ volt-amps',
  })
  expect(derivation({ horsepower: 0.5 }, 120).runningW?.value).toBeCloseTo(373 / 0.65, 9)
  expect(derivation({ minCircuitA: 12.5 }, 240).runningA?.value).toBe(10)
  // table 430.7(B): code letter K is 8.0 to 8.99 kVA per horsepower
  expect(derivation({ horsepower: 1, codeLetter: 'K' }, 240).lockedRotorA).toMatchObject({
    value: 37.5,
    low: 8000 / 240,
  })
})

test.each([
  [{ watts: 1500, amps: 10, volts: 120 }, 'watts', /more than the 1,200 VA/],
  [{ VA: 500, amps: 10, volts: 120 }, 'VA', /does not go with 120 V × 10 A/],
  [{ horsepower: 2, amps: 6, volts: 120 }, 'horsepower', /1,492 W at the shaft/],
  [{ ratedLoadA: 20, minCircuitA: 15 }, 'minCircuitA', /below the 20 A it runs on/],
  [{ minCircuitA: 30, maxBreakerA: 20 }, 'maxBreakerA', /may be swapped/],
  [{ amps: 9, lockedRotorA: 4 }, 'lockedRotorA', /never below/],
  [{ amps: 9, phase: 3 as const }, 'phase', /three-phase/],
  [{ volts: 24, watts: 50 }, 'volts', /neither of a panel’s voltages/],
  [{ volts: 230, watts: 50 }, 'volts', /belongs to another circuit/],
])('%j cannot be', (plate, key, message) => {
  expect(derivation(plate, 120).impossible).toEqual(
    expect.arrayContaining([{ key, message: expect.stringMatching(message) }]),
  )
})

test('whatever is read, real power is never above volt-amps unless the plate itself says so', () => {
  const amps = fc.double({ min: 0.1, max: 40, noNaN: true })
  const part = { requiredKeys: [] as [] }
  fc.assert(
    fc.property(
      fc.record(
        {
          volts: fc.constantFrom(115, 120, 208, 230, 240),
          amps,
          powerFactor: fc.double({ min: 0.1, max: 1, noNaN: true }),
          horsepower: fc.double({ min: 0.05, max: 3, noNaN: true }),
          minCircuitA: amps,
        },
        part,
      ),
      plate => {
        expect(plateSchema.safeParse(plate).success).toBe(true)
        const { runningW, runningVA, runningA, volts } = derivation(plate, 120)
        if (runningW && runningVA) expect(runningW.value).toBeLessThanOrEqual(runningVA.value * (1 + 1e-9))
        if (runningA && runningVA) expect(runningVA.value).toBeCloseTo(runningA.value * volts, 6)
      },
    ),
  )
})
