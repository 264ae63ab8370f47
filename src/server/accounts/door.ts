import * as z from 'zod'
import { fault } from '@/core/outcome'
import { line } from '@/core/quantity'
import { bodyAs } from '../http/handle'
import { Refusal, refuse, refuseForNow } from '../http/refusal'
import { whenceOf } from '../http/whence'
import { takeBackLogin } from '../people/erasing'
import type { Recorded } from '../people/record'
import { authAt, originOf, orTrouble, signedIn } from './auth'
import {
  browserOf,
  knownFromNowOn,
  type Rule,
  signInFailed,
  signInWorked,
  tried,
  waitBeforeSignIn,
} from './limits'
import { passwordLength, weakness } from './password'
import { endSession, recordOfLogin } from './sessions'

const email = z
  .string()
  .max(254)
  .transform(e => e.trim().toLowerCase())
  .pipe(z.email('must be an e-mail address, such as name@example.com'))
const password = z.string().min(1, 'must be filled in').max(passwordLength.most)
const code = z
  .string()
  .transform(c => c.replace(/\s/g, ''))
  .pipe(z.string().min(6, 'must have six digits').max(20))
const nothing = z.strictObject({})
/** Where somebody goes on afterwards: a page of ours, never another's. */
const next = z
  .string()
  .max(500)
  .regex(/^\/(?![/\\])/, 'must be a page of ours')
  .default('/firms')

/** A body that stands in for itself: the browser's own words about a passkey, which the library reads. */
const credential = z.looseObject({})

interface Door {
  takes?: z.ZodType<Record<string, unknown>>
  /** counted by the address of who asks, and by the e-mail address asked for */
  limits?: { address?: Rule; email?: Rule }
  /** the field of a new password, which is looked at */
  newPassword?: 'password' | 'newPassword'
  /** what the record then tells */
  tells?: Recorded
  /** ends with somebody signed in */
  signsIn?: boolean
}

/** Of all that the library offers these are open, and each takes this and nothing else. */
export const accountDoors: Readonly<Record<string, Door>> = {
  'POST /sign-up/email': {
    takes: z
      .strictObject({ name: line(60, 1), email, password, next })
      .transform(({ next, ...rest }) => ({ ...rest, callbackURL: next })),
    limits: { address: 'signUps', email: 'letters' },
    newPassword: 'password',
  },
  'POST /sign-in/email': { takes: z.strictObject({ email, password }), tells: 'signed in', signsIn: true },
  'POST /sign-out': { takes: nothing, tells: 'signed out' },
  'GET /verify-email': { signsIn: true },
  'POST /send-verification-email': {
    takes: z.strictObject({ email }).transform(b => ({ ...b, callbackURL: '/firms' })),
    limits: { address: 'askedLetters', email: 'letters' },
  },
  'POST /request-password-reset': {
    takes: z.strictObject({ email }),
    limits: { address: 'askedLetters', email: 'letters' },
  },
  'POST /reset-password': {
    takes: z.strictObject({ token: z.string().max(200), newPassword: password }),
    limits: { address: 'askedLetters' },
    newPassword: 'newPassword',
  },
  'POST /change-password': {
    takes: z
      .strictObject({ currentPassword: password, newPassword: password })
      .transform(b => ({ ...b, revokeOtherSessions: true })),
    newPassword: 'newPassword',
    tells: 'password changed',
  },
  'POST /change-email': {
    takes: z.strictObject({ newEmail: email }).transform(b => ({ ...b, callbackURL: '/account' })),
    limits: { address: 'askedLetters' },
    tells: 'email changed',
  },
  'POST /update-user': { takes: z.strictObject({ name: line(60, 1) }) },
  'POST /two-factor/enable': { takes: z.strictObject({ password }) },
  'POST /two-factor/disable': { takes: z.strictObject({ password }), tells: 'second step off' },
  'POST /two-factor/verify-totp': { takes: z.strictObject({ code }), tells: 'signed in', signsIn: true },
  'POST /two-factor/verify-backup-code': {
    takes: z.strictObject({ code: z.string().trim().min(1).max(40) }),
    tells: 'signed in',
    signsIn: true,
  },
  'POST /two-factor/generate-backup-codes': { takes: z.strictObject({ password }) },
  'GET /passkey/generate-register-options': {},
  'POST /passkey/verify-registration': { takes: credential, tells: 'passkey added' },
  'GET /passkey/generate-authenticate-options': {},
  'POST /passkey/verify-authentication': { takes: credential, tells: 'signed in', signsIn: true },
  'GET /passkey/list-user-passkeys': {},
  'POST /passkey/delete-passkey': {
    takes: z.strictObject({ id: z.string().max(100) }),
    tells: 'passkey removed',
  },
  'POST /demo/enter': { takes: z.looseObject({ as: z.string().max(20) }), tells: 'signed in', signsIn: true },
}

/** What the library says in codes, in words; whatever else it says is told without its reasons. */
const words: Readonly<Record<string, [sentence: string, field?: string]>> = {
  INVALID_EMAIL_OR_PASSWORD: ['The e-mail address or the password is wrong.'],
  EMAIL_NOT_VERIFIED: [
    'Confirm your address first: open the letter that was sent to it, or have another sent.',
  ],
  INVALID_PASSWORD: ['The password is wrong.', 'password'],
  INVALID_TOKEN: ['This link was used before, or is too old. Ask for another.'],
  TOKEN_EXPIRED: ['This link is too old. Ask for another.'],
  INVALID_CODE: ['The code is wrong, or its half minute is over: take the one that shows now.', 'code'],
  INVALID_BACKUP_CODE: ['This code is none of yours, or was used before.', 'code'],
  INVALID_TWO_FACTOR_COOKIE: ['The time for the second step is over: sign in again.'],
  TOO_MANY_ATTEMPTS_REQUEST_NEW_CODE: ['Too many wrong codes: sign in again in a quarter of an hour.'],
  ACCOUNT_TEMPORARILY_LOCKED: ['Too many wrong codes: sign in again in a quarter of an hour.'],
  SESSION_NOT_FRESH: [
    'This asks for a sign-in of the last quarter of an hour: sign out, sign in, and do it again.',
  ],
  SESSION_EXPIRED: ['You are signed out. Sign in again.'],
  PASSKEY_NOT_FOUND: ['This passkey is not known here. Sign in with your password, and add it again.'],
  AUTHENTICATION_FAILED: ['This passkey is not known here. Sign in with your password, and add it again.'],
}

async function inWords(response: Response): Promise<Response> {
  if (response.status < 400) return response
  if (response.status >= 500) await orTrouble(null).catch(error => error && Promise.reject(error))
  const said: unknown = await response.json().catch(() => null)
  const { code } = z.object({ code: z.string().optional() }).catch({}).parse(said)
  const [sentence, field] = words[code ?? ''] ?? [
    response.status === 401
      ? 'You are signed out. Sign in again.'
      : 'That could not be done. Try it once more.',
  ]
  throw new Refusal(
    response.status >= 500 ? 500 : response.status,
    sentence,
    field ? [fault(field, sentence)] : [],
  )
}

/** The headers that a browser would send once it has taken an answer’s cookies. */
function withCookiesOf(request: Headers, response: Response): Headers {
  const cookies = new Map<string, string>()
  const take = (pair: string) => {
    const at = pair.indexOf('=')
    if (at > 0) cookies.set(pair.slice(0, at).trim(), pair.slice(at + 1))
  }
  for (const pair of (request.get('cookie') ?? '').split(';')) take(pair)
  for (const set of response.headers.getSetCookie()) take(set.split(';', 1)[0] ?? '')
  const headers = new Headers(request)
  headers.set('cookie', [...cookies].map(([k, v]) => `${k}=${v}`).join('; '))
  return headers
}

/** A code of the second step opens once: the session that a second use made is ended, and told as a wrong code. */
async function oneUse(request: Request, response: Response, used: string): Promise<void> {
  const signed = await signedIn(withCookiesOf(request.headers, response))
  if (!signed || (await tried('code', `${signed.user.id} ${used}`)) === null) return
  await endSession(signed)
  const [sentence = ''] = words.INVALID_CODE ?? []
  throw new Refusal(401, sentence, [fault('code', sentence)])
}

/**
 * Everything by which somebody comes in: the library does it, and around it stand the limits, a look at new passwords, the record,
 * and plain words.
 */
export async function throughAccountDoor(request: Request): Promise<Response> {
  const { pathname, search } = new URL(request.url)
  const path = pathname.slice('/api/auth'.length)
  const door = accountDoors[`${request.method} ${path}`]
  if (!door) return refuse(404, 'There is no such way in.')
  const origin = originOf(request.headers)
  const body = door.takes ? await bodyAs(request, door.takes) : undefined
  const address = whenceOf(request.headers).address ?? 'unknown'
  const named = typeof body?.email === 'string' ? body.email : null

  for (const [rule, key] of [
    [door.limits?.address, address],
    [door.limits?.email, named],
  ] as const) {
    const seconds = rule && key !== null ? await tried(rule, key) : null
    if (seconds !== null) return refuseForNow(seconds)
  }
  if (door.newPassword) {
    const wanted = String(body?.[door.newPassword])
    const weak = weakness(wanted, [named ?? '', String(body?.name ?? '')].filter(Boolean))
    if (weak) return refuse(400, 'Take another password.', [fault(door.newPassword, weak)])
  }
  const browser = await browserOf(request.headers)
  const isSignIn = path === '/sign-in/email' && named !== null
  if (isSignIn) {
    const seconds = await waitBeforeSignIn(named, address, browser)
    if (seconds) return refuseForNow(seconds)
  }

  const before = door.tells === 'signed out' ? await signedIn(request.headers) : null
  const headers = new Headers(request.headers)
  headers.delete('content-length')
  const answer = await authAt(origin).handler(
    new Request(`${origin}${pathname}${search}`, {
      method: request.method,
      headers,
      ...(body && { body: JSON.stringify(body) }),
    }),
  )
  if (isSignIn && answer.status === 401) await signInFailed(named, address, browser)
  const response = await inWords(answer)

  if (path === '/two-factor/verify-totp') await oneUse(request, response, String(body?.code))
  const came = before ?? (await signedIn(withCookiesOf(request.headers, response)))
  if (came && door.tells) await recordOfLogin(came.user, door.tells)
  if (came && door.signsIn) {
    await takeBackLogin(came.user.id)
    await signInWorked(came.user.email, address, browser)
    const cookie = await knownFromNowOn(browser, came.user.email, origin.startsWith('https:'))
    response.headers.append('set-cookie', cookie)
  }
  return response
}
