import type { Metadata } from 'next'
import { evaluate } from '@/core/assess/evaluate'
import { workOrder } from '@/core/order'
import { offText } from '@/core/order/words'
import { readWays } from '@/server/parts/repository'
import { Booklet } from '@/ui/field/Booklet'
import { PrintBar } from '@/ui/print/PrintBar'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: `${record.job.title}, work order` }
}

/** The work order as a booklet, for whoever leaves the phone in the truck. */
export default async function BookletPage({ params }: JobPageParams) {
  const { record, actor, today } = await loadJob((await params).id)
  const order = workOrder(record.job, (await readWays(actor)).minutes)
  const stops = evaluate(record.job).findings.filter(f => f.severity === 'stop')
  return (
    <>
      <PrintBar
        jobId={record.id}
        back="work"
        note="Typed in afterwards in one go: under Work order, From paper."
      />
      <Booklet
        job={record.job}
        order={order}
        lead={offText(order)}
        stops={stops.map(f => f.sentence)}
        firm={actor.firm}
        revision={record.revision}
        printedOn={today}
      />
    </>
  )
}
