import { median, quantileSorted } from 'd3-array'
import { doneIn, type Entry } from '../job/work-log'
import { type KindOfWork, kindsOfWork, type Minutes, worksKnown } from '../work/parts/tasks'
import { minutesOf } from './stand'

/** What the field’s clocks say of one kind of work, beside what was estimated. */
export interface Learned {
  work: KindOfWork
  name: string
  /** tasks that were counted, of how many jobs */
  tasks: number
  jobs: number
  estimatedMin: number
  countedMin: number
  /** counted ÷ estimated: of the middle task, and between which half of them lie */
  middle: number
  from: number
  to: number
  /** the firm’s row as it would be by that */
  row: Minutes[number]
}

/** Below so many tasks nothing is learned yet. */
export const leastTasks = 3

/**
 * Minutes that were counted in the field against those that were estimated then, by kind of work, over the logs of jobs; by the ratio of the middle task, which one lost
 * afternoon does not move. What was taken back, or counted by nobody, says nothing.
 */
export function learnedFrom(logs: readonly (readonly Entry[])[], own: Minutes): Learned[] {
  const counted = logs.flatMap((log, job) => {
    const done = doneIn(log)
    const tasks = new Map<string, Entry[]>()
    for (const e of log) if (done.has(e.task)) tasks.set(e.task, [...(tasks.get(e.task) ?? []), e])
    return [...tasks.values()].flatMap(entries => {
      const estimated = entries.flatMap(e => (e.kind === 'done' && e.estimated) || []).at(-1)
      const minutes = minutesOf(entries)
      return estimated && minutes
        ? [
            {
              work: estimated.work,
              ratio: minutes / estimated.minutes,
              estimated: estimated.minutes,
              minutes,
              job,
            },
          ]
        : []
    })
  })
  return worksKnown.flatMap((work): Learned[] => {
    const of = counted.filter(c => c.work === work)
    const ratios = of.map(c => c.ratio).sort((a, b) => a - b)
    const middle = median(ratios)
    if (middle === undefined) return []
    const { firstMin, eachMin } = own.find(o => o.work === work) ?? kindsOfWork[work]
    const halves = (minutes: number) => Math.round(minutes * middle * 2) / 2
    return [
      {
        work,
        name: kindsOfWork[work].name,
        tasks: of.length,
        jobs: new Set(of.map(c => c.job)).size,
        estimatedMin: of.reduce((sum, c) => sum + c.estimated, 0),
        countedMin: of.reduce((sum, c) => sum + c.minutes, 0),
        middle,
        from: quantileSorted(ratios, 0.25) ?? middle,
        to: quantileSorted(ratios, 0.75) ?? middle,
        row: { work, firstMin: halves(firstMin), eachMin: halves(eachMin) },
      },
    ]
  })
}
