import * as z from 'zod'
import { saidOf, settle } from '@/server/houses/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

/** What who lives there said by the page of the house. */
export const GET = handle(async (_request, { params }: JobParams) => {
  await jobOf(params)
  return { words: await saidOf(await currentActor(), (await params).id) }
})

const asked = z.strictObject({ settle: z.uuid() })

/** Settles one of them. */
export const POST = handle(async (request, { params }: JobParams) => {
  const { settle: wordId } = await bodyAs(request, asked)
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  if (!(await settle(actor, id, wordId, new Date())))
    return refuse(404, 'There is no such word to settle; it may be settled already.')
  return { words: await saidOf(actor, id) }
})
