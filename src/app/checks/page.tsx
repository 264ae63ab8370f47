import type { Metadata } from 'next'
import { pageActor } from '@/server/people/actor'
import { ChecksScreen } from '@/ui/checks/ChecksScreen'

export const metadata: Metadata = { title: 'Checks' }

export default async function ChecksPage() {
  const actor = await pageActor()
  return <ChecksScreen person={actor.person} />
}
