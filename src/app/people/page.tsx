import type { Metadata } from 'next'
import { may } from '@/core/firm/roles'
import { forPage } from '@/server/http/handle'
import { pageActor } from '@/server/people/actor'
import { invitationsOf, peopleOf } from '@/server/people/firms'
import { PeopleScreen } from '@/ui/people/PeopleScreen'

export const metadata: Metadata = { title: 'People' }

export default async function PeoplePage() {
  const { actor, people, invitations } = await forPage(async () => {
    const actor = await pageActor()
    const leads = may(actor.role, 'people')
    return {
      actor,
      people: await peopleOf(actor, leads),
      invitations: leads ? await invitationsOf(actor) : [],
    }
  })
  return <PeopleScreen person={actor.person} people={people} invitations={invitations} />
}
