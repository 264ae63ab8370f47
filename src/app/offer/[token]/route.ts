import { offerGoneHtml, offerHtml } from '@/core/formats/offer-html'
import { openOffer } from '@/server/estimates/repository'
import { forPage } from '@/server/http/handle'

interface Params {
  params: Promise<{ token: string }>
}

/** The customer’s page of an offer: plain HTML, for any phone. */
export async function GET(_request: Request, { params }: Params): Promise<Response> {
  const { token } = await params
  const offer = await forPage(() => openOffer(token, new Date()))
  return new Response(offer ? offerHtml(offer.document, { ...offer, token }) : offerGoneHtml(), {
    status: offer ? 200 : 404,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'referrer-policy': 'no-referrer',
    },
  })
}
