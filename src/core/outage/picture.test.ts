import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { deskFor } from './chance'
import { flowsOf, levelAt } from './picture'
import { planOf } from './plan'
import { traceOf } from './trace'

const plan = planOf(alderHollow)
if (!plan.ok) throw new Error('no plan')
const trace = traceOf(plan.value, deskFor(plan.value), 1, 0)
const { points } = trace

test('the level between two points of the course lies between theirs, and at a point is its own', () => {
  const [at, next] = [points.hour[3] ?? 0, points.hour[4] ?? 0]
  const [a, b] = [points.levelWh[3] ?? 0, points.levelWh[4] ?? 0]
  expect(levelAt(trace, at)).toBeCloseTo(a, 9)
  expect(levelAt(trace, (at + next) / 2)).toBeCloseTo((a + b) / 2, 6)
  expect(levelAt(trace, -1)).toBe(points.levelWh[0])
  expect(levelAt(trace, 1e6)).toBe(points.levelWh[0])
})

test('what flows in is drawn above the line and what flows out below it, each layer on the one before', () => {
  const { layers, mostIn, mostOut } = flowsOf(trace)
  const sum = (names: string[], i: number) =>
    layers
      .filter(l => names.includes(l.className))
      .reduce((s, l) => s + Math.abs((l.high[i] ?? 0) - (l.low[i] ?? 0)), 0)
  for (let i = 0; i < points.hour.length - 1; i += 7) {
    const inflow = sum(['sun', 'gen', 'drawn'], i)
    const outflow = sum(['must', 'should', 'may', 'lost', 'stored'], i)
    // what comes in goes out, to the watt that drawing needs
    expect(Math.abs(inflow - outflow)).toBeLessThan(1 + 0.02 * outflow)
    expect([inflow <= mostIn, outflow <= mostOut]).toEqual([true, true])
  }
  for (const layer of layers)
    expect(layer.high.every((h, i) => Math.abs(h) >= Math.abs(layer.low[i] ?? 0))).toBe(true)
})
