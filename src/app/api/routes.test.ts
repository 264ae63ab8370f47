import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { usualTerms } from '@/core/estimate/terms'
import { usualLabour } from '@/core/hookup/labour'
import { closeDb, DatabaseAway } from '@/server/db/connection'
import { closeLive } from '@/server/jobs/live'
import { createJob } from '@/server/jobs/repository'
import { testFirm } from '@/server/people/test-firm'
import type { Actor } from '@/server/people/types'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import * as equipmentExport from './equipment/export/route'
import * as equipment from './equipment/route'
import * as file from './files/[fileId]/route'
import * as link from './for/[token]/route'
import * as houseCard from './house/[token]/card/route'
import * as housePack from './house/[token]/pack/route'
import * as house from './house/[token]/route'
import * as archive from './jobs/[id]/archive/route'
import * as calendar from './jobs/[id]/calendar/route'
import * as card from './jobs/[id]/card/route'
import * as changes from './jobs/[id]/changes/route'
import * as directory from './jobs/[id]/directory/route'
import * as drawing from './jobs/[id]/drawing/route'
import * as duplicate from './jobs/[id]/duplicate/route'
import * as estimatePaper from './jobs/[id]/estimate/pdf/route'
import * as estimate from './jobs/[id]/estimate/route'
import * as jobExport from './jobs/[id]/export/route'
import * as houseWords from './jobs/[id]/house/route'
import * as intervals from './jobs/[id]/interval-data/route'
import * as links from './jobs/[id]/links/route'
import * as live from './jobs/[id]/live/route'
import * as logs from './jobs/[id]/logs/route'
import * as oneLine from './jobs/[id]/one-line/route'
import * as order from './jobs/[id]/order/route'
import * as pack from './jobs/[id]/packs/[n]/route'
import * as packs from './jobs/[id]/packs/route'
import * as jobParts from './jobs/[id]/parts/route'
import * as photos from './jobs/[id]/photos/route'
import * as job from './jobs/[id]/route'
import * as search from './jobs/[id]/search/route'
import * as meter from './jobs/[id]/simulated-meter/route'
import * as template from './jobs/[id]/template/route'
import * as wiring from './jobs/[id]/wiring/route'
import * as jobImport from './jobs/import/route'
import * as jobs from './jobs/route'
import * as labour from './labour/route'
import * as loads from './loads/route'
import * as minutes from './minutes/route'
import * as offerPaper from './offer/[token]/pdf/route'
import * as offer from './offer/[token]/route'
import * as photo from './photos/[photoId]/route'
import * as prices from './prices/route'
import * as solver from './solver/route'
import * as terms from './terms/route'

let acting: () => Promise<Actor>
jest.mock('@/server/people/actor', () => ({ currentActor: () => acting() }))
// who is let in where is looked at in route-rights.test.ts
jest.mock('@/server/people/admission', () => ({ admit: (_: Request, work: () => unknown) => work() }))

type Handler = (request: Request, context: never) => Promise<Response>
interface Door {
  /** its address, where `:job` stands for a job of the firm */
  at: string
  route: { GET?: Handler; POST?: Handler }
  /** what is sent; a door without it is read */
  sends?: unknown
  /** what cannot be taken in its place, and how that is told: the status and the words */
  cannot?: [sent: unknown, status: number, words: RegExp][]
  /** the answer to what is good, as text */
  says: RegExp
  /** more of the address than the job */
  params?: Record<string, string>
}

const someone = randomUUID()
const step = { id: randomUUID(), kind: 'do', operation: { op: 'setOutage', facts: { hours: 31 } } }
const csv = 'time,watts\n2026-01-01 00:00,100\n'
const notJson: [unknown, number, RegExp] = ['{"half', 400, /not whole JSON/]

const ofJob: Door[] = [
  { at: '/jobs/:job', route: job, says: /"revision":1/ },
  {
    at: '/jobs/:job/changes',
    route: changes,
    sends: { baseRevision: 1, changes: [step] },
    cannot: [
      notJson,
      [{ baseRevision: 1, changes: [] }, 400, /changes/],
      [{ baseRevision: 9, changes: [step] }, 409, /Someone else/],
    ],
    says: /"hours":31/,
  },
  {
    at: '/jobs/:job/archive',
    route: archive,
    sends: { archived: true },
    cannot: [notJson, [{ archived: 'yes' }, 400, /archived/]],
    says: /true/,
  },
  { at: '/jobs/:job/duplicate', route: duplicate, sends: {}, says: /"id"/ },
  { at: '/jobs/:job/template', route: template, sends: {}, says: /"id"/ },
  { at: '/jobs/:job/export', route: jobExport, says: /"formatVersion"/ },
  { at: '/jobs/:job/directory', route: directory, says: /position/i },
  { at: '/jobs/:job/drawing', route: drawing, says: /<svg/ },
  { at: '/jobs/:job/one-line', route: oneLine, says: /<svg/ },
  { at: '/jobs/:job/wiring?format=svg', route: wiring, says: /<svg[\s\S]*Riffle 6/ },
  { at: '/jobs/:job/wiring?format=csv', route: wiring, says: /^id,mark,function/ },
  { at: '/jobs/:job/wiring', route: wiring, says: /^%PDF-1/ },
  { at: '/jobs/:job/order?format=csv', route: order, says: /^part,name,unit,needed/ },
  { at: '/jobs/:job/order?format=csv&list=hours', route: order, says: /^work,how many,minutes,people/ },
  {
    at: '/jobs/:job/order?format=csv&list=tools',
    route: order,
    says: /^tool,for\r\n.*\r\n[\s\S]*to be worn/,
  },
  { at: '/jobs/:job/order', route: order, says: /^%PDF-1/ },
  { at: '/jobs/:job/parts', route: { GET: jobParts.GET }, says: /"minutes":\[\]/ },
  {
    at: '/jobs/:job/parts',
    route: { POST: jobParts.POST },
    sends: { act: 'reserve' },
    cannot: [
      notJson,
      [{ act: 'price', price: { part: 'x', quantity: 0 } }, 400, /quantity/],
      [{ act: 'count', key: 'twist-small', was: 7, count: 8 }, 409, /nothing stands there now/],
      [{ act: 'minutes', minutes: [], version: 9 }, 409, /Somebody else changed the firm/],
    ],
    says: /"own":\{\}/,
  },
  { at: '/jobs/:job/estimate', route: { GET: estimate.GET }, says: /"draftVersion":0.*"terms"/ },
  {
    at: '/jobs/:job/estimate',
    route: { POST: estimate.POST },
    sends: {
      act: 'draft',
      version: 0,
      draft: { taxPlace: '', intro: '', options: [{ id: 'a', name: 'One', from: { kind: 'design' } }] },
    },
    cannot: [
      notJson,
      [{ act: 'send', version: 9, revision: 1 }, 409, /Somebody else changed this estimate/],
      [{ act: 'send', version: 1, revision: 8 }, 409, /The job changed meanwhile/],
      [
        { act: 'draft', version: 0, draft: { taxPlace: '', intro: '', options: [1, 2, 3, 4] } },
        400,
        /options/,
      ],
      [{ act: 'withdraw', n: 1 }, 409, /withdrawn or accepted already/],
      [{ act: 'relink', n: 1 }, 404, /no such version/],
      [{ act: 'settle', questionId: someone }, 404, /no such question/],
    ],
    says: /"basis":"wiring plan".*"sentence":"Keeps/,
  },
  { at: '/jobs/:job/estimate/pdf?n=4', route: estimatePaper, says: /no such version/ },
  { at: '/jobs/:job/estimate/pdf', route: estimatePaper, says: /^%PDF-1|cannot be printed/ },
  {
    at: '/jobs/:job/links',
    route: links,
    sends: { do: 'make' },
    cannot: [
      notJson,
      [{ do: 'steal' }, 400, /do/],
      [{ do: 'withdraw', linkId: someone }, 404, /no such link/],
    ],
    says: /"token"/,
  },
  { at: '/jobs/:job/links?kind=house', route: { GET: links.GET }, says: /"links":\[\]/ },
  {
    at: '/jobs/:job/card',
    route: card,
    says: /^<!doctype html><html lang="en">[\s\S]*When the power is out/,
  },
  { at: '/jobs/:job/card?language=es&format=pdf', route: card, says: /^%PDF-1/ },
  { at: '/jobs/:job/calendar', route: calendar, says: /Nothing is due yet/ },
  { at: '/jobs/:job/house', route: { GET: houseWords.GET }, says: /"words":\[\]/ },
  {
    at: '/jobs/:job/house',
    route: { POST: houseWords.POST },
    sends: { settle: someone },
    cannot: [notJson, [{ settle: 'x' }, 400, /settle/]],
    says: /no such word/,
  },
  { at: '/jobs/:job/packs', route: { GET: packs.GET }, says: /"packs":\[\]/ },
  { at: '/jobs/:job/packs/1', route: { GET: pack.GET }, params: { n: '1' }, says: /no such pack/ },
  {
    at: '/jobs/:job/packs/1',
    route: { POST: pack.POST },
    params: { n: '1' },
    sends: { as: 'customer', name: 'A. Customer', signature: [], typed: true },
    cannot: [
      notJson,
      [{ as: 'customer', name: 'A. Customer', signature: [[[5, 5]]] }, 400, /too little to be one/],
      [{ as: 'nobody', name: 'A', signature: [] }, 400, /as/],
    ],
    says: /no such pack/,
  },
  {
    at: '/jobs/:job/logs?name=fridge.csv',
    route: logs,
    sends: Buffer.from(csv),
    cannot: [[Buffer.from('%PDF-1.7'), 415, /PDF|table|text/i]],
    says: /"id"/,
  },
  {
    at: '/jobs/:job/photos',
    route: photos,
    sends: Buffer.alloc(0),
    cannot: [[Buffer.from('%PDF-1.7'), 415, /PDF/]],
    says: /"width":40/,
  },
  {
    at: '/jobs/:job/search',
    route: search,
    sends: { act: 'cancel' },
    cannot: [notJson, [{ act: 'start' }, 400, /wishes/]],
    says: /null/,
  },
  { at: '/jobs/:job/interval-data', route: intervals, says: /"series":\[\]/ },
  {
    at: `/jobs/:job/simulated-meter?circuit=none&load=none&hours=1&stepS=60&speed=0`,
    route: meter,
    says: /no longer in the job/,
  },
]
const ofFirm: Door[] = [
  { at: '/prices', route: { GET: prices.GET }, says: /^part,name,quantity,price/ },
  {
    at: '/prices',
    route: { POST: prices.POST },
    sends: { text: 'part,quantity,price,date\nx,1,2,2026-01-01\ny,1,€ 2,2026-01-01' },
    cannot: [notJson, [{ text: 'a,b\n1,2' }, 422, /row 1, part, quantity, price, date/]],
    says: /"taken":1.*another money/,
  },
  { at: '/jobs?q=alder', route: jobs, says: /Alder/ },
  {
    at: '/jobs',
    route: { POST: jobs.POST },
    sends: { title: 'Mill', place: '', spaces: 20, mainA: 100 },
    cannot: [
      notJson,
      [{ title: '', place: '', spaces: 7, mainA: 1 }, 400, /title.*spaces.*mainA/],
      [{ title: 'Mill', place: '', spaces: 20, mainA: 100, directory: '99 20 x' }, 400, /no space 99/],
    ],
    says: /"id"/,
  },
  {
    at: '/jobs/import',
    route: jobImport,
    sends: alderHollow,
    cannot: [[{ formatVersion: 99 }, 400, /formatVersion/]],
    says: /"id"/,
  },
  { at: '/minutes', route: minutes, says: /"learned":\[\]/ },
  {
    at: '/labour',
    route: labour,
    sends: { labour: usualLabour, version: 0 },
    cannot: [notJson, [{ labour: usualLabour, version: 9 }, 409, /Somebody else/]],
    says: /"version":1/,
  },
  { at: '/terms', route: { GET: terms.GET }, says: /"labourUsdPerHour":95/ },
  {
    at: '/terms',
    route: { POST: terms.POST },
    sends: { terms: usualTerms, version: 0 },
    cannot: [
      notJson,
      [{ terms: usualTerms, version: 9 }, 409, /Somebody else/],
      [{ terms: { ...usualTerms, contingencyFraction: 2 }, version: 0 }, 400, /contingencyFraction/],
    ],
    says: /"version":1/,
  },
  {
    at: '/offer/none',
    route: offer,
    params: { token: 'none' },
    sends: { act: 'ask', text: 'May it stand outside?' },
    cannot: [
      notJson,
      [{ act: 'ask', text: 'x'.repeat(10_000) }, 400, /at most 2,000 characters/],
      [
        { act: 'accept', option: 'a', name: 'A. Customer', signature: [[[5, 5]]] },
        400,
        /too little to be one/,
      ],
      [{ act: 'accept', option: 'a', name: '', signature: [], typed: true }, 400, /name/],
    ],
    says: /This link is no estimate/,
  },
  { at: '/offer/none/pdf', route: offerPaper, params: { token: 'none' }, says: /This link is no estimate/ },
  {
    at: '/house/none',
    route: house,
    params: { token: 'none' },
    sends: { act: 'ask', text: 'May it stand outside?' },
    cannot: [
      notJson,
      [{ act: 'ask', text: 'x'.repeat(10_000) }, 400, /at most 2,000 characters/],
      [{ act: 'outage', on: 'soon', hours: 900, carried: 'maybe', text: '' }, 400, /on.*hours.*carried/],
    ],
    says: /leads nowhere/,
  },
  { at: '/house/none/card', route: houseCard, params: { token: 'none' }, says: /leads nowhere/ },
  { at: '/house/none/pack', route: housePack, params: { token: 'none' }, says: /leads nowhere/ },
  { at: '/loads', route: loads, says: /"loads"/ },
  {
    at: '/loads',
    route: { POST: loads.POST },
    sends: { act: 'drop', id: 'none', version: 0 },
    cannot: [notJson, [{ act: 'put', typical: {}, version: 0 }, 400, /typical/]],
    says: /meanwhile|"loads"/,
  },
  {
    at: '/equipment',
    route: { POST: equipment.POST },
    sends: { act: 'import', format: 'json', text: '[]' },
    cannot: [
      notJson,
      [{ act: 'import', format: 'csv', text: 'a,b\n1,2' }, 422, /put these right/],
      [{ act: 'retire', id: 'none', from: 1 }, 404, /no longer/],
      [{ act: 'stock', key: 'none', was: null, count: 1 }, 404, /no longer/],
    ],
    says: /"equipment"|put these right/,
  },
  { at: '/equipment', route: { GET: equipment.GET }, says: /"equipment":\[\]/ },
  { at: '/equipment/export', route: equipmentExport, says: /id/ },
  { at: '/files/x', route: file, params: { fileId: someone }, says: /not kept here/ },
  { at: '/photos/x', route: photo, params: { photoId: 'no id' }, says: /not kept here/ },
  { at: '/solver', route: solver, says: /asm/ },
]
const doors = [...ofJob, ...ofFirm].map(
  door => [`${door.sends === undefined ? 'GET' : 'POST'} ${door.at}`, door] as const,
)
const doorsOfJob = ofJob.map(door => [door.at, door] as const)

let own: Actor
let other: Actor
let jobId: string
beforeAll(async () => {
  const picture = sharp({ create: { width: 40, height: 30, channels: 3, background: '#887766' } })
  const door = ofJob.find(d => d.route === photos)
  if (door) door.sends = await picture.png().toBuffer()
})
beforeEach(async () => {
  ;[own, other] = [await testFirm(), await testFirm()]
  jobId = await createJob(own, alderHollow, 'opened', new Date())
  acting = async () => ({ ...own, firm: 'Test firm' })
})
afterAll(closeDb)

const here = { origin: 'http://here.test', host: 'here.test' }
/** The answer of a door: its status, its words, and whether anything was kept of it on the way. */
async function through(door: Door, { sends = door.sends, headers = here, id = jobId }: Sent = {}) {
  const url = `http://here.test/api${door.at.replace(':job', id)}`
  const bytes = Buffer.isBuffer(sends)
  const body = bytes || typeof sends === 'string' ? sends : JSON.stringify(sends)
  const kind = { 'content-type': bytes ? 'application/octet-stream' : 'application/json' }
  const request =
    sends === undefined
      ? new Request(url)
      : new Request(url, { method: 'POST', headers: { ...kind, ...headers }, body: body as BodyInit })
  const handler = sends === undefined ? door.route.GET : door.route.POST
  const response = await (handler as Handler)(request, {
    params: Promise.resolve({ id, ...door.params }),
  } as never)
  return {
    status: response.status,
    words: await response.text(),
    kept: response.headers.get('cache-control'),
  }
}
interface Sent {
  sends?: unknown
  headers?: Record<string, string>
  id?: string
}

test.each(doors)('%s answers what is good, and tells what is not', async (_, door) => {
  const good = await through(door)
  expect(good.words).toMatch(door.says)
  expect(good.status).toBeLessThan(500)
  if (door.route !== solver) expect(good.kept).toBe('no-store')
  for (const [sends, status, words] of door.cannot ?? []) {
    const bad = await through(door, { sends })
    expect([bad.status, bad.words]).toEqual([status, expect.stringMatching(words)])
  }
})

test.each(doorsOfJob)('%s opens for its own firm alone; what is no id is no job', async (_, door) => {
  expect(await through(door, { id: 'no-id' })).toMatchObject({ status: 404 })
  expect(await through(door, { id: someone })).toMatchObject({ status: 404 })
  acting = async () => other
  expect(await through(door)).toMatchObject({ status: 404, words: expect.stringMatching(/no such job/) })
})

test.each(doors)('%s says that the database is away, and takes no write of another site', async (_, door) => {
  if (door.sends !== undefined) {
    const elsewhere = { origin: 'http://elsewhere.test', host: 'here.test' }
    expect(await through(door, { headers: elsewhere })).toMatchObject({ status: 403 })
    const huge = { ...here, 'content-length': '999999999' }
    if (door.route !== duplicate && door.route !== template)
      expect(await through(door, { headers: huge })).toMatchObject({ status: 413 })
  }
  if (door.route === solver || door.route === photo || /^\/(offer|house)/.test(door.at)) return
  acting = () => Promise.reject(new DatabaseAway('away'))
  expect(await through(door)).toMatchObject({
    status: 503,
    words: expect.stringMatching(/nothing was written/),
  })
})

test('a technician reads what is to be fetched without a price, counts it, and sets neither prices nor minutes', async () => {
  const price = {
    part: 'twist-small',
    name: 'x',
    quantity: 50,
    priceUsd: 7.77,
    supplier: 'Depot',
    substitutes: [],
    on: '2026-01-01',
  }
  const parts = (sends?: unknown) =>
    through(
      { at: '/jobs/:job/parts', route: sends ? { POST: jobParts.POST } : { GET: jobParts.GET }, says: /./ },
      { sends },
    )
  const paper = () => through({ at: '/jobs/:job/order?format=csv', route: order, says: /./ })
  expect((await parts({ act: 'price', price })).status).toBe(200)
  expect((await parts()).words).toMatch(/7\.77/)
  expect((await paper()).words).toMatch(/price each.*[\s\S]*Depot/)
  acting = async () => ({ ...own, firm: 'Test firm', role: 'technician' })
  for (const answer of [await parts(), await paper(), await parts({ act: 'reserve' })]) {
    expect(answer.status).toBe(200)
    expect(answer.words).not.toMatch(/7\.77|Depot|price each/)
  }
  for (const sends of [
    { act: 'price', price: { ...price, priceUsd: 1 } },
    { act: 'minutes', minutes: [], version: 0 },
    { act: 'habits', habits: {}, version: 0 },
  ])
    expect(await parts(sends)).toMatchObject({
      status: 403,
      words: expect.stringMatching(/takes an owner or designer/),
    })
})

test('a firm without equipment takes the example over once, as a whole', async () => {
  const door = { at: '/equipment', route: { POST: equipment.POST }, says: /./, sends: { act: 'example' } }
  expect(JSON.parse((await through(door)).words).equipment.length).toBeGreaterThan(25)
  expect(await through(door)).toMatchObject({
    status: 409,
    words: expect.stringMatching(/has equipment already/),
  })
})

test('who may read a job hears of its writes; nobody else, and not what is no job', async () => {
  const gone = new AbortController()
  const heard = (id: string) =>
    live.GET(new Request(`http://here.test/api/jobs/${id}/live`, { signal: gone.signal }), {
      params: Promise.resolve({ id }),
    })
  const answer = await heard(jobId)
  expect(answer.headers.get('content-type')).toBe('text/event-stream')
  const first = await answer.body?.getReader().read()
  expect(new TextDecoder().decode(first?.value)).toMatch(/^data: \d+\n\n$/)
  gone.abort()
  expect((await heard('no-id')).status).toBe(404)
  acting = async () => other
  expect((await heard(jobId)).status).toBe(404)
  await closeLive()
})

test('a token that nobody made opens nothing', async () => {
  const door: Door = { at: '/for/x', route: link as Door['route'], params: { token: 'x' }, says: /./ }
  expect(await through(door)).toMatchObject({ status: 404 })
  expect(await through({ ...door, sends: { key: 'photo:wall', unknown: true } })).toMatchObject({
    status: 404,
  })
})
