import * as z from 'zod'
import type { Job } from '@/core/job/schema'
import { gone } from '@/server/http/handle'
import { readJobRecord } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'

export interface JobParams {
  params: Promise<{ id: string }>
}

/** The job of the address, and the name its files begin with; refused when this firm has none. */
export async function jobOf(params: JobParams['params']): Promise<{ job: Job; fileName: string }> {
  const { id } = await params
  const record = z.uuid().safeParse(id).success ? await readJobRecord(await currentActor(), id) : null
  if (!record) return gone()
  const { job } = record
  const fileName =
    job.title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'job'
  return { job, fileName }
}
