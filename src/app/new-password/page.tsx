import type { Metadata } from 'next'
import { NewPassword } from '@/ui/people/entries'

// the address holds a secret: no page that is gone to from here hears of it
export const metadata: Metadata = { title: 'Set a new password', referrer: 'no-referrer' }

export default async function NewPasswordPage({
  searchParams,
}: {
  searchParams: Promise<{ token?: string }>
}) {
  return <NewPassword token={String((await searchParams).token ?? '').slice(0, 200)} />
}
