import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { setting } from '@/server/env'
import { ownPath } from '@/server/http/own-path'
import { pageSignedIn } from '@/server/people/actor'
import { SignIn } from '@/ui/people/SignIn'

export const metadata: Metadata = { title: 'Sign in' }

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ next?: string }> }) {
  const next = ownPath((await searchParams).next)
  if ((await pageSignedIn())?.signed) redirect(next)
  return <SignIn next={next} demo={setting('SPILLWAY_DEMO') === 'yes'} />
}
