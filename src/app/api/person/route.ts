import * as z from 'zod'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { actAs } from '@/server/people/actor'

export const POST = handle(async request => {
  const { personId } = await bodyAs(request, z.strictObject({ personId: z.uuid() }))
  return (await actAs(personId)) ? { personId } : refuse(404, 'No such person in this firm.')
})
