import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { addEquipment } from '../catalogue/repository'
import { db } from '../db/connection'
import { createJob } from '../jobs/repository'
import type { Actor } from '../people/types'
import { takeIn } from '../photos/intake'
import { savePhoto } from '../photos/repository'
import { catalogue } from './catalogue'
import { demoJobs } from './jobs'

export const demoFirmSlug = 'headwater'
const clock = new Date('2026-02-16T15:00:00Z')

const designer: Actor = {
  firmId: '5a1de000-0000-4000-8000-0000000000f1',
  personId: '5a1de000-0000-4000-8000-0000000000d1',
  label: 'Designer',
  role: 'designer',
}
const technician = {
  ...designer,
  personId: '5a1de000-0000-4000-8000-0000000000e1',
  label: 'Field technician',
  role: 'technician',
}

/** The drawn photographs, by the id that the job document gives them. */
async function keepPhoto(jobId: string, photoId: string, at: Date) {
  const drawn = await readFile(join('src/server/seeds/photos', `${photoId}.jpg`))
  const taken = await takeIn(drawn)
  if (!taken.ok) throw new Error(`the drawn photograph ${photoId} cannot be read`)
  await savePhoto(designer, jobId, taken.value, at, photoId)
}

/** The demo firm, its catalogue and jobs, the same bits every time. Leaves what is already there as it is. */
export async function seedDemo(): Promise<boolean> {
  const there = await db()('firm').where({ slug: demoFirmSlug }).first('id')
  if (there) return false
  await db()('firm').insert({ id: designer.firmId, slug: demoFirmSlug, name: 'Headwater Electric' })
  await db()('person').insert(
    [designer, technician].map(p => ({ id: p.personId, firm_id: p.firmId, label: p.label, role: p.role })),
  )
  await addEquipment(designer, catalogue)
  for (const [i, { id, job }] of demoJobs.entries()) {
    const at = new Date(clock.getTime() - i * 86_400_000)
    await createJob(designer, job, 'opened from the demo', at, id)
    for (const photo of job.photos) await keepPhoto(id, photo.id, at)
  }
  return true
}
