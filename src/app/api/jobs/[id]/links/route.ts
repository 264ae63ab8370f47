import * as z from 'zod'
import { bodyAs, gone, handle, refuse } from '@/server/http/handle'
import { linkKinds, listLinks, makeLink, mostValidLinks, withdrawLink } from '@/server/links/repository'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

const kindOf = (request: Request) =>
  z.enum(linkKinds).catch('ask').parse(new URL(request.url).searchParams.get('kind'))

export const GET = handle(async (request, { params }: JobParams) => {
  await jobOf(params)
  return { links: await listLinks(await currentActor(), (await params).id, new Date(), kindOf(request)) }
})

const asked = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('make') }),
  z.strictObject({ do: z.literal('withdraw'), linkId: z.uuid() }),
])

/** Makes a customer's link, whose token is told this once, or withdraws one. */
export const POST = handle(async (request, { params }: JobParams) => {
  const what = await bodyAs(request, asked)
  const kind = kindOf(request)
  await jobOf(params)
  const { id } = await params
  const actor = await currentActor()
  if (what.do === 'make') {
    const made = await makeLink(actor, id, new Date(), kind)
    if (made === 'gone') return gone()
    if (made === 'enough')
      return refuse(409, `${mostValidLinks} links of this job are valid already: withdraw one first.`)
    return { token: made.token, links: await listLinks(actor, id, new Date(), kind) }
  }
  if (!(await withdrawLink(actor, id, what.linkId, new Date())))
    return refuse(404, 'There is no such link to withdraw; it may be withdrawn already.')
  return { links: await listLinks(actor, id, new Date(), kind) }
})
