import { NextResponse } from 'next/server'
import * as z from 'zod'
import { dayIn } from '@/core/day'
import { may } from '@/core/firm/roles'
import { fetchedCsv, orderCsv } from '@/core/formats/order-csv'
import { hoursCsv, toolsCsv } from '@/core/formats/work-csv'
import { partsOfJob } from '@/core/work/parts'
import { freeOf, orderOf } from '@/core/work/parts/order'
import { workOfJob } from '@/core/work/parts/tasks'
import { handle } from '@/server/http/handle'
import { pricesOf, readWays, stockFor } from '@/server/parts/repository'
import { orderPdf } from '@/server/pdf/order'
import { currentActor } from '@/server/people/actor'
import { type JobParams, jobOf } from '../../params'

const formats = z.enum(['csv', 'pdf']).catch('pdf')
const lists = z.enum(['order', 'hours', 'tools']).catch('order')

/** What is to be ordered for a job, less what the firm has free, as a table or on paper with tools and hours. */
export const GET = handle(async (request, { params }: JobParams) => {
  const { job, fileName, revision } = await jobOf(params)
  const actor = await currentActor()
  const parts = partsOfJob(job)
  const keys = parts.map(p => p.key)
  const [prices, { stock, others }, { minutes }] = await Promise.all([
    pricesOf(actor, keys),
    stockFor(actor, (await params).id, keys),
    readWays(actor),
  ])
  const priced = may(actor.role, 'money')
  const order = orderOf([parts], prices, freeOf(stock, others))
  const format = formats.parse(new URL(request.url).searchParams.get('format'))
  const list = lists.parse(new URL(request.url).searchParams.get('list'))
  const table = {
    order: () => (priced ? orderCsv : fetchedCsv)(order),
    hours: () => hoursCsv(workOfJob(job, minutes)),
    tools: () => toolsCsv(workOfJob(job, minutes)),
  }[list]
  const made =
    format === 'csv'
      ? table()
      : new Uint8Array(
          await orderPdf(job, order, minutes, priced, {
            firm: actor.firm,
            revision,
            on: dayIn(actor.zone, new Date()),
          }),
        )
  return new NextResponse(made, {
    headers: {
      'content-type': format === 'csv' ? 'text/csv; charset=utf-8' : 'application/pdf',
      'content-disposition': `attachment; filename="${fileName}-${format === 'csv' ? list : 'order'}.${format}"`,
    },
  })
})
