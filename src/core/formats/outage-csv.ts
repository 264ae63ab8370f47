import Papa from 'papaparse'
import type { Chance } from '../outage/chance'
import type { Plan } from '../outage/plan'
import type { CourseTrace } from '../outage/trace'

const rounded = (value: number | undefined, digits = 1) => Number((value ?? 0).toFixed(digits))

/** A trace as CSV: a row for each point, watts as means of the stretch that begins there; bands where there are any. */
export function traceCsv(plan: Plan, trace: CourseTrace, chance: Chance | null = null): string {
  const { points } = trace
  const band = (series: Float64Array, hour: number): number => {
    const hours = chance?.bands.hours ?? new Float64Array(0)
    let i = 0
    while (i + 1 < hours.length && (hours[i + 1] ?? 0) <= hour + 1e-9) i++
    return rounded(series[i])
  }
  const rows = Array.from(points.hour, (hour, p) => ({
    hour: rounded(hour, 4),
    store_Wh: rounded(points.levelWh[p]),
    ...Object.fromEntries(
      plan.stores.length > 1
        ? plan.stores.map((_, k) => [`store_${k + 1}_Wh`, rounded(points.storesWh[k]?.[p])])
        : [],
    ),
    sun_W: rounded(points.sunW[p]),
    generator_W: rounded(points.generatorW[p]),
    battery_W: rounded(points.batteryW[p]),
    must_run_W: rounded(points.tierW[0]?.[p]),
    should_run_W: rounded(points.tierW[1]?.[p]),
    may_go_W: rounded(points.tierW[2]?.[p]),
    lost_W: rounded(points.lostW[p]),
    ...(chance && {
      store_p5_Wh: band(chance.bands.p5, hour),
      store_p50_Wh: band(chance.bands.p50, hour),
      store_p95_Wh: band(chance.bands.p95, hour),
    }),
  }))
  return `${Papa.unparse(rows, { newline: '\n' })}\n`
}
