import type { Metadata } from 'next'
import { ownPath } from '@/server/http/own-path'
import { SignUp } from '@/ui/people/entries'

export const metadata: Metadata = { title: 'Open an account' }

interface Asked {
  searchParams: Promise<{ next?: string; email?: string }>
}

export default async function SignUpPage({ searchParams }: Asked) {
  const { next, email } = await searchParams
  return <SignUp next={ownPath(next)} email={typeof email === 'string' ? email.slice(0, 254) : ''} />
}
