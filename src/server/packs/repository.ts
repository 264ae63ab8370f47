import { createHash, randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import * as z from 'zod'
import { dayIn } from '@/core/day'
import { moneyText } from '@/core/estimate/money'
import { headOf } from '@/core/estimate/words'
import {
  type Pack,
  packOf,
  packSchema,
  type SignedPack,
  type Signing,
  signingSchema,
} from '@/core/handover/pack'
import { readJob } from '@/core/job/read'
import { db, type OfFirm } from '../db/connection'
import { transaction } from '../db/transaction'
import { readEstimate } from '../estimates/repository'
import { readPhoto } from '../files/repository'
import { packPdf } from '../pdf/pack'
import { note } from '../people/record'
import { logoOf } from '../people/settings'
import type { Actor, Person } from '../people/types'

const sha256 = (bytes: string | Uint8Array) => createHash('sha256').update(bytes).digest('hex')

const signaturesSchema = z.array(signingSchema.safeExtend({ at: z.string().max(40) }))
const signedIn = (value: unknown): SignedPack[] => {
  const read = signaturesSchema.safeParse(value)
  return read.success ? read.data : []
}

/** The packs of a job, the newest first. */
export async function listPacks({ firmId }: Actor, jobId: string): Promise<Pack[]> {
  const rows = await db({ firmId })('pack as k')
    .join('person as p', 'p.id', 'k.person_id')
    .where({ 'k.firm_id': firmId, 'k.job_id': jobId })
    .orderBy('k.n', 'desc')
    .limit(20)
    .select(
      'k.id',
      'k.n',
      'k.revision',
      'k.state',
      'k.progress',
      'k.trouble',
      'k.asked_at',
      'k.document',
      'k.sha256',
      'k.pdf_sha256',
      'k.signatures',
      'p.label',
      db({ firmId }).raw('octet_length(k.pdf) as bytes'),
    )
  return rows.map(r => ({
    id: r.id,
    n: r.n,
    revision: r.revision,
    state: r.state,
    progress: r.progress,
    trouble: r.trouble,
    askedAt: r.asked_at.toISOString(),
    by: r.label,
    document: r.document === null ? null : packSchema.parse(JSON.parse(r.document)),
    sha256: r.sha256,
    pdfSha256: r.pdf_sha256,
    bytes: r.bytes,
    signatures: signedIn(r.signatures),
  }))
}

/** Puts a pack down to be made of the job as it stands now; null where there is no such job. */
export async function putPack(trx: Knex, actor: Actor, jobId: string, now: Date): Promise<string | null> {
  const job = await trx('job')
    .where({ id: jobId, firm_id: actor.firmId })
    .forUpdate()
    .first('document', 'revision')
  if (!job) return null
  const [last] = await trx('pack').where({ job_id: jobId }).max({ n: 'n' })
  const id = randomUUID()
  await trx('pack').insert({
    id,
    firm_id: actor.firmId,
    job_id: jobId,
    n: Number(last?.n ?? 0) + 1,
    person_id: actor.personId,
    asked_at: now,
    state: 'making',
    job: JSON.stringify(job.document),
    revision: job.revision,
  })
  return id
}

/** Makes a pack that was put down: all of it, or nothing. One that is made stays as it is. */
export async function makePack(firm: OfFirm, id: string): Promise<void> {
  const row = await db(firm)('pack as k')
    .join('firm as f', 'f.id', 'k.firm_id')
    .where({ 'k.id': id, 'k.state': 'making' })
    .first('k.*', 'f.name', 'f.zone')
  if (!row) return
  const read = readJob(row.job)
  if (!read.ok) throw new Error(`the job of pack ${id} cannot be read`)
  const job = read.value
  const actor: Actor = { firmId: row.firm_id, personId: row.person_id, label: '', role: '' }
  const { versions } = await readEstimate(actor, row.job_id, row.asked_at)
  const accepted = versions
    .flatMap(({ document, acceptance }) => (acceptance ? [{ document, acceptance }] : []))
    .reverse()
  const document = packOf(job, {
    n: row.n,
    firm: row.name,
    on: dayIn(row.zone, row.asked_at),
    revision: row.revision,
    jobSha256: sha256(JSON.stringify(job, null, 2)),
    estimates: accepted.map(({ document: d, acceptance: a }) => ({
      head: headOf(d),
      option: a.option.name,
      total: moneyText(a.option.total),
      by: a.name,
      at: a.at,
      sha256: a.documentSha256,
    })),
  })
  const pdf = await packPdf(job, document, {
    logo: await logoOf(firm),
    estimates: accepted,
    photo: photoId => readPhoto(actor, photoId, 'picture'),
    progress: async fraction => {
      await db(firm)('pack').where({ id, state: 'making' }).update({ progress: fraction })
    },
  })
  const text = JSON.stringify(packSchema.parse(document))
  await db(firm)('pack')
    .where({ id, state: 'making' })
    .update({
      state: 'made',
      progress: 1,
      job: null,
      document: text,
      sha256: sha256(text),
      pdf,
      pdf_sha256: sha256(pdf),
      made_at: new Date(),
    })
}

/** Says of a pack that it could not be made. */
export const failPack = async (firm: OfFirm, id: string, trouble: string): Promise<void> => {
  await db(firm)('pack').where({ id, state: 'making' }).update({ state: 'failed', trouble, job: null })
}

/** The paper of a pack, byte for byte as it was frozen; null where there is none. */
export async function packPaper(
  { firmId }: Pick<Actor, 'firmId'>,
  jobId: string,
  n: number,
): Promise<Buffer | null> {
  const row = await db({ firmId })('pack')
    .where({ firm_id: firmId, job_id: jobId, n, state: 'made' })
    .first('pdf')
  return row?.pdf ?? null
}

/** The newest pack that is made, by its number: what the page of the house gives. */
export async function newestPack({ firmId }: Pick<Actor, 'firmId'>, jobId: string): Promise<number | null> {
  const row = await db({ firmId })('pack')
    .where({ firm_id: firmId, job_id: jobId, state: 'made' })
    .max({ n: 'n' })
    .first()
  return row?.n ?? null
}

/** Signs a pack, once for the firm and once for the house; what is signed stays. */
export async function signPack(
  actor: Person,
  jobId: string,
  n: number,
  signing: Signing,
  now: Date,
): Promise<'signed' | 'taken' | 'gone'> {
  return transaction<'signed' | 'taken' | 'gone'>(
    actor,
    async trx => {
      const row = await trx('pack')
        .where({ firm_id: actor.firmId, job_id: jobId, n, state: 'made' })
        .forUpdate()
        .first('id', 'signatures')
      if (!row) return 'gone'
      const before = signedIn(row.signatures)
      if (before.some(s => s.as === signing.as)) return 'taken'
      await trx('pack')
        .where({ id: row.id })
        .update({ signatures: JSON.stringify([...before, { ...signing, at: now.toISOString() }]) })
      const as = signing.as === 'installer' ? 'the firm' : 'the house'
      await note(actor, 'signed', { what: `${n}`, for: as, name: signing.name }, trx)
      return 'signed'
    },
    outcome => outcome === 'signed',
  )
}
