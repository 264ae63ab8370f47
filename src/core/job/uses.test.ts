import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { applyOperation, describeOperation } from './operations'
import { circuitsOf } from './panels'
import type { Calculation } from './schema'
import { usesIn } from './uses'

const on = '2026-11-23'
const calculation = (calculator: string, input: Calculation['input']): Calculation => ({
  id: 'mine',
  calculator,
  note: '',
  input,
})
const log = calculation('load-log', { readings: [{ hours: 24, energyWh: 1200 }], runningW: 120, idleW: 5 })

test('a calculation can be kept with the job, put in place of itself, and removed', () => {
  const drop = calculation('voltage-drop', { size: '10' })
  const [keep, ...rest] = usesIn(alderHollow, drop, on)
  expect(rest).toEqual([])
  const kept = keep && applyOperation(alderHollow, keep.operation)
  if (!keep || !kept?.ok) throw new Error('not kept')
  expect(kept.value.calculations.at(-1)).toEqual(drop)
  expect(describeOperation(alderHollow, keep.operation)).toBe('kept the calculation voltage-drop')

  const again = { ...drop, input: { size: '8' } }
  expect(usesIn(kept.value, again, on)[0]?.label).toMatch(/in place/)
  const changed = applyOperation(kept.value, { op: 'putCalculation', calculation: again })
  expect(changed.ok && changed.value.calculations).toHaveLength(kept.value.calculations.length)
  const removed = applyOperation(kept.value, { op: 'removeCalculation', calculationId: 'mine' })
  expect(removed.ok && removed.value).toEqual(alderHollow)
})

test('a meter log can be set on any load, as metered figures of today', () => {
  const use = usesIn(alderHollow, log, on).find(u => u.operation.op === 'putLoad')
  const after = use && applyOperation(alderHollow, use.operation)
  if (use?.operation.op !== 'putLoad' || !after?.ok) throw new Error('no load takes it')
  expect(use.operation.load).toMatchObject({
    runningW: { value: 120, from: 'metered', on },
    idleW: { value: 5, from: 'metered', on },
    // (1200 ÷ 24 − 5) ÷ (120 − 5)
    dutyFraction: { value: 45 / 115, from: 'metered', on },
  })
})

test('amps of a start are offered to loads on the voltage they were read at, and nowhere else', () => {
  const rotor = (volts: number) =>
    usesIn(
      alderHollow,
      calculation('start', { method: 'locked-rotor', lockedRotorA: 30, volts }),
      on,
    ).flatMap(u => (u.operation.op === 'putLoad' ? [u.operation] : []))
  const poles = (circuitId: string) => circuitsOf(alderHollow).find(c => c.id === circuitId)?.poles
  const [only] = usesIn(
    alderHollow,
    calculation('start', { method: 'locked-rotor', lockedRotorA: 30, volts: 480 }),
    on,
  )
  expect(only?.help).toMatch(/another voltage/)
  expect(rotor(240).every(o => poles(o.circuitId) === 2)).toBe(true)
  expect(rotor(120).length).toBeGreaterThan(0)
  expect(rotor(120).every(o => poles(o.circuitId) === 1)).toBe(true)
})

test('a log that cannot be answered is offered to no load; inputs of a year of data are too long to keep', () => {
  const bad = { ...log, input: { ...log.input, runningW: 1 } }
  expect(usesIn(alderHollow, bad, on)).toHaveLength(1)
  const long = calculation('interval-demand', { intervals: 'x'.repeat(20_000) })
  const refused = applyOperation(alderHollow, { op: 'putCalculation', calculation: long })
  expect(refused.ok ? [] : refused.faults.map(f => f.message)).toEqual([
    expect.stringMatching(/too long to keep/),
  ])
})
