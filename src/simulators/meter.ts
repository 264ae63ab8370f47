import { assumedStartMultiple, type Load, type Pattern, startFigure } from '@/core/loads/load'
import { seeded, seedOf } from './seeded'

/**
 * A stand-in for a plug-in meter and a clamp meter with inrush hold: plays a load of a job as its meter would log it, in the
 * table that such meters save. What the load truly does differs from what the job believes, by a seed of its id, so that
 * metering it changes something.
 */

export interface Played {
  load: Load
  volts: 120 | 240
  /** local clock of the first row, counted like seconds since 1970 */
  startClockS: number
  hours: number
  /** seconds between rows */
  stepS: number
  seed: number
}

interface Truth {
  runningW: number
  idleW: number
  lowW: number
  lowShare: number
  duty: number
  cycleS: number
  startA: number
  powerFactor: number
}

/** What it truly draws: as the job says, more or less. */
function truthOf({ load, volts, seed }: Played): Truth {
  const random = seeded(seed ^ seedOf(load.id))
  const about = (value: number, low: number, high: number) => value * (low + (high - low) * random())
  const runningW = Math.max(0.5, about(load.runningW.value, 0.78, 1.12))
  const { pattern } = load
  const powerFactor = Math.min(1, about(load.powerFactor.value, 0.95, 1.03))
  const runningA = runningW / powerFactor / volts
  const given = load.start
  const startA = !given
    ? load.nature === 'plain'
      ? runningA * 1.2
      : runningA * assumedStartMultiple
    : given.method === 'multiple'
      ? runningA * startFigure(given).value
      : startFigure(given).value
  const [stage] = load.stages ?? []
  return {
    runningW,
    idleW: about(load.idleW.value, 0.7, 1.3),
    lowW: stage ? Math.min(runningW, about(stage.W, 0.9, 1.1)) : runningW,
    lowShare: stage?.shareFraction ?? 0,
    duty: Math.min(1, about(load.dutyFraction.value, 0.72, 1.25)),
    cycleS: (pattern?.kind === 'cycling' && pattern.cycleMinutes ? pattern.cycleMinutes : 40) * 60,
    startA: about(startA, 0.75, 0.95),
    powerFactor,
  }
}

/** When it runs: [from, to) in seconds from the start, in order. */
function runsOf(played: Played, truth: Truth): [number, number][] {
  const { load, hours, startClockS, seed } = played
  const random = seeded(seed * 31 + seedOf(load.id))
  const endS = hours * 3600
  const guessed: Pattern = { kind: truth.duty > 0.97 ? 'continuous' : 'cycling' }
  const pattern: Pattern = load.pattern ?? guessed
  if (pattern.kind === 'continuous' || truth.duty >= 0.99) return [[0, endS]]
  const runs: [number, number][] = []
  if (pattern.kind === 'cycling') {
    // warmer afternoons, quiet nights: the pauses stretch and shrink a little over the day
    for (let at = -truth.cycleS * random(); at < endS; ) {
      const hour = ((((startClockS + at) / 3600) % 24) + 24) % 24
      const busy = 1 + 0.18 * Math.sin(((hour - 9) / 24) * 2 * Math.PI)
      const cycle = truth.cycleS * (0.85 + 0.3 * random())
      const on = Math.min(0.95 * cycle, cycle * truth.duty * busy)
      runs.push([at, at + on])
      at += cycle
    }
  } else if (pattern.kind === 'event') {
    const from = pattern.fromH ?? 0
    const width = (((pattern.toH ?? 24) - from + 24) % 24 || 24) * 3600
    const each = pattern.minutes * 60
    for (let day = -1; day * 86_400 < endS; day++) {
      const midnight = day * 86_400 - (startClockS % 86_400)
      const wanted = (truth.duty * 86_400) / each
      const count = Math.floor(wanted) + (random() < wanted % 1 ? 1 : 0)
      for (let n = 0; n < count; n++) {
        const at = midnight + from * 3600 + random() * Math.max(0, width - each)
        runs.push([at, at + each * (0.7 + 0.6 * random())])
      }
    }
  } else {
    for (let day = -1; day * 86_400 < endS; day++) {
      const midnight = day * 86_400 - (startClockS % 86_400)
      for (const { fromH, toH } of pattern.spans) {
        const late = (random() - 0.5) * 1200
        const lasts = ((toH - fromH + 24) % 24 || 24) * 3600
        runs.push([midnight + fromH * 3600 + late, midnight + fromH * 3600 + late + lasts])
      }
    }
  }
  return merged(runs, endS)
}

function merged(runs: [number, number][], endS: number): [number, number][] {
  const out: [number, number][] = []
  for (const [from, to] of runs.sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1)
    if (to <= 0 || from >= endS) continue
    if (last && from <= last[1]) last[1] = Math.max(last[1], to)
    else out.push([from, to])
  }
  return out
}

export const meterHeader = 'time,W,V,A,PF,Wh,inrush A'

const two = (n: number) => String(n).padStart(2, '0')
function clockText(s: number): string {
  const d = new Date(s * 1000)
  return `${d.toISOString().slice(0, 10)} ${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())}`
}

/** The rows of the log, one after the other, without the header. */
export function* play(played: Played): Generator<string> {
  const truth = truthOf(played)
  const runs = runsOf(played, truth)
  const { load, volts, startClockS, hours, stepS, seed } = played
  const noise = seeded(seed + 7)
  const sequence = load.sequence ?? []
  const sequenceS = sequence.reduce((sum, s) => sum + s.seconds, 0)
  const hasMotor = load.nature !== 'plain' || load.start !== undefined
  let Wh = 0
  let at = 0
  for (let n = 0; n * stepS < hours * 3600; n++) {
    const s = n * stepS
    while (at < runs.length - 1 && (runs[at]?.[1] ?? 0) <= s) at++
    const [from = 0, to = 0] = runs[at] ?? []
    const running = s >= from && s < to
    const into = s - from
    let W = truth.idleW
    if (running) {
      let past = 0
      const stage = sequence.find(p => {
        past += p.seconds
        return into < past
      })
      const low = truth.lowShare > 0 && into - sequenceS < (to - from - sequenceS) * truth.lowShare
      W = stage ? stage.W : low ? truth.lowW : truth.runningW
    }
    const started = running && hasMotor && from > 0 && into < stepS
    // a row is the mean of its span: a start of half a second shows in it only where the span is short
    if (started) W += (truth.startA * volts * truth.powerFactor * 0.5 - W) * Math.min(1, 0.5 / stepS)
    W = Math.max(0, W * (1 + 0.02 * (noise() - 0.5)) + (running ? 0 : 0.2 * (noise() - 0.5)))
    const V = volts * (1 + 0.01 * (noise() - 0.5))
    const factor = running ? truth.powerFactor : Math.min(1, truth.powerFactor * 0.7)
    const A = W / V / factor
    Wh += (W * stepS) / 3600
    const peak = started ? truth.startA : A * 1.05
    yield `${clockText(startClockS + s)},${W.toFixed(1)},${V.toFixed(1)},${A.toFixed(3)},${factor.toFixed(2)},${Wh.toFixed(3)},${peak.toFixed(2)}`
  }
}
