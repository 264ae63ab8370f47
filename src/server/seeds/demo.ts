import { addEquipment } from '../catalogue/repository'
import { db } from '../db/connection'
import { createJob } from '../jobs/repository'
import type { Actor } from '../people/types'
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

/** The demo firm, its catalogue and jobs, the same bits every time. Leaves what is already there as it is. */
export async function seedDemo(): Promise<boolean> {
  const there = await db()('firm').where({ slug: demoFirmSlug }).first('id')
  if (there) return false
  await db()('firm').insert({ id: designer.firmId, slug: demoFirmSlug, name: 'Headwater Electric' })
  await db()('person').insert(
    [designer, technician].map(p => ({ id: p.personId, firm_id: p.firmId, label: p.label, role: p.role })),
  )
  await addEquipment(designer, catalogue)
  for (const [i, { id, job }] of demoJobs.entries())
    await createJob(designer, job, 'opened from the demo', new Date(clock.getTime() - i * 86_400_000), id)
  return true
}
