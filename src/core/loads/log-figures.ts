/** A meter's readings, one span after the other, and the two levels of the load. */
interface Readings {
  readings: { hours: number; energyWh: number }[]
  runningW: number
  idleW: number
}

export const sums = (i: Readings) => ({
  Wh: i.readings.reduce((sum, r) => sum + r.energyWh, 0),
  h: i.readings.reduce((sum, r) => sum + r.hours, 0),
})

/** The figures of `load-log`: mean W, share of the time it runs (0–1), Wh a day, spread of the spans as a share of the mean. */
export function logFigures(i: Readings) {
  const { Wh, h } = sums(i)
  const meanW = Wh / h
  const spans = i.readings.map(r => r.energyWh / r.hours)
  const range = spans.reduce((a, b) => Math.max(a, b), 0) - spans.reduce((a, b) => Math.min(a, b), Infinity)
  const duty = (meanW - i.idleW) / (i.runningW - i.idleW)
  return {
    meanW,
    dutyFraction: Math.min(1, Math.max(0, duty)),
    dailyWh: 24 * meanW,
    spreadFraction: spans.length === 1 || meanW === 0 ? 0 : range / meanW,
  }
}
