import type { Metadata } from 'next'
import type { ReactNode } from 'react'
import { evaluate } from '@/core/assess/evaluate'
import { Workspace } from '@/ui/workspace/Workspace'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: record.job.title }
}

export default async function WorkspaceLayout({ params, children }: JobPageParams & { children: ReactNode }) {
  const { record, person } = await loadJob((await params).id)
  return (
    <Workspace key={record.id} record={record} evaluation={evaluate(record.job)} person={person}>
      {children}
    </Workspace>
  )
}
