import type { Metadata } from 'next'
import * as z from 'zod'
import { dayIn } from '@/core/day'
import { forPage } from '@/server/http/handle'
import { duePageSize, listDue } from '@/server/jobs/due'
import { pageActor } from '@/server/people/actor'
import { DueScreen } from '@/ui/handover/DueScreen'

export const metadata: Metadata = { title: 'What is due' }

const asked = z.object({ page: z.coerce.number().int().min(1).max(100_000).catch(1).default(1) })

/** What is due across the firm's houses. */
export default async function DuePage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[]>>
}) {
  const { page } = asked.parse(await searchParams)
  const { actor, houses, total } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, ...(await listDue(actor, page)) }
  })
  return (
    <DueScreen
      person={actor.person}
      houses={houses}
      page={page}
      pages={Math.max(1, Math.ceil(total / duePageSize))}
      today={dayIn(actor.zone, new Date())}
    />
  )
}
