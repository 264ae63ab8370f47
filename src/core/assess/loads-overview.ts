import { conditionsOf } from '../ask/outage-asked'
import type { Job } from '../job/schema'
import type { Drawn } from '../loads/draw'
import { type Load, meanProvenance, startFigure } from '../loads/load'
import { type Explained, explained } from '../loads/utility'
import { quantity } from '../units/format'
import type { Origin } from '../working'
import { balanceOf } from './balance'
import { type BySchool, type Learn, learn, needsBySchool, needsByTier, type TierNeed } from './measure-next'
import { circuitNeeds, conditionsText, countedLoads, loadsOf } from './needs'

export interface LoadRow {
  circuitId: string
  position: string
  label: string
  picked: boolean
  /** counts in the needs: picked, and fed by the arrangement or no source is chosen yet */
  counts: boolean
  volts: 120 | 240
  load: Load
  drawn: Drawn
  /** the weakest evidence of its energy */
  from: Origin
  startFrom: Origin | null
}

/** Everything the screen of the loads shows. */
export interface LoadsOverview {
  rows: LoadRow[]
  schools: BySchool[]
  learn: Learn
  tiers: TierNeed[]
  dailyWh: number
  /** what the loads are reckoned for, in words; empty where nothing is said */
  conditions: string
  explained: Explained | null
}

export function loadsOverview(job: Job): LoadsOverview {
  const needs = circuitNeeds(job)
  const loads = countedLoads(job)
  const { figures } = balanceOf(job, needs, loads)
  const conditions = conditionsOf(job)
  const dailyWh = loads.reduce((sum, l) => sum + l.drawn.dailyWh, 0)
  return {
    rows: loadsOf(needs).map(({ need, load, drawn }) => ({
      circuitId: need.circuit.id,
      position: need.position,
      label: need.circuit.label || 'unlabelled',
      picked: need.circuit.picked,
      counts: loads.some(l => l.load === load),
      volts: need.volts,
      load,
      drawn,
      from: meanProvenance(load).from,
      startFrom: load.start ? startFigure(load.start).from : load.nature === 'plain' ? null : 'assumed',
    })),
    schools: needsBySchool(job, figures),
    learn: learn(job, figures),
    tiers: needsByTier(loads),
    dailyWh,
    conditions: conditionsText(conditions),
    explained: job.utility ? explained(job.utility, dailyWh, conditions.season) : null,
  }
}

/** What a change of a load did to it and to the balance, in one sentence: `1,320 → 1,080 Wh a day; run time 18.2 → 19 h`. */
export function changeTold(before: Job, after: Job, loadId: string): string {
  const of = (job: Job) => {
    const needs = circuitNeeds(job)
    const row = loadsOf(needs).find(l => l.load.id === loadId)
    const { figures } = balanceOf(job, needs, countedLoads(job))
    return { row, hours: figures.run?.hours ?? null, worst: figures.starts[0]?.needVA ?? null }
  }
  const was = of(before)
  const now = of(after)
  if (!now.row) return ''
  const from = meanProvenance(now.row.load).from
  const parts = [
    `${now.row.load.name}: ${was.row ? `${quantity(was.row.drawn.dailyWh, 'Wh')} → ` : ''}${quantity(now.row.drawn.dailyWh, 'Wh')} a day (${was.row ? `${meanProvenance(was.row.load).from} → ` : ''}${from})`,
    ...(was.hours !== null && now.hours !== null && Math.abs(was.hours - now.hours) > 0.005 * now.hours
      ? [`run time ${quantity(was.hours, 'h')} → ${quantity(now.hours, 'h')}`]
      : []),
    ...(was.worst !== null && now.worst !== null && Math.abs(was.worst - now.worst) > 0.005 * now.worst
      ? [`worst start ${quantity(was.worst, 'VA')} → ${quantity(now.worst, 'VA')}`]
      : []),
  ]
  return `${parts.join('; ')}.`
}
