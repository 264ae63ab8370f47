import type { Metadata } from 'next'
import { evaluate } from '@/core/assess/evaluate'
import { readWays } from '@/server/parts/repository'
import { FieldScreen } from '@/ui/field/FieldView'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: record.job.title }
}

export default async function FieldPage({ params }: JobPageParams) {
  const { record, actor, person } = await loadJob((await params).id)
  const { minutes } = await readWays(actor)
  return <FieldScreen record={record} evaluation={evaluate(record.job)} person={person} minutes={minutes} />
}
