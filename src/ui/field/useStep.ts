import { useState } from 'react'
import { buildsOf, estimatedOf, hinders, hindersBack } from '@/core/order/stand'
import type { Task } from '@/core/order/task'
import type { Fault } from '@/core/outcome'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'
import { begin, endCount, minutesSince } from './clock'
import { useRecord, type Work } from './useWork'

/** What can be done with one step, and why it cannot just now. */
export interface Step {
  done: boolean
  /** begun by who acts here */
  mine: boolean
  why: string | null
  say: (why: string | null) => void
  begin: () => void
  putDown: () => void
  /** done, where nothing stands against it */
  tick: () => void
  finish: (otherwise?: string) => readonly Fault[]
  back: () => void
  next: () => void
}

const none: Pick<Task, 'id' | 'text'> = { id: '', text: '' }

export function useStep(task: Task | undefined, { order, stand }: Work, next: () => void): Step {
  const id = useWorkspace(s => s.id)
  const person = useWorkspace(s => s.person)
  const record = useRecord()
  const [said, setSaid] = useState<{ task: string; why: string } | null>(null)
  const now = task && stand.tasks.get(task.id)
  const at = task ?? none
  const say = (why: string | null) => setSaid(why === null ? null : { task: at.id, why })
  const counted = () => {
    const minutes = minutesSince(id, at.id)
    return minutes === null ? {} : { minutes }
  }
  const finish = (otherwise?: string) => {
    if (!task) return []
    const faults = record(task, {
      kind: 'done',
      on: today(),
      builds: buildsOf(task, order.tasks),
      estimated: estimatedOf(task),
      ...counted(),
      ...(otherwise && { otherwise }),
    })
    if (!faults.length) endCount(id, task.id)
    return faults
  }
  return {
    done: now?.state === 'done' || now?.state === 'held',
    mine: now?.at.includes(person) ?? false,
    why: said?.task === at.id ? said.why : null,
    say,
    begin: () => {
      // what comes first is not gone around by beginning
      const against = now?.state === 'waiting' && task && hinders(stand, task, order.tasks)
      if (against) return say(against)
      begin(id, at.id)
      record(at, { kind: 'began' })
    },
    putDown: () => {
      record(at, { kind: 'put down', ...counted() })
      endCount(id, at.id)
    },
    tick: () => {
      const against = task && hinders(stand, task, order.tasks)
      if (against) return say(against)
      const [refused] = finish()
      if (refused) return say(refused.message)
      say(null)
      next()
    },
    finish,
    back: () => {
      const against = task && hindersBack(stand, task, order.tasks)
      if (against) return say(against)
      record(at, { kind: 'taken back' })
      say(null)
    },
    next,
  }
}
