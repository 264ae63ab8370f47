import * as z from 'zod'
import { bodyAs, gone, handle } from '@/server/http/handle'
import { archiveJob } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import type { JobParams } from '../../params'

export const POST = handle(async (request, { params }: JobParams) => {
  const { id } = await params
  const { archived } = await bodyAs(request, z.strictObject({ archived: z.boolean() }))
  const done =
    z.uuid().safeParse(id).success && (await archiveJob(await currentActor(), id, archived, new Date()))
  return done ? { archived } : gone()
})
