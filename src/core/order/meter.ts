import { houseOfJob } from '../isolation/house'
import { liveIn, ordinaryDay } from '../isolation/live'
import { asPlanned } from '../job/as-planned'
import type { Job } from '../job/schema'
import { changeId } from '../plan/change'
import { type Hold, type ReadingAsked, torqueOf } from './holds'
import type { WorkStand } from './stand'
import type { WorkOrder } from './task'

/** A house whose handles stand as the field wrote them down: what was built is joined, what a window opened is open. */
function stateNow(job: Job, { windows }: WorkOrder, stand: WorkStand) {
  const house = houseOfJob(job, new Set(job.planned.filter(c => c.built).map(changeId)))
  const open = new Set(
    windows.filter(w => stand.off.includes(w.id)).flatMap(w => [...w.opened, ...w.keptOpen].map(o => o.id)),
  )
  const state = {
    ...ordinaryDay(house),
    ...Object.fromEntries(house.handles.filter(h => open.has(h.id)).map(h => [h.id, h.open])),
  }
  return { house, live: liveIn({ ...house, supplies: house.supplies.filter(s => !open.has(s.id)) }, state) }
}

const legV = 121.4
/** What an instrument with short leads shows of nothing, V. */
const nothingV = 0.1

/**
 * What a meter would show at a hold point, from the model of the house as it stands: for showing and learning. A place that the model has live reads live, whatever the
 * order says of it.
 */
export function simulatedReadings(
  job: Job,
  order: WorkOrder,
  stand: WorkStand,
  hold: Hold,
): { key: string; value: number | 'OL' }[] {
  const { live } = stateNow(job, order, stand)
  const where = /#[^:]+:(.+)$/.exec(hold.id)?.[1] ?? ''
  const isLive = live.has(`bus ${where}`) || live.has(`circuit ${where}`)
  const put = /^wall:(.+)#/.exec(hold.id)?.[1]
  const joined = asPlanned(job).job.panels.some(p => p.id === put && p.neutralBonded)
  const { low, high } = torqueOf(hold.size)
  const shows: Record<ReadingAsked['role'], (key: string) => number | 'OL'> = {
    known: () => legV,
    dead: key => (isLive ? (key === 'L1–L2' ? 2 * legV : legV) : nothingV),
    'dead to ground': key => (isLive && key !== 'N–G' ? legV : nothingV),
    apart: () => (joined ? 0.2 : 'OL'),
    torque: () => Math.round((low + Math.min(high, 2 * low)) / 2),
    leg: () => legV,
    legs: () => 2 * legV,
  }
  return hold.readings.map(({ key, role }) => ({ key, value: shows[role](key) }))
}
