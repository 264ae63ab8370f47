import { createHash } from 'node:crypto'
import { db, type OfFirm, unbound } from '../db/connection'
import { allFirms } from '../db/whose'
import { type Bucket, bucket, pictureName } from './bucket'

/** Days that a picture stays in the bucket after its row went: a restore to a point before finds it. */
export const afterDays = 7
const atOnce = 20

const own = (firm: OfFirm, id: string) => db(firm)('photo').where({ firm_id: firm.firmId, id })

export const sumOf = (content: Buffer) => createHash('sha256').update(content).digest('hex')

/**
 * Moves a firm's photographs from the database into the bucket, each whole: it stands there, and is read back with the same sum, before
 * the database lets go of it. What is cut off in between is done again. Answers how many.
 */
export async function moveOut(firm: OfFirm, to: Bucket): Promise<number> {
  for (let moved = 0; ; ) {
    const rows: { id: string; picture: Buffer }[] = await db(firm)('photo')
      .where({ firm_id: firm.firmId })
      .whereNotNull('picture')
      .orderBy('at')
      .limit(atOnce)
      .select('id', 'picture')
    if (!rows.length) return moved
    for (const { id, picture } of rows) {
      const name = pictureName(firm.firmId, id)
      const sum = sumOf(picture)
      // from now on it may stand there: if the row goes, the picture is swept too
      await own(firm, id).update({ picture_sha256: sum })
      await to.put(name, picture)
      const back = await to.get(name)
      if (!back || sumOf(back) !== sum)
        throw new Error(`photograph ${id} came back from the bucket changed; it stays in the database`)
      moved += await own(firm, id)
        .whereNotNull('picture')
        .update({ picture: null, picture_bytes: picture.length })
    }
  }
}

/** Brings a firm's photographs back into the database, for an installation that gives up its bucket. Answers how many. */
export async function moveHome(firm: OfFirm, from: Bucket): Promise<number> {
  for (let moved = 0; ; ) {
    const rows: { id: string; picture_sha256: string }[] = await db(firm)('photo')
      .where({ firm_id: firm.firmId })
      .whereNull('picture')
      .orderBy('at')
      .limit(atOnce)
      .select('id', 'picture_sha256')
    if (!rows.length) return moved
    for (const row of rows) {
      const picture = await fetched(from, firm, row)
      moved += await own(firm, row.id).update({ picture, picture_bytes: null })
    }
  }
}

/** A picture from the bucket, as it was put there. */
export async function fetched(
  from: Bucket,
  { firmId }: OfFirm,
  { id, picture_sha256 }: { id: string; picture_sha256: string },
): Promise<Buffer> {
  const picture = await from.get(pictureName(firmId, id))
  if (!picture) throw new Error(`photograph ${id} is missing from the bucket`)
  if (sumOf(picture) !== picture_sha256) throw new Error(`photograph ${id} was changed in the bucket`)
  return picture
}

/** Takes from the bucket what no row names since a week; without a bucket it waits for one. Answers how many. */
export async function sweepBucket(now: Date): Promise<number> {
  const from = bucket()
  if (!from) return 0
  const before = new Date(now.getTime() - afterDays * 86_400_000)
  for (let swept = 0; ; ) {
    const { rows }: { rows: { firm: string; photo: string }[] } = await unbound().raw(
      'select * from spillway_pictures_gone(?, ?)',
      [before, 500],
    )
    if (!rows.length) return swept
    for (const { firm, photo } of rows) {
      await from.drop(pictureName(firm, photo))
      await unbound().raw('select spillway_picture_swept(?, ?)', [firm, photo])
      swept++
    }
  }
}

/** Moves what every firm has, where there is a bucket. */
export async function moveAll(): Promise<number> {
  const to = bucket()
  let moved = 0
  if (to) for (const firm of await allFirms()) moved += await moveOut(firm, to)
  return moved
}
