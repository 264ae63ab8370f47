import * as z from 'zod'
import { handle } from '@/server/http/handle'
import { historyOf } from '@/server/jobs/history'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

const before = z.coerce.number().int().min(1).nullable().catch(null)

/** A page of what was done to a job, the newest first. */
export const GET = handle(async (request, { params }: JobParams) => {
  await jobOf(params)
  const { id } = await params
  return historyOf(await currentActor(), id, before.parse(new URL(request.url).searchParams.get('before')))
})
