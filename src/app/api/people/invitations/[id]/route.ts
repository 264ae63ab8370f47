import * as z from 'zod'
import { bodyAs, handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { invitationsOf, peopleOf, withdrawInvitation } from '@/server/people/firms'
import { done } from '../../done'

/** Withdraws an invitation: its letter opens nothing any more. */
export const POST = handle(async (request, { params }: { params: Promise<{ id: string }> }) => {
  const actor = await currentActor()
  await bodyAs(request, z.strictObject({}))
  const id = z
    .uuid()
    .catch('')
    .parse((await params).id)
  done(id ? await withdrawInvitation(actor, id) : 'gone', 'Nothing was withdrawn.')
  return { people: await peopleOf(actor, true), invitations: await invitationsOf(actor) }
})
