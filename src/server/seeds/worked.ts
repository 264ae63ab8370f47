import { applyOperation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import type { Entry } from '@/core/job/work-log'
import { workOrder } from '@/core/order'
import { simulatedReadings } from '@/core/order/meter'
import { buildsOf, estimatedOf, standOf } from '@/core/order/stand'
import type { Task } from '@/core/order/task'

type Facts<E = Entry> = E extends Entry ? Omit<E, 'id' | 'task' | 'by' | 'at'> : never

/** How long a task took beside what was estimated: now shorter, now longer, always the same. */
const pace = [1.1, 0.9, 1.25, 1, 1.4, 0.85, 1.15] as const

/** A job whose work was done as far as a task, that one begun; or all of it. By two people in turn, with readings of the simulated meter. */
export function worked(job: Job, people: readonly [string, string], until?: string): Job {
  const { tasks } = workOrder(job)
  let now = job
  let minute = 0
  let count = 0
  const write = (task: Task, by: string, ...facts: Facts[]) => {
    const at = new Date(Date.UTC(2026, 1, 12, 13, 0) + minute * 60_000)
    const entries = facts.map(f => ({ ...f, id: `seed-${++count}`, task: task.id, by, at: at.toISOString() }))
    const outcome = applyOperation(now, { op: 'recordWork', about: task.text.slice(0, 120), entries })
    if (!outcome.ok) throw new Error(`${task.id}: ${outcome.faults[0]?.message}`)
    now = outcome.value
  }
  for (const [n, task] of tasks.entries()) {
    // prepared side by side; with the power off one works and the other looks
    const by = people[task.window === null && n % 2 ? 1 : 0]
    const other = people[by === people[0] ? 1 : 0]
    write(task, by, { kind: 'began' })
    if (task.id === until) break
    const minutes = Math.round(task.minutes * (pace[n % pace.length] ?? 1))
    minute += minutes
    for (const hold of task.holds)
      write(task, by, {
        kind: 'evidence',
        hold: hold.id,
        ...(hold.readings.length
          ? { readings: simulatedReadings(now, workOrder(now), standOf(now, workOrder(now)), hold) }
          : {
              text:
                hold.kind === 'tug' ? by.slice(0, 2).toUpperCase() : hold.kind === 'lock' ? 'tag 14' : 'seen',
            }),
        ...(hold.kind === 'torque' && { tool: 'torque screwdriver 3' }),
        ...(hold.kind === 'template' && { with: other }),
      })
    write(task, by, {
      kind: 'done',
      on: '2026-02-12',
      minutes,
      builds: buildsOf(task, tasks),
      estimated: estimatedOf(task),
    })
  }
  return now
}
