import { passkey } from '@better-auth/passkey'
import { betterAuth } from 'better-auth'
import { twoFactor } from 'better-auth/plugins'
import { unbound } from '../db/connection'
import { needed, setting } from '../env'
import { addressHeader } from '../http/address'
import { log } from '../log'
import { sendMail } from '../mail/outbox'
import { demoEntry } from './demo-entry'
import * as mails from './mails'
import { hashPassword, passwordLength, verifyPassword } from './password'
import { logins } from './store'

const minute = 60
const hour = 60 * minute
const day = 24 * hour

/** How long a session lasts: without being used, and at most, in seconds. */
export const sessionLasts = { idle: 14 * day, most: 60 * day } as const
/** What changes how one comes in asks for a sign-in not older than this, in seconds. */
const freshAge = 15 * minute

/**
 * The library of logins for one address of ours (its origin): passwords, passkeys, second steps, sessions and the letters that go
 * with them. Everything else about people is ours (src/server/people).
 */
function make(origin: string) {
  const { hostname, protocol } = new URL(origin)
  return betterAuth({
    appName: 'Spillway',
    baseURL: origin,
    basePath: '/api/auth',
    trustedOrigins: [origin],
    secret: needed('SPILLWAY_SECRET'),
    telemetry: { enabled: false },
    logger: {
      level: 'warn',
      log: (level, message) => log[level === 'error' ? 'error' : 'warn']({ from: 'logins' }, message),
    },
    database: { db: logins(), type: 'postgres', schemaName: 'login', transaction: true },
    emailAndPassword: {
      enabled: true,
      requireEmailVerification: true,
      autoSignIn: false,
      minPasswordLength: passwordLength.least,
      maxPasswordLength: passwordLength.most,
      password: { hash: hashPassword, verify: verifyPassword },
      resetPasswordTokenExpiresIn: 30 * minute,
      revokeSessionsOnPasswordReset: true,
      sendResetPassword: ({ user, token }) => sendMail(mails.recovery(origin, user.email, token)),
      onPasswordReset: ({ user }) => sendMail(mails.passwordChanged(origin, user.email)),
      onExistingUserSignUp: ({ user }) => sendMail(mails.alreadyHere(origin, user.email)),
    },
    emailVerification: {
      sendOnSignUp: true,
      expiresIn: day,
      autoSignInAfterVerification: true,
      sendVerificationEmail: ({ user, url }) => sendMail(mails.verification(user.email, url)),
    },
    user: {
      changeEmail: {
        enabled: true,
        sendChangeEmailConfirmation: ({ user, newEmail, url }) =>
          sendMail(mails.changingEmail(user.email, newEmail, url)),
      },
    },
    session: {
      expiresIn: sessionLasts.idle,
      updateAge: hour,
      freshAge,
      additionalFields: { firmId: { type: 'string', required: false, input: false } },
    },
    // ours counts in one place what anybody tries (limits.ts)
    rateLimit: { enabled: false },
    plugins: [
      twoFactor({ issuer: 'Spillway' }),
      passkey({
        rpID: hostname,
        rpName: 'Spillway',
        origin,
        // as the store writes it: a run of capitals does not come back from a column
        schema: { passkey: { fields: { credentialID: 'credentialId' } } },
      }),
      ...(setting('SPILLWAY_DEMO') ? [demoEntry()] : []),
    ],
    advanced: {
      cookiePrefix: 'spillway',
      useSecureCookies: protocol === 'https:',
      database: { generateId: 'uuid', validateSchema: false },
      // written by our own server, whatever was sent
      ipAddress: { ipAddressHeaders: [addressHeader] },
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' },
    },
  })
}
type Auth = ReturnType<typeof make>

const made = new Map<string, Auth>()
/** As many addresses as one server is asked by; a port made up in a Host header makes no heap. */
const mostAddresses = 20

export function authAt(origin: string): Auth {
  let auth = made.get(origin)
  if (!auth) {
    if (made.size >= mostAddresses) made.clear()
    auth = make(origin)
    made.set(origin, auth)
  }
  return auth
}

/** The origin under which a request asks: its host was looked at by our own server, and the scheme is told by a proxy that speaks TLS. */
export const originOf = (headers: Headers): string =>
  `${headers.get('x-forwarded-proto') === 'https' ? 'https' : 'http'}://${headers.get('host') ?? 'localhost'}`

/** The library tells of a database that is away as of any failure: asked ourselves, it says what it is. */
export async function orTrouble(error: unknown): Promise<never> {
  await unbound().raw('select 1')
  throw error
}

/**
 * Who is signed in, by the cookie of the library; null for nobody, and for a session that has lasted as long as any may. Asked for
 * counts as being used, unless it is not `drawnOut`.
 */
export async function signedIn(headers: Headers, { drawnOut = true } = {}) {
  const read = () =>
    authAt(originOf(headers)).api.getSession({ headers, query: { disableRefresh: !drawnOut } })
  // a connection that broke says so once; a database that was away and is back is asked once more
  const found = await read()
    .catch(read)
    .catch(async error => {
      await orTrouble(error).catch(trouble => trouble !== error && Promise.reject(trouble))
      return read()
    })
  if (!found) return null
  const { session, user } = found
  const age = (Date.now() - session.createdAt.getTime()) / 1000
  // a clock that was set back makes a session that begins in the future: it is not trusted longer for it
  if (age > sessionLasts.most || age < -day) return null
  return { session, user }
}
export type SignedIn = NonNullable<Awaited<ReturnType<typeof signedIn>>>
