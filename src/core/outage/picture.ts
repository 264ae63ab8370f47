import type { CourseTrace } from './trace'

/** Level at an hour, between the points of the trace. */
export function levelAt({ points }: CourseTrace, hour: number): number {
  const next = points.hour.findIndex(h => h >= hour)
  if (next <= 0) return points.levelWh[Math.max(0, next)] ?? 0
  const from = points.hour[next - 1] ?? 0
  const to = points.hour[next] ?? from
  const part = to > from ? (hour - from) / (to - from) : 0
  const a = points.levelWh[next - 1] ?? 0
  return a + ((points.levelWh[next] ?? a) - a) * part
}

/** A layer of the drawn flows, W, at the points of the trace. */
export interface Layer {
  name: string
  className: 'sun' | 'gen' | 'drawn' | 'must' | 'should' | 'may' | 'lost' | 'stored'
  low: number[]
  high: number[]
}

/** Inflow above the line, outflow below it, each layer on the one before. */
export function flowsOf({ points }: CourseTrace): { layers: Layer[]; mostIn: number; mostOut: number } {
  const length = points.hour.length
  const base = () => new Array<number>(length).fill(0)
  const stack = (sign: 1 | -1, parts: [string, Layer['className'], (i: number) => number][]) => {
    let under = base()
    return parts.flatMap(([name, className, of]) => {
      const high = under.map((u, i) => u + sign * Math.max(0, of(i)))
      const layer = { name, className, low: under, high }
      const any = high.some((h, i) => h !== under[i])
      under = high
      return any ? [layer] : []
    })
  }
  const inflow = stack(1, [
    ['sun', 'sun', i => points.sunW[i] ?? 0],
    ['generator', 'gen', i => points.generatorW[i] ?? 0],
    ['from the battery', 'drawn', i => points.batteryW[i] ?? 0],
  ])
  const outflow = stack(-1, [
    ['must run', 'must', i => points.tierW[0]?.[i] ?? 0],
    ['should run', 'should', i => points.tierW[1]?.[i] ?? 0],
    ['may go', 'may', i => points.tierW[2]?.[i] ?? 0],
    ['lost', 'lost', i => points.lostW[i] ?? 0],
    ['into the battery', 'stored', i => -(points.batteryW[i] ?? 0)],
  ])
  const most = (layers: Layer[]) => Math.max(0, ...(layers.at(-1)?.high.map(Math.abs) ?? [0]))
  return { layers: [...inflow, ...outflow], mostIn: most(inflow), mostOut: most(outflow) }
}
