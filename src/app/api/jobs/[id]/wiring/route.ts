import { NextResponse } from 'next/server'
import * as z from 'zod'
import { dayIn } from '@/core/day'
import { csvOf } from '@/core/formats/cells'
import { wiringSvg } from '@/core/formats/wiring-svg'
import { wiringPlan } from '@/core/work/wiring'
import { scheduleOf } from '@/core/work/wiring/schedule'
import { handle } from '@/server/http/handle'
import { wiringPdf } from '@/server/pdf/wiring'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

const formats = z.enum(['svg', 'csv', 'pdf']).catch('pdf')

/** The wiring plan as a file: its drawing, its schedule as a table, or both on paper. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName, revision } = await jobOf(params)
  const format = formats.parse(new URL(request.url).searchParams.get('format'))
  const { firm, zone } = await currentActor()
  const plan = wiringPlan(job)
  const rows = scheduleOf(plan)
  const body = {
    svg: async () => `<?xml version="1.0" encoding="UTF-8"?>\n${wiringSvg(plan, job.title)}`,
    csv: async () => csvOf([Object.keys(rows[0] ?? {}), ...rows.map(r => Object.values(r))]),
    pdf: () => wiringPdf(job, { firm, revision, on: dayIn(zone, new Date()) }),
  }
  const type = { svg: 'image/svg+xml; charset=utf-8', csv: 'text/csv; charset=utf-8', pdf: 'application/pdf' }
  const made = await body[format]()
  return new NextResponse(typeof made === 'string' ? made : new Uint8Array(made), {
    headers: {
      'content-type': type[format],
      'content-disposition': `attachment; filename="${fileName}-wiring.${format}"`,
    },
  })
})
