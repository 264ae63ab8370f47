import * as z from 'zod'
import { roleSchema } from '@/core/firm/roles'
import { line } from '@/core/quantity'
import { originOf } from '@/server/accounts/auth'
import { tried } from '@/server/accounts/limits'
import { bodyAs, handle } from '@/server/http/handle'
import { refuseForNow } from '@/server/http/refusal'
import { currentActor } from '@/server/people/actor'
import { invitationsOf, invite, peopleOf } from '@/server/people/firms'
import { done } from './done'

const inviteSchema = z.strictObject({
  email: z.email('must be an e-mail address, such as name@example.com').max(254),
  label: line(60, 1),
  role: roleSchema,
})

/** Invites somebody into the firm, by a letter. */
export const POST = handle(async request => {
  const actor = await currentActor()
  const asked = await bodyAs(request, inviteSchema)
  const seconds = await tried('invitations', actor.firmId)
  if (seconds !== null) return refuseForNow(seconds)
  done(await invite(actor, asked, originOf(request.headers)), 'Nobody was invited.')
  return { people: await peopleOf(actor, true), invitations: await invitationsOf(actor) }
})
