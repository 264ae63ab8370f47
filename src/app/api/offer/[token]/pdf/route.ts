import { offerPaper, openOffer } from '@/server/estimates/repository'
import { handle, refuse } from '@/server/http/handle'
import { estimatePdf } from '@/server/pdf/estimate'
import { logoOf } from '@/server/people/settings'

/** The paper of an offer, byte for byte as it was sent; `?signed`: the same with its acceptance. */
export const GET = handle(async (request, { params }: { params: Promise<{ token: string }> }) => {
  const { token } = await params
  const signed = new URL(request.url).searchParams.has('signed')
  const offer = signed ? await openOffer(token, new Date()) : null
  const pdf = offer?.acceptance
    ? await estimatePdf(offer.document, offer.acceptance, await logoOf(offer))
    : await offerPaper(token)
  if (!pdf) return refuse(404, 'This link is no estimate. Ask the installer for a new one.')
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': 'inline; filename="estimate.pdf"' },
  })
})
