import { NextResponse } from 'next/server'
import * as z from 'zod'
import { gone, handle } from '@/server/http/handle'
import { readJobRecord } from '@/server/jobs/repository'
import { currentActor } from '@/server/people/actor'
import type { JobParams } from '../../params'

/** The job document as a file, the same bytes as `bin/spillway export`. */
export const GET = handle(async (_request, { params }: JobParams) => {
  const { id } = await params
  const record = z.uuid().safeParse(id).success ? await readJobRecord(await currentActor(), id) : null
  if (!record) return gone()
  const name =
    record.job.title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'job'
  return new NextResponse(`${JSON.stringify(record.job, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${name}.spillway.json"`,
    },
  })
})
