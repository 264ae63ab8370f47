import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { VisitPaper } from '@/ui/handover/VisitPaper'
import { PrintBar } from '@/ui/print/PrintBar'
import { loadJob } from '../../load'

export const metadata: Metadata = { title: 'What a visit changed' }

interface Params {
  params: Promise<{ id: string; visit: string }>
}

/** Of a visit only what it changed, on paper. */
export default async function VisitPage({ params }: Params) {
  const { id, visit: visitId } = await params
  const { record, actor, today } = await loadJob(id)
  const visit = record.job.visits?.find(v => v.id === visitId)
  if (!visit) notFound()
  return (
    <>
      <PrintBar
        jobId={record.id}
        back="hand-over"
        note="Only what changed: these lines of the directory, their labels, and the card where it reads otherwise."
      />
      <VisitPaper
        job={record.job}
        visit={visit}
        firm={actor.firm}
        revision={record.revision}
        printedOn={today}
      />
    </>
  )
}
