import fc from 'fast-check'
import { applied, circuit, job, load, splitStation, station } from '../job/fixtures/jobs'
import { newJob } from '../job/new'
import { evaluate } from './evaluate'

const lineOf = (j: Parameters<typeof evaluate>[0], id: string) => {
  const line = evaluate(j).balance.find(l => l.id === id)
  if (!line) throw new Error(`no line ${id}`)
  return line
}

test('energy by hand: two loads with duty and idle', () => {
  // 100 W half of the time + 4 W idle the other half = 52 W; 38 W always; 90 W ÷ 0.9 + 10 W = 110 W
  const j = job([
    circuit(1, {
      loads: [
        load(100, { dutyFraction: { value: 0.5, from: 'metered' }, idleW: { value: 4, from: 'metered' } }),
      ],
    }),
    circuit(2, { loads: [load(38)] }),
    circuit(3, { picked: false, loads: [load(5000)] }),
  ])
  // 2,000 Wh × (1 − 0.1) ÷ 110 W; 24 h asked
  expect(lineOf(j, 'hours').have).toBeCloseTo(1800 / 110, 9)
  expect(lineOf(j, 'energy')).toMatchObject({
    need: expect.closeTo(110 * 24, 9),
    have: expect.closeTo(1800, 9),
    verdict: 'short',
  })
  expect(evaluate(j).headline).toMatchObject({ hoursNeeded: 24, hoursHad: expect.closeTo(1800 / 110, 9) })
})

test('of the loads switched by hand only the largest is counted, with all that comes on by itself', () => {
  const byHand = (W: number) => load(W, { byHand: true })
  const j = job([
    circuit(1, { loads: [load(200), { ...byHand(1000), id: 'kettle' }] }),
    circuit(2, { loads: [byHand(900)] }),
  ])
  expect(lineOf(j, 'output')).toMatchObject({ need: 1200, have: 2000, margin: 800, verdict: 'enough' })
})

test('the start counts on top of everything else that runs, the motor’s own running left out', () => {
  const pump = load(500, {
    id: 'pump',
    nature: 'motor',
    start: { method: 'locked-rotor', lockedRotorA: { value: 20, from: 'nameplate' } },
  })
  const j = job([circuit(1, { loads: [load(300), pump] })])
  expect(lineOf(j, 'start')).toMatchObject({ need: 300 + 20 * 120, have: 4000 })
})

test('split phase judges a 120 V start on its leg and halves a 240 V load over both', () => {
  const motor = load(400, {
    nature: 'motor',
    start: { method: 'multiple', multiple: { value: 5, from: 'assumed' } },
  })
  const split = { source: { station: splitStation(), arrangement: 'split-phase' as const } }
  const j = job([circuit(1, { loads: [motor] }), circuit(2, { poles: 2, loads: [load(2000)] })], split)
  expect(lineOf(j, 'L1').need).toBe(1400)
  expect(lineOf(j, 'L2').need).toBe(1000)
  // 1,000 VA of the 240 V load on L1 + 5 × 400; a leg has half of the 10,000 W surge
  expect(lineOf(j, 'start')).toMatchObject({ need: 3000, have: 5000 })
  expect(lineOf(j, 'v240')).toMatchObject({ need: 1, have: 1, verdict: 'enough' })
})

test('a small outlet, at 80 %, limits a large unit', () => {
  const j = job([circuit(1, { loads: [load(1500)] })], {
    source: { station: station({ outlets: [{ type: '5-15', count: 2 }] }) },
  })
  expect(lineOf(j, 'output')).toMatchObject({ have: 0.8 * 15 * 120, verdict: 'short' })
})

test('one live leg: the other is dead, its picked circuits draw nothing and are told', () => {
  const j = job([circuit(1, { loads: [load(100)] }), circuit(3, { loads: [load(100)] })], {
    source: { arrangement: 'one-leg' },
  })
  const evaluation = evaluate(j)
  expect(evaluation.buses).toEqual({ L1: 'live', L2: 'dead' })
  expect(evaluation.circuits.map(c => [c.feed, c.served])).toEqual([
    ['live', true],
    ['dead', false],
  ])
  expect(lineOf(j, 'output').need).toBe(100)
  expect(lineOf(j, 'L2').verdict).toBe('none needed')
})

test('plugged in directly, the panel’s legs have no part: everything at 120 V is served', () => {
  const j = job([circuit(1, { loads: [load(100)] }), circuit(3, { loads: [load(100)] })], {
    source: { arrangement: 'one-leg' },
    hookup: { method: 'extension-cords', bondingPlug: false },
  })
  expect(evaluate(j).buses).toEqual({ L1: 'not fed', L2: 'not fed' })
  expect(lineOf(j, 'output').need).toBe(200)
  expect(evaluate(j).findings.map(f => f.id)).not.toContain('leg.dead')
})

test('a job without source, loads or circuits evaluates in words, never in NaN', () => {
  const empty = newJob({ title: 'x', place: '', spaces: 8, mainA: 60 })
  const lone = applied(empty, { op: 'addCircuit', circuit: circuit(1) })
  for (const j of [empty, lone, job([])]) {
    const text = JSON.stringify(evaluate(j))
    expect(text).not.toMatch(/NaN|Infinity|undefined/)
    expect(
      evaluate(j)
        .balance.map(l => l.sentence)
        .every(s => s.length > 0),
    ).toBe(true)
  }
  expect(lineOf(empty, 'hours').verdict).toBe('cannot tell')
})

test('picking one circuit more never lengthens the run; one unit more never shortens it', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 500 }), { minLength: 1, maxLength: 6 }), watts => {
      const all = job(watts.map((W, i) => circuit(i + 1, { loads: [load(W)] })))
      const fewer = applied(all, { op: 'selectCircuit', circuitId: 'c1', picked: false })
      const more = applied(all, { op: 'setExpansionUnits', count: 2 })
      const hours = (j: typeof all) => lineOf(j, 'hours').have ?? 0
      expect(hours(all)).toBeLessThanOrEqual(hours(fewer))
      expect(hours(more)).toBeGreaterThanOrEqual(hours(all))
    }),
  )
})

test('every figure of the balance that was computed opens a working that ends in that figure', () => {
  const j = job([circuit(1, { loads: [load(100, { nature: 'motor' })] })])
  for (const line of evaluate(j).balance) {
    expect(line.working.formula.length).toBeGreaterThan(0)
    if (line.verdict === 'none needed') continue
    const values = [...line.working.steps, ...line.working.inputs].map(s => s.value)
    expect(values).toContain(line.id === 'hours' ? line.have : line.need)
  }
})
