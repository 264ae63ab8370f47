import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import type { Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { type Fault, fault } from '@/core/outcome'
import { db } from '../db/connection'
import { transaction } from '../db/transaction'
import { firmBehind } from '../db/whose'
import { changeWhateverStands, readJobRecord } from '../jobs/repository'
import { note } from '../people/record'
import { customerOf } from '../people/repository'
import type { Actor, Person } from '../people/types'

/** A customer's link as the firm sees it. The address itself is shown once, when it is made. */
export interface CustomerLink {
  id: string
  createdAt: string
  /** null: it lasts until it is withdrawn */
  expiresAt: string | null
  withdrawnAt: string | null
  seenAt: string | null
  by: string
  uploads: number
}

/** What a link leads to: the questions of a job, or the page of its house. */
export const linkKinds = ['ask', 'house'] as const
export type LinkKind = (typeof linkKinds)[number]

/** Where each leads, for the record. */
const whither: Record<LinkKind, string> = { ask: 'to what is asked', house: 'to the page of the house' }
const daysValid: Record<LinkKind, number | null> = { ask: 21, house: null }
/** What one link takes before a new one has to be made. */
export const linkTakes = { uploads: 60, answers: 300, bytes: 300_000_000 } as const
/** Links of a job that are valid at once: more are not made, so that each is listed and can be withdrawn. */
export const mostValidLinks = 20

/** Of a row that may last for ever. */
const unexpired = "coalesce(expires_at, 'infinity') > ?"

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

/**
 * Makes a link to a job's questions: 256 random bits, of which only a hash is kept. `gone` when there is no such job,
 * `enough` when as many are valid as may be.
 */
export async function makeLink(
  actor: Actor,
  jobId: string,
  now: Date,
  kind: LinkKind = 'ask',
): Promise<{ token: string } | 'gone' | 'enough'> {
  const token = randomBytes(32).toString('base64url')
  const days = daysValid[kind]
  return transaction<{ token: string } | 'gone' | 'enough'>(
    actor,
    async trx => {
      const job = await trx('job').where({ id: jobId, firm_id: actor.firmId }).forShare().first('title')
      if (!job) return 'gone'
      const [valid] = await trx('customer_link')
        .where({ job_id: jobId, firm_id: actor.firmId, kind })
        .whereNull('withdrawn_at')
        .whereRaw(unexpired, [now])
        .count({ count: '*' })
      if (Number(valid?.count ?? 0) >= mostValidLinks) return 'enough'
      await trx('customer_link').insert({
        id: randomUUID(),
        firm_id: actor.firmId,
        job_id: jobId,
        kind,
        token_hash: hashOf(token),
        person_id: actor.personId,
        created_at: now,
        expires_at: days === null ? null : new Date(now.getTime() + days * 86_400_000),
      })
      await note(actor, 'link made', { what: whither[kind], of: job.title }, trx)
      return { token }
    },
    outcome => typeof outcome === 'object',
  )
}

/** The links of a job: every valid one, then the last of the others, newest first. */
export async function listLinks(
  actor: Actor,
  jobId: string,
  now: Date,
  kind: LinkKind = 'ask',
): Promise<CustomerLink[]> {
  const rows = await db(actor)('customer_link as l')
    .join('person as p', 'p.id', 'l.person_id')
    .where({ 'l.job_id': jobId, 'l.firm_id': actor.firmId, 'l.kind': kind })
    .orderByRaw(`(l.withdrawn_at is null and ${unexpired}) desc, l.created_at desc`, [now])
    .limit(mostValidLinks * 2)
    .select('l.id', 'l.created_at', 'l.expires_at', 'l.withdrawn_at', 'l.seen_at', 'l.uploads', 'p.label')
  return rows.map(r => ({
    id: r.id,
    createdAt: r.created_at.toISOString(),
    expiresAt: r.expires_at?.toISOString() ?? null,
    withdrawnAt: r.withdrawn_at?.toISOString() ?? null,
    seenAt: r.seen_at?.toISOString() ?? null,
    by: r.label,
    uploads: r.uploads,
  }))
}

/** Withdraws a link at once; false when there is none to withdraw. */
export async function withdrawLink(actor: Actor, jobId: string, linkId: string, now: Date): Promise<boolean> {
  return transaction(
    actor,
    async trx => {
      const [row] = await trx('customer_link')
        .where({ id: linkId, job_id: jobId, firm_id: actor.firmId })
        .whereNull('withdrawn_at')
        .update({ withdrawn_at: now })
        .returning('kind')
      if (!row) return false
      const job = await trx('job').where({ id: jobId }).first('title')
      await note(actor, 'link withdrawn', { what: whither[row.kind as LinkKind], of: job.title }, trx)
      return true
    },
    done => done,
  )
}

/** What a link opens: its job, and the one who stands in the record for the customer. */
export interface Opened {
  linkId: string
  jobId: string
  firm: string
  customer: Person
  job: Job
  revision: number
  uploads: number
}

/** The job behind a token; null for one that is unknown, expired or withdrawn: none of them says which. */
export async function openLink(token: string, now: Date, kind: LinkKind = 'ask'): Promise<Opened | null> {
  if (!/^[\w-]{43}$/.test(token)) return null
  const behind = await firmBehind('customer_link', hashOf(token))
  if (!behind) return null
  const row = await db(behind)('customer_link as l')
    .join('firm as f', 'f.id', 'l.firm_id')
    .where({ 'l.token_hash': hashOf(token), 'l.kind': kind })
    .whereRaw(unexpired, [now])
    .whereNull('l.withdrawn_at')
    .first('l.id', 'l.firm_id', 'l.job_id', 'l.uploads', 'f.name')
  if (!row) return null
  const customer = await customerOf(row.firm_id)
  const record = await readJobRecord(customer, row.job_id)
  if (!record || record.archived) return null
  await db(behind)('customer_link').where({ id: row.id }).update({ seen_at: now })
  return {
    linkId: row.id,
    jobId: row.job_id,
    firm: row.name,
    customer,
    job: record.job,
    revision: record.revision,
    uploads: row.uploads,
  }
}

/**
 * Takes in what a customer sent, on top of whatever stands: it touches nothing that another could be editing. What is counted,
 * what is kept beside the job (`keep`) and the job itself are written together or not at all.
 */
export async function takeFromCustomer(
  { customer, jobId, linkId }: Opened,
  operations: (job: Job) => Operation[],
  now: Date,
  sent: { bytes: number; keep: (trx: Knex) => Promise<unknown> } | null,
): Promise<
  { state: 'written' | 'gone' | 'nothing' } | { state: 'refused'; faults: Fault[] } | { state: 'enough' }
> {
  const what = sent ? 'uploads' : 'answers'
  const enough = fault(what, 'are as many as this link takes')
  const outcome = await changeWhateverStands(customer, jobId, operations, now, async trx => {
    const counted = await trx('customer_link')
      .where({ id: linkId })
      .where(what, '<', linkTakes[what])
      .where('bytes', '<=', linkTakes.bytes - (sent?.bytes ?? 0))
      .increment(sent ? { uploads: 1, bytes: sent.bytes } : { answers: 1 })
    if (!counted) return [enough]
    await sent?.keep(trx)
    return []
  })
  return outcome.state === 'refused' && outcome.faults[0] === enough ? { state: 'enough' } : outcome
}
