import * as z from 'zod'
import { bodyAs, gone, handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { deletedJobs, deleteJob } from '@/server/people/erasing'
import type { JobParams } from '../../params'

/** Deletes a job, or brings one back. */
export const POST = handle(async (request, { params }: JobParams) => {
  const actor = await currentActor()
  const { deleted } = await bodyAs(request, z.strictObject({ deleted: z.boolean() }))
  const { id } = await params
  if (!z.uuid().safeParse(id).success || !(await deleteJob(actor, id, deleted))) return gone()
  return { jobs: await deletedJobs(actor) }
})
