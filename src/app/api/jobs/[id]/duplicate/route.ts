import * as z from 'zod'
import { gone, handle } from '@/server/http/handle'
import { duplicateJob } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import type { JobParams } from '../../params'

export const POST = handle(async (_request, { params }: JobParams) => {
  const { id } = await params
  const copy = z.uuid().safeParse(id).success
    ? await duplicateJob(await currentActor(), id, new Date())
    : null
  return copy ? { id: copy } : gone()
})
