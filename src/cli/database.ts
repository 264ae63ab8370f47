import * as z from 'zod'
import { plural } from '@/core/units/format'
import { needDatabase } from '@/server/db/aside'
import { closeDb, ownerDb } from '@/server/db/connection'
import { alone, migrate } from '@/server/db/migrate'
import { needAppRole } from '@/server/db/roles'
import { allFirms } from '@/server/db/whose'
import { setting } from '@/server/env'
import { bucket } from '@/server/files/bucket'
import { moveHome, moveOut } from '@/server/files/moving'
import { createJob, healJobs, readJobRecord } from '@/server/jobs/repository'
import { listPeople } from '@/server/people/repository'
import { servedFirm } from '@/server/people/types'
import { makeQueues } from '@/server/queue/boss'
import { seedDemo } from '@/server/seeds/demo'
import { badInput, complain, print } from './io'
import { readJobFile } from './job'

async function actor() {
  const [first] = await listPeople(servedFirm)
  if (!first) throw new Error('the database holds no firm: run bin/start once')
  return first
}

async function withDatabase(act: () => Promise<number>): Promise<number> {
  try {
    return await act()
  } finally {
    await closeDb()
  }
}

/** Brings the database up: makes it where there is none, migrates, heals, seeds; what bin/start and bin/test call before they serve. */
export const prepare = () =>
  withDatabase(async () => {
    const { aside } = await needDatabase(process.env.SPILLWAY_FRESH === 'yes', new Date())
    // of several servers that start at once one does it, and the others find it done
    const { ran, newer, healed, seeded } = await alone(async () => {
      const migrated = await migrate(ownerDb())
      await makeQueues()
      await needAppRole()
      return {
        ...migrated,
        healed: await healJobs(),
        seeded: setting('SPILLWAY_DEMO') ? await seedDemo() : null,
      }
    })
    const told = [
      'database ready',
      aside && `what was there is set aside as the database ${aside}`,
      ran.length && `migrated: ${ran.join(', ')}`,
      newer.length && `a newer release was here (${newer.join(', ')}): what it alone wrote is left as it is`,
      ...healed.map(
        h => `healed job ${h.jobId}: ${plural(h.rows, 'row')} of a change that was refused taken away`,
      ),
      seeded && `demo data ${seeded}`,
    ]
    process.stdout.write(`${told.filter(Boolean).join('; ')}\n`)
    return 0
  })

export const exportJob = (id: string) =>
  withDatabase(async () => {
    const record = z.uuid().safeParse(id).success ? await readJobRecord(await actor(), id) : null
    if (!record) return complain(`export: no job has the id ${id}`)
    print(record.job)
    return 0
  })

export const importJob = (file: string) =>
  withDatabase(async () => {
    const job = await readJobFile('import', file)
    if (!job) return badInput
    const id = await createJob(await actor(), job, 'imported from a file', new Date())
    process.stdout.write(`${id}\n`)
    return 0
  })

/** Moves every firm's photographs into the bucket, or home into the database: before a bucket is given up. */
export const movePhotographs = (where: 'out' | 'home') =>
  withDatabase(async () => {
    const beside = bucket()
    if (!beside) return complain('photographs: SPILLWAY_BUCKET names no bucket')
    let moved = 0
    for (const firm of await allFirms())
      moved += await (where === 'out' ? moveOut(firm, beside) : moveHome(firm, beside))
    print({ moved, where })
    return 0
  })
