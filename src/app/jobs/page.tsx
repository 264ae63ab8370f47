import type { Metadata } from 'next'
import { forPage } from '@/server/http/handle'
import { listJobs, listQuerySchema, pageSize, usualOrder } from '@/server/jobs/list'
import { pageActor } from '@/server/people/actor'
import { JobsScreen } from '@/ui/jobs/JobsScreen'
import { QueryRoot } from '@/ui/query'

export const metadata: Metadata = { title: 'Jobs' }

export default async function JobsPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[]>>
}) {
  const query = listQuerySchema.parse(await searchParams)
  const { actor, rows, total, more } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, ...(await listJobs(actor, query)) }
  })
  const { q, sort, order, page, archived, templates } = query
  return (
    <QueryRoot>
      <JobsScreen
        person={actor.person}
        rows={rows}
        total={total}
        more={more}
        pageSize={pageSize}
        address={{ q, sort, order: order ?? '', page, archived, templates }}
        order={order ?? usualOrder[sort]}
      />
    </QueryRoot>
  )
}
