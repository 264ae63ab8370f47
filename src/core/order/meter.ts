import { houseOfJob } from '../isolation/house'
import { liveWith } from '../isolation/live'
import { asPlanned } from '../job/as-planned'
import type { Job } from '../job/schema'
import { changeId } from '../plan/change'
import { type Hold, type ReadingAsked, torqueOf } from './holds'
import type { WorkStand } from './stand'
import type { WorkOrder } from './task'

/** The house with what is built of the plan joined, and these windows open. */
function liveNow(job: Job, { windows }: WorkOrder, off: readonly string[]): ReadonlyMap<string, unknown> {
  const house = houseOfJob(job, new Set(job.planned.filter(c => c.built).map(changeId)))
  const open = windows.filter(w => off.includes(w.id)).flatMap(w => [...w.opened, ...w.keptOpen])
  return liveWith(house, new Set(open.map(o => o.id)))
}

/** A leg as an ordinary evening has it, V. */
const legV = 121.4
/** What an instrument with short leads shows of nothing, V. */
const nothingV = 0.1

/**
 * What a meter would show at a hold point, from the model of the house as it stands: for showing and learning. A place that the model has live reads live, whatever the
 * order says of it; volts are read with the handles of their own window closed; a source of its own is taken to run.
 */
export function simulatedReadings(
  job: Job,
  order: WorkOrder,
  stand: WorkStand,
  hold: Hold,
): { key: string; value: number | 'OL' }[] {
  const [, task = '', kind, where = ''] = /^([^#]+)#([^:]+):?(.*)$/.exec(hold.id) ?? []
  const of = order.tasks.find(t => t.id === task)
  const live = liveNow(job, order, kind === 'volts' ? stand.off.filter(w => w !== of?.window) : stand.off)
  const isLive =
    kind === 'volts'
      ? of?.window === null || live.has(`bus ${of?.panelId}`)
      : live.has(`bus ${where}`) || live.has(`circuit ${where}`)
  const joined = asPlanned(job).job.panels.some(p => task === `wall:${p.id}` && p.neutralBonded)
  const { low, high } = torqueOf(hold.size)
  const at = (volts: number) => (isLive ? volts : nothingV)
  const shows: Record<ReadingAsked['role'], (key: string) => number | 'OL'> = {
    known: () => legV,
    dead: key => at(key === 'L1–L2' ? 2 * legV : legV),
    'dead to ground': key => (key === 'N–G' ? nothingV : at(legV)),
    apart: () => (joined ? 0.2 : 'OL'),
    // what a hand with the tool set to the label reads: the middle of what is usual
    torque: () => Math.round((low + Math.min(high, 2 * low)) / 2),
    leg: () => at(legV),
    legs: () => at(2 * legV),
  }
  return hold.readings.map(({ key, role }) => ({ key, value: shows[role](key) }))
}
