import { NextResponse } from 'next/server'
import { directoryCsv } from '@/core/formats/directory'
import { handle } from '@/server/http/handle'
import { type JobParams, jobOf, panelAsked } from '../../params'

/** The panel directory as CSV; docs/job-format.md lists its columns. As found, where nothing else is asked: it is read back into the survey. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName } = await jobOf(params)
  return new NextResponse(directoryCsv(panelAsked(job, request, 'found')), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${fileName}-directory.csv"`,
    },
  })
})
