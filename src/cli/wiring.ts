import { writeFileSync } from 'node:fs'
import { csvOf } from '@/core/formats/cells'
import { wiringPlan } from '@/core/work/wiring'
import { scheduleOf } from '@/core/work/wiring/schedule'
import { print } from './io'
import { readJobFile } from './job'

/** Which conductor goes where: the whole plan, or its schedule as a table into a file (`-` for standard output). */
export async function wiringOfFile(file: string, csv: string | undefined): Promise<number> {
  const job = await readJobFile('wiring', file)
  if (!job) return 2
  const plan = wiringPlan(job)
  const rows = scheduleOf(plan)
  if (csv === undefined) {
    print({ ...plan, schedule: rows })
    return 0
  }
  const [first] = rows
  const text = csvOf([Object.keys(first ?? {}), ...rows.map(row => Object.values(row))])
  if (csv === '-') process.stdout.write(text)
  else writeFileSync(csv, text)
  return 0
}
