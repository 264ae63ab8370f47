import type { WorkOfJob } from '../work/parts/tasks'
import { csvOf } from './cells'

const round = (value: number) => Number(value.toFixed(2))

/** The hours of a job as a table, a line for each kind of work. */
export const hoursCsv = ({ tasks }: WorkOfJob): string =>
  csvOf([
    ['work', 'how many', 'minutes', 'people', 'why'],
    ...tasks.map(t => [
      t.name,
      round(t.count),
      round(t.minutes),
      t.people,
      [...new Set(t.why.map(w => w.text))].join('; '),
    ]),
  ])

/** Its tools and protective equipment as a table. */
export const toolsCsv = ({ tools, protection }: WorkOfJob): string =>
  csvOf([
    ['tool', 'for'],
    ...tools.map(t => [t.name, t.for.join('; ')]),
    ...protection.map(p => [p, 'to be worn']),
  ])
