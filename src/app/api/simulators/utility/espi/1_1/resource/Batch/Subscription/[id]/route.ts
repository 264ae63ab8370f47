import { demoHouse } from '@/server/seeds/houses'
import { householdOf } from '@/simulators/household'
import { seedOf } from '@/simulators/seeded'
import { feedOf, serviceToken } from '@/simulators/utility'

interface Params {
  params: Promise<{ id: string }>
}

/** The simulated utility: a customer's year as an Atom feed, to whoever brings the customer's consent. */
export async function GET(request: Request, { params }: Params) {
  if (request.headers.get('authorization') !== `Bearer ${serviceToken}`)
    return new Response('The customer’s consent is missing: send it as a bearer token.', { status: 401 })
  const { id } = await params
  const pieces = feedOf(demoHouse(id) ?? householdOf(id.slice(0, 40), seedOf(id)), {
    prefixed: false,
    powerOfTen: 0,
  })
  const encoder = new TextEncoder()
  const body = new ReadableStream<Uint8Array>({
    pull: controller => {
      const { done, value } = pieces.next()
      if (done) controller.close()
      else controller.enqueue(encoder.encode(value))
    },
  })
  return new Response(body, { headers: { 'content-type': 'application/atom+xml' } })
}
