import { changeText } from '../job/change-text'
import type { Job } from '../job/schema'
import { type Entry, of } from '../job/work-log'
import { changeId } from '../plan/change'
import { together } from '../units/format'
import { countingOf } from './counts'
import { type Evidence, type Hold, holdKinds, type Judged, judge } from './holds'
import type { Task, WorkOrder } from './task'

/** How one hold point stands. */
export interface HoldStand {
  hold: Hold
  judged: Judged
  evidence: Evidence | null
  skipped: { by: string; why: string } | null
}

/** How one task stands, from what the field wrote down. */
export interface TaskStand {
  /** `waiting` for what comes before it; `going`: somebody is at it; `held`: said to be done, with a hold point open */
  state: 'waiting' | 'ready' | 'going' | 'held' | 'done'
  holds: HoldStand[]
  /** who is at it now */
  at: string[]
  doneBy: string | null
  /** others who wrote down that they finished it */
  alsoBy: string[]
  otherwise: string | null
  /** counted by the devices; null where nobody did */
  minutes: number | null
  notes: { by: string; text: string; photoId?: string | undefined }[]
  photoIds: string[]
  /** what does not fit together, in words */
  troubles: string[]
}

export interface WorkStand {
  tasks: ReadonlyMap<string, TaskStand>
  /** the first that can be done now */
  next: string | null
  done: number
  /** minutes of what is left, as planned */
  leftMinutes: number
  /** ids of windows in which power was switched off and not brought back */
  off: string[]
  people: { by: string; task: string }[]
  /** what was written down of tasks that are no longer in the order */
  gone: { task: string; by: string; text: string }[]
  /** people whose device’s clock jumped: their times of day say nothing */
  clocks: string[]
}

/** @param own all that was written down of it; what no longer counts is shown where it kept hands out */
function holdStand(hold: Hold, counted: readonly Entry[], own: readonly Entry[]): HoldStand {
  const last = (log: readonly Entry[]) => of(log, 'evidence').findLast(e => e.hold === hold.id) ?? null
  const was = last(own)
  const evidence = last(counted) ?? (['refused', 'doubtful'].includes(judge(hold, was).state) ? was : null)
  const skip = holdKinds[hold.kind].skippable
    ? of(counted, 'skipped').findLast(e => e.hold === hold.id)
    : undefined
  const judged = judge(hold, evidence)
  return {
    hold,
    evidence,
    judged,
    skipped: skip && judged.state !== 'passed' ? { by: skip.by, why: skip.why } : null,
  }
}

export const isHeld = ({ judged, skipped }: HoldStand): boolean => judged.state !== 'passed' && !skipped

/** Minutes that devices counted, of all who were at it; null where none did. */
export function minutesOf(log: readonly Entry[]): number | null {
  const counted = of(log, 'done', 'put down').flatMap(e => e.minutes ?? [])
  return counted.length ? counted.reduce((sum, m) => sum + m, 0) : null
}

/** Who began and neither finished nor put it down since. */
function atIt(log: readonly Entry[]): string[] {
  const at = new Set<string>()
  for (const e of log) {
    if (e.kind === 'began') at.add(e.by)
    if (e.kind === 'put down' || e.kind === 'done') at.delete(e.by)
    // who takes it back is at it again when it is begun again
    if (e.kind === 'done') at.clear()
  }
  return [...at]
}

const minuteMs = 60_000
/** A clock that goes back by more than this was set, or is wrong. */
const jumpMs = 5 * minuteMs

function clockJumps(log: readonly Entry[]): string[] {
  const last = new Map<string, number>()
  const jumped = new Set<string>()
  for (const { by, at } of log) {
    const now = Date.parse(at)
    if (now < (last.get(by) ?? now) - jumpMs) jumped.add(by)
    last.set(by, now)
  }
  return [...jumped]
}

/** How the work stands: every task, its hold points, who is where, what waits. Entries count in the order in which they are kept; clocks order nothing. */
export function standOf(job: Job, { tasks, windows }: Pick<WorkOrder, 'tasks' | 'windows'>): WorkStand {
  const log = job.work?.log ?? []
  const byTask = new Map<string, { e: Entry; n: number }[]>()
  for (const [n, e] of log.entries()) byTask.set(e.task, [...(byTask.get(e.task) ?? []), { e, n }])
  const ownOf = (id: string, from = 0) => (byTask.get(id) ?? []).filter(l => l.n >= from).map(l => l.e)
  const built = new Map(job.planned.flatMap(c => (c.built ? [[changeId(c), c.built] as const] : [])))
  // what was recorded under Plan is done, whatever was not written down here
  const underPlan = (t: Task) =>
    t.changes.length > 0 &&
    t.changes.every(c => built.has(c)) &&
    !of(ownOf(t.id), 'done', 'taken back').length
  const counting = countingOf(log, { tasks, windows }, underPlan)
  const stands = new Map<string, TaskStand>()
  const isDone = (id: string) => stands.get(id)?.state === 'done'
  const isSaid = (id: string) => ['done', 'held'].includes(stands.get(id)?.state ?? '')
  const nameOf = new Map(tasks.map(t => [t.id, t.text]))
  for (const t of tasks) {
    const { from = 0, again = null } = counting.get(t.id) ?? {}
    const own = ownOf(t.id)
    const counted = ownOf(t.id, from)
    const holds = t.holds.map(h => holdStand(h, counted, own))
    const held = holds.filter(isHeld)
    const finished = of(counted, 'done')
    const [first] = finished
    const planned = underPlan(t)
    const done = planned || first !== undefined
    const waits = done && held.length > 0 && !planned
    const open = t.restsOn.filter(id => !isDone(id))
    // what was done under a lock that is off since was done after it all the same
    const early = open.filter(id => !counting.get(id)?.again)
    const at = atIt(own)
    stands.set(t.id, {
      state: done ? (waits ? 'held' : 'done') : at.length ? 'going' : open.length ? 'waiting' : 'ready',
      holds,
      at,
      doneBy: planned ? (built.get(t.changes[0] ?? '')?.by ?? null) : (first?.by ?? null),
      alsoBy: [...new Set(finished.map(e => e.by))].filter(by => by !== first?.by),
      otherwise: finished.findLast(e => e.otherwise)?.otherwise ?? null,
      minutes: minutesOf(own),
      notes: of(own, 'note').map(({ by, text, photoId }) => ({ by, text, photoId })),
      photoIds: [
        ...of(own, 'evidence', 'note').flatMap(e => e.photoId ?? []),
        ...job.photos.filter(p => p.about.kind === 'task' && p.about.task === t.id).map(p => p.id),
      ].filter((p, n, all) => all.indexOf(p) === n),
      troubles: [
        ...(again ? [again] : []),
        ...(waits
          ? [
              `Written down as done, while a hold point is open: ${together(held.map(h => holdKinds[h.hold.kind].name.toLowerCase()))}.`,
            ]
          : []),
        ...(done && early.length
          ? [
              `Written down as done before what comes first: ${together(early.map(id => nameOf.get(id) ?? id))}.`,
            ]
          : []),
      ],
    })
  }
  for (const t of tasks) {
    const now = stands.get(t.id)
    if (now?.state === 'held' && t.places.length && t.window !== null && isSaid(`energise:${t.window}`))
      now.troubles.push('Power is back here: hands go in again only when it is off, locked and proven anew.')
  }
  const gone = [...byTask].flatMap(([task, own]) => {
    if (nameOf.has(task)) return []
    const last = own.at(-1)?.e
    const was = of(ownOf(task), 'done', 'taken back').at(-1)
    return last ? [{ task, by: last.by, text: goneText(job, task, was?.kind === 'done') }] : []
  })
  const left = tasks.filter(t => !isDone(t.id))
  return {
    tasks: stands,
    next: left.find(t => t.restsOn.every(isDone))?.id ?? null,
    done: tasks.length - left.length,
    leftMinutes: left.reduce((sum, t) => sum + t.minutes, 0),
    off: windows.map(w => w.id).filter(w => isSaid(`isolate:${w}`) && !isSaid(`energise:${w}`)),
    people: tasks.flatMap(t => (stands.get(t.id)?.at ?? []).map(by => ({ by, task: t.id }))),
    gone,
    clocks: clockJumps(log),
  }
}

function goneText(job: Job, task: string, done: boolean): string {
  const change = job.planned.find(c => changeId(c) === task)
  const what = change ? changeText(job, change) : task
  return done
    ? `${what}: was done, and the plan no longer has it. See what of it stays in the house, and plan that, or take it out again.`
    : `${what}: something was written down, and the plan no longer has it.`
}

/** Why a task cannot be finished now; null where it can. */
export function hinders(stand: WorkStand, task: Task, tasks: readonly Task[]): string | null {
  const open = task.restsOn.filter(id => stand.tasks.get(id)?.state !== 'done')
  const [first] = open.flatMap(id => tasks.find(t => t.id === id) ?? [])
  if (first) return `Comes first: ${first.text}${open.length > 1 ? `, and ${open.length - 1} more` : ''}.`
  const held = stand.tasks.get(task.id)?.holds.filter(isHeld) ?? []
  const [worst] = [...held.filter(h => h.judged.state === 'refused'), ...held]
  return worst ? worst.judged.text || worst.judged.next : null
}

/** Why a task that is done cannot be taken back now: something was done on top of it. */
export function hindersBack(stand: WorkStand, task: Task, tasks: readonly Task[]): string | null {
  const on = tasks.filter(
    t => t.restsOn.includes(task.id) && ['done', 'held'].includes(stand.tasks.get(t.id)?.state ?? ''),
  )
  const last = on.at(-1)
  return last ? `${last.text} was done on top of it: take that back first.` : null
}

/** What a task was estimated at, as it is written down with its end: what is learned stands beside what was thought then. */
export const estimatedOf = ({ work, minutes }: Task) => ({ work, minutes })

/** What finishing a task makes built: each of its changes, with every task that the change takes. */
export const buildsOf = (
  task: Task,
  tasks: readonly Task[],
): NonNullable<Extract<Entry, { kind: 'done' }>['builds']> =>
  task.changes.map(change => ({
    change,
    needs: tasks.filter(t => t.changes.includes(change)).map(t => t.id),
  }))
