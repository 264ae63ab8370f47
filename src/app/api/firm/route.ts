import * as z from 'zod'
import { firmSettingsSchema } from '@/core/firm/settings'
import { fault } from '@/core/outcome'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { theSignedIn } from '@/server/people/admission'
import { keepSettings, settingsOf } from '@/server/people/settings'

const asked = z.strictObject({ settings: firmSettingsSchema, version: z.int().min(0) })

/** Keeps the firm’s own ways. */
export const POST = handle(async request => {
  const actor = await currentActor()
  const { settings, version } = await bodyAs(request, asked)
  // whoever locks the door has the key
  if (settings.secondStep === 'demanded' && !theSignedIn().user.twoFactorEnabled)
    return refuse(409, 'Nothing was kept.', [
      fault('settings.secondStep', 'takes your own first: turn it on under Your account'),
    ])
  if ((await keepSettings(actor, settings, version)) === 'stale')
    return refuse(
      409,
      'Somebody else changed the settings meanwhile: load the page again, and look at theirs first.',
    )
  return settingsOf(actor)
})
