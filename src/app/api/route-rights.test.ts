import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { may, type Role, refusal, rights, roles } from '@/core/firm/roles'
import { closeDb, ownerDb } from '@/server/db/connection'
import { type Admission, admissionOf, routeRights } from '@/server/http/route-rights'
import { admitToPage } from '@/server/people/admission'
import { testFirm } from '@/server/people/test-firm'

/** Whoever is signed in for a request of this test: somebody in one role, somebody without a firm, or nobody. */
let signed: { session: object; user: { id: string; email: string } } | null = null
jest.mock('@/server/accounts/auth', () => ({
  signedIn: async () => signed,
  originOf: () => 'http://here.test',
  authAt: () => ({ handler: async () => new Response('{}', { status: 200 }) }),
}))

const app = join(process.cwd(), 'src/app')
const files = readdirSync(app, { recursive: true, encoding: 'utf8' }).map(f => f.replaceAll('\\', '/'))
const patternOf = (file: string) =>
  `/${file
    .split('/')
    .slice(0, -1)
    .filter(part => !part.startsWith('('))
    .join('/')}`
const methodsOf = (file: string) =>
  [
    ...readFileSync(join(app, file), 'utf8').matchAll(
      /export (?:const|async function|function) (GET|POST|PUT|PATCH|DELETE|HEAD)\b/g,
    ),
  ].map(m => m[1])
const routes = files.filter(f => f.endsWith('/route.ts'))
const doors = [
  ...routes.flatMap(file => methodsOf(file).map(method => `${method} ${patternOf(file)}`)),
  ...files.filter(f => f.endsWith('/page.tsx')).map(file => `GET ${patternOf(file)}`),
].sort()

const logins: Partial<Record<Role | 'none', string>> = {}
beforeAll(async () => {
  for (const role of [...roles, 'none'] as const) {
    const id = crypto.randomUUID()
    logins[role] = id
    await ownerDb()('login.user').insert({ id, name: role, email: `${id}@rights.test`, email_verified: true })
    if (role === 'none') continue
    const { personId } = await testFirm(role, role)
    await ownerDb()('person').where({ id: personId }).update({ login_id: id })
  }
})
afterAll(closeDb)
const as = (who: Role | 'none' | 'nobody') => {
  signed =
    who === 'nobody'
      ? null
      : { session: { id: who }, user: { id: logins[who] ?? '', email: 'somebody@rights.test' } }
}

test('every door of the house has its line in the table, and every line its door', () => {
  expect(Object.keys(routeRights).sort()).toEqual(doors)
  expect(doors.length).toBeGreaterThan(100)
})

const address = (pattern: string) =>
  pattern
    .replace(/\/\[\[\.\.\.\w+\]\]/g, '')
    .replace(/\[\.\.\.all\]/g, 'no/such/door')
    .replace(/\[\w+\]/g, 'x')

test.each(Object.entries(routeRights))('%s is found by its address: %s', (key, admission) => {
  const [method = '', pattern = ''] = key.split(' ')
  expect(admissionOf(method, address(pattern))).toBe(admission)
})

test('what stands in no line is shut', () => {
  for (const path of ['/', '/api', '/api/jobs/x/y/z', '/jobs/x/ask/more', '/api/jobs/x/changes/..', '/admin'])
    expect([path, admissionOf('POST', path)]).toEqual([path, undefined])
})

const allowed = (admission: Admission, role: Role) =>
  admission === 'anybody' || admission === 'link' || admission === 'signed in' || may(role, admission)

const apiDoors = routes
  .filter(f => f.startsWith('api/'))
  .flatMap(file =>
    methodsOf(file).map(method => ({ file, method: method ?? '', key: `${method} ${patternOf(file)}` })),
  )

test.each(apiDoors.map(d => [d.key, d] as const))(
  '%s lets in whom the table says, and nobody else',
  async (key, { file, method }) => {
    const route = await import(join(app, file))
    const admission = routeRights[key] ?? 'firm'
    const ask = async () => {
      const gone = new AbortController()
      const request = new Request(`http://here.test${address(patternOf(file))}`, {
        method,
        headers: { origin: 'http://here.test', host: 'here.test', 'content-type': 'application/json' },
        signal: gone.signal,
        ...(method === 'POST' && { body: '{"not":"what it takes"}' }),
      })
      const params = {
        id: 'x',
        token: 'x',
        photoId: 'x',
        fileId: 'x',
        n: 'x',
        personId: 'x',
        visit: 'x',
        all: ['x'],
      }
      const response: Response = await route[method](request, { params: Promise.resolve(params) })
      gone.abort()
      const words = response.status >= 400 ? await response.text() : ''
      return { status: response.status, words }
    }
    const open = admission === 'anybody' || admission === 'link'
    as('nobody')
    const nobody = await ask()
    if (!open) expect(nobody).toMatchObject({ status: 401, words: expect.stringMatching(/signed out/) })
    as('none')
    const firmless = await ask()
    if (!open && admission !== 'signed in')
      expect(firmless).toMatchObject({ status: 403, words: expect.stringMatching(/no firm/) })
    for (const role of roles) {
      as(role)
      const { status, words } = await ask()
      const refused = status === 403 && words.includes('You are here as')
      expect([role, refused]).toEqual([role, !allowed(admission, role)])
      expect([role, status]).not.toEqual([role, 500])
    }
  },
)

test('pages send who is nobody to sign in, who has no firm to choose one, and say to whom they are not shown', async () => {
  const pages = doors.filter(d => d.startsWith('GET ') && !d.includes(' /api/') && routeRights[d] !== 'link')
  for (const page of pages) {
    const admission = routeRights[page] ?? 'firm'
    const path = address(page.slice(4))
    const to = async () => (await admitToPage(path, new Headers())).to
    if (admission === 'anybody') continue
    as('nobody')
    expect([page, await to()]).toEqual([page, 'sign in'])
    as('none')
    expect([page, await to()]).toEqual([page, admission === 'signed in' ? 'show' : 'choose a firm'])
    for (const role of roles) {
      as(role)
      expect([page, role, await to()]).toEqual([page, role, allowed(admission, role) ? 'show' : 'refuse'])
    }
  }
})

test('each refusal says who could, and no right is without a role', () => {
  for (const right of rights) expect(roles.some(role => may(role, right))).toBe(true)
  expect(refusal('technician', 'design')).toMatch(
    /here as technician\. To open jobs.* takes an owner or designer/,
  )
  expect(may('customer', 'read')).toBe(false)
})
