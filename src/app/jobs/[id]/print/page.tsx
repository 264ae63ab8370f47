import type { Metadata } from 'next'
import { JobSheet } from '@/ui/print/JobSheet'
import { PrintBar } from '@/ui/print/PrintBar'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: `${record.job.title}, sheet` }
}

export default async function PrintPage({ params }: JobPageParams) {
  const { record, actor, today } = await loadJob((await params).id)
  return (
    <>
      <PrintBar jobId={record.id} />
      <JobSheet
        job={record.job}
        revision={record.revision}
        printedOn={today}
        firm={actor.firm}
        authority={actor.person.authority}
      />
    </>
  )
}
