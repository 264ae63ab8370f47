import type { BetterAuthPlugin } from 'better-auth'
import { APIError, createAuthEndpoint } from 'better-auth/api'
import { setSessionCookie } from 'better-auth/cookies'
import * as z from 'zod'
import { unbound } from '../db/connection'

/** Logins of the demo by what somebody wants to look around as; they have no password, and are made in demo mode alone. */
export const demoLogins = {
  owner: '5a1de000-0000-4000-8000-0000000001a1',
  designer: '5a1de000-0000-4000-8000-0000000001a2',
  technician: '5a1de000-0000-4000-8000-0000000001a3',
} as const
export const isDemoLogin = (id: string) => Object.values<string>(demoLogins).includes(id)
export const demoRoles = Object.keys(demoLogins) as (keyof typeof demoLogins)[]

/** One press, and one looks around. Only where the server is started in demo mode is this way in there at all. */
export const demoEntry = () =>
  ({
    id: 'demo-entry',
    endpoints: {
      enterDemo: createAuthEndpoint(
        '/demo/enter',
        {
          method: 'POST',
          body: z.strictObject({ as: z.enum(demoRoles as ['owner', 'designer', 'technician']) }),
        },
        async ctx => {
          const user = await ctx.context.internalAdapter.findUserById(demoLogins[ctx.body.as])
          const [mark] = await unbound()('setting').where({ key: 'demo' }).select('value')
          if (!user || mark?.value !== 'whole')
            throw new APIError('NOT_FOUND', { message: 'There is no demo here.' })
          const session = await ctx.context.internalAdapter.createSession(user.id)
          await setSessionCookie(ctx, { session, user })
          return ctx.json({ as: ctx.body.as })
        },
      ),
    },
  }) satisfies BetterAuthPlugin
