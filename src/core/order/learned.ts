import { median, quantileSorted } from 'd3-array'
import type { Job } from '../job/schema'
import { type KindOfWork, kindsOfWork, type Minutes, worksKnown } from '../work/parts/tasks'
import { workOrder } from '.'
import { standOf } from './stand'

/** What the field’s clocks say of one kind of work, beside what was estimated. */
export interface Learned {
  work: KindOfWork
  name: string
  /** tasks that were counted, of how many jobs */
  tasks: number
  jobs: number
  estimatedMin: number
  countedMin: number
  /** counted ÷ estimated, of the middle task, and between which half of them lie */
  middle: number
  from: number
  to: number
  /** the row as it would be by that */
  row: Minutes[number]
}

/** Below so many tasks nothing is said to be learned. */
export const leastTasks = 3

/** Minutes that were counted in the field against those that were estimated, by kind of work, over jobs; by the ratio of the middle task, which one lost afternoon does not move. */
export function learnedFrom(jobs: readonly Job[], own: Minutes): Learned[] {
  const samples = new Map<KindOfWork, { ratio: number; estimated: number; counted: number; job: number }[]>()
  jobs.forEach((job, n) => {
    if (!job.work?.log.length) return
    const order = workOrder(job, own)
    const { tasks } = standOf(job, order)
    for (const t of order.tasks) {
      const now = tasks.get(t.id)
      if (now?.state !== 'done' || !now.minutes) continue
      const list = samples.get(t.work) ?? []
      samples.set(t.work, [
        ...list,
        { ratio: now.minutes / t.minutes, estimated: t.minutes, counted: now.minutes, job: n },
      ])
    }
  })
  return worksKnown.flatMap((work): Learned[] => {
    const of = samples.get(work) ?? []
    if (!of.length) return []
    const ratios = of.map(s => s.ratio).sort((a, b) => a - b)
    const middle = median(ratios) ?? 1
    const { firstMin, eachMin } = own.find(o => o.work === work) ?? kindsOfWork[work]
    const round = (minutes: number) => Math.round(minutes * middle * 2) / 2
    return [
      {
        work,
        name: kindsOfWork[work].name,
        tasks: of.length,
        jobs: new Set(of.map(s => s.job)).size,
        estimatedMin: of.reduce((sum, s) => sum + s.estimated, 0),
        countedMin: of.reduce((sum, s) => sum + s.counted, 0),
        middle,
        from: quantileSorted(ratios, 0.25) ?? middle,
        to: quantileSorted(ratios, 0.75) ?? middle,
        row: { work, firstMin: round(firstMin), eachMin: round(eachMin) },
      },
    ]
  })
}
