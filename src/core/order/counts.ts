import { type Entry, of } from '../job/work-log'
import type { Phase, Task, WorkOrder } from './task'

/** What of a task’s log still counts, and why earlier parts of it do not. */
export interface Counting {
  /** index in the whole log from which its entries count; Infinity: none does */
  from: number
  /** why what was done must be done anew; null where nothing was lost */
  again: string | null
}

/** What frames the work in a window: it is done anew whenever the window is opened again. */
const frame: readonly Phase[] = ['isolate', 'prove', 'close', 'energise']
const powerWasBack =
  'Power was back after this was done, and hands go in again: all of it anew, from switching off to power back.'
const lockedLater = 'Proven before every lock was on: prove it again.'

/**
 * From where on the log counts for each task. What was taken back does not. Where power was back and there is still work inside, nothing counts of what was switched off,
 * locked, proven and closed before; and nothing is proven that was read before the last lock was on. What is read from a log that lies about this keeps no hand out.
 */
export function countingOf(
  log: readonly Entry[],
  { tasks, windows }: Pick<WorkOrder, 'tasks' | 'windows'>,
  underPlan: (task: Task) => boolean,
): ReadonlyMap<string, Counting> {
  const back = new Map<string, number>()
  const done = new Map<string, number[]>()
  for (const [n, e] of log.entries()) {
    if (e.kind === 'taken back') back.set(e.task, n)
    if (e.kind === 'done') done.set(e.task, [...(done.get(e.task) ?? []), n])
  }
  const own = (id: string) => (back.get(id) ?? -1) + 1
  const doneFrom = (id: string, from: number) => done.get(id)?.find(n => n >= from)
  const counting = new Map<string, Counting>(tasks.map(t => [t.id, { from: own(t.id), again: null }]))
  const anew = (t: Task, from: number, why: string) => {
    const lost = doneFrom(t.id, own(t.id)) !== undefined && doneFrom(t.id, from) === undefined
    counting.set(t.id, { from: Math.max(from, own(t.id)), again: lost ? why : null })
  }
  for (const { id } of windows) {
    const inside = tasks.filter(t => t.window === id)
    const framing = inside.filter(t => frame.includes(t.phase))
    const energise = `energise:${id}`
    const closed =
      doneFrom(energise, own(energise)) !== undefined &&
      inside.every(t => framing.includes(t) || underPlan(t) || doneFrom(t.id, own(t.id)) !== undefined)
    if (closed) continue
    const was = done.get(energise)?.at(-1)
    if (was !== undefined) for (const t of framing) anew(t, was + 1, powerWasBack)
    const isolate = framing.find(t => t.phase === 'isolate')
    const prove = framing.find(t => t.phase === 'prove')
    if (!isolate || !prove) continue
    const from = counting.get(isolate.id)?.from ?? 0
    const locks = isolate.holds.map(h =>
      log.findIndex((e, n) => n >= from && of([e], 'evidence', 'skipped').some(l => l.hold === h.id)),
    )
    const all = [doneFrom(isolate.id, from) ?? -1, ...locks]
    const locked = all.includes(-1) ? Infinity : Math.max(...all) + 1
    if (locked > (counting.get(prove.id)?.from ?? 0))
      anew(prove, locked, counting.get(prove.id)?.again ?? lockedLater)
  }
  return counting
}
