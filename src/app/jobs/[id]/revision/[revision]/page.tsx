import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import * as z from 'zod'
import { forPage } from '@/server/http/handle'
import { jobAt } from '@/server/jobs/history'
import { JobSheet } from '@/ui/print/JobSheet'
import { PrintBar } from '@/ui/print/PrintBar'
import { loadJob } from '../../load'

export const metadata: Metadata = { title: 'As it stood' }

/** A job as it stood at one of its revisions. */
export default async function RevisionPage({
  params,
}: {
  params: Promise<{ id: string; revision: string }>
}) {
  const { id, revision } = await params
  const { record, actor, today } = await loadJob(id)
  const wanted = z.coerce.number().int().min(1).safeParse(revision)
  const job = wanted.success ? await forPage(() => jobAt(actor, record.id, wanted.data)) : null
  if (!job || !wanted.success) notFound()
  return (
    <>
      <PrintBar jobId={record.id} />
      <JobSheet
        job={job}
        revision={wanted.data}
        printedOn={today}
        firm={actor.firm}
        authority={actor.person.authority}
      />
    </>
  )
}
