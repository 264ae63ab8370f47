import * as z from 'zod'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { theSignedIn } from '@/server/people/admission'
import { takeBackFirm } from '@/server/people/erasing'

/** Brings a deleted firm of one’s own back. */
export const POST = handle(async request => {
  const signed = theSignedIn()
  const { firmId } = await bodyAs(request, z.strictObject({ firmId: z.uuid() }))
  return (await takeBackFirm(signed, firmId))
    ? {}
    : refuse(404, 'There is no such firm to bring back: its time may be over.')
})
