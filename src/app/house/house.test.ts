import { closeDb } from '@/server/db/connection'
import { always, transaction } from '@/server/db/transaction'
import { createJob } from '@/server/jobs/repository'
import { listLinks, makeLink, withdrawLink } from '@/server/links/repository'
import { makePack, putPack } from '@/server/packs/repository'
import { testFirm } from '@/server/people/test-firm'
import type { Actor } from '@/server/people/types'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import * as card from '../api/house/[token]/card/route'
import * as pack from '../api/house/[token]/pack/route'
import * as api from '../api/house/[token]/route'
import * as page from './[token]/route'

const now = new Date()
let actor: Actor
let jobId: string
let token: string
beforeEach(async () => {
  actor = await testFirm()
  jobId = await createJob(actor, alderHollow, 'opened', now)
  const made = await makeLink(actor, jobId, now, 'house')
  if (typeof made !== 'object') throw new Error('no link')
  token = made.token
})
afterAll(closeDb)

const params = () => ({ params: Promise.resolve({ token }) })
async function shown(query = '', language = 'en-US') {
  const request = new Request(`http://here.test/house/${token}${query}`, {
    headers: { 'accept-language': language },
  })
  const answer = await page.GET(request, params())
  return { status: answer.status, html: await answer.text(), kept: answer.headers.get('cache-control') }
}
const said = (body: object, origin = 'http://here.test') =>
  api.POST(
    new Request(`http://here.test/api/house/${token}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin, host: 'here.test' },
      body: JSON.stringify(body),
    }),
    params(),
  )

test('the page speaks as the browser prefers, or as it is asked, and is kept by nobody on the way', async () => {
  expect(await shown()).toMatchObject({
    status: 200,
    kept: 'no-store',
    html: expect.stringContaining('<html lang="en">'),
  })
  expect((await shown('', 'es-MX,es;q=0.9')).html).toContain('<html lang="es">')
  expect((await shown('?language=en', 'es-MX')).html).toContain('<html lang="en">')
  expect((await shown('?language=xx', 'de')).html).toContain('<html lang="en">')
})

test('what is ticked is reckoned; nothing ticked is nothing', async () => {
  const hours = async (query: string) => /class="price">([^<]+)/.exec((await shown(query)).html)?.[1] ?? ''
  const all = await hours('')
  expect(all).toMatch(/About \d+ hours/)
  const few = await hours('?chosen=1&on=c15')
  expect(Number.parseInt(few.replace(/\D/g, ''), 10)).toBeGreaterThan(0)
  expect(few).not.toBe(all)
  expect(await hours('?chosen=1')).toMatch(/Nothing is on/)
  expect(await hours('?chosen=1&on=none&on=<script>')).toMatch(/Nothing is on/)
})

test('a question is kept and shown again; another site, a wrong day and a link that is withdrawn are refused', async () => {
  expect((await said({ act: 'ask', text: 'May it <b>freeze</b>?' })).status).toBe(200)
  expect((await shown()).html).toContain('May it &lt;b&gt;freeze&lt;/b&gt;?')
  expect((await said({ act: 'ask', text: 'x' }, 'http://elsewhere.test')).status).toBe(403)
  const wrong = await said({ act: 'outage', on: '2026-02-31', hours: 3, carried: 'all of it', text: '' })
  expect([wrong.status, await wrong.text()]).toEqual([400, expect.stringMatching(/"path":"on"/)])
  const [link] = await listLinks(actor, jobId, now, 'house')
  await withdrawLink(actor, jobId, link?.id ?? '', now)
  expect((await said({ act: 'ask', text: 'x' })).status).toBe(404)
  const gone = await shown('', 'es')
  expect([gone.status, gone.html]).toEqual([404, expect.stringContaining('no lleva a ninguna parte')])
})

test('the card with its code, and the pack once there is one', async () => {
  const at = (path: string) =>
    new Request(`http://here.test/api/house/${token}/${path}`, { headers: { host: 'here.test' } })
  const paper = await card.GET(at('card?language=es'), params())
  expect(
    Buffer.from(await paper.arrayBuffer())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
  expect((await pack.GET(at('pack'), params())).status).toBe(404)
  expect((await shown()).html).not.toContain('/pack"')
  await makePack(actor, (await transaction(actor, trx => putPack(trx, actor, jobId, now), always)) ?? '')
  expect((await pack.GET(at('pack'), params())).headers.get('content-type')).toBe('application/pdf')
  expect((await shown()).html).toContain('/pack"')
})
