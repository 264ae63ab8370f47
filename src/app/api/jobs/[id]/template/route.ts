import * as z from 'zod'
import { gone, handle } from '@/server/http/handle'
import { keepAsTemplate } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import type { JobParams } from '../../params'

/** Keeps what the firm would do again; nothing of the house or its people. */
export const POST = handle(async (_request, { params }: JobParams) => {
  const { id } = await params
  const template = z.uuid().safeParse(id).success
    ? await keepAsTemplate(await currentActor(), id, new Date())
    : null
  return template ? { id: template } : gone()
})
