/** Readings of a meter one after the other. `tS` counts elapsed seconds from the first; summer time makes no jump in it. */
export interface Series {
  /** the local clock of the first reading, counted like seconds since 1970; without a date, seconds of a day */
  startClockS: number
  dated: boolean
  tS: Float64Array
  /** average power of the reading's span, W */
  W: Float32Array
  /** highest current since the reading before, of a meter with inrush hold, A */
  peakA?: Float32Array
  /** a reading speaks for the span before it (a counter), not for the one after */
  backward: boolean
  /** where the local clock was set: from `atS` on it differs from elapsed time by `clockS` */
  shifts: { atS: number; clockS: number }[]
}

export interface Bucket {
  tS: number
  low: number
  mean: number
  high: number
}

/** First index whose time is not before `s`. */
export function indexAt(tS: Float64Array, s: number): number {
  let low = 0
  let high = tS.length
  while (low < high) {
    const mid = (low + high) >> 1
    if ((tS[mid] ?? 0) < s) low = mid + 1
    else high = mid
  }
  return low
}

/** The trace between two times in at most `count` pieces, each with its lowest, mean and highest: what a screen can draw. */
export function buckets({ tS, W }: Series, fromS: number, toS: number, count: number): Bucket[] {
  const from = indexAt(tS, fromS)
  const to = Math.min(tS.length, indexAt(tS, toS) + 1)
  const each = Math.max(1, Math.ceil((to - from) / count))
  const out: Bucket[] = []
  for (let at = from; at < to; at += each) {
    const end = Math.min(to, at + each)
    let low = Infinity
    let high = -Infinity
    let sum = 0
    for (let i = at; i < end; i++) {
      const w = W[i] ?? 0
      if (w < low) low = w
      if (w > high) high = w
      sum += w
    }
    out.push({ tS: tS[at] ?? 0, low, mean: sum / (end - at), high })
  }
  return out
}

/** Hour of the local day, 0 to 24, at elapsed second `s`. */
export function hourOf({ startClockS, shifts }: Pick<Series, 'startClockS' | 'shifts'>, s: number): number {
  let clock = startClockS + s
  for (const shift of shifts) if (s >= shift.atS) clock = startClockS + s + shift.clockS
  return (((clock % 86_400) + 86_400) % 86_400) / 3600
}
