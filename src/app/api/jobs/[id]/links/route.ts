import * as z from 'zod'
import { bodyAs, gone, handle, refuse } from '@/server/http/handle'
import { listLinks, makeLink, mostValidLinks, withdrawLink } from '@/server/links/repository'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

export const GET = handle(async (_request, { params }: JobParams) => {
  await jobOf(params)
  return { links: await listLinks(await currentActor(), (await params).id, new Date()) }
})

const asked = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('make') }),
  z.strictObject({ do: z.literal('withdraw'), linkId: z.uuid() }),
])

/** Makes a customer's link, whose token is told this once, or withdraws one. */
export const POST = handle(async (request, { params }: JobParams) => {
  const what = await bodyAs(request, asked)
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  if (what.do === 'make') {
    const made = await makeLink(actor, id, new Date())
    if (made === 'gone') return gone()
    if (made === 'enough')
      return refuse(409, `${mostValidLinks} links of this job are valid already: withdraw one first.`)
    return { token: made.token, links: await listLinks(actor, id, new Date()) }
  }
  if (!(await withdrawLink(actor, id, what.linkId, new Date())))
    return refuse(404, 'There is no such link to withdraw; it may be withdrawn already.')
  return { links: await listLinks(actor, id, new Date()) }
})
