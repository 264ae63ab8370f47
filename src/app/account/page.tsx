import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { sessionsOf, waysIn } from '@/server/accounts/sessions'
import { forPage } from '@/server/http/handle'
import { pageSignedIn } from '@/server/people/actor'
import { AccountScreen } from '@/ui/people/AccountScreen'

export const metadata: Metadata = { title: 'Your account' }

export default async function AccountPage() {
  const shown = await forPage(async () => {
    const found = await pageSignedIn()
    if (!found?.signed) return null
    const { signed, acting } = found
    const { name, email } = signed.user
    return {
      person: acting?.person ?? null,
      name,
      email,
      zone: acting?.zone ?? 'UTC',
      lacksSecondStep: acting?.lacksSecondStep ?? false,
      sessions: await sessionsOf(signed),
      ways: await waysIn(signed),
    }
  })
  return shown ? <AccountScreen {...shown} /> : redirect('/sign-in')
}
