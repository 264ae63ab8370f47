import { hourOf, type Series } from './series'

/** What the person sets right in a segmentation. */
export interface Corrections {
  /** it runs above this, W */
  onAboveW?: number
  /** how many running levels to tell apart */
  levels?: 1 | 2 | 3
  /** shortest run that counts, s */
  shortestS?: number
  /** stretches to leave out, elapsed seconds: another device on the same plug */
  leaveOut?: { fromS: number; toS: number }[]
}

export interface Level {
  W: number
  /** of the running time */
  shareFraction: number
}

export interface OnSpell {
  fromS: number
  toS: number
  meanW: number
  /** highest within the first seconds, W */
  startW: number
  /** of a meter with inrush hold, A */
  startA: number | null
}

export interface Segmentation {
  observedH: number
  energyWh: number
  meanW: number
  highestW: number
  /** it never stops: one level, no off time */
  continuous: boolean
  onAboveW: number
  idleW: number
  /** lowest first; the last is the highest */
  levels: Level[]
  dutyFraction: number
  runs: OnSpell[]
  /** median from start to start, min; null with fewer than three runs */
  cycleMinutes: number | null
  startsPerDay: number
  highestStartW: number
  highestStartA: number | null
  /** share of the time that it ran, by hour of the day; null where the hour was not seen */
  dutyByHour: (number | null)[]
  /** energy by hour of the day as a multiple of its mean; null where an hour of the day was not seen */
  hourly: number[] | null
  /** consecutive spans of a day, for `load-log` */
  spans: { hours: number; energyWh: number }[]
  gaps: { fromS: number; toS: number }[]
  /** usual time between readings, s */
  stepS: number
}

const gapSteps = 5
/** The start is looked for in these first seconds of a run. */
const startS = 3
const bins = 512

/** Told how far it is, 0 to 1. */
type Progress = (share: number) => void

/**
 * On and off, levels, starts and hours of a metered load. Energy is kept exactly: levels × shares and idle add up to the mean
 * of the readings. Source: two-class split by Otsu’s criterion (largest variance between classes) on the square root of watts,
 * so that a few watts of idle are told from the rest; levels by the same criterion on watts.
 */
export function segment(
  series: Series,
  corrections: Corrections = {},
  progress: Progress = () => {},
): Segmentation {
  const { tS, W } = series
  const n = tS.length
  const stepS = usualStep(tS)
  const span = spansOf(series, stepS, corrections.leaveOut ?? [])
  progress(0.15)
  const { onAboveW, continuous } = split(W, span, corrections.onAboveW)
  progress(0.3)
  const on = switching(series, span, stepS, onAboveW, continuous, corrections.shortestS)
  progress(0.5)
  const levels = levelsOf(W, span, on, corrections.levels)
  progress(0.65)
  let energyWs = 0
  let observedS = 0
  let onS = 0
  let offWs = 0
  let highestW = 0
  const hourS = new Float64Array(24)
  const hourOnS = new Float64Array(24)
  const hourWs = new Float64Array(24)
  const daysS: number[] = []
  const daysWs: number[] = []
  // the hour changes seldom: it is looked up where it may have
  let hour = 0
  let hourUntilS = -Infinity
  for (let i = 0; i < n; i++) {
    const s = span[i] ?? 0
    if (!s) continue
    const w = W[i] ?? 0
    const at = tS[i] ?? 0
    if (at >= hourUntilS) {
      const exact = hourOf(series, at)
      hour = Math.floor(exact)
      hourUntilS = at + Math.min(900, (1 - (exact - hour)) * 3600)
    }
    const ws = w * s
    energyWs += ws
    observedS += s
    if (w > highestW) highestW = w
    hourS[hour] = (hourS[hour] ?? 0) + s
    hourWs[hour] = (hourWs[hour] ?? 0) + ws
    if (on[i]) {
      onS += s
      hourOnS[hour] = (hourOnS[hour] ?? 0) + s
    } else offWs += ws
    // the reading that fills a day belongs to it, not to the next
    const day = Math.floor(observedS / 86_400.001)
    daysS[day] = (daysS[day] ?? 0) + s
    daysWs[day] = (daysWs[day] ?? 0) + ws
  }
  progress(0.85)
  const runs = runsOf(series, span, on, stepS)
  const starts = runs.filter(r => r.whole)
  const dutyByHour = [...hourS].map((s, h) => (s > 0 ? (hourOnS[h] ?? 0) / s : null))
  const seenAll = observedS > 0 && hourS.every(s => s > 0)
  const dayMeanW = observedS ? energyWs / observedS : 0
  const hourMeans = [...hourS].map((s, h) => (s > 0 ? (hourWs[h] ?? 0) / s : 0))
  const meanOfHours = hourMeans.reduce((a, b) => a + b, 0) / 24
  progress(1)
  return {
    observedH: observedS / 3600,
    energyWh: energyWs / 3600,
    meanW: dayMeanW,
    highestW,
    continuous,
    onAboveW,
    idleW: observedS > onS ? offWs / (observedS - onS) : 0,
    levels,
    dutyFraction: observedS ? onS / observedS : 0,
    runs: runs.map(({ whole: _, ...run }) => run),
    cycleMinutes: cycleOf(starts),
    startsPerDay: observedS ? (starts.length * 86_400) / observedS : 0,
    highestStartW: starts.reduce((most, r) => Math.max(most, r.startW), 0),
    highestStartA: series.peakA ? starts.reduce((most, r) => Math.max(most, r.startA ?? 0), 0) : null,
    dutyByHour,
    hourly: seenAll && meanOfHours > 0 ? hourMeans.map(w => w / meanOfHours) : null,
    spans: joined(daysS, daysWs),
    gaps: gapsOf(tS, stepS),
    stepS,
  }
}

/** The last day’s rest is put to the day before where it is short: an hour of it would pass for a day. */
function joined(daysS: readonly number[], daysWs: readonly number[]): Segmentation['spans'] {
  const spans = daysS.map((s, d) => ({ hours: s / 3600, energyWh: (daysWs[d] ?? 0) / 3600 }))
  const last = spans.at(-1)
  const before = spans.at(-2)
  if (last && before && last.hours < 12) {
    before.hours += last.hours
    before.energyWh += last.energyWh
    spans.pop()
  }
  return spans.filter(s => s.hours > 0)
}

/** The usual time between readings: the median of up to 2,000 of them. */
function usualStep(tS: Float64Array): number {
  const every = Math.max(1, Math.floor(tS.length / 2000))
  const steps: number[] = []
  for (let i = 1; i < tS.length; i += every) steps.push((tS[i] ?? 0) - (tS[i - 1] ?? 0))
  steps.sort((a, b) => a - b)
  return steps[Math.floor(steps.length / 2)] ?? 1
}

/** Seconds that each reading speaks for: to the next one, or from the one before for a counter; none over a gap or where left out. */
function spansOf(
  { tS, backward }: Series,
  stepS: number,
  leaveOut: readonly { fromS: number; toS: number }[],
): Float32Array {
  const n = tS.length
  const span = new Float32Array(n)
  const most = gapSteps * stepS
  for (let i = 0; i < n; i++) {
    const d = backward
      ? i
        ? (tS[i] ?? 0) - (tS[i - 1] ?? 0)
        : 0
      : i < n - 1
        ? (tS[i + 1] ?? 0) - (tS[i] ?? 0)
        : stepS
    // a counter knows what went by in a gap; a reading of watts does not
    span[i] = backward || d <= most ? d : stepS
  }
  for (const { fromS, toS } of leaveOut)
    for (let i = 0; i < n; i++) {
      const t = tS[i] ?? 0
      if (t >= fromS && t < toS) span[i] = 0
    }
  return span
}

function gapsOf(tS: Float64Array, stepS: number): Segmentation['gaps'] {
  const gaps: Segmentation['gaps'] = []
  for (let i = 1; i < tS.length && gaps.length < 1000; i++) {
    const fromS = tS[i - 1] ?? 0
    const toS = tS[i] ?? 0
    if (toS - fromS > gapSteps * stepS) gaps.push({ fromS, toS })
  }
  return gaps
}

interface Parted {
  at: number
  /** share of the variance that lies between the two classes */
  between: number
  low: number
  high: number
  /** share of the weight in the upper class */
  upper: number
}

/** Otsu’s split of a histogram. */
function otsu(weight: Float64Array, centre: (bin: number) => number): Parted {
  let total = 0
  let sum = 0
  let squares = 0
  for (let b = 0; b < weight.length; b++) {
    const w = weight[b] ?? 0
    const x = centre(b)
    total += w
    sum += w * x
    squares += w * x * x
  }
  const mean = total ? sum / total : 0
  const variance = total ? squares / total - mean * mean : 0
  let best: Parted = { at: 0, between: 0, low: mean, high: mean, upper: 0 }
  let w0 = 0
  let s0 = 0
  let ties = 0
  for (let b = 0; b < weight.length - 1; b++) {
    w0 += weight[b] ?? 0
    s0 += (weight[b] ?? 0) * centre(b)
    const w1 = total - w0
    if (w0 <= 0 || w1 <= 1e-9 * total) continue
    const low = s0 / w0
    const high = (sum - s0) / w1
    const between = variance > 0 ? ((w0 / total) * (w1 / total) * (high - low) ** 2) / variance : 0
    if (between > best.between + 1e-12) {
      best = { at: b, between, low, high, upper: w1 / total }
      ties = 0
    } else if (Math.abs(between - best.between) <= 1e-12 && best.between > 0 && weight[b] === 0)
      ties = b - best.at
  }
  // an empty stretch between the classes: its middle is the fairest place
  best.at += Math.floor(ties / 2)
  return best
}

function split(
  W: Float32Array,
  span: Float32Array,
  given: number | undefined,
): { onAboveW: number; continuous: boolean } {
  if (given !== undefined) return { onAboveW: given, continuous: false }
  let most = 0
  for (let i = 0; i < W.length; i++) if (span[i] && (W[i] ?? 0) > most) most = W[i] ?? 0
  if (most <= 0) return { onAboveW: 0.5, continuous: false }
  const scale = bins / Math.sqrt(most * 1.0001)
  const weight = new Float64Array(bins)
  for (let i = 0; i < W.length; i++) {
    const b = Math.floor(Math.sqrt(Math.max(0, W[i] ?? 0)) * scale)
    weight[b] = (weight[b] ?? 0) + (span[i] ?? 0)
  }
  const centre = (b: number) => (b + 0.5) / scale
  let parted = otsu(weight, centre)
  // a rare high level may carry the split: what lies below it is looked at once more
  if (parted.between > 0) {
    const lower = otsu(
      weight.map((w, b) => (b <= parted.at ? w : 0)),
      centre,
    )
    if (
      lower.between > 0.85 &&
      lower.high > 2.5 * lower.low &&
      lower.upper > 0.02 &&
      lower.high ** 2 > 0.08 * parted.high ** 2
    )
      parted = lower
  }
  const apart = parted.between > 0.7 && parted.high ** 2 > 1.6 * parted.low ** 2 + 1
  const edge = (parted.at + 1) / scale
  return { onAboveW: edge * edge, continuous: !apart }
}

/** On or off by reading: on above the mark, off a tenth below it; runs and pauses too short to be meant are passed over. */
function switching(
  { tS, W }: Series,
  span: Float32Array,
  stepS: number,
  onAboveW: number,
  continuous: boolean,
  given: number | undefined,
): Uint8Array {
  const n = tS.length
  const on = new Uint8Array(n)
  if (continuous) return on.fill(1)
  const shortest = given ?? (stepS <= 2 ? 3 * stepS : 0)
  let state = 0
  for (let i = 0; i < n; i++) {
    const w = W[i] ?? 0
    if (span[i]) state = w > onAboveW ? 1 : w < 0.9 * onAboveW ? 0 : state
    on[i] = state
  }
  if (shortest <= 0) return on
  // pauses first: a run broken by one odd reading stays one run
  for (const value of [0, 1]) {
    let from = 0
    for (let i = 1; i <= n; i++) {
      if (i < n && on[i] === on[from]) continue
      const lasts = (i < n ? (tS[i] ?? 0) : (tS[n - 1] ?? 0) + stepS) - (tS[from] ?? 0)
      if (on[from] === value && lasts < shortest && from > 0 && i < n) on.fill(1 - value, from, i)
      from = i
    }
  }
  return on
}

/** Running levels, lowest first, each the mean of its readings, so that no energy is lost. */
function levelsOf(
  W: Float32Array,
  span: Float32Array,
  on: Uint8Array,
  forced: 1 | 2 | 3 | undefined,
): Level[] {
  let most = 0
  for (let i = 0; i < W.length; i++) if (on[i] && span[i] && (W[i] ?? 0) > most) most = W[i] ?? 0
  if (most <= 0) return []
  const weight = new Float64Array(bins)
  const scale = bins / (most * 1.0001)
  for (let i = 0; i < W.length; i++) {
    if (!on[i]) continue
    const b = Math.floor(Math.max(0, W[i] ?? 0) * scale)
    weight[b] = (weight[b] ?? 0) + (span[i] ?? 0)
  }
  const centre = (b: number) => (b + 0.5) / scale
  const edges: number[] = []
  const cut = (from: number, to: number) => {
    const part = otsu(
      weight.map((w, b) => (b >= from && b <= to ? w : 0)),
      centre,
    )
    return { ...part, from, to }
  }
  const total = weight.reduce((a, b) => a + b, 0)
  const within = (from: number, to: number) => weight.slice(from, to + 1).reduce((a, b) => a + b, 0)
  let parts = [{ from: 0, to: bins - 1 }]
  for (;;) {
    const candidates = parts
      .map(p => cut(p.from, p.to))
      .filter(c => {
        if (c.between <= 0) return false
        if (forced !== undefined) return true
        const low = within(c.from, c.at)
        const high = within(c.at + 1, c.to)
        return c.between > 0.8 && c.high > 1.35 * c.low && low > 0.08 * total && high > 0.08 * total
      })
    const wanted = forced ?? 3
    if (parts.length >= wanted || !candidates.length) break
    // the cut that explains the most
    const best = candidates.reduce((a, b) =>
      b.between * within(b.from, b.to) * (b.high - b.low) >
      a.between * within(a.from, a.to) * (a.high - a.low)
        ? b
        : a,
    )
    edges.push(best.at)
    parts = parts.flatMap(p =>
      p.from === best.from && p.to === best.to
        ? [
            { from: p.from, to: best.at },
            { from: best.at + 1, to: p.to },
          ]
        : [p],
    )
  }
  const sums = parts.map(() => ({ s: 0, ws: 0 }))
  for (let i = 0; i < W.length; i++) {
    if (!on[i]) continue
    const b = Math.floor(Math.max(0, W[i] ?? 0) * scale)
    const part = sums[parts.findIndex(p => b <= p.to)]
    if (!part) continue
    part.s += span[i] ?? 0
    part.ws += (W[i] ?? 0) * (span[i] ?? 0)
  }
  const seconds = sums.reduce((sum, p) => sum + p.s, 0)
  return sums.filter(p => p.s > 0).map(p => ({ W: p.ws / p.s, shareFraction: p.s / seconds }))
}

function runsOf(
  { tS, W, peakA }: Series,
  span: Float32Array,
  on: Uint8Array,
  stepS: number,
): (OnSpell & { whole: boolean })[] {
  const runs: (OnSpell & { whole: boolean })[] = []
  const n = tS.length
  let from = -1
  const close = (to: number) => {
    if (from < 0) return
    const fromS = tS[from] ?? 0
    let ws = 0
    let s = 0
    let startW = 0
    let startA: number | null = null
    for (let i = from; i < to; i++) {
      ws += (W[i] ?? 0) * (span[i] ?? 0)
      s += span[i] ?? 0
      if ((tS[i] ?? 0) - fromS < Math.max(startS, stepS / 2)) {
        startW = Math.max(startW, W[i] ?? 0)
        if (peakA) startA = Math.max(startA ?? 0, peakA[i] ?? 0)
      }
    }
    // one that ran already when the log began, or after a gap, has no start of its own
    const whole = from > 0 && fromS - (tS[from - 1] ?? 0) <= gapSteps * stepS && !on[from - 1]
    runs.push({ fromS, toS: (tS[to - 1] ?? 0) + stepS, meanW: s ? ws / s : 0, startW, startA, whole })
    from = -1
  }
  for (let i = 0; i < n; i++) {
    const broken = i > 0 && (tS[i] ?? 0) - (tS[i - 1] ?? 0) > gapSteps * stepS
    if (from >= 0 && (!on[i] || broken)) close(i)
    if (on[i] && from < 0) from = i
  }
  close(n)
  return runs
}

function cycleOf(starts: readonly OnSpell[]): number | null {
  if (starts.length < 3) return null
  const between = starts
    .slice(1)
    .map((r, i) => r.fromS - (starts[i]?.fromS ?? 0))
    .sort((a, b) => a - b)
  return (between[Math.floor(between.length / 2)] ?? 0) / 60
}
