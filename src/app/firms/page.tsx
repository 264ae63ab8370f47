import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { firmsShown } from '@/server/accounts/sessions'
import { forPage } from '@/server/http/handle'
import { pageSignedIn } from '@/server/people/actor'
import { deletedFirms } from '@/server/people/erasing'
import { invitingFirms } from '@/server/people/firms'
import { FirmsScreen } from '@/ui/people/FirmsScreen'

export const metadata: Metadata = { title: 'Your firms' }

export default async function FirmsPage() {
  const shown = await forPage(async () => {
    const signed = (await pageSignedIn())?.signed
    if (!signed) return null
    const { name, email } = signed.user
    return {
      name,
      email,
      firms: await firmsShown(signed),
      inviting: await invitingFirms(email),
      deleted: await deletedFirms(signed),
    }
  })
  return shown ? <FirmsScreen {...shown} /> : redirect('/sign-in')
}
