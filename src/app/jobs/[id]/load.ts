import { notFound } from 'next/navigation'
import { cache } from 'react'
import * as z from 'zod'
import { dayIn } from '@/core/day'
import { forPage } from '@/server/http/handle'
import { readJobRecord } from '@/server/jobs/repository'
import { pageActor } from '@/server/people/actor'

/** The job of the address for the person who asks, once per request; the missing screen when there is none. */
export const loadJob = cache(async (id: string) => {
  const { actor, record } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, record: z.uuid().safeParse(id).success ? await readJobRecord(actor, id) : null }
  })
  if (!record) notFound()
  return { record, actor, person: actor.person, today: dayIn(actor.zone, new Date()) }
})

export interface JobPageParams {
  params: Promise<{ id: string }>
}
