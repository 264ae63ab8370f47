import { applied, circuit, job, load } from '../job/fixtures/jobs'
import { farOutlets } from './far-outlets'

const wire = (lengthFt: number | undefined, size: '14' | '12' = '14') => ({
  material: 'cu' as const,
  size,
  ...(lengthFt && { lengthFt }),
})
const on = (facts: object, W = 1200) => job([circuit(1, { loads: [load(W)], ...facts })])

test('the volts at the last outlet: what the way in leaves, less the drop of both wires of the branch', () => {
  // 10 A through 2 × 80 ft of 14 AWG copper at 3.14 ohm a thousand feet: 5.02 V
  const [far] = farOutlets(on({ wire: wire(80) }), 0.02)
  expect(far).toMatchObject({ name: '1 circuit 1', oneWayFt: 80, currentA: 10, beyond: true })
  expect(far?.atPanelV).toBeCloseTo(117.6, 9)
  expect(far?.farV).toBeCloseTo(117.6 - 0.16 * 3.14 * 10, 2)
  expect(far?.dropFraction).toBeCloseTo(1 - (far?.farV ?? 0) / 120, 12)
  expect(far?.working.steps.length).toBeGreaterThan(0)
})

test('a thicker wire, a lighter load or 240 V drop less; five per cent are not told', () => {
  const share = (facts: object, W?: number) => farOutlets(on(facts, W))[0]
  expect(share({ wire: wire(80, '12') })?.dropFraction).toBeLessThan(
    share({ wire: wire(80) })?.dropFraction ?? 0,
  )
  expect(share({ wire: wire(80) }, 300)).toMatchObject({ beyond: false, currentA: 2.5 })
  expect(share({ wire: wire(80), poles: 2 })).toMatchObject({ currentA: 5, atPanelV: 240 })
})

test('nothing is said of what is not picked, has no length or no wire that is known', () => {
  for (const facts of [{ wire: wire(undefined) }, { wire: undefined }, { wire: wire(80), picked: false }])
    expect(farOutlets(on(facts))).toEqual([])
})

test('a length is kept with the wire, and refused beyond what anybody pulls', () => {
  const start = on({ wire: wire(undefined) })
  const edited = applied(start, { op: 'editCircuit', circuitId: 'c1', facts: { wire: wire(35) } })
  expect(farOutlets(edited)[0]?.oneWayFt).toBe(35)
  expect(() => applied(start, { op: 'editCircuit', circuitId: 'c1', facts: { wire: wire(9999) } })).toThrow(
    /lengthFt must be from 0\.5 to 2,000 ft/,
  )
})
