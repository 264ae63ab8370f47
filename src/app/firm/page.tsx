import type { Metadata } from 'next'
import { may } from '@/core/firm/roles'
import { forPage } from '@/server/http/handle'
import { pageActor } from '@/server/people/actor'
import { deletedJobs, graceDays } from '@/server/people/erasing'
import { settingsOf } from '@/server/people/settings'
import { FirmScreen } from '@/ui/people/FirmScreen'

export const metadata: Metadata = { title: 'Firm' }

export default async function FirmPage() {
  const { actor, kept } = await forPage(async () => {
    const actor = await pageActor()
    const deleted = may(actor.role, 'firm') ? await deletedJobs(actor) : []
    return { actor, kept: { ...(await settingsOf(actor)), deleted, graceDays } }
  })
  return <FirmScreen person={actor.person} {...kept} />
}
