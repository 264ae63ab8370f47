import * as z from 'zod'
import { termsSchema } from '@/core/estimate/terms'
import { putTerms, readTerms } from '@/server/estimates/terms'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'

const changeSchema = z.strictObject({ terms: termsSchema, version: z.int().min(0) })

/** How the firm prices its work. */
export const GET = handle(async () => readTerms(await currentActor()))

export const POST = handle(async request => {
  const { terms, version } = await bodyAs(request, changeSchema)
  const actor = await currentActor()
  if (!(await putTerms(actor, terms, version)))
    return refuse(
      409,
      'Somebody else changed the firm’s terms meanwhile. Look at them again before you change them.',
    )
  return readTerms(actor)
})
