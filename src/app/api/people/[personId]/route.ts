import * as z from 'zod'
import { roleSchema } from '@/core/firm/roles'
import { line } from '@/core/quantity'
import { bodyAs, handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { changePerson, invitationsOf, peopleOf, removePerson } from '@/server/people/firms'
import { done } from '../done'

const asked = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('change'), role: roleSchema.optional(), label: line(60, 1).optional() }),
  z.strictObject({ do: z.literal('remove') }),
])

/** Gives somebody another role or name, or takes them out of the firm. */
export const POST = handle(async (request, { params }: { params: Promise<{ personId: string }> }) => {
  const actor = await currentActor()
  const personId = z
    .uuid()
    .catch('')
    .parse((await params).personId)
  const body = await bodyAs(request, asked)
  const outcome = personId
    ? body.do === 'remove'
      ? await removePerson(actor, personId)
      : await changePerson(actor, personId, body)
    : 'gone'
  done(outcome, 'Nothing was changed.')
  return { people: await peopleOf(actor, true), invitations: await invitationsOf(actor) }
})
