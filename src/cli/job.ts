import * as z from 'zod'
import { evaluate } from '@/core/assess/evaluate'
import { loadsOverview } from '@/core/assess/loads-overview'
import { planTold } from '@/core/assess/plan-told'
import { largestJobBytes, readJobText } from '@/core/job/read'
import { type Job, jobSchema } from '@/core/job/schema'
import { complain, complainOf, print, readText } from './io'

export function printSchema(what: string | undefined): number {
  if (what !== 'job') return complain(`schema: no such schema: ${what ?? '(none given)'}; there is: job`)
  print(z.toJSONSchema(jobSchema, { io: 'input' }))
  return 0
}

/** The job in a file; faults go to standard error. */
export async function readJobFile(command: string, file: string): Promise<Job | null> {
  const read = await readText(file, largestJobBytes)
  if ('problem' in read) {
    complain(`${command}: ${file}: ${read.problem}`)
    return null
  }
  const job = readJobText(read.text)
  if (job.ok) return job.value
  complainOf(command, job.faults)
  return null
}

export async function evaluateFile(file: string): Promise<number> {
  const job = await readJobFile('evaluate', file)
  if (!job) return 2
  print(evaluate(job))
  return 0
}

/** What is going to be done to the house, a line each, with what cannot be. */
export async function planOfFile(file: string): Promise<number> {
  const job = await readJobFile('plan', file)
  if (!job) return 2
  for (const { sign, text, hindered } of planTold(job))
    process.stdout.write(`${sign} ${text}${hindered === null ? '' : ` (cannot be: ${hindered})`}\n`)
  return 0
}

/** What the screen of the loads shows, without the workings' bulk of served circuits. */
export async function loadsOfFile(file: string): Promise<number> {
  const job = await readJobFile('loads', file)
  if (!job) return 2
  const { rows, schools, learn, tiers, dailyWh, explained } = loadsOverview(job)
  print({
    dailyWh,
    schools,
    tiers,
    explained,
    band: learn.dailyWh,
    hours: learn.hours,
    next: learn.next.map(({ load, ...said }) => ({ load: load.load.name, on: load.need.position, ...said })),
    loads: rows.map(
      ({ load, position, label, counts, from, drawn: { meanW, dailyWh: day, dutyFraction } }) => ({
        id: load.id,
        name: load.name,
        on: `${position} ${label}`,
        counts,
        from,
        meanW,
        dailyWh: day,
        dutyFraction,
      }),
    ),
  })
  return 0
}
