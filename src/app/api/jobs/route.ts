import * as z from 'zod'
import { newJob } from '@/core/job/new'
import { panelSchema } from '@/core/panel/schema'
import { line } from '@/core/quantity'
import { bodyAs, handle } from '@/server/http/handle'
import { listJobs, listQuerySchema } from '@/server/jobs/list'
import { createJob } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'

const newJobSchema = z.strictObject({
  title: line(80, 1),
  place: line(120),
  spaces: panelSchema.shape.spaces,
  mainA: panelSchema.shape.mainA.unwrap(),
})

/** One page of the firm's jobs, as the list is asked for in the address. */
export const GET = handle(async request =>
  listJobs(
    await currentActor(),
    listQuerySchema.parse(Object.fromEntries(new URL(request.url).searchParams)),
  ),
)

export const POST = handle(async request => {
  const facts = await bodyAs(request, newJobSchema)
  return { id: await createJob(await currentActor(), newJob(facts), 'opened the job', new Date()) }
})
