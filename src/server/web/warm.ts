import { evaluate } from '@/core/assess/evaluate'
import { applyOperation } from '@/core/job/operations'
import { readJob } from '@/core/job/read'
import { alderHollow } from '../seeds/jobs/alder-hollow'

const longestMs = 1200
const mostTimes = 60

/** Judges a job again and again, as changes do, until the engine has compiled what that takes; answers how often. */
export function warmUp(): number {
  const until = performance.now() + longestMs
  let times = 0
  for (; times < mostTimes && performance.now() < until; times++) {
    const read = readJob(JSON.parse(JSON.stringify(alderHollow)))
    if (!read.ok) break
    const changed = applyOperation(read.value, { op: 'setOutage', facts: { hours: 20 + times } })
    if (changed.ok) evaluate(changed.value)
  }
  return times
}
