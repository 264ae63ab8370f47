import { createHash, randomUUID } from 'node:crypto'
import { sealData, unsealData } from 'iron-session'
import { type IRateLimiterPostgresOptions, RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { unbound } from '../db/connection'
import { needed } from '../env'

const minute = 60
const hour = 60 * minute

/** How often something may be tried, and in what time, in seconds. */
const rules = {
  /** wrong passwords for one account from one browser or address */
  pair: { points: 8, duration: 15 * minute },
  /** wrong passwords from one address, whosever accounts: an office behind one address has many hands */
  address: { points: 60, duration: hour },
  /** wrong passwords for one account from browsers that it never signed in with: a crowd that guesses locks out itself alone */
  account: { points: 40, duration: hour },
  /** one code of a second step: once, for as long as it could be taken */
  code: { points: 1, duration: 2 * minute },
  signUps: { points: 20, duration: hour },
  /** letters to one address of e-mail */
  letters: { points: 6, duration: hour },
  /** letters that one address asks for */
  askedLetters: { points: 40, duration: hour },
  /** what is asked by one link, and by links from one address */
  link: { points: 400, duration: 5 * minute },
  linkAddress: { points: 1200, duration: 5 * minute },
  /** writes of one session: no hands are as quick */
  writes: { points: 1500, duration: minute },
  /** invitations of one firm */
  invitations: { points: 40, duration: 24 * hour },
} as const
export type Rule = keyof typeof rules

const made = new Map<Rule, RateLimiterPostgres>()
function limiter(rule: Rule): RateLimiterPostgres {
  let one = made.get(rule)
  if (!one) {
    const options: IRateLimiterPostgresOptions = {
      storeClient: unbound(),
      storeType: 'knex',
      schemaName: 'login',
      tableName: 'tried',
      tableCreated: true,
      keyPrefix: rule,
      ...rules[rule],
    }
    one = new RateLimiterPostgres(options)
    made.set(rule, one)
  }
  return one
}
/** Lets go of what holds the pool. */
export const forgetLimits = () => made.clear()

/** What is counted stands under a sum of it: no list of who tried what. */
const keyOf = (text: string) => createHash('sha256').update(text.trim().toLowerCase()).digest('base64url')

/** Counts a try; the seconds to wait where there were too many, else null. */
export async function tried(rule: Rule, key: string): Promise<number | null> {
  try {
    await limiter(rule).consume(keyOf(key))
    return null
  } catch (error) {
    if (error instanceof RateLimiterRes) return Math.ceil(error.msBeforeNext / 1000)
    throw error
  }
}

async function waits(rule: Rule, key: string): Promise<number> {
  const found = await limiter(rule).get(keyOf(key))
  return found && found.consumedPoints > rules[rule].points - 1 ? Math.ceil(found.msBeforeNext / 1000) : 0
}

/** Behind TLS a cookie’s own name keeps it from being set over a plain line. */
const browserCookie = (secure: boolean) => `${secure ? '__Secure-' : ''}spillway-browser`
const browserLasts = 400 * 24 * hour

/** A browser, and the accounts (as sums) that it signed in with before. */
export interface Browser {
  id: string
  knows: string[]
}

/** The browser that asks, by a sealed cookie; one that has none, or a forged one, is new. */
export async function browserOf(headers: Headers): Promise<Browser> {
  const name = browserCookie(headers.get('x-forwarded-proto') === 'https')
  const sealed = new RegExp(`(?:^|;\\s*)${name}=([^;]+)`).exec(headers.get('cookie') ?? '')?.[1]
  const read = sealed
    ? await unsealData<Partial<Browser>>(decodeURIComponent(sealed), { password: needed('SPILLWAY_SECRET') })
    : {}
  return { id: read.id ?? randomUUID(), knows: read.knows ?? [] }
}

/** The cookie by which a browser is known again to an account that it has signed in with. */
export async function knownFromNowOn(browser: Browser, email: string, secure: boolean): Promise<string> {
  const knows = [...new Set([keyOf(email), ...browser.knows])].slice(0, 8)
  const sealed = await sealData({ id: browser.id, knows }, { password: needed('SPILLWAY_SECRET'), ttl: 0 })
  return `${browserCookie(secure)}=${encodeURIComponent(sealed)}; Path=/; Max-Age=${browserLasts}; HttpOnly; SameSite=Lax${secure ? '; Secure' : ''}`
}

/**
 * Whether somebody may try a password now: the seconds to wait, or 0. A browser that the account has signed in with before waits
 * for its own mistakes alone: whoever guesses from elsewhere does not lock the innocent out.
 */
export async function waitBeforeSignIn(email: string, address: string, browser: Browser): Promise<number> {
  if (browser.knows.includes(keyOf(email))) return waits('pair', `${email} ${browser.id}`)
  const each = await Promise.all([
    waits('pair', `${email} ${address}`),
    waits('address', address),
    waits('account', email),
  ])
  return Math.max(...each)
}

/** Writes a wrong password down. */
export async function signInFailed(email: string, address: string, browser: Browser): Promise<void> {
  if (browser.knows.includes(keyOf(email))) await tried('pair', `${email} ${browser.id}`)
  else
    await Promise.all([
      tried('pair', `${email} ${address}`),
      tried('address', address),
      tried('account', email),
    ])
}

/** A right password: earlier mistakes of this pair are forgotten, those of the address are not. */
export async function signInWorked(email: string, address: string, browser: Browser): Promise<void> {
  await Promise.all(
    [`${email} ${browser.id}`, `${email} ${address}`].map(k => limiter('pair').delete(keyOf(k))),
  )
}
