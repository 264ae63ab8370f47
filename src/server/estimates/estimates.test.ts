import { createHash } from 'node:crypto'
import type { Draft } from '@/core/estimate/draft'
import type { Signature } from '@/core/estimate/signature'
import { usualTerms } from '@/core/estimate/terms'
import { offerHtml } from '@/core/formats/offer-html'
import { closeDb, ownerDb } from '../db/connection'
import { createJob, readJobRecord } from '../jobs/repository'
import { takePrices } from '../parts/repository'
import { estimatePdf } from '../pdf/estimate'
import { testFirm } from '../people/test-firm'
import type { Person } from '../people/types'
import { alderHollow } from '../seeds/jobs/alder-hollow'
import { pricesFor } from '../seeds/prices'
import { frozenOf } from './freeze'
import { optionsMade } from './made'
import {
  acceptOffer,
  askAbout,
  mostQuestions,
  offerPaper,
  openOffer,
  paperOf,
  putDraft,
  readEstimate,
  relinkEstimate,
  sendEstimate,
  settleQuestion,
  withdrawEstimate,
} from './repository'
import { putTerms, readTerms } from './terms'

afterAll(closeDb)

const now = new Date('2026-11-29T15:00:00Z')
const later = (days: number) => new Date(now.getTime() + days * 86_400_000)
const name: Signature = [
  [
    [0, 0],
    [300, 200],
  ],
]
const accepting = (option: string) => ({ option, name: 'A customer', signature: name })
/** The same job with two batteries more. */
const larger = {
  units: (alderHollow.source?.units ?? []).map(u => ({ ...u, expansionUnits: 3 })),
  arrangement: 'tied' as const,
  liveLeg: 'L1' as const,
}
const take = { op: 'adoptDesign' as const, name: 'Larger', source: larger, hookup: alderHollow.hookup }
const book = pricesFor([alderHollow])
const options = [
  { id: 'a', name: 'As it is', from: { kind: 'design' as const } },
  { id: 'b', name: 'Larger', from: { kind: 'found' as const, take } },
]

let firm: Person
let jobId: string
beforeEach(async () => {
  firm = await testFirm()
  await takePrices(firm, book)
  jobId = await createJob(firm, alderHollow, 'made', now)
})

/** Writes the draft and sends it. */
async function sent(
  chosen = options.slice(0, 1),
  at = now,
  meanwhile = () => {},
  facts: Pick<Draft, 'language'> = {},
) {
  const { draftVersion } = await readEstimate(firm, jobId, at)
  const draft = { ...facts, taxPlace: '', intro: '', options: chosen }
  await putDraft(firm, jobId, draft, draftVersion)
  const record = await readJobRecord(firm, jobId)
  if (!record) throw new Error('no job')
  const made = await optionsMade(firm, jobId, record.job, record.revision, draft, usualTerms)
  return sendEstimate(firm, jobId, draftVersion + 1, 'T-', at, async facts => {
    meanwhile()
    const document = frozenOf(
      record.job,
      { firm: 'Test firm', zone: firm.zone, at },
      draft,
      made.options,
      usualTerms,
      facts,
    )
    return document.ok
      ? { document: document.value, pdf: await estimatePdf(document.value) }
      : document.faults
  })
}
const tokenOf = async (...args: Parameters<typeof sent>) => {
  const done = await sent(...args)
  if (typeof done === 'string' || !('token' in done)) throw new Error(JSON.stringify(done))
  return done.token
}
/** A job that needs more than before: one wire and one position less would do as well. */
async function changedJob() {
  const { id, document } = await ownerDb()('job').where({ id: jobId }).first('id', 'document')
  const units = document.source.units.map((u: object) => ({ ...u, expansionUnits: 3 }))
  await ownerDb()('job')
    .where({ id })
    .update({
      document: JSON.stringify({ ...document, source: { ...document.source, units } }),
      revision: ownerDb().raw('revision + 1'),
    })
}

test('an estimate for a customer who reads Spanish is frozen in Spanish: promise, lines, our own texts; the firm’s stand as it wrote them', async () => {
  const token = await tokenOf(undefined, now, undefined, { language: 'es' })
  const offer = await openOffer(token, now)
  expect(offer?.document).toMatchObject({
    language: 'es',
    exclusions: expect.stringMatching(/^Reparación de paredes/),
    options: [
      {
        promise: { sentence: expect.stringMatching(/^Mantiene con corriente|^Todavía no/) },
        lines: expect.arrayContaining([expect.objectContaining({ name: 'Mano de obra' })]),
      },
    ],
  })
  const paper = await offerPaper(token)
  expect(paper?.subarray(0, 5).toString()).toBe('%PDF-')
  const again = await openOffer(await tokenOf(undefined, later(1)), later(1))
  expect(again?.document.language).toBeUndefined()
  expect(again?.document.exclusions).toBe(usualTerms.exclusions)
})

test('what was sent is frozen: document, paper and checksum stay as they are, whatever becomes of job and terms', async () => {
  const token = await tokenOf()
  const before = await openOffer(token, now)
  const paper = await offerPaper(token)
  await changedJob()
  await putTerms(firm, { ...usualTerms, labourUsdPerHour: 500 }, 0)
  const after = await openOffer(token, later(1))
  expect(after?.document).toEqual(before?.document)
  expect((await offerPaper(token))?.equals(paper as Buffer)).toBe(true)
  const row = await ownerDb()('estimate_version')
    .where({ firm_id: firm.firmId })
    .first('document', 'sha256', 'pdf', 'pdf_sha256')
  expect(createHash('sha256').update(row.document).digest('hex')).toBe(row.sha256)
  expect(createHash('sha256').update(row.pdf).digest('hex')).toBe(row.pdf_sha256)
  expect(paper?.subarray(0, 5).toString()).toBe('%PDF-')
  // the same document is the same paper, made again
  expect((await estimatePdf(before?.document as never)).equals(paper as Buffer)).toBe(true)
})

test('numbers count up by firm, and are given when it is sent', async () => {
  expect((await readEstimate(firm, jobId, now)).number).toBeNull()
  await tokenOf()
  expect((await readEstimate(firm, jobId, now)).number).toBe('T-0001')
  jobId = await createJob(firm, alderHollow, 'made', now)
  await tokenOf()
  expect((await readEstimate(firm, jobId, now)).number).toBe('T-0002')
})

test('of two that accept at once one wins, and the other is told what stands', async () => {
  const token = await tokenOf(options)
  const both = await Promise.all([
    acceptOffer(token, accepting('a'), now),
    acceptOffer(token, accepting('b'), now),
  ])
  expect(both.map(b => b.state).sort()).toEqual(['accepted', 'taken'])
  const [won, lost] = both[0]?.state === 'accepted' ? both : [...both].reverse()
  if (won?.state !== 'accepted' || lost?.state !== 'taken') throw new Error('not so')
  expect(lost.acceptance).toEqual(won.acceptance)
  const row = await ownerDb()('estimate_version')
    .where({ firm_id: firm.firmId })
    .first('acceptance', 'acceptance_sha256', 'sha256')
  expect(createHash('sha256').update(row.acceptance).digest('hex')).toBe(row.acceptance_sha256)
  expect(JSON.parse(row.acceptance).documentSha256).toBe(row.sha256)
  expect((await openOffer(token, later(400)))?.state).toBe('accepted')
})

test('what is accepted while a newer version is sent does not stand beside it', async () => {
  const token = await tokenOf()
  await changedJob()
  let accepted: ReturnType<typeof acceptOffer> | undefined
  await sent(options.slice(0, 1), later(1), () => {
    accepted = acceptOffer(token, accepting('a'), later(1))
  })
  expect(await accepted).toEqual({ state: 'closed', why: 'newer' })
  const { versions } = await readEstimate(firm, jobId, later(1))
  expect(versions.map(v => v.state)).toEqual(['open', 'newer'])
})

test('it cannot be accepted after its day, after a newer version, once withdrawn, or for an option that it has not', async () => {
  const first = await tokenOf()
  expect(await acceptOffer(first, accepting('zzz'), now)).toEqual({ state: 'no option' })
  // valid to the end of its last day in the firm’s zone
  expect((await openOffer(first, new Date('2026-12-30T04:59:00Z')))?.state).toBe('open')
  expect(await acceptOffer(first, accepting('a'), new Date('2026-12-30T05:01:00Z'))).toEqual({
    state: 'closed',
    why: 'expired',
  })
  const second = await tokenOf(options)
  expect(await acceptOffer(first, accepting('a'), now)).toEqual({ state: 'closed', why: 'newer' })
  expect(await withdrawEstimate(firm, jobId, 2, now)).toBe(true)
  expect(await acceptOffer(second, accepting('a'), now)).toEqual({ state: 'closed', why: 'withdrawn' })
  expect(await offerPaper(second)).toBeNull()
  expect(await acceptOffer('x'.repeat(43), accepting('a'), now)).toEqual({ state: 'gone' })
  expect(await acceptOffer('short', accepting('a'), now)).toEqual({ state: 'gone' })
})

test('after an acceptance a change is a change order with its difference, accepted the same way; without a change there is none', async () => {
  const first = await tokenOf()
  await acceptOffer(first, accepting('a'), now)
  expect(await sent()).toEqual({
    refused: [expect.objectContaining({ message: expect.stringMatching(/nothing to order otherwise/) })],
  })
  await changedJob()
  expect(await sent(options)).toEqual({
    refused: [expect.objectContaining({ message: expect.stringMatching(/a change order has one/) })],
  })
  const order = await tokenOf()
  const offer = await openOffer(order, now)
  const change = offer?.document.changeOf
  expect(change).toMatchObject({ version: 1, option: 'As it is', acceptedOn: '2026-11-29' })
  const [now_] = offer?.document.options ?? []
  const by = change?.lines.reduce((s, l) => s + (l.now?.low ?? 0) - (l.was?.low ?? 0), 0)
  expect(by).toBe((now_?.total.low ?? 0) - (change?.was.low ?? 0))
  expect((await acceptOffer(order, accepting('a'), now)).state).toBe('accepted')
  const { versions } = await readEstimate(firm, jobId, now)
  expect(versions.map(v => [v.n, v.state])).toEqual([
    [2, 'accepted'],
    [1, 'accepted'],
  ])
})

test('two who write the draft: the later one is told; a draft that moved is not sent', async () => {
  const draft = { taxPlace: '', intro: '', options: options.slice(0, 1) }
  const made = await Promise.all([putDraft(firm, jobId, draft, 0), putDraft(firm, jobId, draft, 0)])
  expect(made.sort()).toEqual(['stale', 'written'])
  expect(await sendEstimate(firm, jobId, 7, 'T-', now, async () => [])).toBe('stale')
  const other = await testFirm()
  expect(await putDraft(other, jobId, draft, 0)).toBe('gone')
  expect((await readEstimate(other, jobId, now)).versions).toEqual([])
  await tokenOf()
  expect(await paperOf(other, jobId, 1)).toBeNull()
  expect(await withdrawEstimate(other, jobId, 1, now)).toBe(false)
  expect(await relinkEstimate(other, jobId, 1)).toBeNull()
})

test('a new link takes the place of the one before', async () => {
  const lost = await tokenOf()
  const found = await relinkEstimate(firm, jobId, 1)
  expect(await openOffer(lost, now)).toBeNull()
  expect((await openOffer(found ?? '', now))?.state).toBe('open')
})

test('questions are kept, so many at most, and settled by the firm alone', async () => {
  const token = await tokenOf()
  expect(await askAbout(token, 'May it stand outside?', now)).toBe('asked')
  const [question] = (await readEstimate(firm, jobId, now)).versions[0]?.questions ?? []
  expect(question).toMatchObject({ text: 'May it stand outside?', settled: false })
  expect(await settleQuestion(await testFirm(), question?.id ?? '', now)).toBe(false)
  expect(await settleQuestion(firm, question?.id ?? '', now)).toBe(true)
  for (let n = 1; n < mostQuestions; n++) await askAbout(token, 'Again', now)
  expect(await askAbout(token, 'Once more', now)).toBe('enough')
})

test('the customer’s page escapes what was typed, works without a script, and offers nothing that cannot be accepted', async () => {
  const token = await tokenOf()
  await askAbout(token, '<script>alert(1)</script>', now)
  const offer = await openOffer(token, now)
  if (!offer) throw new Error('no offer')
  const page = offerHtml(offer.document, { ...offer, token })
  expect(page).not.toContain('<script>alert')
  expect(page.match(/<script src/g)).toHaveLength(1)
  expect(page).toMatch(/Keeps Boiler and circulators/)
  expect(page).toMatch(/must be settled before this is built/)
  expect(offerHtml(offer.document, { ...offer, state: 'expired', token })).not.toMatch(/id="accept"/)
  const [o] = offer.document.options
  if (!o) throw new Error('no option')
  const range = { ...offer.document, options: [{ ...o, total: { low: 100, high: 200 } }] }
  expect(offerHtml(range, { ...offer, token })).toMatch(
    /become a price that you can accept once we have seen your panel/,
  )
})

test('terms are the usual ones until a firm has its own, and are not overwritten by who read them before', async () => {
  expect(await readTerms(firm)).toEqual({ terms: usualTerms, version: 0 })
  expect(await putTerms(firm, { ...usualTerms, validDays: 10 }, 0)).toBe(true)
  expect(await putTerms(firm, usualTerms, 0)).toBe(false)
  expect((await readTerms(firm)).terms.validDays).toBe(10)
})
