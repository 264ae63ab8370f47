import { NextResponse } from 'next/server'
import { handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { note } from '@/server/people/record'
import { type JobParams, jobOf } from '../../params'

/** The job document as a file, the same bytes as `bin/spillway export`. */
export const GET = handle(async (_request, { params }: JobParams) => {
  const { job, fileName } = await jobOf(params)
  await note(await currentActor(), 'exported', { what: `the job ${job.title}` })
  return new NextResponse(`${JSON.stringify(job, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${fileName}.spillway.json"`,
    },
  })
})
