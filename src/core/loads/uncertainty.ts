import type { Origin } from '../working'
import { dutyIn } from './draw'
import { type FigureKey, type Known, type Load, runningVA, startFigure } from './load'
import { levelW } from './log'
import type { Conditions } from './season'

/**
 * How far a figure may be off where it carries no range of its own: shares of it, down and up. Assumptions of ours, by
 * kind of evidence; a plate prints the most a load takes, so it reaches further down than up.
 */
const spread: Record<Origin, { watts: readonly [number, number]; share: readonly [number, number] }> = {
  commissioned: { watts: [0.05, 0.05], share: [0.15, 0.15] },
  metered: { watts: [0.05, 0.05], share: [0.15, 0.15] },
  'utility data': { watts: [0.1, 0.1], share: [0.2, 0.2] },
  nameplate: { watts: [0.5, 0.1], share: [0.4, 0.4] },
  catalogue: { watts: [0.15, 0.15], share: [0.3, 0.3] },
  job: { watts: [0.25, 0.25], share: [0.3, 0.3] },
  'typical value': { watts: [0.4, 0.5], share: [0.4, 0.6] },
  assumed: { watts: [0.6, 1], share: [0.6, 1] },
}

export interface Range {
  low: number
  value: number
  high: number
}

/** The range of a figure: its own, else by its kind of evidence. */
export function rangeOf(known: Known, kind: 'watts' | 'share'): Range {
  const [down, up] = spread[known.from][kind]
  const { value } = known
  const most = kind === 'share' ? 1 : Infinity
  return {
    value,
    low: known.low ?? value * (1 - down),
    high: Math.max(value, Math.min(most, known.high ?? value * (1 + up))),
  }
}

/** Mean and variance of a triangular distribution: (a+b+c)/3 and (a²+b²+c²−ab−ac−bc)/18. */
const triangular = ({ low: a, value: c, high: b }: Range) => ({
  mean: (a + b + c) / 3,
  variance: (a * a + b * b + c * c - a * b - a * c - b * c) / 18,
})

export interface Unsure {
  /** its average over what each figure may be, W: above the likely one where the range reaches further up */
  meanW: number
  /** standard deviation of its average, W */
  sdW: number
  /** the figure that contributes most of it */
  by: FigureKey
}

/**
 * The standard deviation of a load's average, W, its running watts, idle watts and share of time varying independently:
 * exact for the product share × running + (1 − share) × idle. `by` names the figure that moves it most by itself.
 */
export function unsure(load: Load, conditions: Conditions): Unsure {
  const { value: duty } = dutyIn(load, conditions)
  const scale = load.dutyFraction.value > 0 ? duty / load.dutyFraction.value : 1
  const share = rangeOf(load.dutyFraction, 'share')
  const level = load.runningW.value > 0 ? levelW(load.runningW.value, load.stages) / load.runningW.value : 1
  const watts = rangeOf(load.runningW, 'watts')
  const scaled = (r: Range, by: number, most = Infinity): Range => ({
    low: Math.min(most, r.low * by),
    value: Math.min(most, r.value * by),
    high: Math.min(most, r.high * by),
  })
  const d = triangular(scaled(share, scale, 1))
  const r = triangular(scaled(watts, level))
  const i = triangular(rangeOf(load.idleW, 'watts'))
  const square = (x: { mean: number; variance: number }) => x.variance + x.mean * x.mean
  const rest = { mean: 1 - d.mean, variance: d.variance }
  // E[(dR + (1−d)I)²], with E[d(1−d)] = E[d] − E[d²]
  const second = square(d) * square(r) + 2 * (d.mean - square(d)) * r.mean * i.mean + square(rest) * square(i)
  const mean = d.mean * r.mean + rest.mean * i.mean
  const alone: [FigureKey, number][] = [
    ['dutyFraction', d.variance * (r.mean - i.mean) ** 2],
    ['runningW', r.variance * d.mean ** 2],
    ['idleW', i.variance * rest.mean ** 2],
  ]
  const [by] = alone.reduce((most, one) => (one[1] > most[1] ? one : most))
  return { meanW: mean, sdW: Math.sqrt(Math.max(0, second - mean * mean)), by }
}

/** The range of a load's start, VA at `volts`; null where it has none. */
export function startRange(load: Load, volts: number): Range | null {
  if (load.nature === 'plain' && !load.start) return null
  const given = load.start
  if (!given) {
    const VA = runningVA(load)
    return { low: 2 * VA, value: 5 * VA, high: 7 * VA }
  }
  const known = startFigure(given)
  const range = rangeOf(known, 'watts')
  const by =
    given.method === 'multiple'
      ? runningVA(load)
      : given.method === 'inrush'
        ? volts
        : volts * (given.softStartFraction ?? 1)
  return { low: range.low * by, value: range.value * by, high: range.high * by }
}
