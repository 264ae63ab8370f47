import * as z from 'zod'
import { acceptingSchema, askingSchema } from '@/core/estimate/acceptance'
import { inLanguage } from '@/core/languages'
import { fault } from '@/core/outcome'
import { acceptOffer, askAbout, openOffer } from '@/server/estimates/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'

const sentSchema = z.discriminatedUnion('act', [
  acceptingSchema.safeExtend({ act: z.literal('accept') }),
  askingSchema.extend({ act: z.literal('ask') }),
])

const gone = 'This link is no estimate. Ask the installer for a new one.'

/** Takes a customer’s acceptance, once, or a question. */
export const POST = handle(async (request, { params }: { params: Promise<{ token: string }> }) => {
  const { token } = await params
  const sent = await bodyAs(request, sentSchema)
  const now = new Date()
  const language = (await openOffer(token, now))?.document.language ?? 'en'
  const say = inLanguage(language)
  if (sent.act === 'ask') {
    const asked = await askAbout(token, sent.text, now)
    if (asked === 'enough') return refuse(429, say('offer.refused.enough'))
    return asked === 'gone' ? refuse(404, gone) : { asked: true }
  }
  const done = await acceptOffer(token, sent, now)
  switch (done.state) {
    case 'accepted':
      return { accepted: done.acceptance.option.name }
    case 'taken':
      return refuse(
        409,
        say('offer.refused.taken', {
          option: done.acceptance.option.name,
          name: done.acceptance.name,
          on: done.acceptance.at.slice(0, 10),
        }),
      )
    case 'closed':
      return refuse(
        409,
        done.why === 'newer' || done.why === 'expired' || done.why === 'withdrawn'
          ? say(`offer.refused.${done.why}`)
          : gone,
      )
    case 'no option':
      return refuse(400, say('offer.chooseFirst'), [fault('option', 'is none of this estimate')])
    case 'a range':
      return refuse(400, 'This is a range, not yet a price.', [
        fault('option', 'is a range from a first call: it can be accepted after a visit'),
      ])
    case 'gone':
      return refuse(404, gone)
  }
})
