import type { Metadata } from 'next'
import { evaluate } from '@/core/assess/evaluate'
import { TestsScreen } from '@/ui/prove/TestsScreen'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: record.job.title }
}

export default async function ProvePage({ params }: JobPageParams) {
  const { record, person } = await loadJob((await params).id)
  return <TestsScreen record={record} evaluation={evaluate(record.job)} person={person} />
}
