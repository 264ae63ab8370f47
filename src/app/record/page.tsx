import type { Metadata } from 'next'
import * as z from 'zod'
import { forPage } from '@/server/http/handle'
import { pageActor } from '@/server/people/actor'
import { aboutText, readRecord, recorded, recordPageSize } from '@/server/people/record'
import { RecordScreen } from '@/ui/people/RecordScreen'

export const metadata: Metadata = { title: 'Record' }

const asked = z.object({
  before: z
    .string()
    .regex(/^\d{1,18}$/)
    .nullable()
    .catch(null)
    .default(null),
})

export default async function RecordPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string>>
}) {
  const { before } = asked.parse(await searchParams)
  const { actor, entries } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, entries: await readRecord(actor, before) }
  })
  const last = entries.length === recordPageSize ? entries.at(-1) : undefined
  return (
    <RecordScreen
      person={actor.person}
      entries={entries.map(e => ({ ...e, what: recorded[e.what] ?? e.what, about: aboutText(e.about) }))}
      older={last ? `/record?before=${last.id}` : null}
      first={before === null}
    />
  )
}
