import * as z from 'zod'
import { bodyAs, handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { removePerson } from '@/server/people/firms'
import { done } from '../people/done'

/** Leaves the firm that one works in. */
export const POST = handle(async request => {
  const actor = await currentActor()
  await bodyAs(request, z.strictObject({}))
  done(await removePerson(actor, actor.personId), 'You are still in the firm.')
  return {}
})
