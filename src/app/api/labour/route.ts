import * as z from 'zod'
import { labourSchema } from '@/core/hookup/labour'
import { putLabour, readLabour } from '@/server/catalogue/labour'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'

const changeSchema = z.strictObject({ labour: labourSchema, version: z.int().min(0) })

/** The firm's own hours by task. */
export const POST = handle(async request => {
  const { labour, version } = await bodyAs(request, changeSchema)
  const actor = await currentActor()
  if (!(await putLabour(actor, labour, version)))
    return refuse(
      409,
      'Somebody else changed the hours meanwhile. Look at them again before you change them.',
    )
  return readLabour(actor)
})
