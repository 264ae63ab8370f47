import { dueOf } from '@/core/handover/due'
import { calendarOf } from '@/server/calendar'
import { handle, refuse } from '@/server/http/handle'
import { type JobParams, jobOf } from '../../params'

/** What is due of a house, for a calendar. */
export const GET = handle(async (_request, { params }: JobParams) => {
  const { job, fileName } = await jobOf(params)
  const due = dueOf(job)
  if (!due.length)
    return refuse(409, 'Nothing is due yet: write down the day on which the house was handed over.')
  return new Response(calendarOf({ id: (await params).id, title: job.title }, due, new Date()), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename="${fileName}.ics"`,
    },
  })
})
