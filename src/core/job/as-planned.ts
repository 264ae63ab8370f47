import type { Panel } from '../panel/schema'
import { type Undone, withChanges } from '../plan/apply'
import { panelPutUp } from '../plan/change'
import type { Job } from './schema'

/** A job whose panels are what the plan makes of them. */
export interface AsPlanned {
  /** with nothing left to plan; the job itself where the plan leaves its panels as they were found */
  job: Job
  /** changes that this house does not bear, and why: they are not in it */
  undone: Undone[]
}

const known = new WeakMap<Job, AsPlanned>()

/** Where there is a new panel, it is that one which the source feeds; the legs of what moves there are those of its places. */
function hookupTo({ hookup, planned }: Job, panels: readonly Panel[]): Job['hookup'] {
  const at = planned.flatMap(c => (c.origin === 'hook-up' && panelPutUp(c)?.id) || [])[0]
  if (at === undefined || !panels.some(p => p.id === at)) return hookup
  const { movedPlaces: _, ...rest } = hookup
  return { ...rest, panelId: at }
}

/** As planned: as found, with the planned changes done. Kept by the job, which never changes. */
export function asPlanned(job: Job): AsPlanned {
  const was = known.get(job)
  if (was) return was
  const { panels, undone } = withChanges(job.panels, job.planned)
  const now = {
    job:
      panels === job.panels
        ? job
        : { ...job, panels: [...panels], hookup: hookupTo(job, panels), planned: [] },
    undone,
  }
  known.set(job, now)
  return now
}

/** As found: nothing of the plan done, so that what judges a plan judges the house that stands there. */
const asFound = (job: Job): Job => (job.planned.length ? { ...job, planned: [] } : job)

/** The pictures of a house that are kept apart. */
export const houses = ['found', 'planned'] as const
export type House = (typeof houses)[number]

/** The job with the panels of one picture of its house. */
export const houseOf = (job: Job, house: House): Job =>
  house === 'found' ? asFound(job) : asPlanned(job).job

/** The house as found for whoever draws it: nothing new is connected to it, beside what of a hook-up exists there already. */
export function standing(job: Job): Job {
  const { source: _, hookup, ...house } = asFound(job)
  const there = (hookup.exists ?? []).filter(device => hookup[device])
  const devices = Object.fromEntries(there.map(device => [device, hookup[device]]))
  const method = there.length ? hookup.method : 'undecided'
  return { ...house, hookup: { ...devices, method, bondingPlug: false } }
}

/** What was built, as if it were still to do. */
export const unbuilt = (job: Job): Job =>
  job.planned.some(c => c.built)
    ? { ...job, planned: job.planned.map(({ built: _, ...change }) => change) }
    : job

/** As built: as found, with those changes done that were recorded as done. The next visit starts from it. */
export const asBuilt = (job: Job): Job => ({
  ...job,
  panels: [
    ...withChanges(
      job.panels,
      job.planned.filter(c => c.built),
    ).panels,
  ],
  planned: job.planned.filter(c => !c.built),
})
