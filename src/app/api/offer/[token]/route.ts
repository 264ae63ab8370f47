import * as z from 'zod'
import { acceptingSchema, askingSchema } from '@/core/estimate/acceptance'
import { fault } from '@/core/outcome'
import { acceptOffer, askAbout } from '@/server/estimates/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'

const sentSchema = z.discriminatedUnion('act', [
  acceptingSchema.safeExtend({ act: z.literal('accept') }),
  askingSchema.extend({ act: z.literal('ask') }),
])

const closed = {
  newer: 'There is a newer version of this estimate. Ask for its link.',
  expired: 'This estimate is no longer valid. Ask for a new one.',
  withdrawn: 'This estimate was withdrawn. Ask the installer.',
} as const
const gone = 'This link is no estimate. Ask the installer for a new one.'

/** Takes a customer’s acceptance, once, or a question. */
export const POST = handle(async (request, { params }: { params: Promise<{ token: string }> }) => {
  const { token } = await params
  const sent = await bodyAs(request, sentSchema)
  const now = new Date()
  if (sent.act === 'ask') {
    const asked = await askAbout(token, sent.text, now)
    if (asked === 'enough')
      return refuse(429, 'This estimate has taken as many questions as it may. Call instead.')
    return asked === 'gone' ? refuse(404, gone) : { asked: true }
  }
  const done = await acceptOffer(token, sent, now)
  switch (done.state) {
    case 'accepted':
      return { accepted: done.acceptance.option.name }
    case 'taken':
      return refuse(
        409,
        `“${done.acceptance.option.name}” was accepted by ${done.acceptance.name} on ${done.acceptance.at.slice(0, 10)}: it stands. Load the page to see it; call to change it.`,
      )
    case 'closed':
      return refuse(409, done.why in closed ? closed[done.why as keyof typeof closed] : gone)
    case 'no option':
      return refuse(400, 'Choose an option first.', [fault('option', 'is none of this estimate')])
    case 'a range':
      return refuse(400, 'This is a range, not yet a price.', [
        fault('option', 'is a range from a first call: it can be accepted after a visit'),
      ])
    case 'gone':
      return refuse(404, gone)
  }
})
