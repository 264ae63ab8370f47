import { withMethod } from '../assess/compare-methods'
import { evaluate } from '../assess/evaluate'
import { proposedPath } from '../assess/path'
import type { Fix } from '../checks/finding'
import { ofKind } from '../equipment'
import type { MethodId } from '../hookup/method'
import { applyOperation } from '../job/operations'
import type { Job } from '../job/schema'
import type { Source } from '../source/design'
import { jobWith, type Space } from './space'

/** A design in the job, with what had to be planned so that no check stops it. */
export interface Planned {
  job: Job
  /** labels of the fixes that were taken, as on their buttons */
  plans: string[]
}

const mostFixes = 6
/** Only the hook-up itself is planned, and locks on breakers: circuits, loads, panel and source stay as they are. */
const ofHookup = ({ operations }: Fix): boolean =>
  operations.every(
    o =>
      o.op === 'putRun' ||
      o.op === 'setPositions' ||
      (o.op === 'setHookup' && !o.facts.method && !o.clear) ||
      (o.op === 'planChange' && (o.change.kind === 'lock' || o.change.kind === 'guard')),
  )

const stopsIn = (job: Job) => evaluate(job, { withCourse: false }).findings.filter(f => f.severity === 'stop')

/**
 * A source and a method on the job, planned as a designer would: cords anew where the job's own were chosen for another
 * source, and every stop cured that the tool's own one-press fix of the hook-up cures.
 */
export function plannedDesign(space: Space, source: Source, method: MethodId): Planned {
  const job = withCords(space, withMethod(jobWith(space, source), method, space.catalogue))
  return cured(job)
}

function withCords(space: Space, job: Job): Job {
  const { path, ...hookup } = job.hookup
  const was = space.job.source?.units.map(u => u.equipment.id)
  if (!path || was?.join() === job.source?.units.map(u => u.equipment.id).join()) return job
  const { catalogue } = space
  const anew = proposedPath(job, {
    cords: ofKind(catalogue, 'cord'),
    adapters: ofKind(catalogue, 'adapter'),
    inlets: ofKind(catalogue, 'inlet'),
  })
  return { ...job, hookup: { ...hookup, ...(anew && { path: anew }) } }
}

function cured(start: Job): Planned {
  const plans: string[] = []
  let job = start
  let stops = stopsIn(job)
  for (let n = 0; n < mostFixes && stops.length; n++) {
    const better = stops
      .flatMap(s => s.fixes.filter(ofHookup))
      .flatMap(fix => {
        const done = applyOperation(job, { op: 'applyFix', label: fix.label, operations: fix.operations })
        const left = done.ok ? stopsIn(done.value) : stops
        return done.ok && left.length < stops.length ? [{ label: fix.label, job: done.value, left }] : []
      })[0]
    if (!better) break
    plans.push(better.label)
    job = better.job
    stops = better.left
  }
  return { job, plans }
}
