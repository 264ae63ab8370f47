import { randomUUID } from 'node:crypto'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import type { Knex } from 'knex'
import { dayIn } from '@/core/day'
import { db, PicturesAway } from '../db/connection'
import type { Actor } from '../people/types'
import { bucket } from './bucket'
import type { Encoded } from './intake'
import { fetched } from './moving'
import { needRoom } from './quota'

type Firm = Pick<Actor, 'firmId'>

/**
 * Keeps a photograph's bytes in the database, with what else is written; the same id twice is kept once. Where there is a bucket, a worker
 * moves the picture there later (moving.ts): nobody waits for it.
 */
export async function savePhoto(
  { firmId }: Firm,
  jobId: string,
  { picture, thumbnail }: Pick<Encoded, 'picture' | 'thumbnail'>,
  at: Date,
  id: string = randomUUID(),
  trx: Knex = db({ firmId }),
): Promise<string> {
  await needRoom(trx, firmId, jobId, picture.length + thumbnail.length)
  await trx('photo')
    .insert({ firm_id: firmId, id, job_id: jobId, picture, thumbnail, at })
    .onConflict(['firm_id', 'id'])
    .ignore()
  return id
}

/** A photograph of the firm, whole or as a thumbnail; null when there is none. */
export async function readPhoto(
  { firmId }: Firm,
  id: string,
  size: 'picture' | 'thumbnail',
): Promise<Buffer | null> {
  const row = await db({ firmId })('photo').where({ firm_id: firmId, id }).first(size, 'id', 'picture_sha256')
  if (!row) return null
  if (row[size]) return row[size]
  const from = bucket()
  if (!from) throw new PicturesAway(`photograph ${id} stands in a bucket, and SPILLWAY_BUCKET names none`)
  return fetched(from, { firmId }, row)
}

/** A file's bytes as they are kept. */
export const packed = (content: Uint8Array): Promise<Buffer> => promisify(gzip)(content)

/** Keeps a file as it came, packed; answers its id. */
export async function saveFile(
  { firmId }: Firm,
  jobId: string,
  file: { name: string; kind: string; content: Uint8Array },
  at: Date,
  id: string = randomUUID(),
): Promise<string> {
  const { name, kind, content } = file
  return savePacked({ firmId }, jobId, { name, kind, packed: await packed(content) }, at, id)
}

/** Keeps a file that is packed already; answers its id. */
export async function savePacked(
  { firmId }: Firm,
  jobId: string,
  file: { name: string; kind: string; packed: Uint8Array },
  at: Date,
  id: string = randomUUID(),
  trx: Knex = db({ firmId }),
): Promise<string> {
  const { name, kind, packed: content } = file
  await needRoom(trx, firmId, jobId, content.length)
  await trx('job_file')
    .insert({ firm_id: firmId, id, job_id: jobId, name, kind, content, at })
    .onConflict(['firm_id', 'id'])
    .ignore()
  return id
}

/** Files of one kind that are kept with a job, newest first. */
export async function listFiles(
  { firmId }: Firm,
  jobId: string,
  kind: string,
  zone: string,
): Promise<{ id: string; name: string; on: string }[]> {
  const rows: { id: string; name: string; at: Date }[] = await db({ firmId })('job_file')
    .where({ firm_id: firmId, job_id: jobId, kind })
    .orderBy('at', 'desc')
    .limit(100)
    .select('id', 'name', 'at')
  return rows.map(({ id, name, at }) => ({ id, name, on: dayIn(zone, at) }))
}

export async function readFile(
  { firmId }: Firm,
  id: string,
): Promise<{ name: string; content: Buffer } | null> {
  const row = await db({ firmId })('job_file').where({ firm_id: firmId, id }).first('name', 'content')
  return row ? { name: row.name, content: await promisify(gunzip)(row.content) } : null
}
