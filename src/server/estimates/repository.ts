import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type * as z from 'zod'
import { endOfDay } from '@/core/day'
import { type Acceptance, acceptanceSchema, type acceptingSchema } from '@/core/estimate/acceptance'
import { documentSchema, documentText, type EstimateDocument, isFirm } from '@/core/estimate/document'
import { type Draft, draftSchema, emptyDraft } from '@/core/estimate/draft'
import type { EstimateShown, OfferState } from '@/core/estimate/shown'
import { db } from '../db/connection'
import { transaction } from '../db/transaction'
import { firmBehind } from '../db/whose'
import { note } from '../people/record'
import { settingsOf } from '../people/settings'
import type { Actor, Person } from '../people/types'

const sha256 = (bytes: string | Uint8Array) => createHash('sha256').update(bytes).digest('hex')

interface VersionRow {
  id: string
  firm_id: string
  estimate_id: string
  n: number
  document: string
  sha256: string
  sent_at: Date
  expires_at: Date
  seen_at: Date | null
  superseded_at: Date | null
  withdrawn_at: Date | null
  accepted_at: Date | null
  acceptance: string | null
}

/** What was accepted stays accepted; else the gravest of what happened to a version counts. */
function stateOf(row: VersionRow, now: Date): OfferState {
  if (row.accepted_at) return 'accepted'
  if (row.withdrawn_at) return 'withdrawn'
  if (row.superseded_at) return 'newer'
  return row.expires_at <= now ? 'expired' : 'open'
}

const frozen = (row: Pick<VersionRow, 'document'>) => documentSchema.parse(JSON.parse(row.document))
const acceptanceOf = ({ acceptance }: Pick<VersionRow, 'acceptance'>) =>
  acceptance === null ? null : acceptanceSchema.parse(JSON.parse(acceptance))

const columns = [
  'v.id',
  'v.firm_id',
  'v.estimate_id',
  'v.n',
  'v.document',
  'v.sha256',
  'v.sent_at',
  'v.expires_at',
  'v.seen_at',
  'v.superseded_at',
  'v.withdrawn_at',
  'v.accepted_at',
  'v.acceptance',
] as const

interface EstimateRow {
  id: string
  number: string | null
  draft: unknown
  draft_version: number
}

/** The estimate of a job with its versions, the newest first; an empty draft while there is none. */
export async function readEstimate({ firmId }: Actor, jobId: string, now: Date): Promise<EstimateShown> {
  const row: EstimateRow | undefined = await db({ firmId })('estimate')
    .where({ firm_id: firmId, job_id: jobId })
    .first()
  if (!row) {
    const { language } = (await settingsOf({ firmId })).settings
    const draft = language === 'en' ? emptyDraft : { ...emptyDraft, language }
    return { number: null, draft, draftVersion: 0, versions: [] }
  }
  const versions: (VersionRow & { by: string })[] = await db({ firmId })('estimate_version as v')
    .join('person as p', 'p.id', 'v.person_id')
    .where({ 'v.estimate_id': row.id, 'v.firm_id': firmId })
    .orderBy('v.n', 'desc')
    .limit(50)
    .select(...columns, { by: 'p.label' })
  const questions: { id: string; version_id: string; at: Date; text: string; settled_at: Date | null }[] =
    await db({ firmId })('estimate_question')
      .where({ firm_id: firmId })
      .whereIn(
        'version_id',
        versions.map(v => v.id),
      )
      .orderBy('at')
      .limit(200)
  const draft = draftSchema.safeParse(row.draft)
  return {
    number: row.number,
    draft: draft.success ? draft.data : emptyDraft,
    draftVersion: row.draft_version,
    versions: versions.map(v => ({
      n: v.n,
      document: frozen(v),
      sha256: v.sha256,
      sentAt: v.sent_at.toISOString(),
      by: v.by,
      expiresAt: v.expires_at.toISOString(),
      seenAt: v.seen_at?.toISOString() ?? null,
      state: stateOf(v, now),
      acceptance: acceptanceOf(v),
      questions: questions
        .filter(q => q.version_id === v.id)
        .map(q => ({ id: q.id, at: q.at.toISOString(), text: q.text, settled: q.settled_at !== null })),
    })),
  }
}

/** Writes the draft of a job's estimate. `stale` where somebody else did meanwhile, `gone` where there is no such job. */
export async function putDraft(
  { firmId }: Actor,
  jobId: string,
  draft: Draft,
  version: number,
): Promise<'written' | 'stale' | 'gone'> {
  return transaction<'written' | 'stale' | 'gone'>(
    { firmId },
    async trx => {
      const job = await trx('job').where({ id: jobId, firm_id: firmId }).forShare().first('id')
      if (!job) return 'gone'
      const facts = { draft: JSON.stringify(draft), draft_version: version + 1 }
      if (version === 0) {
        const made = await trx('estimate')
          .insert({ id: randomUUID(), firm_id: firmId, job_id: jobId, ...facts })
          .onConflict('job_id')
          .ignore()
          .returning('id')
        if (made.length) return 'written'
      }
      const written = await trx('estimate')
        .where({ firm_id: firmId, job_id: jobId, draft_version: version })
        .update(facts)
      return written ? 'written' : 'stale'
    },
    outcome => outcome === 'written',
  )
}

/** What a version is frozen of, once its number and place in the row are known. */
export interface Freezing {
  number: string
  version: number
  /** the option that was accepted last, where one was: a change of it is a change order */
  accepted: { document: EstimateDocument; acceptance: Acceptance } | null
}

/**
 * Freezes a version and makes the link by which the customer reads it: 256 random bits, of which only a hash is kept. What was sent before and is
 * not accepted gives way to it. `make` writes document and paper; it runs within the transaction, so that number and version are its own.
 */
export async function sendEstimate<F>(
  actor: Person,
  jobId: string,
  draftVersion: number,
  numberPrefix: string,
  now: Date,
  make: (facts: Freezing) => Promise<{ document: EstimateDocument; pdf: Uint8Array } | F>,
): Promise<{ token: string; n: number } | { refused: F } | 'stale' | 'gone'> {
  const token = randomBytes(32).toString('base64url')
  return transaction<{ token: string; n: number } | { refused: F } | 'stale' | 'gone'>(
    actor,
    async trx => {
      const row: EstimateRow | undefined = await trx('estimate')
        .where({ firm_id: actor.firmId, job_id: jobId })
        .forUpdate()
        .first()
      if (!row) return 'gone'
      if (row.draft_version !== draftVersion) return 'stale'
      // who accepts meanwhile waits, and is told that there is a newer one
      const before: VersionRow[] = await trx('estimate_version as v')
        .where({ 'v.estimate_id': row.id })
        .orderBy('v.n', 'desc')
        .forUpdate()
        .select(...columns)
      const last = before.find(v => v.accepted_at)
      const acceptance = last && acceptanceOf(last)
      const n = (before[0]?.n ?? 0) + 1
      const number = row.number ?? (await nextNumber(trx, actor.firmId, numberPrefix))
      const made = await make({
        number,
        version: n,
        accepted: last && acceptance ? { document: frozen(last), acceptance } : null,
      })
      if (!isMade(made)) return { refused: made }
      const text = documentText(documentSchema.parse(made.document))
      await trx('estimate_version').insert({
        id: randomUUID(),
        firm_id: actor.firmId,
        estimate_id: row.id,
        n,
        document: text,
        sha256: sha256(text),
        pdf: Buffer.from(made.pdf),
        pdf_sha256: sha256(made.pdf),
        token_hash: sha256(token),
        person_id: actor.personId,
        sent_at: now,
        expires_at: endOfDay(actor.zone, made.document.validUntil),
      })
      await trx('estimate_version')
        .where({ estimate_id: row.id })
        .where('n', '<', n)
        .whereNull('accepted_at')
        .whereNull('superseded_at')
        .update({ superseded_at: now })
      await trx('estimate').where({ id: row.id }).update({ number })
      await note(actor, 'estimate sent', { what: `${number}, version ${n}`, of: made.document.title }, trx)
      return { token, n }
    },
    outcome => typeof outcome === 'object' && 'token' in outcome,
  )
}

const isMade = <F>(
  made: { document: EstimateDocument; pdf: Uint8Array } | F,
): made is { document: EstimateDocument; pdf: Uint8Array } =>
  typeof made === 'object' && made !== null && 'document' in made && 'pdf' in made

async function nextNumber(trx: Knex, firmId: string, prefix: string): Promise<string> {
  const [row] = await trx('firm')
    .where({ id: firmId })
    .increment('estimates_made', 1)
    .returning('estimates_made')
  return `${prefix}${String(row?.estimates_made ?? 1).padStart(4, '0')}`
}

/** A new link to a version, in place of the one before: for who lost it. Null where there is no such version, or it is withdrawn. */
export async function relinkEstimate({ firmId }: Actor, jobId: string, n: number): Promise<string | null> {
  const token = randomBytes(32).toString('base64url')
  const count = await db({ firmId })('estimate_version')
    .where({ firm_id: firmId, n })
    .whereIn('estimate_id', db({ firmId })('estimate').where({ firm_id: firmId, job_id: jobId }).select('id'))
    .whereNull('withdrawn_at')
    .update({ token_hash: sha256(token) })
  return count ? token : null
}

/** Withdraws a version that is not accepted; false where there is none. */
export async function withdrawEstimate(
  { firmId }: Actor,
  jobId: string,
  n: number,
  now: Date,
): Promise<boolean> {
  const count = await db({ firmId })('estimate_version')
    .where({ firm_id: firmId, n })
    .whereIn('estimate_id', db({ firmId })('estimate').where({ firm_id: firmId, job_id: jobId }).select('id'))
    .whereNull('accepted_at')
    .whereNull('withdrawn_at')
    .update({ withdrawn_at: now })
  return count > 0
}

export async function settleQuestion({ firmId }: Actor, id: string, now: Date): Promise<boolean> {
  const count = await db({ firmId })('estimate_question')
    .where({ firm_id: firmId, id })
    .update({ settled_at: now })
  return count > 0
}

/** The paper of a version as it was frozen; null where there is none. */
export async function paperOf({ firmId }: Actor, jobId: string, n: number): Promise<Buffer | null> {
  const row = await db({ firmId })('estimate_version as v')
    .join('estimate as e', 'e.id', 'v.estimate_id')
    .where({ 'e.job_id': jobId, 'v.firm_id': firmId, 'v.n': n })
    .first('v.pdf')
  return row?.pdf ?? null
}

/** An offer as its link opens it. */
export interface Offer {
  id: string
  firmId: string
  document: EstimateDocument
  sha256: string
  state: OfferState
  acceptance: Acceptance | null
  questions: { at: string; text: string }[]
}

const tokenForm = /^[\w-]{43}$/
const rowOf = (at: Knex, token: string): Promise<VersionRow | undefined> =>
  at('estimate_version as v')
    .where('v.token_hash', sha256(token))
    .first(...columns)

/** The offer behind a token, whatever became of it; null for one that never was. */
export async function openOffer(token: string, now: Date): Promise<Offer | null> {
  if (!tokenForm.test(token)) return null
  const firm = await firmBehind('estimate_version', sha256(token))
  const row = firm && (await rowOf(db(firm), token))
  if (!row) return null
  if (!row.seen_at) await db(firm)('estimate_version').where({ id: row.id }).update({ seen_at: now })
  const questions = await db(firm)('estimate_question')
    .where({ version_id: row.id })
    .orderBy('at')
    .select('at', 'text')
  return {
    id: row.id,
    firmId: row.firm_id,
    document: frozen(row),
    sha256: row.sha256,
    state: stateOf(row, now),
    acceptance: acceptanceOf(row),
    questions: questions.map(q => ({ at: q.at.toISOString(), text: q.text })),
  }
}

/** The paper of an offer as it was frozen. */
export async function offerPaper(token: string): Promise<Buffer | null> {
  if (!tokenForm.test(token)) return null
  const firm = await firmBehind('estimate_version', sha256(token))
  if (!firm) return null
  const row = await db(firm)('estimate_version')
    .where({ token_hash: sha256(token) })
    .whereNull('withdrawn_at')
    .first('pdf')
  return row?.pdf ?? null
}

export type Accepted =
  | { state: 'accepted'; acceptance: Acceptance }
  /** it was accepted before, by whoever came first */
  | { state: 'taken'; acceptance: Acceptance }
  | { state: 'closed'; why: OfferState }
  | { state: 'no option' | 'a range' | 'gone' }

/** Accepts one option of an offer: of two at once one wins, and the other is told what stands. */
export async function acceptOffer(
  token: string,
  { option: optionId, name, signature, typed }: z.infer<typeof acceptingSchema>,
  now: Date,
): Promise<Accepted> {
  if (!tokenForm.test(token)) return { state: 'gone' }
  const firm = await firmBehind('estimate_version', sha256(token))
  if (!firm) return { state: 'gone' }
  return transaction<Accepted>(
    firm,
    async trx => {
      const row: VersionRow | undefined = await trx('estimate_version as v')
        .where('v.token_hash', sha256(token))
        .forUpdate()
        .first(...columns)
      if (!row) return { state: 'gone' }
      const was = acceptanceOf(row)
      if (was) return { state: 'taken', acceptance: was }
      const state = stateOf(row, now)
      if (state !== 'open') return { state: 'closed', why: state }
      const document = frozen(row)
      const option = document.options.find(o => o.id === optionId)
      if (!option) return { state: 'no option' }
      if (!isFirm(option)) return { state: 'a range' }
      const acceptance: Acceptance = {
        format: 1,
        number: document.number,
        version: document.version,
        documentSha256: row.sha256,
        option: { id: option.id, name: option.name, total: option.total },
        name,
        at: now.toISOString(),
        signature,
        ...(typed && { typed }),
      }
      const text = JSON.stringify(acceptanceSchema.parse(acceptance))
      await trx('estimate_version')
        .where({ id: row.id })
        .update({ accepted_at: now, acceptance: text, acceptance_sha256: sha256(text) })
      const customer = { ...firm, personId: '', label: name, role: 'customer' }
      await note(
        customer,
        'accepted',
        { what: `${document.number}, ${option.name}`, of: document.title },
        trx,
      )
      return { state: 'accepted', acceptance }
    },
    outcome => outcome.state === 'accepted',
  )
}

/** Questions that one offer takes. */
export const mostQuestions = 30

/** Keeps a customer's question; `enough` where the offer has taken as many as it may. */
export async function askAbout(token: string, text: string, now: Date): Promise<'asked' | 'enough' | 'gone'> {
  if (!tokenForm.test(token)) return 'gone'
  const firm = await firmBehind('estimate_version', sha256(token))
  if (!firm) return 'gone'
  return transaction<'asked' | 'enough' | 'gone'>(
    firm,
    async trx => {
      const row = await trx('estimate_version')
        .where({ token_hash: sha256(token) })
        .whereNull('withdrawn_at')
        .forUpdate()
        .first('id', 'firm_id')
      if (!row) return 'gone'
      const [count] = await trx('estimate_question').where({ version_id: row.id }).count({ count: '*' })
      if (Number(count?.count ?? 0) >= mostQuestions) return 'enough'
      await trx('estimate_question').insert({
        id: randomUUID(),
        firm_id: row.firm_id,
        version_id: row.id,
        at: now,
        text,
      })
      return 'asked'
    },
    outcome => outcome === 'asked',
  )
}
