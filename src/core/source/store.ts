import type { Job } from '../job/schema'

export interface StorePoint {
  hour: number
  levelWh: number
}

/**
 * The store over the outage at the average draw: a straight fall from the charge at the start to the reserve, then level.
 * `batteryW` in W; hours and Wh out. Ends at the hours asked or where the reserve is reached, whichever is later.
 */
export function storeOverTime(
  job: Job,
  run: { hours: number; batteryW: number },
): { capacityWh: number; reserveWh: number; points: StorePoint[] } {
  const { source, outage } = job
  const expansionWh = (source?.expansionUnits ?? 0) * (source?.station.expansion?.energyWh ?? 0)
  const capacityWh = ((source?.station.energyWh ?? 0) + expansionWh) * outage.deratingFraction
  const startWh = capacityWh * outage.startFraction
  const reserveWh = Math.min(capacityWh * outage.reserveFraction, startWh)
  const end = Math.max(outage.hours, run.hours)
  const at = (hour: number): StorePoint => ({
    hour,
    levelWh: Math.max(reserveWh, startWh - hour * run.batteryW),
  })
  const hours = run.hours < end ? [0, run.hours, end] : [0, end]
  return { capacityWh, reserveWh, points: hours.map(at) }
}
