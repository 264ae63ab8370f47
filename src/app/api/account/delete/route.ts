import * as z from 'zod'
import { fault } from '@/core/outcome'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { theSignedIn } from '@/server/people/admission'
import { deleteLogin } from '@/server/people/erasing'

/** Deletes one’s own login, once its address was typed. */
export const POST = handle(async request => {
  const signed = theSignedIn()
  const { email } = await bodyAs(request, z.strictObject({ email: z.string().max(254) }))
  if (email.trim().toLowerCase() !== signed.user.email)
    return refuse(400, 'Your account was not deleted.', [fault('email', `must be ${signed.user.email}`)])
  const done = await deleteLogin(signed)
  if (done !== 'done')
    return refuse(
      409,
      `You are the only owner of ${done.lastOwnerOf}: make somebody else an owner, or delete the firm first.`,
    )
  return {}
})
