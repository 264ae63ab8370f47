import type { Origin } from '../working'
import { patternDuty } from './draw'
import { type Figure, type FigureKey, type Known, type Load, type Start, startFigure } from './load'
import { dutyRange, type Log } from './log'

/** Three schools know a load: the better source comes into force, unless the person says otherwise; none is thrown away. */

export const schools = ['nameplate', 'metered', 'blended'] as const
export type School = (typeof schools)[number]

/** Best evidence first. A nameplate knows nothing of the time a load runs; there it is not asked. */
const order: readonly Origin[] = [
  'commissioned',
  'metered',
  'nameplate',
  'utility data',
  'catalogue',
  'job',
  'typical value',
  'assumed',
]
const rank = (from: Origin) => order.indexOf(from)

const bare = ({ chosen: _, others: __, ...known }: Figure): Known => known

/** Puts a figure beside what is known: into force where its source is as good or better, and the person chose no other. */
export function withFigure(was: Figure, now: Known): Figure {
  const others = (was.others ?? []).filter(o => o.from !== now.from)
  const stays = was.from !== now.from && (was.chosen || rank(was.from) < rank(now.from))
  if (stays) return { ...was, others: [now, ...others].slice(0, 8) }
  const kept = was.from === now.from ? others : [bare(was), ...others]
  return {
    ...now,
    ...(was.chosen && was.from === now.from && { chosen: true }),
    ...(kept.length && { others: kept.slice(0, 8) }),
  }
}

/** Brings the figure of one source into force because the person wants it; null where that source says nothing. */
export function withChosen(was: Figure, from: Origin): Figure | null {
  if (was.from === from) return { ...was, chosen: true }
  const wanted = was.others?.find(o => o.from === from)
  if (!wanted) return null
  return { ...wanted, chosen: true, others: [bare(was), ...(was.others ?? []).filter(o => o !== wanted)] }
}

/** Leaves the choice to the order of the sources again. */
export function withoutChoice(was: Figure): Figure {
  const all = [bare(was), ...(was.others ?? [])].sort((a, b) => rank(a.from) - rank(b.from))
  const [best = bare(was), ...others] = all
  return { ...best, ...(others.length && { others }) }
}

/** Every source of a figure, best first. */
export const sourcesOf = (figure: Figure): Known[] =>
  [bare(figure), ...(figure.others ?? [])].sort((a, b) => rank(a.from) - rank(b.from))

/** Best start first: measured inrush, then locked rotor of a plate, then a multiple. */
const startRank = (start: Start) => rank(startFigure(start).from) + (start.method === 'multiple' ? 0.5 : 0)

const sameStart = (a: Start, b: Start) => a.method === b.method && startFigure(a).from === startFigure(b).from

/** Running watts as they were read when the house was commissioned; lower levels above them come down to them. */
export function withCommissioned(load: Load, W: number, on: string, document: string): Load {
  const runningW = withFigure(load.runningW, {
    value: W,
    from: 'commissioned',
    on,
    document,
    low: W * 0.97,
    high: W * 1.03,
  })
  const stages = load.stages?.map(s => ({ ...s, W: Math.min(s.W, runningW.value) }))
  return { ...load, runningW, ...(stages && { stages }) }
}

/** Puts a start figure beside what is known of it; a planned soft starter stays planned. */
export function withStart(load: Load, now: Start): Load {
  const all = [load.start, ...(load.otherStarts ?? [])].filter(
    (s): s is Start => s !== undefined && !sameStart(s, now),
  )
  const soft = load.start?.method === 'locked-rotor' ? load.start.softStartFraction : undefined
  const added: Start =
    now.method === 'locked-rotor' && soft !== undefined ? { ...now, softStartFraction: soft } : now
  const [best, ...others] = [added, ...all].sort((a, b) => startRank(a) - startRank(b))
  const { otherStarts: _, ...rest } = load
  return { ...rest, ...(best && { start: best }), ...(others.length && { otherStarts: others.slice(0, 8) }) }
}

/** Brings the `n`-th known start into force: 0 is the one that is. */
export function withChosenStart(load: Load, n: number): Load {
  const all = [load.start, ...(load.otherStarts ?? [])].filter((s): s is Start => s !== undefined)
  const wanted = all[n]
  return wanted ? { ...load, start: wanted, otherStarts: all.filter(s => s !== wanted) } : load
}

/** A figure that a person typed over: it counts because it was chosen, and what it replaces is kept beside it. */
export function edited(was: Figure, value: number, from: Origin): Figure {
  if (was.value === value && was.from === from) return was
  const others = (was.others ?? []).filter(o => o.from !== from)
  const kept = was.from === from || was.from === 'assumed' ? others : [bare(was), ...others]
  const best = kept.every(k => rank(from) <= rank(k.from))
  return {
    value,
    from,
    ...(was.atC !== undefined && { atC: was.atC }),
    ...(!best && { chosen: true as const }),
    ...(kept.length && { others: kept.slice(0, 8) }),
  }
}

/** What a meter’s log says comes onto the load: running, idle, share of the time, levels, hours, inrush. */
export function withLog(load: Load, log: Log): Load {
  const said = (value: number, unsure: number, most = Infinity): Known => ({
    value,
    from: 'metered',
    on: log.on,
    document: log.name,
    low: value * (1 - unsure),
    high: Math.min(most, value * (1 + unsure)),
  })
  const duty: Known = {
    ...dutyRange(log),
    from: 'metered',
    on: log.on,
    document: log.name,
    ...(log.outdoorC !== undefined && { atC: log.outdoorC }),
    ...(log.season && { season: log.season }),
  }
  const { stages: was, ...rest } = load
  const runningW = withFigure(load.runningW, said(log.runningW, 0.03))
  // levels belong to the running watts that were metered with them
  const stages = runningW.from === 'metered' ? log.stages : was
  const known: Load = {
    ...rest,
    runningW,
    idleW: withFigure(load.idleW, said(log.idleW, 0.1)),
    dutyFraction: withFigure(load.dutyFraction, duty),
    powerFactor:
      log.powerFactor === undefined
        ? load.powerFactor
        : withFigure(load.powerFactor, said(log.powerFactor, 0.02, 1)),
    ...(stages?.length && { stages }),
    ...(log.hourly && { hourly: log.hourly }),
    ...(log.cycleMinutes && (load.pattern === undefined || load.pattern.kind === 'cycling')
      ? { pattern: { kind: 'cycling' as const, cycleMinutes: log.cycleMinutes } }
      : {}),
    logs: [...(load.logs ?? []).filter(l => l.id !== log.id), log].slice(-12),
  }
  return log.inrushA === undefined
    ? known
    : withStart(known, { method: 'inrush', inrushA: said(log.inrushA, 0.1) })
}

/** The load without one of its logs: what that log alone had said falls back to the next source. */
export function withoutLog(load: Load, logId: string): Load {
  const log = load.logs?.find(l => l.id === logId)
  if (!log) return load
  const ofLog = (known: Known) =>
    known.from === 'metered' && known.document === log.name && known.on === log.on
  const fallen = (was: Figure): Figure => {
    const all = [bare(was), ...(was.others ?? [])]
      .filter(k => !ofLog(k))
      .sort((a, b) => rank(a.from) - rank(b.from))
    const [best, ...others] = all
    if (!ofLog(was)) return { ...was, others: (was.others ?? []).filter(k => !ofLog(k)) }
    // nothing else was ever known: the figure stays, as an assumption
    return best ? { ...best, ...(others.length && { others }) } : { ...bare(was), from: 'assumed' }
  }
  const starts = [load.start, ...(load.otherStarts ?? [])].filter(
    (s): s is Start => s !== undefined && !ofLog(startFigure(s)),
  )
  const { start: _, otherStarts: __, stages, hourly, ...rest } = load
  const logs = (load.logs ?? []).filter(l => l !== log)
  const plain: Load = {
    ...rest,
    runningW: fallen(load.runningW),
    powerFactor: fallen(load.powerFactor),
    dutyFraction: fallen(load.dutyFraction),
    idleW: fallen(load.idleW),
    ...(starts[0] && { start: starts[0] }),
    ...(starts.length > 1 && { otherStarts: starts.slice(1) }),
    ...(stages && stages !== log.stages && !log.stages && { stages }),
    ...(hourly && !log.hourly && { hourly }),
    logs,
  }
  const last = logs.at(-1)
  return last ? withLog(plain, last) : plain
}

const find = (figure: Figure, from: readonly Origin[]) => sourcesOf(figure).find(k => from.includes(k.from))
const unmetered: readonly Origin[] = [
  'nameplate',
  'utility data',
  'catalogue',
  'job',
  'typical value',
  'assumed',
]

export interface BySchool {
  load: Load
  /** the figures that this school does not have, taken from those in force */
  missing: (FigureKey | 'start')[]
}

/** The load as one school alone would have it; what it has no word on is taken from what is in force, and told. */
export function bySchool(load: Load, school: School): BySchool {
  if (school === 'blended') return { load, missing: [] }
  const starts = [load.start, ...(load.otherStarts ?? [])].filter((s): s is Start => s !== undefined)
  const missing: BySchool['missing'] = []
  const take = (key: FigureKey, found: Known | undefined): Known => {
    if (!found) missing.push(key)
    return found ?? load[key]
  }
  if (school === 'metered') {
    const metered = (key: FigureKey) => take(key, find(load[key], ['commissioned', 'metered']))
    const inrush = starts.find(s => ['commissioned', 'metered'].includes(startFigure(s).from))
    if (!inrush && (load.nature !== 'plain' || starts.length)) missing.push('start')
    const start = inrush ?? load.start
    return {
      load: {
        ...load,
        runningW: metered('runningW'),
        idleW: metered('idleW'),
        dutyFraction: metered('dutyFraction'),
        powerFactor: find(load.powerFactor, ['metered']) ?? load.powerFactor,
        ...(start && { start }),
      },
      missing,
    }
  }
  const plateW = take('runningW', find(load.runningW, ['nameplate']))
  const printed = starts.find(s => startFigure(s).from === 'nameplate')
  if (!printed && (load.nature !== 'plain' || starts.length)) missing.push('start')
  const start = printed ?? load.start
  // a plate says nothing of the time: the habit known beforehand, else the pattern, else always
  const habit: Known = find(load.dutyFraction, unmetered) ?? {
    value: patternDuty(load.pattern) ?? 1,
    from: 'assumed',
  }
  const { stages: _, ...rest } = load
  return {
    load: {
      ...rest,
      runningW: plateW,
      dutyFraction: habit,
      idleW: find(load.idleW, unmetered) ?? load.idleW,
      powerFactor: find(load.powerFactor, ['nameplate']) ?? load.powerFactor,
      ...(start && { start }),
    },
    missing,
  }
}
