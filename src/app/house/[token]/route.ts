import { cardOf } from '@/core/card/card'
import { tonight } from '@/core/card/tonight'
import { dayIn } from '@/core/day'
import { houseGoneHtml, houseHtml } from '@/core/formats/house-html'
import { languageOf } from '@/core/languages'
import { openHouse, saidBy } from '@/server/houses/repository'
import { forPage } from '@/server/http/handle'
import { newestPack } from '@/server/packs/repository'

interface Params {
  params: Promise<{ token: string }>
}

/** The page of a house: plain HTML, for any phone. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  const { token } = await params
  const { searchParams } = new URL(request.url)
  const language = languageOf(searchParams.get('language'), request.headers.get('accept-language'))
  const opened = await forPage(() => openHouse(token, new Date()))
  const page = async () => {
    if (!opened) return houseGoneHtml(language)
    const { job, jobId, firm, revision, customer } = opened
    const day = dayIn(customer.zone, new Date())
    const card = cardOf(job)
    const on = searchParams.has('chosen') ? new Set(searchParams.getAll('on').slice(0, 200)) : null
    return houseHtml({
      token,
      language,
      card: card.ok ? card.value : null,
      title: job.title,
      place: job.place,
      tonight: tonight(job, day, on),
      foot: { firm, revision, day },
      pack: (await forPage(() => newestPack(customer, jobId))) !== null,
      words: await forPage(() => saidBy(opened)),
    })
  }
  return new Response(await page(), {
    status: opened ? 200 : 404,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'referrer-policy': 'no-referrer',
    },
  })
}
