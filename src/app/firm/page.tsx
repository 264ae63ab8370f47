import type { Metadata } from 'next'
import { forPage } from '@/server/http/handle'
import { pageActor } from '@/server/people/actor'
import { settingsOf } from '@/server/people/settings'
import { FirmScreen } from '@/ui/people/FirmScreen'

export const metadata: Metadata = { title: 'Firm' }

export default async function FirmPage() {
  const { actor, kept } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, kept: await settingsOf(actor) }
  })
  return <FirmScreen person={actor.person} {...kept} />
}
