import { createContext, useContext, useEffect, useMemo, useState } from 'react'
import type { Entry } from '@/core/job/work-log'
import { workOrder } from '@/core/order'
import { standOf, type WorkStand } from '@/core/order/stand'
import type { Task, WorkOrder } from '@/core/order/task'
import type { Fault } from '@/core/outcome'
import type { Minutes } from '@/core/work/parts/tasks'
import { useWorkspace } from '../workspace/store'

/** The firm’s minutes by kind of work, as the page was handed them. */
export const MinutesContext = createContext<Minutes>([])

export interface Work {
  order: WorkOrder
  stand: WorkStand
}

/** The order of work of the job at hand, and how it stands. */
export function useWork(): Work {
  const job = useWorkspace(s => s.job)
  const own = useContext(MinutesContext)
  const order = useMemo(() => workOrder(job, own), [job, own])
  const stand = useMemo(() => standOf(job, order), [job, order])
  return { order, stand }
}

/** The step on the screen: the one that was chosen, else the first that can be done now. */
export function useCurrent({ order, stand }: Work) {
  const [chosen, choose] = useState<string | null>(null)
  const at = order.tasks.findIndex(t => t.id === chosen)
  const next = order.tasks.findIndex(t => t.id === stand.next)
  const number = at >= 0 ? at : Math.max(0, next)
  const task = order.tasks[number]
  // what is on the screen stays there when it is done, or when others go on
  useEffect(() => {
    if (chosen === null && task) choose(task.id)
  }, [chosen, task])
  return { task, number, choose }
}

type Facts<E = Entry> = E extends Entry ? Omit<E, 'id' | 'task' | 'by' | 'at'> : never

/** Writes down what happened at a task, by who acts here, at the device’s time; the faults, where it is refused. */
export function useRecord(): (task: Pick<Task, 'id' | 'text'>, ...facts: Facts[]) => Fault[] {
  const person = useWorkspace(s => s.person)
  const act = useWorkspace(s => s.act)
  return (task, ...facts) =>
    act({
      op: 'recordWork',
      about: task.text.slice(0, 120),
      entries: facts.map(f => ({
        ...f,
        id: crypto.randomUUID(),
        task: task.id,
        by: person,
        at: new Date().toISOString(),
      })),
    })
}
