import type { Metadata } from 'next'
import { testList } from '@/core/commission'
import { PrintBar } from '@/ui/print/PrintBar'
import { TestRecord } from '@/ui/prove/TestRecord'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: `${record.job.title}, record of tests` }
}

/** The record of tests on paper, to be filled in, or filled. */
export default async function RecordPage({ params }: JobPageParams) {
  const { record, actor, today } = await loadJob((await params).id)
  return (
    <>
      <PrintBar
        jobId={record.id}
        back="tests"
        note="What is empty is read, written down, and typed in afterwards under Tests."
      />
      <TestRecord
        job={record.job}
        list={testList(record.job)}
        firm={actor.firm}
        revision={record.revision}
        printedOn={today}
      />
    </>
  )
}
