import type { Metadata } from 'next'
import { pageSignedIn } from '@/server/people/actor'
import { openInvitation } from '@/server/people/firms'
import { Join } from '@/ui/people/entries'

export const metadata: Metadata = { title: 'Join a firm', referrer: 'no-referrer' }

export default async function JoinPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const [invited, found] = [await openInvitation(token), await pageSignedIn()]
  return (
    <Join
      token={token}
      invited={invited && { firm: invited.firm, role: invited.role, email: invited.email }}
      email={found?.signed?.user.email ?? null}
    />
  )
}
