import * as z from 'zod'
import { workIn } from '@/server/accounts/sessions'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { theSignedIn } from '@/server/people/admission'
import { join } from '@/server/people/firms'

/** Joins the firm that sent this invitation, as the one it was sent to. */
export const POST = handle(async (request, { params }: { params: Promise<{ token: string }> }) => {
  await bodyAs(request, z.strictObject({}))
  const signed = theSignedIn()
  const joined = await join((await params).token, signed.user)
  if (joined === 'another')
    return refuse(
      403,
      `This invitation was sent to another address than ${signed.user.email}: sign in with that one.`,
    )
  if (joined === 'gone') return refuse(404, 'This invitation is no longer valid. Ask the firm for another.')
  await workIn(signed, joined.firmId)
  return joined
})
