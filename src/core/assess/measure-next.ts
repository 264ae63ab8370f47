import { conditionsOf } from '../ask/outage-asked'
import type { Job } from '../job/schema'
import { drawn } from '../loads/draw'
import { bySchool, type School, schools } from '../loads/evidence'
import type { Load } from '../loads/load'
import { runningVA } from '../loads/load'
import { startRange, unsure } from '../loads/uncertainty'
import { opposed } from '../source/arrangement'
import { figure, plural, quantity, together } from '../units/format'
import type { Working } from '../working'
import type { Figures } from './balance'
import { runOf } from './energy'
import { coincidence, type ServedLoad, startNeeds, supplyOf } from './needs'

/** What is needed, by each school, and what to find out next. */

export interface BySchool {
  school: School
  meanW: number
  dailyWh: number
  W: number
  VA: number
  worstStart: { load: string; circuitId: string; startVA: number; needVA: number; method: string } | null
  /** loads that this school has no word on: their figures in force stand in */
  without: string[]
  /** why its day differs from the figures in force, largest first */
  reasons: string[]
}

function asSchool(
  job: Job,
  loads: readonly ServedLoad[],
  school: School,
): { loads: ServedLoad[]; without: string[] } {
  const conditions = conditionsOf(job)
  const without: string[] = []
  const taken = loads.map(served => {
    const { load, missing } = bySchool(served.load, school)
    if (missing.includes('runningW') || (school === 'metered' && missing.includes('dutyFraction')))
      without.push(served.load.name)
    return load === served.load
      ? served
      : { ...served, load, W: load.runningW.value, VA: runningVA(load), drawn: drawn(load, conditions) }
  })
  return { loads: taken, without }
}

const startNames = {
  inrush: 'measured inrush',
  'locked-rotor': 'locked-rotor amps',
  multiple: 'a multiple of running',
} as const

/** Needs of the picked circuits by nameplate, by meter, and by the figures in force, side by side. */
export function needsBySchool(job: Job, figures: Figures): BySchool[] {
  const supply = supplyOf(job)
  const split = supply !== null && opposed(supply.arrangement)
  const { output } = figures
  const surge = { totalVA: output?.surgeW ?? Infinity, legVA: output?.legSurgeW ?? Infinity }
  return schools.map(school => {
    const { loads, without } = asSchool(job, figures.loads, school)
    const { W, VA } = coincidence(loads, 'both')
    const worst = startNeeds(loads, split, surge)[0]
    return {
      school,
      meanW: sum(loads, l => l.drawn.meanW),
      dailyWh: sum(loads, l => l.drawn.dailyWh),
      W,
      VA,
      worstStart: worst
        ? {
            load: worst.load.load.name,
            circuitId: worst.load.need.circuit.id,
            startVA: worst.startVA,
            needVA: worst.needVA,
            method: worst.load.load.start
              ? startNames[worst.load.load.start.method]
              : 'five times running, assumed',
          }
        : null,
      without,
      reasons: school === 'blended' ? [] : reasons(figures.loads, loads),
    }
  })
}

const sum = (loads: readonly ServedLoad[], of: (load: ServedLoad) => number) =>
  loads.reduce((total, load) => total + of(load), 0)

/** The loads that make most of the difference to the figures in force, with both figures. */
function reasons(inForce: readonly ServedLoad[], other: readonly ServedLoad[]): string[] {
  const total = sum(inForce, l => l.drawn.dailyWh)
  return inForce
    .map((now, n) => ({
      now,
      there: other[n] ?? now,
      by: (other[n]?.drawn.dailyWh ?? 0) - now.drawn.dailyWh,
    }))
    .filter(d => Math.abs(d.by) > 0.01 * total)
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
    .slice(0, 3)
    .map(
      ({ now, there, by }) =>
        `${now.load.name} ${by > 0 ? '+' : '−'}${quantity(Math.abs(by), 'Wh')}: ${differsText(there.load, now.load)}`,
    )
}

/** The figures in which two views of a load differ, this one first. */
function differsText(there: Load, now: Load): string {
  const parts = [
    there.runningW.value === now.runningW.value
      ? ''
      : `${quantity(there.runningW.value, 'W')} (${there.runningW.from}), not ${quantity(now.runningW.value, 'W')} (${now.runningW.from})`,
    there.dutyFraction.value === now.dutyFraction.value
      ? ''
      : `${quantity(there.dutyFraction.value, 'fraction')} of the time (${there.dutyFraction.from}), not ${quantity(now.dutyFraction.value, 'fraction')} (${now.dutyFraction.from})`,
  ].filter(Boolean)
  return parts.join('; ') || 'other idle watts or levels'
}

export interface ToMeasure {
  load: ServedLoad
  /** what it moves: the energy, or whether the start is carried */
  moves: 'energy' | 'start'
  /** of the variance of the day's energy; of a start 1 where it decides, else 0 */
  share: number
  how: string
  why: string
}

export interface Learn {
  /** the day's energy, Wh: as reckoned, and the band that four days in five fall into */
  dailyWh: { low: number; value: number; high: number }
  hours: { low: number; high: number } | null
  next: ToMeasure[]
  working: Working
}

/** Four of five outcomes of a normal distribution lie within this many standard deviations. */
const fourInFive = 1.2816

/**
 * What to measure next: the loads by their share of the variance of the day's energy, and any start whose range decides
 * between enough and short. The band of the run time follows from that of the energy.
 */
export function learn(job: Job, figures: Figures): Learn {
  const conditions = conditionsOf(job)
  const parts = figures.loads.map(load => ({ load, ...unsure(load.load, conditions) }))
  const variance = parts.reduce((total, p) => total + p.sdW ** 2, 0)
  const sdW = Math.sqrt(variance)
  const dailyWh = sum(figures.loads, l => l.drawn.dailyWh)
  const energy: ToMeasure[] = parts
    .filter(p => p.sdW > 0)
    .map(p => ({
      load: p.load,
      moves: 'energy' as const,
      share: variance > 0 ? p.sdW ** 2 / variance : 0,
      how: howToMeasure(p.load, p.by),
      why: `±${quantity(fourInFive * 24 * p.sdW, 'Wh')} a day, most by its ${figureNames[p.by]}: ${ofOrigin[p.load.load[p.by].from]}.`,
    }))
    .sort((a, b) => b.share - a.share)
  const starts = figures.starts.flatMap((s): ToMeasure[] => {
    const range = startRange(s.load.load, s.load.need.volts)
    if (!range || !Number.isFinite(s.haveVA)) return []
    const low = s.runningVA + range.low
    const high = s.runningVA + range.high
    if (low > s.haveVA || high <= s.haveVA) return []
    return [
      {
        load: s.load,
        moves: 'start',
        share: 1,
        how: 'Clamp meter with inrush hold, at a start from rest; or the nameplate’s LRA.',
        why: `Its start needs ${quantity(low, 'VA')} to ${quantity(high, 'VA')} with what runs, and ${quantity(s.haveVA, 'VA')} are there: the figure decides.`,
      },
    ]
  })
  const band = {
    low: Math.max(0, dailyWh - fourInFive * 24 * sdW),
    value: dailyWh,
    high: dailyWh + fourInFive * 24 * sdW,
  }
  return {
    dailyWh: band,
    hours: hoursBand(job, figures, sdW),
    next: [...starts, ...energy],
    working: {
      title: 'What to measure next',
      formula: [
        'each figure has a low, a likely and a high value: a triangular distribution',
        'variance of a load’s average = that of share × running + (1 − share) × idle, the three independent',
        'share of a load = its variance ÷ the sum over the picked loads',
        'band of the day = mean ± 1.28 standard deviations: four days in five',
      ],
      inputs: parts
        .filter(p => p.sdW > 0)
        .sort((a, b) => b.sdW - a.sdW)
        .map(p => ({
          label: `${p.load.load.name} on ${p.load.need.position}`,
          value: p.sdW,
          unit: 'W' as const,
          arithmetic: `${figure(variance > 0 ? (100 * p.sdW ** 2) / variance : 0)} % of the variance, most by its ${figureNames[p.by]}`,
        })),
      steps: [{ label: 'Standard deviation of the average', value: sdW, unit: 'W' }],
      references: [],
      notCovered: ['Habits of several loads that go together: a cold week moves every heater at once.'],
    },
  }
}

function hoursBand(job: Job, { run, meanLoadW, mean }: Figures, sdW: number): Learn['hours'] {
  if (!run || !job.source) return null
  // every leg moves as the whole does
  const hours = (loadW: number) => {
    const by = meanLoadW ? loadW / meanLoadW : 1
    const legW = { L1: mean.legW.L1 * by, L2: mean.legW.L2 * by }
    return runOf(job, { ...mean, W: loadW, legW })?.hours ?? run.hours
  }
  return { low: hours(meanLoadW + fourInFive * sdW), high: hours(Math.max(0, meanLoadW - fourInFive * sdW)) }
}

const figureNames = {
  runningW: 'running watts',
  powerFactor: 'power factor',
  dutyFraction: 'share of the time',
  idleW: 'idle watts',
} as const
const ofOrigin = {
  commissioned: 'read once, while it was commissioned',
  metered: 'metered, but over a short time',
  nameplate: 'read from a plate',
  'utility data': 'from the utility’s data',
  catalogue: 'from a catalogue',
  job: 'set on this job',
  'typical value': 'a typical value',
  assumed: 'assumed',
} as const

function howToMeasure(
  { load, need }: ServedLoad,
  by: 'runningW' | 'powerFactor' | 'dutyFraction' | 'idleW',
): string {
  const clamp = need.volts === 240 || load.nature === 'motor'
  if (by === 'dutyFraction')
    return clamp
      ? 'Logging clamp meter on its wire, 48 h or more.'
      : 'Plug-in meter, 24 to 48 h; longer where the weather drives it.'
  return clamp ? 'Clamp meter while it runs.' : 'Plug-in meter while it runs: a minute is enough.'
}

export interface TierNeed {
  tier: 1 | 2 | 3
  dailyWh: number
  meanW: number
  circuits: { circuitId: string; name: string; position: string; dailyWh: number }[]
}

/** Watt-hours a day by importance and circuit; a load with its own importance counts there. */
export function needsByTier(loads: readonly ServedLoad[]): TierNeed[] {
  return ([1, 2, 3] as const).flatMap(tier => {
    const here = loads.filter(l => (l.load.tier ?? l.need.circuit.tier) === tier)
    if (!here.length) return []
    const circuits = new Map<string, TierNeed['circuits'][number]>()
    for (const { need, drawn: d } of here) {
      const before = circuits.get(need.circuit.id)
      if (before) before.dailyWh += d.dailyWh
      else
        circuits.set(need.circuit.id, {
          circuitId: need.circuit.id,
          name: need.circuit.label || 'unlabelled',
          position: need.position,
          dailyWh: d.dailyWh,
        })
    }
    return [
      {
        tier,
        dailyWh: sum(here, l => l.drawn.dailyWh),
        meanW: sum(here, l => l.drawn.meanW),
        circuits: [...circuits.values()].sort((a, b) => b.dailyWh - a.dailyWh),
      },
    ]
  })
}

/** In words: what a school lacks. */
export const withoutText = (without: readonly string[]): string =>
  without.length
    ? `${plural(without.length, 'load')} not known by it: ${together(without.slice(0, 4))}${without.length > 4 ? ' …' : ''}`
    : ''
