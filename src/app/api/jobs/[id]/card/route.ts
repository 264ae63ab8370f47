import * as z from 'zod'
import { cardOf } from '@/core/card/card'
import { dayIn } from '@/core/day'
import { cardHtml } from '@/core/formats/card-html'
import { languageKeys } from '@/core/languages'
import { handle, refuse } from '@/server/http/handle'
import { cardPdf } from '@/server/pdf/card'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

const askedSchema = z.object({
  format: z.enum(['html', 'pdf']).catch('html'),
  language: z.enum(languageKeys).catch('en'),
})

/** The switch-over card: a page, or one page of paper. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName, revision } = await jobOf(params)
  const { format, language } = askedSchema.parse(Object.fromEntries(new URL(request.url).searchParams))
  const { firm, zone } = await currentActor()
  const card = cardOf(job)
  if (!card.ok) return refuse(409, `There is no card yet: ${card.faults[0]?.message ?? ''}.`, card.faults)
  const foot = { firm, revision, day: dayIn(zone, new Date()) }
  if (format === 'html')
    return new Response(cardHtml(card.value, language, foot), {
      headers: { 'content-type': 'text/html; charset=utf-8' },
    })
  return new Response(new Uint8Array(await cardPdf(card.value, language, foot)), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="${fileName}-card-${language}.pdf"`,
    },
  })
})
