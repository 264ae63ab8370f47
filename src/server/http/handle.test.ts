import * as z from 'zod'
import { Busy, DatabaseAway } from '../db/connection'
import { bodyAs, bodyText, handle, refuse } from './handle'

jest.mock('../people/admission', () => ({ admit: (_: Request, work: () => unknown) => work() }))

const own = { 'content-type': 'application/json', origin: 'http://here.test', host: 'here.test' }
const ask = (init: RequestInit) =>
  new Request('http://here.test/api', { method: 'POST', headers: own, ...init })
const answer = async (act: (request: Request) => Promise<unknown>, init: RequestInit = {}) => {
  const response = await handle(act)(ask(init), undefined)
  return { status: response.status, body: await response.json() }
}

test('a refusal carries its status, a sentence, and a fault for each field', async () => {
  const schema = z.strictObject({ hours: z.number() })
  const parse = (body: string) => answer(request => bodyAs(request, schema), { body })
  expect(await parse('{"hours": 3}')).toEqual({ status: 200, body: { hours: 3 } })
  expect(await parse('{"hours": "x"}')).toMatchObject({ status: 400, body: { faults: [{ path: 'hours' }] } })
  expect(await parse('{"hours"')).toMatchObject({
    status: 400,
    body: { message: 'The request is not whole JSON.' },
  })
  expect(await answer(async () => refuse(404, 'gone'))).toEqual({
    status: 404,
    body: { message: 'gone', faults: [] },
  })
})

test('a body that grows too large is refused while it is read, whatever its header says', async () => {
  const body = 'x'.repeat(2000)
  expect(await answer(request => bodyText(request, 1000), { body })).toMatchObject({ status: 413 })
  expect(
    await answer(async request => ({ length: (await bodyText(request, 2000)).length }), { body }),
  ).toMatchObject({ body: { length: 2000 } })
})

test('writes must come from our own pages; anything else is refused before anything is done', async () => {
  const act = jest.fn(async () => ({}))
  const from = (headers: Record<string, string>) =>
    answer(act, { headers: { host: 'here.test', ...headers } })
  const others: Record<string, string>[] = [
    { origin: 'http://elsewhere.test' },
    { origin: 'null' },
    { origin: 'not an address' },
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site', origin: 'http://here.test' },
    {},
  ]
  for (const headers of others) expect(await from(headers)).toMatchObject({ status: 403 })
  expect(act).not.toHaveBeenCalled()
  expect((await from({ origin: 'http://here.test' })).status).toBe(200)
  expect((await from({ 'sec-fetch-site': 'same-origin' })).status).toBe(200)
  // reading says nothing of where it comes from
  for (const method of ['GET', 'HEAD'])
    expect((await handle(act)(new Request('http://here.test/api', { method }), undefined)).status).toBe(200)
})

test('JSON alone is read as JSON, in UTF-8; a form is no file', async () => {
  const text = (init: RequestInit) => answer(async request => ({ text: await bodyText(request) }), init)
  expect((await text({ body: 'a=1', headers: { ...own, 'content-type': 'text/plain' } })).status).toBe(415)
  expect((await text({ body: new Uint8Array([0x22, 0xff, 0xfe]) })).body.message).toMatch(/UTF-8/)
})

test('a refusal of a hundred thousand faults is a short answer', async () => {
  const body = JSON.stringify(
    Object.fromEntries(Array.from({ length: 1900 }, (_, n) => [`k${n}`.padEnd(900, 'x'), n])),
  )
  const refused = await answer(request => bodyAs(request, z.strictObject({})), { body })
  expect(refused.status).toBe(400)
  expect(JSON.stringify(refused.body).length).toBeLessThan(100_000)
  expect(refused.body.faults.at(-1).message).toMatch(/1,850 more/)
})

test('private answers are kept by nobody', async () => {
  const response = await handle(async () => ({}))(ask({ body: '{}' }), undefined)
  expect(response.headers.get('cache-control')).toBe('no-store')
})

test('an absent, a busy and a full database are told apart in words; an unexpected error tells nothing of itself', async () => {
  const coded = (code: string) => Object.assign(new Error('x'), { code })
  const status = async (error: Error) => (await answer(() => Promise.reject(error))).status
  for (const error of [
    new DatabaseAway('x'),
    coded('ECONNREFUSED'),
    new AggregateError([coded('ECONNRESET')]),
  ])
    expect(await status(error)).toBe(503)
  for (const error of [
    new Busy('x'),
    coded('55P03'),
    coded('57014'),
    new Error('Timeout acquiring a connection'),
  ])
    expect((await answer(() => Promise.reject(error))).body.message).toMatch(/busy/)
  for (const error of [coded('53100'), coded('ENOSPC')]) expect(await status(error)).toBe(507)
  const secret = await answer(() => Promise.reject(new Error('password is swordfish')))
  expect(secret.status).toBe(500)
  expect(JSON.stringify(secret.body)).not.toMatch(/swordfish/)
})

test('a number beyond all is no number, whichever way it is written', async () => {
  const schema = z.strictObject({ hours: z.number() })
  const refused = await answer(request => bodyAs(request, schema), { body: '{"hours": 1e400}' })
  expect(refused).toMatchObject({
    status: 400,
    body: { faults: [{ path: 'hours', message: 'must be a finite number' }] },
  })
})
