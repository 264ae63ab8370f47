import { readJobAside } from '@/server/files/desk'
import { bodyText, handle, refuse } from '@/server/http/handle'
import { createJob } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'

export const POST = handle(async request => {
  const job = await readJobAside(await bodyText(request))
  if (!job.ok) return refuse(400, 'This file cannot be taken in.', job.faults)
  return { id: await createJob(await currentActor(), job.value, 'imported from a file', new Date()) }
})
