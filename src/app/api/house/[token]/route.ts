import { houseWordSchema } from '@/core/card/word'
import { hear, openHouse } from '@/server/houses/repository'
import { bodyAs, handle, refuse } from '@/server/http/handle'

/** Takes a question, or an outage that was lived through. */
export const POST = handle(async (request, { params }: { params: Promise<{ token: string }> }) => {
  const word = await bodyAs(request, houseWordSchema)
  const now = new Date()
  const opened = await openHouse((await params).token, now)
  if (!opened) return refuse(404, 'This link leads nowhere any more. Ask the installer for a new one.')
  const heard = await hear(opened, word, now)
  return heard === 'enough'
    ? refuse(429, 'This page has taken as much as it may. Call instead.')
    : { kept: true }
})
