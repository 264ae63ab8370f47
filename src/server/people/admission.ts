import { AsyncLocalStorage } from 'node:async_hooks'
import { personHeader } from '@/core/agreed'
import { may, type Right, refusal, roleSchema } from '@/core/firm/roles'
import { type SignedIn, signedIn } from '../accounts/auth'
import { isDemoLogin } from '../accounts/demo-entry'
import { tried } from '../accounts/limits'
import { Refusal, refuseForNow } from '../http/refusal'
import { admissionOf } from '../http/route-rights'
import { fromThere, whenceOf } from '../http/whence'
import { memberOf } from './repository'
import type { Person, PersonShown } from './types'

/** Who acts in a request. */
export interface Acting extends Person {
  firm: string
  /** the firm demands a second step, and they have none yet */
  lacksSecondStep: boolean
  person: PersonShown
}

interface Admitted {
  signed: SignedIn | null
  acting: Acting | null
}
const inside = new AsyncLocalStorage<Admitted>()

/** The one who signed in, as a person of the firm that they work in; null where they are in none. */
export async function actingAs({ session, user }: SignedIn): Promise<Acting | null> {
  const found = await memberOf(user.id, session.firmId ?? null)
  const role = roleSchema.safeParse(found?.role)
  if (!found || !role.success) return null
  const { personId, label, firm, zone, authority, units } = found
  return {
    ...found,
    lacksSecondStep: found.secondStep === 'demanded' && !user.twoFactorEnabled,
    person: {
      id: personId,
      label,
      firm,
      zone,
      role: role.data,
      authority: authority ?? '',
      units: units === 'metric' ? 'metric' : 'imperial',
      demo: isDemoLogin(user.id),
    },
  }
}

const noSecondStep =
  'Your firm asks everybody for a second step at sign-in, and you have none yet: turn it on under Your account.'
/** A page that somebody left open stays theirs: whoever signed in after them in this browser writes nothing from it. */
const madeForAnother = ({ label, firm }: Acting) =>
  new Refusal(
    401,
    `This browser is signed in as ${label}, ${firm}, by now, and this page is not theirs. What was typed stays here: sign in as before in another tab, or load the page anew to go on as ${label}.`,
  )
const notIn = () => new Refusal(401, 'You are signed out. Sign in in another tab: what you typed stays here.')

/**
 * The one gate of the house: lets a request in where the table of routes (http/route-rights.ts) has its role come in, and does
 * the work as that person. Refuses with 401 who is nobody, with 403 whose role does not carry it.
 */
export async function admit<T>(request: Request, work: () => Promise<T>): Promise<T> {
  const { pathname } = new URL(request.url)
  const admission = admissionOf(request.method, pathname)
  if (!admission)
    throw new Error(`no line of route-rights.ts admits anybody to ${request.method} ${pathname}`)
  return fromThere(whenceOf(request.headers), async () => {
    if (admission === 'anybody' || admission === 'link')
      return inside.run({ signed: null, acting: null }, work)
    const signed = await signedIn(request.headers)
    if (!signed) throw notIn()
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      const seconds = await tried('writes', signed.session.id)
      if (seconds !== null) return refuseForNow(seconds)
    }
    const acting = await actingAs(signed)
    const forWhom = request.headers.get(personHeader)
    if (acting && forWhom !== null && forWhom !== acting.personId) throw madeForAnother(acting)
    if (admission !== 'signed in') {
      if (!acting) throw new Refusal(403, 'You belong to no firm yet: open one, or have one invite you.')
      if (acting.lacksSecondStep) throw new Refusal(403, noSecondStep)
      if (!may(acting.role, admission)) throw new Refusal(403, refusal(acting.role, admission))
    }
    return inside.run({ signed, acting }, work)
  })
}

/** Whether what was let in a while ago, and is still being answered, would be let in now; the session is not drawn out by it. */
export async function stillAdmitted(
  request: Request,
  { personId }: Pick<Acting, 'personId'>,
): Promise<boolean> {
  const signed = await signedIn(request.headers, { drawnOut: false })
  const acting = signed && (await actingAs(signed))
  return acting?.personId === personId && !acting.lacksSecondStep
}

/** Who acts in the request that is worked on. */
export function admitted(): Admitted {
  const found = inside.getStore()
  if (!found) throw new Error('nothing was admitted here: a route goes through handle()')
  return found
}

/** Who signed in, in a route that takes it. */
export function theSignedIn(): SignedIn {
  const { signed } = admitted()
  if (!signed) throw notIn()
  return signed
}

/** What a page may do next. */
export type PageAdmission =
  | { to: 'show'; signed: SignedIn | null; acting: Acting | null }
  | { to: 'sign in' }
  | { to: 'choose a firm' }
  | { to: 'second step' }
  | { to: 'refuse'; right: Right }

/** The same gate for a page, which answers with another page instead of a status. */
export async function admitToPage(path: string, headers: Headers): Promise<PageAdmission> {
  const admission = admissionOf('GET', path)
  if (!admission) throw new Error(`no line of route-rights.ts admits anybody to the page ${path}`)
  const signed = await signedIn(headers)
  if (admission === 'anybody' || admission === 'link') return { to: 'show', signed, acting: null }
  if (!signed) return { to: 'sign in' }
  const acting = await actingAs(signed)
  if (admission === 'signed in') return { to: 'show', signed, acting }
  if (!acting) return { to: 'choose a firm' }
  if (acting.lacksSecondStep) return { to: 'second step' }
  return may(acting.role, admission) ? { to: 'show', signed, acting } : { to: 'refuse', right: admission }
}
