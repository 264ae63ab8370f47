import { NextResponse } from 'next/server'
import { dayIn } from '@/core/day'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import { standing } from '@/core/job/as-planned'
import { handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { houseAsked, type JobParams, jobOf } from '../../params'

/** The one-line diagram as SVG, to be saved. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName, revision } = await jobOf(params)
  const { firm, zone } = await currentActor()
  const svg = oneLineSvg(houseAsked(request) === 'found' ? standing(job) : job, {
    firm,
    revision,
    on: dayIn(zone, new Date()),
  })
  return new NextResponse(`<?xml version="1.0" encoding="UTF-8"?>\n${svg}`, {
    headers: {
      'content-type': 'image/svg+xml; charset=utf-8',
      'content-disposition': `attachment; filename="${fileName}-one-line.svg"`,
    },
  })
})
