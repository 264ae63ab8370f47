import { learnedFrom } from '@/core/order/learned'
import { handle } from '@/server/http/handle'
import { workLogs } from '@/server/jobs/worked'
import { readWays } from '@/server/parts/repository'
import { currentActor } from '@/server/people/actor'

/** What the firm’s work took, by kind, beside what was estimated. */
export const GET = handle(async () => {
  const actor = await currentActor()
  const [logs, { minutes }] = await Promise.all([workLogs(actor), readWays(actor)])
  return { learned: learnedFrom(logs, minutes) }
})
