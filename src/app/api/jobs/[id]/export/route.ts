import { NextResponse } from 'next/server'
import { handle } from '@/server/http/handle'
import { type JobParams, jobOf } from '../../params'

/** The job document as a file, the same bytes as `bin/spillway export`. */
export const GET = handle(async (_request, { params }: JobParams) => {
  const { job, fileName } = await jobOf(params)
  return new NextResponse(`${JSON.stringify(job, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${fileName}.spillway.json"`,
    },
  })
})
