import { fail, fault, type Outcome, parseWith } from '../outcome'
import { figure } from '../units/format'
import { loadLog } from './load-log'
import { type Log, logInput, logSchema } from './log'
import { seasonOf } from './season'
import type { Segmentation } from './segment'

/** Less than this tells nothing of a load, h. */
const shortestH = 1 / 60

interface About {
  id: string
  name: string
  kind: Log['kind']
  on: string
  by?: string | undefined
  outdoorC?: number | undefined
  /** of the load’s circuit, V */
  volts: number
}

const round = (value: number, digits: number) => Number(value.toPrecision(digits))

/** The log of a load from the segmentation of its readings: what is kept with the job. Faults: nothing was drawn. */
export function logOf(found: Segmentation, { volts, outdoorC, by, ...about }: About): Outcome<Log> {
  const top = found.levels.at(-1)
  if (!top || found.meanW <= 0)
    return fail(fault('$', 'nothing was drawn in the whole log: was the load on this meter?'))
  if (found.observedH < shortestH)
    return fail(
      fault('$', `the log lasts ${figure(found.observedH * 3600)} s: let it run for some minutes at least`),
    )
  const lower = found.levels.slice(0, -1)
  const runningA = top.W / volts
  const inrushA = found.highestStartA ?? 0
  // the hours of one day alone would carry that day’s accidents
  const hourly = found.observedH >= 24 && !found.continuous ? found.hourly : null
  return parseWith(logSchema, {
    ...about,
    ...(by && { by }),
    spans: found.spans,
    runningW: top.W,
    idleW: found.continuous ? 0 : found.idleW,
    ...(lower.length && { stages: lower }),
    ...(inrushA > 1.5 * runningA && { inrushA: round(inrushA, 4) }),
    highestW: found.highestW,
    ...(outdoorC !== undefined && { outdoorC }),
    season: seasonOf(about.on),
    startsPerDay: found.startsPerDay,
    ...(found.cycleMinutes !== null && { cycleMinutes: round(found.cycleMinutes, 4) }),
    ...(hourly && { hourly: hourly.map(h => round(h, 4)) }),
  })
}

/** What `load-log` makes of a log, with its working. */
export const worked = (log: Log) => loadLog.compute(logInput(log))
