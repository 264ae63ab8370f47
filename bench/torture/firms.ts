import { ownerDb } from '../../src/server/db/connection'
import { memberOf } from '../../src/server/people/repository'
import type { Actor } from '../../src/server/people/types'

export const password = 'tall pylon under grey weather'
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** A firm as a stranger makes it: an account, the letter, the firm. Its owner, and the cookies of their session. */
export async function openFirm(
  url: string,
  n: number,
): Promise<{ actor: Actor; cookie: string; email: string }> {
  const email = `torture-${n}-${crypto.randomUUID()}@people.test`
  const cookies = new Map<string, string>()
  const ask = async (path: string, body?: object) => {
    const answer = await fetch(path.startsWith('http') ? path : url + path, {
      method: body ? 'POST' : 'GET',
      redirect: 'manual',
      headers: {
        origin: url,
        cookie: [...cookies].map(([k, v]) => `${k}=${v}`).join('; '),
        ...(body && { 'content-type': 'application/json' }),
      },
      body: body && JSON.stringify(body),
    })
    for (const set of answer.headers.getSetCookie()) {
      const [pair = ''] = set.split(';')
      cookies.set(pair.slice(0, pair.indexOf('=')), pair.slice(pair.indexOf('=') + 1))
    }
    if (answer.status >= 400) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
    return answer
  }
  await ask('/api/auth/sign-up/email', { name: 'Torturer', email, password })
  for (let tries = 0; ; tries++) {
    const letter = await ownerDb()('login.letter').where({ to: email }).first('text')
    const link = /https?:\S+/.exec(letter?.text ?? '')?.[0]
    if (link) {
      await ask(link)
      break
    }
    if (tries > 200) throw new Error('no letter came')
    await pause(100)
  }
  const made = await ask('/api/firms', { firm: `Torture ${n}`, label: 'Torturer', zone: 'America/New_York' })
  const { firmId } = (await made.json()) as { firmId: string }
  const login = await ownerDb()('login.user').where({ email }).first('id')
  const actor = await memberOf(login.id, firmId)
  if (!actor) throw new Error('the firm was not opened')
  return { actor, email, cookie: [...cookies].map(([k, v]) => `${k}=${v}`).join('; ') }
}
