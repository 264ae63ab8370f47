import * as z from 'zod'
import { firmSettingsSchema } from '@/core/firm/settings'
import { line } from '@/core/quantity'
import { workIn } from '@/server/accounts/sessions'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { theSignedIn } from '@/server/people/admission'
import { openFirm } from '@/server/people/firms'

const newFirmSchema = z.strictObject({
  firm: firmSettingsSchema.shape.name,
  /** how whoever opens it is called there */
  label: line(60, 1),
  zone: firmSettingsSchema.shape.zone,
})

/** Opens a firm, with whoever asks as its owner, and works in it from now on. */
export const POST = handle(async request => {
  const signed = theSignedIn()
  const opened = await openFirm(signed.user, await bodyAs(request, newFirmSchema))
  if (opened === 'enough') return refuse(409, 'You are in as many firms as one may be: leave one first.')
  await workIn(signed, opened.firmId)
  return opened
})
