import { sealData, unsealData } from 'iron-session'
import { cookies, headers } from 'next/headers'
import { needed } from '../env'
import { listPeople } from './repository'
import { type Person, servedFirm } from './types'

const cookieName = 'spillway-person'

const secret = () => needed('SPILLWAY_SECRET')

/** Who acts, as the screens show it and let choose. */
interface PersonShown {
  label: string
  firm: string
  zone: string
  people: { personId: string; label: string }[]
}

/** Who acts in this request: the person of the sealed cookie, or the firm's first. */
export async function currentActor(): Promise<Person & { firm: string; person: PersonShown }> {
  const people = await listPeople(servedFirm)
  const sealed = (await cookies()).get(cookieName)?.value
  const { personId } = sealed ? await unsealData<{ personId?: string }>(sealed, { password: secret() }) : {}
  const actor = people.find(p => p.personId === personId) ?? people[0]
  if (!actor) throw new Error('the firm has no people: run bin/start --fresh')
  const { label, firm, zone } = actor
  const choices = people.map(p => ({ personId: p.personId, label: p.label }))
  return { ...actor, person: { label, firm, zone, people: choices } }
}

/** Makes this browser act as another person of the firm; false when there is no such person. */
export async function actAs(personId: string): Promise<boolean> {
  const people = await listPeople(servedFirm)
  if (!people.some(p => p.personId === personId)) return false
  const sealed = await sealData({ personId }, { password: secret() })
  // a proxy on this machine that speaks TLS to the outside says so
  const secure = (await headers()).get('x-forwarded-proto') === 'https'
  ;(await cookies()).set(cookieName, sealed, { httpOnly: true, sameSite: 'lax', path: '/', secure })
  return true
}
