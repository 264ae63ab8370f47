import { NextResponse } from 'next/server'
import { panelSvg } from '@/core/formats/panel-svg'
import { handle } from '@/server/http/handle'
import { type JobParams, jobOf, panelAsked } from '../../params'

/** A panel as SVG, to be saved. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName } = await jobOf(params)
  return new NextResponse(panelSvg(panelAsked(job, request)), {
    headers: {
      'content-type': 'image/svg+xml; charset=utf-8',
      'content-disposition': `attachment; filename="${fileName}-panel.svg"`,
    },
  })
})
