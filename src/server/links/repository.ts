import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import type { Fault } from '@/core/outcome'
import { db } from '../db/connection'
import { changeJob, readJobRecord } from '../jobs/repository'
import { customerOf } from '../people/repository'
import type { Actor } from '../people/types'

/** A customer's link as the firm sees it. The address itself is shown once, when it is made. */
export interface CustomerLink {
  id: string
  createdAt: string
  expiresAt: string
  withdrawnAt: string | null
  seenAt: string | null
  by: string
  uploads: number
}

const daysValid = 21
/** Uploads that one link takes before a new one has to be made. */
export const mostUploads = 60

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

/** Makes a link to a job's questions: 256 random bits, of which only a hash is kept. Null when the job is gone. */
export async function makeLink(actor: Actor, jobId: string, now: Date): Promise<{ token: string } | null> {
  const job = await db()('job').where({ id: jobId, firm_id: actor.firmId }).first('id')
  if (!job) return null
  const token = randomBytes(32).toString('base64url')
  await db()('customer_link').insert({
    id: randomUUID(),
    firm_id: actor.firmId,
    job_id: jobId,
    token_hash: hashOf(token),
    person_id: actor.personId,
    created_at: now,
    expires_at: new Date(now.getTime() + daysValid * 86_400_000),
  })
  return { token }
}

/** The links of a job, newest first, at most 20. */
export async function listLinks(actor: Actor, jobId: string): Promise<CustomerLink[]> {
  const rows = await db()('customer_link as l')
    .join('person as p', 'p.id', 'l.person_id')
    .where({ 'l.job_id': jobId, 'l.firm_id': actor.firmId })
    .orderBy('l.created_at', 'desc')
    .limit(20)
    .select('l.id', 'l.created_at', 'l.expires_at', 'l.withdrawn_at', 'l.seen_at', 'l.uploads', 'p.label')
  return rows.map(r => ({
    id: r.id,
    createdAt: r.created_at.toISOString(),
    expiresAt: r.expires_at.toISOString(),
    withdrawnAt: r.withdrawn_at?.toISOString() ?? null,
    seenAt: r.seen_at?.toISOString() ?? null,
    by: r.label,
    uploads: r.uploads,
  }))
}

/** Withdraws a link at once; false when there is none to withdraw. */
export async function withdrawLink(actor: Actor, jobId: string, linkId: string, now: Date): Promise<boolean> {
  const count = await db()('customer_link')
    .where({ id: linkId, job_id: jobId, firm_id: actor.firmId })
    .whereNull('withdrawn_at')
    .update({ withdrawn_at: now })
  return count > 0
}

/** What a link opens: its job, and the one who stands in the record for the customer. */
export interface Opened {
  linkId: string
  jobId: string
  firm: string
  customer: Actor
  job: Job
  uploads: number
}

/** The job behind a token; null for one that is unknown, expired or withdrawn: none of them says which. */
export async function openLink(token: string, now: Date): Promise<Opened | null> {
  if (!/^[\w-]{43}$/.test(token)) return null
  const row = await db()('customer_link as l')
    .join('firm as f', 'f.id', 'l.firm_id')
    .where('l.token_hash', hashOf(token))
    .where('l.expires_at', '>', now)
    .whereNull('l.withdrawn_at')
    .first('l.id', 'l.firm_id', 'l.job_id', 'l.uploads', 'f.name')
  if (!row) return null
  const customer = await customerOf(row.firm_id)
  const record = await readJobRecord(customer, row.job_id)
  if (!record || record.archived) return null
  await db()('customer_link').where({ id: row.id }).update({ seen_at: now })
  return {
    linkId: row.id,
    jobId: row.job_id,
    firm: row.name,
    customer,
    job: record.job,
    uploads: row.uploads,
  }
}

/** Counts one upload against a link; false when it has taken as many as it may. */
export async function countUpload({ linkId }: Opened): Promise<boolean> {
  const count = await db()('customer_link')
    .where({ id: linkId })
    .where('uploads', '<', mostUploads)
    .increment('uploads', 1)
  return count > 0
}

/** Writes what a customer sent on top of whatever stands: it touches nothing that another could be editing. */
export async function writeAsCustomer(
  { customer, jobId }: Opened,
  operations: (job: Job) => Operation[],
  now: Date,
): Promise<Fault[]> {
  for (let tries = 0; tries < 8; tries++) {
    const record = await readJobRecord(customer, jobId)
    if (!record) return [{ path: '$', message: 'is gone' }]
    const changes = operations(record.job).map(operation => ({
      id: randomUUID(),
      kind: 'do' as const,
      operation,
    }))
    if (!changes.length) return []
    const outcome = await changeJob(customer, jobId, record.revision, changes, now)
    if (outcome.state === 'written') return []
    if (outcome.state === 'refused') return outcome.faults
    if (outcome.state === 'gone') return [{ path: '$', message: 'is gone' }]
  }
  throw new Error('the job was changed by others eight times in a row')
}
