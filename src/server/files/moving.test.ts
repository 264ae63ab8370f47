import { createHash, randomUUID } from 'node:crypto'
import { bucketStandIn } from '@/simulators/bucket'
import { closeDb, db, ownerDb, PicturesAway, unbound } from '../db/connection'
import { createJob } from '../jobs/repository'
import { testFirm } from '../people/test-firm'
import type { Actor } from '../people/types'
import { fernbrook } from '../seeds/jobs'
import { bucket, pictureName } from './bucket'
import { afterDays, moveHome, moveOut, sweepBucket } from './moving'
import { quotas } from './quota'
import { readPhoto, savePhoto } from './repository'

let standIn: Awaited<ReturnType<typeof bucketStandIn>>
let firm: Actor
let jobId: string
const there = () => {
  const found = bucket()
  if (!found) throw new Error('no bucket')
  return found
}
beforeAll(async () => {
  standIn = await bucketStandIn()
})
beforeEach(async () => {
  process.env.SPILLWAY_BUCKET = standIn.url
  standIn.trouble.status = 0
  standIn.kept.clear()
  firm = await testFirm()
  jobId = await createJob(firm, fernbrook, 'opened', new Date())
})
afterAll(async () => {
  delete process.env.SPILLWAY_BUCKET
  await standIn.stop()
  await closeDb()
})

const picture = Buffer.alloc(60_000, 'a picture ')
const saved = (id: string = randomUUID()) =>
  savePhoto(firm, jobId, { picture, thumbnail: Buffer.from('small') }, new Date(), id)
const rowOf = (id: string) => ownerDb()('photo').where({ id }).first('picture', 'bytes')
const later = (days: number) => new Date(Date.now() + days * 86_400_000)

test('a photograph moves into the bucket whole, is read from there, and comes home again', async () => {
  const id = await saved()
  const { bytes } = await rowOf(id)
  expect(await moveOut(firm, there())).toBe(1)
  expect(await moveOut(firm, there())).toBe(0)
  // the quota counts it as before
  expect(await rowOf(id)).toEqual({ picture: null, bytes })
  expect(standIn.kept.get(pictureName(firm.firmId, id))).toEqual(picture)
  expect(await readPhoto(firm, id, 'picture')).toEqual(picture)
  expect(String(await readPhoto(firm, id, 'thumbnail'))).toBe('small')
  expect(await readPhoto(await testFirm(), id, 'picture')).toBeNull()
  expect(quotas.job).toBeGreaterThan(Number(bytes))
  expect(await moveHome(firm, there())).toBe(1)
  delete process.env.SPILLWAY_BUCKET
  expect(await readPhoto(firm, id, 'picture')).toEqual(picture)
})

test('while the bucket is away photographs are taken, small ones shown, and none is let go of', async () => {
  const moved = await saved()
  await moveOut(firm, there())
  const waits = await saved()
  for (const status of [500, 403]) {
    standIn.trouble.status = status
    await expect(moveOut(firm, there())).rejects.toThrow(PicturesAway)
    await expect(readPhoto(firm, moved, 'picture')).rejects.toThrow(PicturesAway)
  }
  expect(await readPhoto(firm, waits, 'picture')).toEqual(picture)
  expect(await readPhoto(firm, moved, 'thumbnail')).not.toBeNull()
  delete process.env.SPILLWAY_BUCKET
  await expect(readPhoto(firm, moved, 'picture')).rejects.toThrow(/names none/)
}, 20_000)

test('a wrong key opens nothing, and is told without the key', async () => {
  await saved()
  process.env.SPILLWAY_BUCKET = standIn.url.replace('this%2Bone', 'another')
  const failed = await moveOut(firm, there()).catch((error: Error) => error)
  expect(String(failed)).toMatch(/SignatureDoesNotMatch/)
  expect(String(failed)).not.toMatch(/nobody|another/)
})

test('what came back changed stays in the database; what was changed or lost in the bucket is never shown', async () => {
  const id = await saved()
  const half = { ...there(), get: async () => picture.subarray(0, 9) }
  await expect(moveOut(firm, half)).rejects.toThrow(/changed; it stays/)
  expect((await rowOf(id)).picture).toEqual(picture)
  await moveOut(firm, there())
  standIn.kept.set(pictureName(firm.firmId, id), Buffer.from('another'))
  await expect(readPhoto(firm, id, 'picture')).rejects.toThrow(/was changed/)
  standIn.kept.clear()
  await expect(moveHome(firm, there())).rejects.toThrow(/missing/)
  expect((await rowOf(id)).picture).toBeNull()
})

test('a picture leaves the bucket a week after its row, with a whole firm too; one that came back stays', async () => {
  const [gone, back] = [await saved(), await saved()]
  await moveOut(firm, there())
  await db(firm)('photo').delete()
  await saved(back)
  await moveOut(firm, there())
  await sweepBucket(later(afterDays - 1))
  expect(standIn.kept.size).toBe(2)
  await sweepBucket(later(afterDays + 1))
  expect([...standIn.kept.keys()]).toEqual([pictureName(firm.firmId, back)])
  await ownerDb()('job').where({ firm_id: firm.firmId }).delete()
  standIn.trouble.status = 500
  await expect(sweepBucket(later(afterDays + 1))).rejects.toThrow(PicturesAway)
  standIn.trouble.status = 0
  await sweepBucket(later(afterDays + 1))
  expect(standIn.kept.size).toBe(0)
  expect(gone).not.toBe(back)
  // the role of the servers neither reads nor writes what is to be swept but by these two
  await expect(
    unbound()('picture_gone').insert({ firm_id: gone, id: gone, at: new Date() }),
  ).rejects.toThrow()
}, 20_000)

test('a photograph that goes while it is being moved leaves nothing behind; without a bucket what is to be swept waits', async () => {
  const id = await saved()
  const cut = { ...there(), get: () => Promise.reject(new PicturesAway('cut')) }
  await expect(moveOut(firm, cut)).rejects.toThrow(PicturesAway)
  expect(standIn.kept.size).toBe(1)
  expect(await readPhoto(firm, id, 'picture')).toEqual(picture)
  await db(firm)('photo').delete()
  delete process.env.SPILLWAY_BUCKET
  expect(await sweepBucket(later(afterDays + 1))).toBe(0)
  process.env.SPILLWAY_BUCKET = standIn.url
  await sweepBucket(later(afterDays + 1))
  expect(standIn.kept.size).toBe(0)
  // one that never was on its way leaves no note
  const notes = () => ownerDb()('picture_gone').where({ firm_id: firm.firmId })
  await saved()
  await db(firm)('photo').delete()
  expect(await notes()).toEqual([])
})

test('the stand-in holds what is sent to the sum it is signed with', async () => {
  const sum = (of: string) => createHash('sha256').update(of).digest('hex')
  const url = new URL(standIn.url)
  const answer = await fetch(`http://${url.host}/house/x`, {
    method: 'PUT',
    body: 'one',
    headers: { 'x-amz-content-sha256': sum('other'), authorization: 'none' },
  })
  expect(answer.status).toBe(403)
})
