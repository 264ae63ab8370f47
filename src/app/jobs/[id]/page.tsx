import { redirect } from 'next/navigation'
import type { JobPageParams } from './load'

export default async function JobPage({ params }: JobPageParams) {
  redirect(`/jobs/${(await params).id}/panel`)
}
