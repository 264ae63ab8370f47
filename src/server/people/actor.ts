import { headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { pathHeader } from '../http/address'
import { type Acting, admitToPage, admitted, type PageAdmission } from './admission'

/** Who acts in this request: in a route as it was admitted. */
export async function currentActor(): Promise<Acting> {
  const { acting } = admitted()
  if (!acting) throw new Error('this route takes nobody of a firm: it has no actor')
  return acting
}

async function admission(): Promise<{ path: string } & PageAdmission> {
  const asked = await headers()
  const path = asked.get(pathHeader) ?? ''
  return { path, ...(await admitToPage(path.split('?', 1)[0] ?? '', asked)) }
}

/** Who looks at this page; whoever has not signed in is sent to do so, and comes back. */
export async function pageActor(): Promise<Acting> {
  const found = await admission()
  switch (found.to) {
    case 'sign in':
      return redirect(`/sign-in?next=${encodeURIComponent(found.path)}`)
    case 'choose a firm':
      return redirect('/firms')
    case 'second step':
      return redirect('/account')
    case 'refuse':
      return redirect(`/refused?right=${found.right}`)
    case 'show':
      if (!found.acting) throw new Error('this page takes nobody of a firm: it has no actor')
      return found.acting
  }
}

/** Who has signed in, on a page that takes it with a firm or without; null on one that takes anybody. */
export async function pageSignedIn() {
  const found = await admission()
  if (found.to === 'sign in') return redirect(`/sign-in?next=${encodeURIComponent(found.path)}`)
  return found.to === 'show' ? found : null
}
