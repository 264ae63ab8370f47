import * as z from 'zod'
import { newJob } from '@/core/job/new'
import { panelSchema } from '@/core/job/schema'
import { line } from '@/core/quantity'
import { bodyAs, handle } from '@/server/http/handle'
import { createJob } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'

const newJobSchema = z.strictObject({
  title: line(80, 1),
  place: line(120),
  spaces: panelSchema.shape.spaces,
  mainA: panelSchema.shape.mainA,
})

export const POST = handle(async request => {
  const facts = await bodyAs(request, newJobSchema)
  return { id: await createJob(await currentActor(), newJob(facts), 'opened the job', new Date()) }
})
