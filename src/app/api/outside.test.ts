import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { askedOfCustomer } from '@/core/assess/sent'
import { closeDb, ownerDb } from '@/server/db/connection'
import { createJob, readJobRecord } from '@/server/jobs/repository'
import { listLinks, makeLink, withdrawLink } from '@/server/links/repository'
import { testFirm } from '@/server/people/test-firm'
import type { Actor } from '@/server/people/types'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { serviceToken } from '@/simulators/utility'
import * as file from './for/[token]/file/route'
import * as upload from './for/[token]/photo/route'
import * as thumbnail from './for/[token]/photos/[photoId]/route'
import * as link from './for/[token]/route'
import * as fetched from './jobs/[id]/interval-data/fetch/route'
import * as intervals from './jobs/[id]/interval-data/route'
import * as service from './simulators/utility/espi/1_1/resource/Batch/Subscription/[id]/route'

let acting: Actor
jest.mock('@/server/people/actor', () => ({
  currentActor: async () => ({ ...acting, zone: 'America/New_York' }),
}))
jest.mock('@/server/people/admission', () => ({ admit: (_: Request, work: () => unknown) => work() }))

type Handler = (request: Request, context: never) => Promise<Response>
const here = { origin: 'http://here.test', host: 'here.test' }
/** What a route answers to what is sent: JSON, or the bytes of a file. */
async function at(handler: unknown, params: object, sends?: unknown, query = '', headers: object = here) {
  const url = `http://here.test/api${query}`
  const body = Buffer.isBuffer(sends) ? sends : JSON.stringify(sends)
  const kind = Buffer.isBuffer(sends) ? 'application/octet-stream' : 'application/json'
  const request =
    sends === undefined
      ? new Request(url)
      : new Request(url, {
          method: 'POST',
          headers: { 'content-type': kind, ...headers },
          body: body as BodyInit,
        })
  const response = await (handler as Handler)(request, { params: Promise.resolve(params) } as never)
  const bytes = Buffer.from(await response.arrayBuffer())
  const words = bytes.toString()
  return { status: response.status, words, bytes, json: () => JSON.parse(words) }
}

let actor: Actor
let jobId: string
let token: string
let picture: Buffer
beforeAll(async () => {
  process.env.SPILLWAY_SECRET = 'a secret of this test, long enough to seal'
  picture = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#887766' } })
    .png()
    .toBuffer()
})
beforeEach(async () => {
  actor = await testFirm()
  jobId = await createJob(actor, alderHollow, 'opened', new Date())
  const made = await makeLink(actor, jobId, new Date())
  if (typeof made !== 'object') throw new Error('no link')
  ;({ token } = made)
})
afterAll(closeDb)
const [asked] = askedOfCustomer(alderHollow)
const key = asked?.key ?? ''
const forIt = `?request=${encodeURIComponent(key)}`
const jobNow = async () => {
  const kept = await readJobRecord(actor, jobId)
  if (!kept) throw new Error('no job')
  return kept.job
}

describe('the customer’s door', () => {
  test('shows what is asked and nothing else of the job; an answer stands there and in the job', async () => {
    const shown = await at(link.GET, { token })
    expect(Object.keys(shown.json())).toEqual(['asked'])
    expect(shown.words).not.toContain(alderHollow.panels[0]?.circuits[0]?.id ?? '-')
    const sent = await at(link.POST, { token }, { key, text: 'it hums at night' })
    expect(sent.status).toBe(200)
    expect(sent.words).toContain('it hums at night')
    expect((await jobNow()).requests.find(r => r.key === key)?.answer?.text).toBe('it hums at night')
  })

  test.each([
    ['nothing in it', {}, 400, /key/],
    ['an empty answer', { key }, 400, /fill in at least one field/],
    ['a figure that is none', { key, plate: { volts: 'lots' } }, 400, /volts/],
    ['more than is read', { key, text: 'x'.repeat(501) }, 400, /text/],
    ['what nobody asked', { key: 'photo:nothing', text: 'x' }, 409, /no longer asked for/],
  ])('%s is told, and the job stays as it was', async (_, sends, status, words) => {
    const before = await jobNow()
    expect(await at(link.POST, { token }, sends)).toMatchObject({
      status,
      words: expect.stringMatching(words),
    })
    expect(await jobNow()).toEqual(before)
  })

  test('a photograph is made anew, seen small by its sender alone, and is no file of another link', async () => {
    expect((await at(upload.POST, { token }, picture, forIt)).status).toBe(200)
    const [photo] = (await jobNow()).photos.filter(p => p.request === key)
    const small = await at(thumbnail.GET, { token, photoId: photo?.id })
    expect(await sharp(small.bytes).metadata()).toMatchObject({ format: 'jpeg' })
    expect(await at(thumbnail.GET, { token, photoId: randomUUID() })).toMatchObject({ status: 404 })
    const elsewhere = await createJob(actor, alderHollow, 'opened', new Date())
    const made = await makeLink(actor, elsewhere, new Date())
    const other = typeof made === 'object' ? made.token : ''
    expect(await at(thumbnail.GET, { token: other, photoId: photo?.id })).toMatchObject({ status: 404 })
  })

  test('the utility’s file is kept under its name; what is neither table nor feed is not', async () => {
    const table = Buffer.from('time,kWh\n2026-01-01 00:00,0.4\n')
    expect((await at(file.POST, { token }, table, `${forIt}&name=use.csv`)).status).toBe(200)
    expect((await jobNow()).requests.find(r => r.key === key)?.answer?.file).toMatchObject({
      name: 'use.csv',
      bytes: table.length,
    })
    const odd = Buffer.from([0, 1, 2, 255, 254, 0])
    expect(await at(file.POST, { token }, odd, forIt)).toMatchObject({ status: 415 })
    expect(await ownerDb()('job_file').where({ job_id: jobId })).toHaveLength(1)
  })

  test.each([
    ['photograph', upload.POST],
    ['file', file.POST],
  ])('a %s says what it is for, comes from this site, and has its limit', async (_, post) => {
    expect(await at(post, { token }, picture)).toMatchObject({
      status: 400,
      words: expect.stringMatching(/what it is for/),
    })
    const elsewhere = { ...here, origin: 'http://elsewhere.test' }
    expect(await at(post, { token }, picture, forIt, elsewhere)).toMatchObject({ status: 403 })
    const huge = { ...here, 'content-length': '999999999' }
    expect(await at(post, { token }, picture, forIt, huge)).toMatchObject({ status: 413 })
  })

  test('a link that was taken back opens nothing any more, in the same words everywhere', async () => {
    const [made] = await listLinks(actor, jobId, new Date())
    await withdrawLink(actor, jobId, made?.id ?? '', new Date())
    for (const answer of [
      await at(link.GET, { token }),
      await at(link.POST, { token }, { key, text: 'x' }),
      await at(upload.POST, { token }, picture, forIt),
      await at(file.POST, { token }, Buffer.from('a,b\n1,2\n'), forIt),
      await at(thumbnail.GET, { token, photoId: randomUUID() }),
    ])
      expect(answer).toMatchObject({ status: 404, words: expect.stringMatching(/no longer valid/) })
  })
})

test('a year is fetched from the utility and kept; where it does not answer that is said', async () => {
  const own = await testFirm()
  acting = own
  const id = await createJob(own, alderHollow, 'opened', new Date())
  const answer = jest.spyOn(global, 'fetch').mockImplementation((_, init) =>
    service.GET(new Request('http://here.test', { headers: init?.headers }), {
      params: Promise.resolve({ id: 'mill-street' }),
    }),
  )
  const kept = await at(fetched.POST, { id }, {})
  expect([kept.status, kept.json().meters[0].flow]).toEqual([200, 'forward'])
  const list = await at(intervals.GET, { id })
  expect(list.json().series).toHaveLength(1)
  answer.mockImplementation(async () => new Response('', { status: 503 }))
  expect(await at(fetched.POST, { id }, {})).toMatchObject({
    status: 502,
    words: expect.stringMatching(/answered 503/),
  })
  answer.mockRejectedValue(new TypeError('fetch failed'))
  expect((await at(fetched.POST, { id }, {})).words).toMatch(/cannot be reached/)
  expect(await at(fetched.POST, { id: jobId }, {})).toMatchObject({ status: 404 })
  answer.mockRestore()
})

test('the simulated utility gives a year to who brings the customer’s consent, to nobody else', async () => {
  const params = Promise.resolve({ id: randomUUID() })
  const asks = (authorization?: string) =>
    service.GET(new Request('http://here.test', { headers: authorization ? { authorization } : {} }), {
      params,
    })
  expect((await asks()).status).toBe(401)
  expect((await asks('Bearer guess')).status).toBe(401)
  const given = await asks(`Bearer ${serviceToken}`)
  const { value } = (await given.body?.getReader().read()) ?? {}
  expect(Buffer.from(value ?? []).toString()).toMatch(/^<\?xml[\s\S]*<feed/)
})
