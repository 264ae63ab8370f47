import * as z from 'zod'
import { endSessions, firmsShown, sessionsOf, waysIn, workIn } from '@/server/accounts/sessions'
import { bodyAs, handle, refuse } from '@/server/http/handle'
import { theSignedIn } from '@/server/people/admission'
import { invitingFirms } from '@/server/people/firms'

/** Who is signed in: their firms, sessions, ways in, and who has invited them. */
export const GET = handle(async () => {
  const signed = theSignedIn()
  const { name, email } = signed.user
  return {
    name,
    email,
    firms: await firmsShown(signed),
    sessions: await sessionsOf(signed),
    ways: await waysIn(signed),
    inviting: await invitingFirms(email),
  }
})

const asked = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('work in'), firmId: z.uuid() }),
  z.strictObject({ do: z.literal('end'), sessionId: z.uuid() }),
  z.strictObject({ do: z.literal('end others') }),
])

/** Works in another firm from now on, or ends sessions. */
export const POST = handle(async request => {
  const signed = theSignedIn()
  const body = await bodyAs(request, asked)
  switch (body.do) {
    case 'work in':
      return (await workIn(signed, body.firmId)) ? {} : refuse(404, 'You are in no such firm any more.')
    case 'end':
      return { ended: await endSessions(signed, body.sessionId) }
    case 'end others':
      return { ended: await endSessions(signed, 'others') }
  }
})
