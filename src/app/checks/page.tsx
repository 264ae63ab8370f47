import type { Metadata } from 'next'
import { currentActor } from '@/server/people/actor'
import { ChecksScreen } from '@/ui/checks/ChecksScreen'

export const metadata: Metadata = { title: 'Checks' }

export default async function ChecksPage() {
  const actor = await currentActor()
  return <ChecksScreen person={actor.person} />
}
