import * as z from 'zod'
import { DatabaseAway } from '../db/connection'
import { bodyAs, bodyText, handle, refuse } from './handle'

const ask = (init: RequestInit & { path?: string }) =>
  new Request('http://here.test/api', { method: 'POST', ...init })
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

test('writes from another origin are refused before anything is done', async () => {
  const act = jest.fn(async () => ({}))
  expect(
    await answer(act, { headers: { origin: 'http://elsewhere.test', host: 'here.test' } }),
  ).toMatchObject({ status: 403 })
  expect(act).not.toHaveBeenCalled()
  expect(await answer(act, { headers: { origin: 'http://here.test', host: 'here.test' } })).toMatchObject({
    status: 200,
  })
})

test('an absent database is 503 in words; an unexpected error is 500 and tells nothing of itself', async () => {
  const log = jest.spyOn(console, 'error').mockImplementation(() => undefined)
  const refused = Object.assign(new Error('connect'), { code: 'ECONNREFUSED' })
  for (const error of [new DatabaseAway('x'), refused, new AggregateError([refused])])
    expect(await answer(() => Promise.reject(error))).toMatchObject({ status: 503 })
  const secret = await answer(() => Promise.reject(new Error('password is swordfish')))
  expect(secret.status).toBe(500)
  expect(JSON.stringify(secret.body)).not.toMatch(/swordfish/)
  expect(log).toHaveBeenCalledTimes(1)
  log.mockRestore()
})
