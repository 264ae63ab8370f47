import * as z from 'zod'
import { closeDb, db } from '@/server/db/connection'
import { migrate } from '@/server/db/migrate'
import { createJob, readJobRecord } from '@/server/jobs/repository'
import { listPeople } from '@/server/people/repository'
import { demoFirmSlug, seedDemo } from '@/server/seeds/demo'
import { badInput, complain, print } from './io'
import { readJobFile } from './job'

async function actor() {
  const [first] = await listPeople(demoFirmSlug)
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

/** Migrates and seeds: what bin/start and bin/test call before they serve. */
export const prepare = () =>
  withDatabase(async () => {
    const ran = await migrate(db())
    const seeded = await seedDemo()
    process.stdout.write(
      `database ready${ran.length ? `, migrated: ${ran.join(', ')}` : ''}${seeded ? ', demo data written' : ''}\n`,
    )
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
