import * as z from 'zod'
import { fault } from '@/core/outcome'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { deleteFirm } from '@/server/people/erasing'

/** Deletes the firm, once its name was typed. */
export const POST = handle(async request => {
  const actor = await currentActor()
  const { name } = await bodyAs(request, z.strictObject({ name: z.string().max(80) }))
  if (!(await deleteFirm(actor, name)))
    return refuse(400, 'The firm was not deleted.', [
      fault('name', 'must be the firm’s name, as it stands above'),
    ])
  return {}
})
